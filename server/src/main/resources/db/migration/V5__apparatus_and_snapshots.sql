-- Terms of the glossary, references and claims of a study: small objects that are changed one by one.
create table study_entry (
    study_id bigint not null references study on delete cascade,
    kind     text not null check (kind in ('term', 'reference', 'claim')),
    id       text not null,
    position double precision not null,
    body     jsonb not null,
    primary key (study_id, kind, id)
);

-- A study as it was when somebody gave that state a name: the whole study file.
create table snapshot (
    id         bigint generated always as identity primary key,
    study_id   bigint not null references study on delete cascade,
    name       text not null,
    revision   bigint not null,
    account_id bigint not null references account,
    taken_at   timestamptz not null default now(),
    document   text not null,
    unique (study_id, name)
);

create index change_of_set on change (change_set_id);

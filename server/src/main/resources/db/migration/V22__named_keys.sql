-- Keys of a study that somebody gave a name: what for, and what became of it, with the study as it was.
create table study_key (
    id         bigint generated always as identity primary key,
    study_id   bigint not null references study on delete cascade,
    name       text not null,
    request    text not null,
    published  boolean not null default false,
    revision   bigint not null,
    account_id bigint not null references account,
    kept_at    timestamptz not null default now(),
    figures    text not null,
    answer     text not null,
    document   text not null
);

create unique index study_key_name on study_key (study_id, lower(name));

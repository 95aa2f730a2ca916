create table account (
    id            bigint generated always as identity primary key,
    name          text not null unique check (name = lower(name)),
    display_name  text not null,
    password_hash text not null,
    administrator boolean not null default false,
    created_at    timestamptz not null default now()
);

create table study (
    id               bigint generated always as identity primary key,
    slug             text not null unique,
    title            text not null,
    scope            jsonb not null,
    near_but_outside jsonb not null,
    revision         bigint not null default 1,
    created_at       timestamptz not null default now()
);

create table study_member (
    study_id   bigint not null references study on delete cascade,
    account_id bigint not null references account on delete cascade,
    role       text not null check (role in ('VIEWER', 'SCORER', 'EDITOR', 'OWNER')),
    primary key (study_id, account_id)
);

create table study_row (
    study_id bigint not null references study on delete cascade,
    id       text not null,
    position int not null,
    body     jsonb not null,
    primary key (study_id, id)
);

-- The states of a character are part of its body: they are never read or written without it.
create table study_character (
    study_id bigint not null references study on delete cascade,
    id       text not null,
    position int not null,
    body     jsonb not null,
    primary key (study_id, id)
);

create table score (
    study_id     bigint not null,
    row_id       text not null,
    character_id text not null,
    body         jsonb not null,
    revision     bigint not null,
    scorer_id    bigint references account,
    scored_at    timestamptz not null default now(),
    primary key (study_id, row_id, character_id),
    foreign key (study_id, row_id) references study_row (study_id, id) on delete cascade,
    foreign key (study_id, character_id) references study_character (study_id, id) on delete cascade
);

-- When a cell was last changed, also where it is now empty: what an editor saw is compared with this.
create table cell_revision (
    study_id     bigint not null references study on delete cascade,
    row_id       text not null,
    character_id text not null,
    revision     bigint not null,
    account_id   bigint not null references account,
    primary key (study_id, row_id, character_id)
);

create table change_set (
    id         bigint generated always as identity primary key,
    study_id   bigint not null references study on delete cascade,
    revision   bigint not null,
    account_id bigint not null references account,
    kind       text not null check (kind in ('EDIT', 'UNDO', 'REDO', 'SCOPE')),
    reverses   bigint references change_set,
    at         timestamptz not null default now(),
    unique (study_id, revision)
);

create table change (
    change_set_id bigint not null references change_set on delete cascade,
    row_id        text not null,
    character_id  text not null,
    before        jsonb,
    after         jsonb,
    primary key (change_set_id, row_id, character_id)
);

create index change_set_of_study on change_set (study_id, account_id, id desc);

create table edition (
    slug         text not null,
    number       int not null,
    study_id     bigint not null references study,
    hash         text not null,
    document     text not null,
    published_by bigint not null references account,
    published_at timestamptz not null default now(),
    primary key (slug, number)
);

create table edition_status (
    slug   text not null,
    number int not null,
    status text not null check (status in ('CURRENT', 'SUPERSEDED', 'WITHDRAWN')),
    reason text not null default '',
    primary key (slug, number),
    foreign key (slug, number) references edition (slug, number)
);

-- An edition never changes under its readers.
create function refuse_change() returns trigger language plpgsql as $$
begin
    raise exception 'An edition is immutable';
end
$$;

create trigger edition_is_immutable before update or delete on edition
    for each row execute function refuse_change();

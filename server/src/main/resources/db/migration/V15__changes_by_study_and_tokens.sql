-- A change names its study, so that the history of an object is found by the index alone.
drop index change_of_set;
drop index change_of_object;
alter table change add column study_id bigint references study on delete cascade;
update change c set study_id = s.study_id from change_set s where s.id = c.change_set_id;
alter table change alter column study_id set not null;
create index change_of_object on change (study_id, object, change_set_id desc);

create index membership on study_member (account_id);

-- Tokens for scripts. Only their hash is kept; the token itself is shown once.
create table access_token (
    id           bigint generated always as identity primary key,
    account_id   bigint not null references account on delete cascade,
    name         text not null,
    hash         bytea not null unique,
    scope        text not null check (scope in ('READ', 'WRITE')),
    created_at   timestamptz not null default now(),
    last_used_at timestamptz,
    unique (account_id, name)
);

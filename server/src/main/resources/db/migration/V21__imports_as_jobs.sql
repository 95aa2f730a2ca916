-- A job may be of an account alone, before there is a study.
alter table job alter column study_id drop not null;

create index job_of_account on job (account_id, kind) where study_id is null;

-- Files that are being imported, kept while their owner decides how they are read. They are packed already, or read once.
create table upload (
    id         uuid primary key,
    account_id bigint not null references account on delete cascade,
    file_name  text not null,
    bytes      bytea not null,
    looked_at  text not null default '',
    signature  text not null default '',
    used_at    timestamptz not null default now()
);

alter table upload alter column bytes set storage external;

create index upload_of_account on upload (account_id, used_at);

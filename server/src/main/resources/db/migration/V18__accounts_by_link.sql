-- Accounts are invited by a link, and can be switched off. One that was invited has no password until the link is used.
alter table account add column active boolean not null default true;
alter table account alter column password_hash drop not null;

-- Links that set a password once. Only their hash is kept; a new link for the same account ends the one before.
create table account_link (
    account_id bigint primary key references account on delete cascade,
    hash       bytea not null unique,
    expires_at timestamptz not null
);

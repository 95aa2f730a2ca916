-- How somebody last read tables with the same headings.
create table sheet_mapping (
    account_id bigint not null references account on delete cascade,
    signature  text not null,
    mapping    jsonb not null,
    used_at    timestamptz not null default now(),
    primary key (account_id, signature)
);

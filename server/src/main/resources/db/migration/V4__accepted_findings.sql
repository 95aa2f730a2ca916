-- Findings that somebody looked at and meant. The finding itself is computed, never stored.
create table accepted_finding (
    study_id    bigint not null references study on delete cascade,
    finding     text not null,
    reason      text not null,
    account_id  bigint not null references account,
    accepted_at timestamptz not null default now(),
    primary key (study_id, finding)
);

-- How long a rule of thumb is in one person's hands, as they measured it, in mm.
create table rule_of_thumb (
    account_id bigint not null references account on delete cascade,
    rule       text   not null,
    measured   jsonb  not null,
    primary key (account_id, rule)
);

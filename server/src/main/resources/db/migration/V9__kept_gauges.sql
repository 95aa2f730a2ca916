-- What the list of studies shows of each, as worked out at a revision. Derived: may be emptied at any time.
create table study_gauges (
    study_id bigint primary key references study on delete cascade,
    revision bigint not null,
    body     jsonb not null
);

-- The scores of a large study at one revision in one piece, so that it opens at once. Derived from the table score and the
-- change log: may be emptied at any time.
create table score_pack (
    study_id bigint primary key references study on delete cascade,
    revision bigint not null,
    body     bytea not null
);

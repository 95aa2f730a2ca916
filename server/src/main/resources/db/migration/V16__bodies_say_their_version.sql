-- The version of the JSON in which the objects of a study, and their changes, are kept. Older ones are brought up to date when
-- the server starts.
alter table study add column body_version integer not null default 1;
alter table study alter column body_version drop default;

-- Studies that are put away, and those that will be gone: nobody opens the latter, and after a month nothing is left of them.
alter table study add column archived_at timestamptz;
alter table study add column deleted_at timestamptz;

-- They hold more than before, and are worked out again.
delete from study_gauges;

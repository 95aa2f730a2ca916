-- One log for everything in a study that is changed as a whole: cells, rows, characters, scope, outside taxa. An object
-- is named by its key: cell/ROW/CHARACTER, row/ID, character/ID, scope, outside.

-- The revision at which an object got the content that it has now, also where it is gone: what an editor saw is compared
-- with this. Taking a change back brings back the revision of the content before it.
create table object_revision (
    study_id   bigint not null references study on delete cascade,
    object     text not null,
    revision   bigint not null,
    account_id bigint not null references account,
    primary key (study_id, object)
);

insert into object_revision
select study_id, 'cell/' || row_id || '/' || character_id, revision, account_id from cell_revision;

drop table cell_revision;

alter table change rename to cell_change;
alter table cell_change rename constraint change_pkey to cell_change_pkey;

create table change (
    change_set_id   bigint not null references change_set on delete cascade,
    object          text not null,
    revision_before bigint not null,
    before          jsonb,
    after           jsonb,
    primary key (change_set_id, object)
);

insert into change
select change_set_id, 'cell/' || row_id || '/' || character_id, 0, before, after from cell_change;

drop table cell_change;

create index change_of_object on change (object);

-- An undo and the redo after it both name the edit that they are about.
update change_set redo set reverses = undo.reverses from change_set undo where redo.kind = 'REDO' and redo.reverses = undo.id;
delete from change_set where kind = 'SCOPE';
alter table change_set drop constraint change_set_kind_check;
alter table change_set add constraint change_set_kind_check check (kind in ('EDIT', 'UNDO', 'REDO'));

-- Between two neighbours there is always room for a third.
alter table study_row alter column position type double precision;
alter table study_character alter column position type double precision;

-- Pictures by what is in them: the same file is kept once, however many studies and editions show it.
create table picture_content (
    content    text primary key,
    media_type text not null,
    bytes      bytea not null,
    thumbnail  bytea not null
);

-- Which study may show which content. What was shown once stays, so that undo, snapshots and editions find it again.
create table study_picture (
    study_id bigint not null references study on delete cascade,
    content  text not null references picture_content,
    primary key (study_id, content)
);

alter table study_entry drop constraint study_entry_kind_check;
alter table study_entry add constraint study_entry_kind_check
    check (kind in ('term', 'reference', 'claim', 'picture', 'opinion'));

-- Cells that a further scorer scores without seeing what others hold of them. Empty lists mean all.
create table assignment (
    id          bigint generated always as identity primary key,
    study_id    bigint not null references study on delete cascade,
    scorer_id   bigint not null references account,
    rows        jsonb not null,
    characters  jsonb not null,
    note        text not null,
    given_by    bigint not null references account,
    given_at    timestamptz not null default now(),
    finished_at timestamptz
);

create index open_assignment on assignment (study_id, scorer_id) where finished_at is null;

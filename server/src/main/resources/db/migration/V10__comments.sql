-- What members say about cells. Rows and characters may go and come back by undo, so they are not referred to.
create table cell_comment (
    id           bigint generated always as identity primary key,
    study_id     bigint not null references study on delete cascade,
    row_id       text not null,
    character_id text not null,
    account_id   bigint not null references account,
    at           timestamptz not null default now(),
    text         text not null,
    settled_by   bigint references account
);

create index cell_comment_of_study on cell_comment (study_id, id);

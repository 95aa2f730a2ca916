-- Long computations. The answer to a question about a study at a revision is kept a day, so that a link finds it again.
create table job (
    id         uuid primary key,
    kind       text not null,
    study_id   bigint not null references study on delete cascade,
    revision   bigint not null,
    question   text not null,
    account_id bigint not null references account,
    status     text not null default 'QUEUED' check (status in ('QUEUED', 'RUNNING', 'DONE', 'FAILED', 'CANCELLED')),
    progress   double precision not null default 0,
    stopping   boolean not null default false,
    answer     jsonb,
    problem    jsonb,
    created_at timestamptz not null default now(),
    ended_at   timestamptz
);

create index job_of_study on job (study_id, kind, revision);

-- The queue, in the form that db-scheduler prescribes.
create table scheduled_tasks (
    task_name            text not null,
    task_instance        text not null,
    task_data            bytea,
    execution_time       timestamptz not null,
    picked               boolean not null,
    picked_by            text,
    last_success         timestamptz,
    last_failure         timestamptz,
    consecutive_failures int,
    last_heartbeat       timestamptz,
    version              bigint not null,
    priority             smallint,
    primary key (task_name, task_instance)
);

create index scheduled_tasks_execution_time on scheduled_tasks (execution_time);
create index scheduled_tasks_last_heartbeat on scheduled_tasks (last_heartbeat);

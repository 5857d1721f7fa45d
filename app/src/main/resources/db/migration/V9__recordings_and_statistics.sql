-- In the run of a recording: what was recorded beside what happened, as JSON.
create table run_compared (
    run_id bigint primary key references run (id) on delete cascade,
    content clob not null
);

-- How several replications of a run came out, as JSON.
create table run_statistics (
    run_id bigint primary key references run (id) on delete cascade,
    content clob not null
);

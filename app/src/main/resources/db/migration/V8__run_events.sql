-- What happened in a run: its events and what waited at its end.
create table run_happened (
    run_id bigint primary key references run (id) on delete cascade,
    content blob not null
);

-- Up to which revision somebody has seen a branch: at the visit before this one, and by now.
create table visit (
    person_id    bigint                      not null references person,
    branch_id    bigint                      not null references branch,
    before_number int                        not null,
    seen_number  int                         not null,
    seen_at      timestamp(6) with time zone not null,
    primary key (person_id, branch_id)
);

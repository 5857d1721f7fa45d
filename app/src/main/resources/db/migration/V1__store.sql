create table person (
    id            bigint generated always as identity primary key,
    sign_in       varchar(60)  not null unique,
    name          varchar(120) not null,
    password_hash varchar(200) not null,
    role          varchar(20)  not null
);

create table project (
    id   bigint generated always as identity primary key,
    slug varchar(60)  not null unique,
    name varchar(200) not null
);

create table branch (
    id         bigint generated always as identity primary key,
    project_id bigint       not null references project,
    slug       varchar(60)  not null,
    name       varchar(200) not null,
    head       int          not null,
    unique (project_id, slug)
);

create table revision (
    branch_id bigint                      not null references branch,
    number    int                         not null,
    person_id bigint                      not null references person,
    at        timestamp(6) with time zone not null,
    summary   varchar(1000)               not null,
    act       varchar(10)                 not null,
    of_number int                         not null,
    primary key (branch_id, number)
);

-- One row for each state an element was in: written by revision from_number, replaced or removed by to_number.
-- A revision's changes are the rows that begin or end with it; the model at a revision is the rows that span it.
create table element_version (
    branch_id   bigint         not null references branch,
    element_id  uuid           not null,
    from_number int            not null,
    to_number   int,
    content     varchar(1000000) not null,
    primary key (branch_id, element_id, from_number)
);
create index element_version_live on element_version (branch_id, to_number);
create index element_version_from on element_version (branch_id, from_number);

create table run (
    id              bigint generated always as identity primary key,
    branch_id       bigint                      not null references branch,
    case_id         uuid                        not null,
    case_name       varchar(500)                not null,
    revision_number int                         not null,
    person_id       bigint                      not null references person,
    started_at      timestamp(6) with time zone not null,
    ended_at        timestamp(6) with time zone,
    status          varchar(20)                 not null,
    message         varchar(4000)               not null,
    fingerprint     clob                        not null
);
create index run_of_case on run (branch_id, case_id);

-- Position 0 is time in s. Values are doubles, little end first, deflated.
create table run_series (
    run_id     bigint       not null references run,
    position   int          not null,
    path       varchar(500) not null,
    element_id uuid,
    unit       varchar(60)  not null,
    content    blob         not null,
    primary key (run_id, position)
);

create table verdict (
    id              bigint generated always as identity primary key,
    run_id          bigint         not null references run,
    requirement_id  uuid           not null,
    subject         varchar(500)   not null,
    verdict         varchar(20)    not null,
    margin          double precision,
    unit            varchar(60),
    worst_instant   double precision,
    first_violation double precision,
    reason          varchar(4000)  not null,
    exhibit         clob           not null,
    fingerprint     clob           not null
);
create index verdict_of_requirement on verdict (requirement_id, id);

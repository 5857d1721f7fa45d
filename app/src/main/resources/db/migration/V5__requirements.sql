-- The largest number that an id with a prefix was ever given in a project, so that no number is given twice.
create table requirement_number (
    project_id bigint       not null references project,
    prefix     varchar(200) not null,
    highest    int          not null,
    primary key (project_id, prefix)
);

-- Revisions that have a name: what was agreed, delivered or reviewed then.
create table baseline (
    id        bigint generated always as identity primary key,
    branch_id bigint                      not null references branch,
    number    int                         not null,
    name      varchar(200)                not null,
    note      varchar(2000)               not null,
    person_id bigint                      not null references person,
    at        timestamp(6) with time zone not null,
    unique (branch_id, name)
);

-- Files that elements refer to. They are given back as downloads; pictures may stand in texts.
create table attachment (
    id        uuid                        not null primary key,
    branch_id bigint                      not null references branch,
    name      varchar(200)                not null,
    type      varchar(40)                 not null,
    content   blob                        not null,
    person_id bigint                      not null references person,
    at        timestamp(6) with time zone not null
);

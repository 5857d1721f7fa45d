-- Somebody who left keeps their name on what they did, but signs in no more.
alter table person add column active boolean default true not null;

-- Signing in and administration: who did what about whom, and from where.
create table audit (
    id      bigint generated always as identity primary key,
    at      timestamp(6) with time zone not null,
    sign_in varchar(60)  not null,
    act     varchar(30)  not null,
    about   varchar(500) not null,
    address varchar(60)  not null
);

-- Lets a script act as a person. Only the hash is kept (SHA-256 of 32 random bytes; nothing to guess, so no salt).
create table access_token (
    id         bigint generated always as identity primary key,
    person_id  bigint                      not null references person,
    name       varchar(120)                not null,
    hash       char(64)                    not null unique,
    created_at timestamp(6) with time zone not null,
    expires_at timestamp(6) with time zone not null,
    used_at    timestamp(6) with time zone
);

-- Names that stay what they are when projects, branches and revisions are exchanged with other programs.
alter table project add column uuid uuid default random_uuid() not null;
alter table branch add column uuid uuid default random_uuid() not null;
alter table revision add column uuid uuid default random_uuid() not null;
create unique index project_uuid on project (uuid);
create unique index branch_uuid on branch (uuid);
create unique index revision_uuid on revision (uuid);

-- All elements of a branch as they were after revision number, in one piece: loading begins with it and adds what changed since.
-- It says nothing that element_version does not say, and may be deleted at any time; what rewrites rows there must delete it.
create table checkpoint (
    branch_id bigint primary key references branch,
    number    int  not null,
    content   blob not null
);

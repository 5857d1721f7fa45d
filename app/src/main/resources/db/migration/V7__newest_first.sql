-- The newest of a branch are read by an index from its end, whatever the number of those before.
create index revision_by_person on revision (branch_id, person_id, number);
create index run_by_branch on run (branch_id, id);

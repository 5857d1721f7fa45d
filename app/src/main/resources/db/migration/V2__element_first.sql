-- To find the rows of some elements: with the branch first, the planner takes element_version_live and reads the whole branch.
create index element_version_of on element_version (element_id, branch_id, to_number);

-- The list of all work asks for the newest of each kind, and which outputs a run made.
create index on run (created_at);
create index on run (job_id);
create index on output (created_at);

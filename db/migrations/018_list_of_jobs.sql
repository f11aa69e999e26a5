-- The list of jobs is found, ordered and counted by what its summaries say, without reading them.
create collation by_number (provider = icu, locale = 'und-u-kn-true');
alter table job
  add column title text not null generated always as (coalesce(summary->>'title', '')) stored,
  add column pages integer not null generated always as (coalesce((summary->>'pages')::integer, 0)) stored,
  add column stops integer not null generated always as (coalesce((summary->'open'->>'stop')::integer, 0)) stored,
  add column looks integer not null generated always as (coalesce((summary->'open'->>'look')::integer, 0)) stored,
  -- What a job is found by, in small letters and all languages. Null until Folder has said it: no SQL knows the names of sizes.
  add column found_by text;
create index on job (changed_at desc, id);
create index on job (title);
create index on job (title collate by_number, id);
create index on job (pages desc, changed_at desc, id);
create index on job (stops desc, looks desc, changed_at desc, id);
create index on job (id) where found_by is null;

-- What is drawn on a source's pages is measured after the survey, in its own time; it then stands in the survey.
alter table source
  add column measure text not null default 'waiting' check (measure in ('waiting', 'measuring', 'done', 'failed')),
  -- The worker that measures says every few seconds that it still does; silence means that it died.
  add column measure_seen_at timestamptz;
create index on source (measure) where measure in ('waiting', 'measuring');

-- Sizes that the preparer named, for every job. Lengths in points.
create table own_size (
  name text primary key,
  width double precision not null,
  height double precision not null
);
create unique index on own_size (lower(name));

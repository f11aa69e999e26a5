-- Files are stored once per SHA-256, in chunks; a blob whose sha256 is null is still arriving (in an open transaction).
create table blob (
  id bigint generated always as identity primary key,
  sha256 text unique,
  size bigint not null default 0
);
create table blob_chunk (
  blob_id bigint not null references blob on delete cascade,
  n integer not null,
  bytes bytea not null,
  primary key (blob_id, n)
);
alter table blob_chunk alter column bytes set storage external;

-- A source is a file whose survey is known.
create table source (
  sha256 text primary key,
  blob_id bigint not null references blob,
  survey json not null,
  taken_at timestamptz not null default now()
);

create table job (
  id uuid primary key default gen_random_uuid(),
  revision integer not null default 1,
  at_seq integer not null default 0,
  summary json not null,
  created_at timestamptz not null default now(),
  changed_at timestamptz not null default now()
);

-- Every state of the docket that undo and redo walk; states past job.at_seq are those that redo can reach.
create table docket_state (
  job_id uuid not null references job on delete cascade,
  seq integer not null,
  docket json not null,
  primary key (job_id, seq)
);

-- Every source that any state of the job's docket ever took in.
create table job_source (
  job_id uuid not null references job on delete cascade,
  sha256 text not null references source,
  primary key (job_id, sha256)
);
create index on job_source (sha256);

-- A file on its way in.
create table intake (
  id uuid primary key default gen_random_uuid(),
  job_id uuid not null references job on delete cascade,
  arrival bigint generated always as identity,
  name text not null,
  place json not null,
  state text not null check (state in ('surveying', 'surveyed', 'done', 'failed')),
  blob_id bigint references blob,
  done integer not null default 0,
  total integer not null default 0,
  trouble json,
  -- The worker that surveys it says every few seconds that it still does; silence means that it died.
  seen_at timestamptz not null default now(),
  created_at timestamptz not null default now()
);
create index on intake (job_id, arrival);

create table output (
  id uuid primary key default gen_random_uuid(),
  job_id uuid not null references job on delete cascade,
  spec json not null,
  docket json not null,
  file_name text not null,
  state text not null check (state in ('waiting', 'making', 'done', 'failed', 'cancelled')),
  done integer not null default 0,
  total integer not null default 0,
  blob_id bigint references blob,
  trouble json,
  -- The worker that makes it says every few seconds that it still does; silence means that it died.
  seen_at timestamptz,
  created_at timestamptz not null default now(),
  finished_at timestamptz
);
create index on output (job_id, created_at);

-- Small pictures of source pages, for lists.
create table picture (
  sha256 text not null references source on delete cascade,
  page integer not null,
  png bytea not null,
  primary key (sha256, page)
);

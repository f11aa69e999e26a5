-- Steps kept under a name, to be replayed; saved again under its name a recipe counts its versions.
create table recipe (
  name text primary key,
  version integer not null default 1,
  recipe json not null,
  changed_at timestamptz not null default now()
);
create unique index on recipe (lower(name));
-- Files that a recipe brings along.
create table recipe_source (
  name text not null references recipe on delete cascade on update cascade,
  sha256 text not null references source,
  primary key (name, sha256)
);
create index on recipe_source (sha256);

-- A directory under the root of drop folders, whose files are worked by a recipe.
create table drop_folder (
  id uuid primary key default gen_random_uuid(),
  name text not null,
  recipe text not null,
  vals json not null default '{}',
  paused boolean not null default false,
  trouble json,
  looked_at timestamptz,
  -- Every so many seconds the scanner stand-in delivers something here.
  scan_every integer,
  scanned_at timestamptz,
  created_at timestamptz not null default now()
);
create unique index on drop_folder (lower(name));

-- A recipe carried out on one file, which came through a drop folder or in a batch.
create table run (
  id uuid primary key default gen_random_uuid(),
  recipe json not null,
  vals json not null,
  folder_id uuid references drop_folder on delete set null,
  batch uuid,
  file_name text not null,
  blob_id bigint references blob,
  state text not null check (state in ('waiting', 'working', 'done', 'failed', 'cancelled')),
  -- Who works at it now: a worker that comes back after it was given up is told apart.
  claim uuid,
  doing text,
  done integer not null default 0,
  total integer not null default 0,
  job_id uuid references job on delete set null,
  findings json,
  trouble json,
  seen_at timestamptz,
  created_at timestamptz not null default now(),
  finished_at timestamptz
);
create index on run (folder_id, created_at);
create index on run (batch);
create index on run (state) where state in ('waiting', 'working');
create index on run (blob_id);

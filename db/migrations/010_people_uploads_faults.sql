-- Who did it, where people sign in.
alter table docket_state add column by text;
alter table output add column by text;
alter table intake add column by text, add column sha256 text;
alter table run add column by text;
alter table recipe add column by text;

-- Files arrive in their own time, over as many requests as it takes. What stopped arriving is deleted after a day.
alter table blob
  add column chunks integer not null default 0,
  add column touched_at timestamptz not null default now();
create table upload (
  id uuid primary key,
  blob_id bigint not null references blob on delete cascade,
  length bigint not null,
  created_at timestamptz not null default now()
);
create index on upload (blob_id);

-- What went wrong and nobody foresaw, for whoever runs Folder.
create table fault (
  id bigint generated always as identity primary key,
  at timestamptz not null default now(),
  part text not null,
  what text not null,
  reason text not null,
  stack text not null
);

-- The workers that are at work, each heard of every few seconds.
create table worker (
  id uuid primary key,
  host text not null,
  pid integer not null,
  started_at timestamptz not null default now(),
  seen_at timestamptz not null default now()
);

-- Who has a job open, in which window: heard of every second. Not worth a crash's while.
create unlogged table presence (
  job_id uuid not null,
  "window" uuid not null,
  person text,
  doing text,
  seen_at timestamptz not null default now(),
  primary key (job_id, "window")
);

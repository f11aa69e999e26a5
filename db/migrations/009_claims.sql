-- One way in which long work is claimed, for every kind of it: intake (a file to be surveyed), measure, output, run.
-- state: waiting, working, then how it ended. Whoever works at a piece holds its token; a result is written only under it.

alter table intake drop constraint intake_state_check;
update intake set state = 'waiting' where state = 'surveying';
alter table intake
  add constraint intake_state_check check (state in ('waiting', 'working', 'surveyed', 'done', 'failed')),
  add column token uuid,
  add column tries integer not null default 0,
  add column not_before timestamptz not null default now(),
  add column doing text,
  add column finished_at timestamptz,
  alter column seen_at drop not null,
  alter column seen_at drop default;
create index on intake (state) where state in ('waiting', 'working');

alter table output drop constraint output_state_check;
update output set state = 'waiting' where state = 'making';
alter table output
  add constraint output_state_check check (state in ('waiting', 'working', 'done', 'failed', 'cancelled')),
  add column token uuid,
  add column tries integer not null default 0,
  add column not_before timestamptz not null default now(),
  drop constraint output_doing_check,
  alter column doing drop not null,
  alter column doing drop default;
create index on output (state) where state in ('waiting', 'working');

update run set state = 'waiting' where state = 'working';
alter table run rename column claim to token;
alter table run
  add column tries integer not null default 0,
  add column not_before timestamptz not null default now();

-- What is drawn on a source's pages is measured after the survey, in its own time; it then stands in the survey.
create table measure (
  id text primary key references source on delete cascade,
  state text not null check (state in ('waiting', 'working', 'done', 'failed')),
  token uuid,
  tries integer not null default 0,
  not_before timestamptz not null default now(),
  seen_at timestamptz,
  doing text,
  done integer not null default 0,
  total integer not null default 0,
  trouble json,
  created_at timestamptz not null default now(),
  finished_at timestamptz
);
create index on measure (state) where state in ('waiting', 'working');
insert into measure (id, state, created_at)
  select sha256, case measure when 'measuring' then 'waiting' else measure end, taken_at from source;
alter table source drop column measure, drop column measure_seen_at;

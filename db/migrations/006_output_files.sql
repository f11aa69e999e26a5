-- An output is one file or more; facts are what is known of each besides its name (how many pages it has, which).
create table output_file (
  output_id uuid not null references output on delete cascade,
  n integer not null,
  name text not null,
  facts json not null,
  blob_id bigint not null references blob,
  primary key (output_id, n)
);
create index on output_file (blob_id);
insert into output_file (output_id, n, name, facts, blob_id)
  select id, 0, file_name, '{}', blob_id from output where blob_id is not null;
alter table output drop column blob_id;
-- Why it goes out though findings say stop.
alter table output add column despite text;
-- What is being done to it now.
alter table output add column doing text not null default 'writing' check (doing in ('writing', 'checking'));

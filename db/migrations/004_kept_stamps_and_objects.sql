-- Stamps that the preparer kept, for every job: a file and how it is put on pages.
create table own_stamp (
  name text primary key,
  settings json not null,
  sha256 text not null references source
);
create unique index on own_stamp (lower(name));
create index on own_stamp (sha256);

-- What stands on a page by itself is measured too by now: sources that were measured before are measured again.
update source set measure = 'waiting';

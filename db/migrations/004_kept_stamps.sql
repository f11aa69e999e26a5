-- Stamps that the preparer kept, for every job: a file and how it is put on pages.
create table own_stamp (
  name text primary key,
  settings json not null,
  sha256 text not null references source
);
create unique index on own_stamp (lower(name));
create index on own_stamp (sha256);

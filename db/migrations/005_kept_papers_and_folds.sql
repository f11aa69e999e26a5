-- What the preparer keeps under a name for every job besides sizes and stamps: papers, and folds of their own.
create table kept (
  kind text not null check (kind in ('paper', 'folds')),
  name text not null,
  settings json not null
);
create unique index on kept (kind, lower(name));

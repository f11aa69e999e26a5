-- People who may sign in, where Folder is reached from other machines. Passwords are kept as scrypt makes them (RFC 7914).
create table person (
  name text primary key,
  password text not null,
  created_at timestamptz not null default now()
);
create unique index on person (lower(name));

-- What a browser has is a random token; what is kept here is its SHA-256, so that nobody who reads this can use it.
create table session (
  token_sha256 text primary key,
  person text not null references person on delete cascade on update cascade,
  created_at timestamptz not null default now(),
  seen_at timestamptz not null default now()
);
create index on session (person);

-- Attempts that failed, for as long as they slow the next ones down.
create table sign_in_failure (
  id bigint generated always as identity primary key,
  name text not null,
  address text not null,
  at timestamptz not null default now()
);
create index on sign_in_failure (at);

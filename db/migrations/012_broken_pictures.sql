-- A page that could not be drawn is not drawn again at each look: what went wrong stands in the place of its picture.
alter table picture
  alter column png drop not null,
  add column trouble json,
  add column tried_at timestamptz not null default now();

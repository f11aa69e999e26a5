-- The password with which a file is opened, while it is surveyed: put away as soon as it is.
alter table intake add column password text;

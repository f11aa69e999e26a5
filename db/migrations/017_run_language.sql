-- In which language a run, or its drop folder, was set up: what it writes for people is written in it.
alter table run add column language text not null default 'en';
alter table drop_folder add column language text not null default 'en';

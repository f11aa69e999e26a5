-- In which language an output was ordered: what is written for people, as a job ticket, is written in it.
alter table output add column language text not null default 'en';

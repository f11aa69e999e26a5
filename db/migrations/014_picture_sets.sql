-- Sets of pictures in a drop folder that wait for more of them: the name of each and what is missing.
alter table drop_folder add column sets jsonb;

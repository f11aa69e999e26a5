-- Workers need not ask again and again: they are told, when it is committed, that something waits for them, or that somebody came.
create function wake() returns trigger language plpgsql as $$
begin
  perform pg_notify('folder_work', tg_argv[0]);
  return null;
end $$;
create trigger wake_for_run after insert or update of state on run for each row when (new.state = 'waiting')
  execute function wake('run');
create trigger wake_for_folder after insert or update of paused, scan_every on drop_folder for each row
  execute function wake('folder');
create trigger wake_for_person after insert on presence for each row execute function wake('person');

-- Windows that look at a job are told at once, when it is committed, that it has changed or that its files are further on.
create function tell_of_job() returns trigger language plpgsql as $$
begin
  perform pg_notify('folder_job', case tg_op when 'DELETE' then old.job_id else new.job_id end::text);
  return null;
end $$;
create trigger tell_of_output after insert or delete or update of state, doing, done, total on output for each row
  execute function tell_of_job();
create trigger tell_of_intake after insert or delete or update of state, done, total on intake for each row
  execute function tell_of_job();
create function tell_of_revision() returns trigger language plpgsql as $$
begin
  perform pg_notify('folder_job', new.id::text);
  return null;
end $$;
create trigger tell_of_revision after update of revision on job for each row execute function tell_of_revision();

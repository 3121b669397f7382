-- Everything that waits for something outside: claimed by a lease, worked on outside any
-- transaction, its outcome written afterwards. What a job is about has a row of the same id.
create table jobs (
  id uuid primary key,
  kind text not null,
  state text not null default 'waiting' check (state in ('waiting', 'stopped', 'done')),
  tries integer not null default 0,
  problem text,
  due_at timestamptz not null default now(),
  lease uuid,
  leased_until timestamptz,
  made_at timestamptz not null default now(),
  done_at timestamptz
);
create index jobs_due on jobs (due_at) where state = 'waiting';
insert into jobs (id, kind, state, tries, problem, due_at, made_at, done_at)
  select id, 'send', case state when 'sent' then 'done' else 'waiting' end, tries, problem,
    next_try, made_at, sent_at from sendings;
alter table sendings
  drop column state, drop column tries, drop column problem, drop column next_try,
  drop column made_at, drop column sent_at,
  -- The name that was being written when the answer was lost.
  add column trying text,
  add constraint sendings_job foreign key (id) references jobs (id) on delete cascade;
create function drop_job() returns trigger language plpgsql as $$
begin
  delete from jobs where id = old.id;
  return null;
end $$;
create trigger sendings_drop_job after delete on sendings for each row execute function drop_job();
create index sendings_shot on sendings (shot_id);
create index sendings_remote on sendings (remote_id);
create index copies_folder on copies (folder_id);
create index copies_unconfirmed on copies (id) where not confirmed;
-- How a remote folder keeps a file from being overwritten; null while that was not tried yet.
alter table remotes
  add column guard text check (guard in ('header', 'move', 'none')),
  add column sealed boolean not null default false;

-- Web pages that are taken by their addresses; each has a job of the same id.
create table pages (
  id uuid primary key,
  -- The id that the shot gets, so that it is stored once.
  shot_id uuid not null,
  -- What is asked for; null once that has ended: the address then stands in the shot alone.
  wish jsonb,
  code text,
  said jsonb not null default '[]',
  made_at timestamptz not null default now()
);
create trigger pages_drop_job after delete on pages for each row execute function drop_job();

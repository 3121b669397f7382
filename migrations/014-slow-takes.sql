-- Takes that may go on for longer than whoever asks waits: web pages, and what is scrolled. Each has
-- a job of the same id.
create table slow_takes (
  id uuid primary key,
  -- The id that the shot gets, so that it is stored once.
  shot_id uuid not null,
  -- What is asked for; null once that has ended: an address then stands in the shot alone.
  wish jsonb,
  begun_at timestamptz,
  code text,
  -- Of the answer that tells why there is none.
  status int,
  said jsonb not null default '[]',
  made_at timestamptz not null default now()
);
create trigger slow_takes_drop_job after delete on slow_takes for each row execute function drop_job();

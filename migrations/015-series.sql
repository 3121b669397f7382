-- Takes by the clock, while nobody is there.
create table series (
  id uuid primary key,
  name text not null,
  what jsonb not null,
  times jsonb not null,
  only_changed jsonb,
  then_steps jsonb not null default '[]',
  pattern text not null,
  most_shots int not null,
  most_megabytes int not null,
  state text not null default 'running' check (state in ('running', 'paused', 'ended')),
  -- Why it ended by itself.
  why text,
  due_at timestamptz,
  -- The last time that was dealt with.
  last_at timestamptz,
  -- Grows where the clock is set back: the same times come once more.
  round int not null default 0,
  -- The number of its last shot.
  number int not null default 0,
  taken int not null default 0,
  unchanged int not null default 0,
  missed int not null default 0,
  bytes bigint not null default 0,
  made_at timestamptz not null default now()
);
-- What a person took last.
create index shots_by_hand on shots (taken_at desc, id desc)
  where binned_at is null and not (provenance ? 'series');
create index series_due on series (due_at) where state = 'running';

-- What became of its times. What is due has a job of the same id.
create table series_times (
  id uuid primary key,
  series_id uuid not null references series (id) on delete cascade,
  -- The id that its shot gets, so that it is stored once.
  shot_id uuid not null,
  round int not null,
  at timestamptz not null,
  -- Of several that were missed one after the other: the last of them, and how many.
  until timestamptz not null,
  count int not null default 1,
  -- On which day of the series' time zone.
  day date not null,
  outcome text not null check (outcome in ('due', 'taken', 'unchanged', 'missed', 'noted')),
  by_hand boolean not null default false,
  -- Of a shared screen or a camera: until then a page is at it.
  claimed_until timestamptz,
  why text
);
-- No time is dealt with twice.
create unique index series_times_once on series_times (series_id, round, at)
  where outcome <> 'noted' and not by_hand;
create index series_times_at on series_times (series_id, at);
create index series_times_taken on series_times (series_id, at) where outcome = 'taken';
create index series_times_due on series_times (series_id) where outcome = 'due';
create trigger series_times_drop_job after delete on series_times
  for each row execute function drop_job();

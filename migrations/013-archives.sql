-- Everything out and in again. What is written into a folder or brought in has a job of the same id.
create table archives (
  id uuid primary key,
  direction text not null check (direction in ('out', 'in')),
  -- Where the file lies, or the name under which it was handed out or came.
  path text not null,
  folder_id uuid references folders (id) on delete set null,
  query text not null default '',
  -- Begun by the plan, not by hand.
  planned boolean not null default false,
  -- The shots in one of what a search matched; null in one of all that were here when it was begun.
  shows uuid[],
  bytes bigint,
  report jsonb,
  began_at timestamptz not null default now(),
  ended_at timestamptz
);
create index archives_by_time on archives (began_at desc);
create index archives_showing on archives using gin (shows);
create trigger archives_drop_job after delete on archives
  for each row execute function drop_job();
create table archive_plan (
  id boolean primary key default true check (id),
  folder_id uuid not null references folders (id) on delete cascade,
  every text not null check (every in ('day', 'week', 'month')),
  -- So many of those it wrote are left; null leaves all.
  keep integer check (keep > 0)
);
-- Came in with an archive, and does nothing until a person has looked at it.
alter table folders add column unconfirmed boolean not null default false;
alter table remotes add column unconfirmed boolean not null default false;
alter table routines add column unconfirmed boolean not null default false;
-- Equal frames are stored once.
create index frames_by_sha256 on frames (sha256);

-- Folders on other machines, reached over WebDAV.
create table remotes (
  id uuid primary key,
  name text not null,
  url text not null,
  username text not null,
  password text not null,
  format text not null,
  quality integer not null,
  options jsonb not null default '{}',
  size jsonb not null default '{}',
  facts jsonb not null,
  pattern text not null,
  -- The stand-in that ships with the app, started with it.
  practice boolean not null default false,
  created_at timestamptz not null default now()
);
-- Copies on their way to a remote folder; the bytes wait here until they arrived.
create table sendings (
  id uuid primary key,
  shot_id uuid not null references shots (id) on delete cascade,
  remote_id uuid not null references remotes (id) on delete cascade,
  name text not null,
  media_type text not null,
  bytes bytea,
  size bigint not null,
  state text not null default 'waiting' check (state in ('waiting', 'sent')),
  tries integer not null default 0,
  problem text,
  next_try timestamptz not null default now(),
  made_at timestamptz not null default now(),
  sent_at timestamptz
);
alter table sendings alter column bytes set storage external;
create index sendings_waiting on sendings (next_try) where state = 'waiting';

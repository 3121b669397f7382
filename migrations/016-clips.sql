-- What is being recorded. What comes lies in a file of its own; how much of it counts stands here.
create table recordings (
  -- Also of the job that makes a clip of it, once it has ended or is silent.
  id uuid primary key,
  shot_id uuid not null unique,
  title text,
  provenance jsonb not null,
  type text not null,
  state text not null default 'going' check (state in ('going', 'ended')),
  pieces int not null default 0,
  bytes bigint not null default 0,
  -- SHA-256 of the last piece, for one that comes again.
  last_sha256 text,
  to_bin boolean not null default false,
  began_at timestamptz not null default now(),
  last_at timestamptz not null default now()
);
create trigger recordings_drop_job after delete on recordings
  for each row execute function drop_job();

-- A shot whose frame is the first picture of a film, which lies in a file.
create table clips (
  -- Also of the job that looks through it.
  id uuid not null unique,
  shot_id uuid primary key references shots (id) on delete cascade,
  file text not null,
  type text not null,
  bytes bigint not null,
  sha256 text not null,
  width int not null,
  height int not null,
  codec text not null,
  fine_colours boolean not null,
  -- When each picture comes, millionths of a second from the start.
  times int[] not null,
  changes int[],
  cuts jsonb not null default '{"away": []}',
  revision int not null default 1
);
create trigger clips_drop_job after delete on clips for each row execute function drop_job();

-- Files that are written of clips.
create table clip_writings (
  id uuid primary key,
  shot_id uuid not null references clips (shot_id) on delete cascade,
  wish jsonb not null,
  copy_id uuid,
  bytes bigint,
  made_at timestamptz not null default now()
);
create trigger clip_writings_drop_job after delete on clip_writings
  for each row execute function drop_job();

-- Frames never change. `bytes` is a PNG; `original` is what was opened, when that was another file.
create table frames (
  id uuid primary key,
  sha256 text not null,
  width integer not null check (width > 0),
  height integer not null check (height > 0),
  -- True when no pixel is transparent, so painting and encoding need not look again.
  opaque boolean not null,
  bytes bytea not null,
  original bytea,
  original_type text,
  created_at timestamptz not null default now()
);
-- Compressed already: another attempt would only cost time.
alter table frames alter column bytes set storage external;
alter table frames alter column original set storage external;

create table shots (
  id uuid primary key,
  frame_id uuid not null references frames (id),
  title text not null,
  document jsonb not null,
  revision integer not null default 1,
  step_position integer not null default 0,
  provenance jsonb not null,
  taken_at timestamptz not null,
  created_at timestamptz not null default now(),
  changed_at timestamptz not null default now(),
  binned_at timestamptz
);
create index shots_by_time on shots (taken_at desc, id desc) where binned_at is null;
create index shots_in_bin on shots (taken_at desc, id desc) where binned_at is not null;
create index shots_of_frame on shots (frame_id);

create table steps (
  shot_id uuid not null references shots (id) on delete cascade,
  position integer not null,
  step jsonb not null,
  primary key (shot_id, position)
);

create table thumbnails (
  shot_id uuid primary key references shots (id) on delete cascade,
  revision integer not null,
  bytes bytea not null
);

create table folders (
  id uuid primary key,
  name text not null,
  path text not null,
  format text not null,
  quality integer not null,
  pattern text not null,
  is_default boolean not null default false,
  next_number integer not null default 1,
  created_at timestamptz not null default now()
);
create unique index one_default_folder on folders (is_default) where is_default;

-- A row is written before its file is linked into place and confirmed after, so that a start-up
-- check can tell what a crash left between the two.
create table copies (
  id uuid primary key,
  shot_id uuid not null references shots (id) on delete cascade,
  folder_id uuid references folders (id) on delete set null,
  path text not null,
  part_path text not null,
  format text not null,
  bytes bigint not null,
  sha256 text not null,
  confirmed boolean not null default false,
  kept_at timestamptz not null default now()
);
create index copies_of_shot on copies (shot_id, kept_at desc);

create table settings (
  id boolean primary key default true check (id),
  value jsonb not null
);

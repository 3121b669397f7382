-- Addresses under which others see a shot as it leaves. The token is all that lets somebody in.
create table links (
  id uuid primary key,
  shot_id uuid not null references shots (id) on delete cascade,
  token text not null unique,
  -- The flattened picture as it was when the link was made.
  bytes bytea not null,
  width integer not null,
  height integer not null,
  title text not null,
  description text not null,
  views integer not null default 0,
  made_at timestamptz not null default now(),
  ends_at timestamptz,
  most_views integer
);
alter table links alter column bytes set storage external;
create index links_of_shot on links (shot_id, made_at desc);

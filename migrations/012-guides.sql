-- Shots in an order, with what is said of them.
create table guides (
  id uuid primary key,
  title text not null,
  revision integer not null default 1,
  guide jsonb not null,
  made_at timestamptz not null default now(),
  changed_at timestamptz not null default now()
);
create index guides_by_change on guides (changed_at desc);
-- A link shows one picture, or a guide as a page.
alter table links alter column shot_id drop not null;
alter table links add column guide_id uuid references guides (id) on delete cascade;
-- The shots that such a page shows: where one of them is erased, the link ends with it.
alter table links add column shows uuid[] not null default '{}';
alter table links add constraint links_show_one check ((shot_id is null) <> (guide_id is null));
create index links_of_guide on links (guide_id, made_at desc);
create index links_showing on links using gin (shows);
-- Where guides were kept, and which shots they show there.
create table guide_files (
  id uuid primary key,
  path text not null,
  shows uuid[] not null,
  kept_at timestamptz not null default now()
);
create index guide_files_showing on guide_files using gin (shows);

-- A folder's own rules for what is kept in it.
alter table folders
  add column options jsonb not null default '{}',
  add column size jsonb not null default '{}',
  add column max_bytes bigint,
  add column facts jsonb not null default '{"words": true, "origin": false}';

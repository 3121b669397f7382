-- A number in names counts on in its folder, or for its pattern wherever that is used.
alter table folders
  add column number_by text not null default 'folder' check (number_by in ('folder', 'pattern'));
create table pattern_numbers (
  pattern text primary key,
  next_number integer not null default 1
);
alter table remotes add column max_bytes bigint;
-- A link that has ended stays so, even when the clock is set back.
alter table links add column ended boolean not null default false;

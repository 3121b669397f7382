-- Every way in which a clip was cut, for undo: 1 is the first change of one that was whole.
create table clip_steps (
  shot_id uuid not null references clips (shot_id) on delete cascade,
  position int not null check (position > 0),
  cuts jsonb not null,
  primary key (shot_id, position)
);
-- Which of them it is cut by; 0 for the whole.
alter table clips add column step int not null default 0;
insert into clip_steps select shot_id, 1, cuts from clips where cuts <> '{"away": []}';
update clips set step = 1 where cuts <> '{"away": []}';

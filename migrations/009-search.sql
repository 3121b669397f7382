-- In PostgreSQL's own package: what lies within words, and words that are spelled alike.
create extension if not exists pg_trgm;

create table tags (
  id uuid primary key,
  name text not null,
  -- As names are compared: case and accents do not count.
  folded text not null unique,
  colour text not null,
  made_at timestamptz not null default now()
);
create table shot_tags (
  shot_id uuid not null references shots (id) on delete cascade,
  tag_id uuid not null references tags (id) on delete cascade,
  primary key (shot_id, tag_id)
);
create index shots_of_tag on shot_tags (tag_id, shot_id);

create table searches (
  id uuid primary key,
  name text not null,
  query text not null,
  order_by text not null check (order_by in ('day', 'fitness')),
  position integer not null
);

-- The words of a picture, as it was painted at a revision; null while that is not known. Boxes are
-- four numbers of two bytes a word. Its job has the id of the shot.
create table words (
  shot_id uuid primary key references shots (id) on delete cascade,
  revision integer,
  lines text,
  boxes bytea
);
create function drop_reading() returns trigger language plpgsql as $$
begin
  delete from jobs where id = old.shot_id and kind = 'words';
  return null;
end $$;
create trigger words_drop_job after delete on words for each row execute function drop_reading();

-- What a shot is found by: in a table of its own, so that a change of a shot need not rewrite it.
create table search (
  shot_id uuid primary key references shots (id) on delete cascade,
  taken_at timestamptz not null,
  tokens tsvector not null,
  sequence text not null,
  width integer not null,
  height integer not null
);
create index search_tokens on search using gin (tokens);
create index search_inside on search using gin (sequence gin_trgm_ops);
create index search_by_time on search (taken_at desc, shot_id desc);

-- How many shots know a word, for proposing one in place of a mistyped one. A word goes with the
-- last shot that holds it.
create table known_words (
  word text primary key,
  shots integer not null
);
create index known_alike on known_words using gin (word gin_trgm_ops);

create function words_of(tokens tsvector) returns setof text language sql immutable as $$
  select w from unnest(tsvector_to_array(tokens)) w
  where length(w) between 4 and 40 and position(':' in w) = 0
$$;

create function count_words() returns trigger language plpgsql as $$
declare
  had text[] := '{}';
  has text[] := '{}';
  gone text[];
  added text[];
begin
  if tg_op <> 'INSERT' then had := array(select words_of(old.tokens)); end if;
  if tg_op <> 'DELETE' then has := array(select words_of(new.tokens)); end if;
  gone := array(select unnest(had) except select unnest(has));
  added := array(select unnest(has) except select unnest(had));
  -- Two at once take the same rows in the same order.
  perform 1 from known_words where word = any(gone || added) order by word for update;
  insert into known_words as k (word, shots) select w, 1 from unnest(added) w order by w
    on conflict (word) do update set shots = k.shots + 1;
  update known_words set shots = shots - 1 where word = any(gone);
  delete from known_words where word = any(gone) and shots < 1;
  return null;
end $$;
create trigger search_counts_words after insert or update of tokens or delete on search
  for each row execute function count_words();

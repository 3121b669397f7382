-- The number of the picture that stands for a clip, the first that is kept of it; how long what is
-- kept lasts, seconds, where something was cut.
alter table clips add column cover integer not null default 0, add column kept real;
update clips set cover = coalesce((
  select min(picture) from generate_series(0, cardinality(times) - 1) as picture
  where not exists (select 1 from jsonb_array_elements(cuts -> 'away') as gone
    where (gone ->> 'from')::int <= picture and picture < (gone ->> 'to')::int)), 0)
where jsonb_array_length(cuts -> 'away') > 0;
-- Of which picture it was made.
alter table thumbnails add column cover integer not null default 0;

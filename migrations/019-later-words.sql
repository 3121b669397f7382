-- Of a clip: words of its later pictures that stand on none before, [{"at": seconds, "lines": text}].
alter table words add column later jsonb;
-- Clips from before are read anew.
insert into jobs (id, kind, due_at) select c.shot_id, 'words', now() from clips c
  join words w on w.shot_id = c.shot_id
  on conflict (id) do update set state = 'waiting', tries = 0, problem = null, due_at = now(),
    lease = null, leased_until = null, done_at = null;
update words set revision = null where shot_id in (select shot_id from clips);

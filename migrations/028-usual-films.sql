-- Films of finer colours than most players show, packed once more in usual ones, so that little of
-- them has to be packed anew whenever they are kept. Each lies in a file, and can be made again.
create table usual_films (
  -- Also of the job that makes it.
  id uuid primary key,
  shot_id uuid not null unique references clips (shot_id) on delete cascade,
  -- Null until it was made.
  bytes bigint
);
create trigger usual_films_drop_job after delete on usual_films
  for each row execute function drop_job();

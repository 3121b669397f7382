-- What is linked may be a film, a file among those of clips; its picture is what it begins with.
alter table links add column film text;
alter table links add column film_type text;

-- What a hand did while it was recorded, where that is to be shown: {at, x, y} or {at, key}.
alter table recordings add column pressed jsonb not null default '[]';

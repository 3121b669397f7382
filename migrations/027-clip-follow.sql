-- Where the window that the view follows lay while it was recorded, from where it lay at first:
-- {at, x, y}, seconds and pixels of the screen.
alter table recordings add column followed jsonb not null default '[]';

-- A name that a person gave or confirmed; one made from a window's title does not leave.
alter table shots add column title_own boolean not null default false;
-- The name of the shot that a copy's file is called by, so that files can follow it any time later.
alter table copies add column named text;
update copies set named = shots.title from shots where shots.id = copies.shot_id;
-- Settings that are no settings at all are kept aside, not overwritten.
alter table settings add column unread jsonb;

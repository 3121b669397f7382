-- Of which revision of what lies on the clip it was written.
alter table clip_writings add column marks_revision int;

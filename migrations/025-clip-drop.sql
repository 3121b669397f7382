-- One that takes the place of the film itself: of which revision of the cuts and the marks, {revision, marksRevision}.
alter table clip_writings add column drops jsonb;

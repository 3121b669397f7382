-- What was sent of a clip to a remote folder.
alter table clip_writings add column sending_id uuid;

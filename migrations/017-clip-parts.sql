-- What of its pictures is shown, where a part was chosen before it was recorded: {crop, shape, of}.
alter table recordings add column shown jsonb;

-- Sound goes with its pictures; of a recording, it comes so much too late, ms.
alter table clips add column sound boolean not null default false;
alter table recordings add column sound_delay int not null default 0;

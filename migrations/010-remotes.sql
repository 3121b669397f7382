-- What a person allowed for a remote folder: a password that can be read on the way, one certificate
-- that this computer does not know (SHA-256); and the address under which others see its files.
alter table remotes
  add column readable boolean not null default false,
  add column fingerprint text,
  add column address text not null default '';
-- The address of what was sent, once it was found there, or why it was not.
alter table sendings
  add column address text,
  add column address_problem text;

-- Named ways of taking, in the order a person gave them.
create table routines (
  id uuid primary key,
  name text not null,
  key text,
  -- Starts it on this computer while Rezzik is out of sight.
  system_key text,
  way jsonb not null,
  position integer not null,
  created_at timestamptz not null default now()
);

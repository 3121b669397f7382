-- Named ways of taking, in the order a person gave them.
create table routines (
  id uuid primary key,
  name text not null,
  key text,
  way jsonb not null,
  position integer not null,
  created_at timestamptz not null default now()
);

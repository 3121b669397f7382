-- Named sets of what is done to a picture as a whole; six come with Rezzik.
create table looks (
  id uuid primary key,
  name text not null,
  key text,
  finish jsonb not null,
  pictures jsonb,
  position integer not null
);
create unique index looks_name on looks (lower(name));
create unique index looks_key on looks (key);
insert into looks (id, name, finish, position) values
  ('6b0c2d1e-5f3a-4c8b-9a10-000000000001', 'Calm card', '{"surround": {"border": {"width": 1, "colour": "#C6D2CB", "corners": 14}, "shadow": {"x": 0, "y": 8, "blur": 24, "colour": "#10231D", "strength": 45}, "background": {"colours": ["#E8EFEA"], "run": "down", "room": 56}}}', 1),
  ('6b0c2d1e-5f3a-4c8b-9a10-000000000002', 'Field note', '{"surround": {"border": {"width": 10, "colour": "#FFFFFF", "corners": 0}, "shadow": {"x": 0, "y": 5, "blur": 16, "colour": "#10231D", "strength": 35}, "background": {"colours": ["#EFE6D2"], "run": "down", "room": 48}, "caption": {"text": "{title}\n{time}", "at": "below", "face": "hand", "bold": false, "align": "start", "size": 26, "colour": "#4A3B22", "plate": null}}}', 2),
  ('6b0c2d1e-5f3a-4c8b-9a10-000000000003', 'Torn slip', '{"surround": {"ragged": {"top": false, "right": false, "bottom": true, "left": false, "depth": 18, "seed": 7}, "shadow": {"x": 0, "y": 6, "blur": 18, "colour": "#10231D", "strength": 40}, "background": {"colours": [], "run": "down", "room": 24}}}', 3),
  ('6b0c2d1e-5f3a-4c8b-9a10-000000000004', 'With its source', '{"surround": {"border": {"width": 2, "colour": "#15302A", "corners": 0}, "caption": {"text": "{title} · {where} · {time}", "at": "below", "face": "plain", "bold": false, "align": "start", "size": 20, "colour": "#15302A", "plate": "#FFFFFF"}}}', 4),
  ('6b0c2d1e-5f3a-4c8b-9a10-000000000005', 'On a slope', '{"surround": {"border": {"width": 1, "colour": "#C6D2CB", "corners": 10}, "tilt": {"across": 24, "up": 6}, "shadow": {"x": -8, "y": 18, "blur": 44, "colour": "#10231D", "strength": 50}, "background": {"colours": ["#DCE9E2", "#5E8C79"], "run": "slant", "room": 64}}}', 5),
  ('6b0c2d1e-5f3a-4c8b-9a10-000000000006', 'For paper', '{"adjust": {"on": "picture", "contrast": 115, "grey": 100}, "surround": {"border": {"width": 2, "colour": "#000000", "corners": 0}}}', 6);
-- A folder may give a look to whatever is kept in it.
alter table folders add column look uuid references looks (id) on delete set null;
alter table remotes add column look uuid references looks (id) on delete set null;

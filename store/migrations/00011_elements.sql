-- +goose Up
-- One table of elements in place of one a kind. What elements refer to is kept
-- true by core, which reads the whole plan under the plan's own lock at each
-- edit; the database keeps what it can say in one line: one element an ID, an
-- ID and a size within bounds, a plan for each. A new kind of element, or of
-- solid or device, needs no migration.
create table elements (
  plan_id text not null references plans(id) on delete cascade,
  kind text not null check (kind ~ '^[a-z]{1,30}$'),
  id text not null check (char_length(id) between 1 and 120),
  seq integer not null,
  rev bigint not null default 1,
  body jsonb not null check (jsonb_typeof(body) = 'object' and id = body->>'id' and octet_length(body::text) <= 4194304),
  primary key (plan_id, kind, id)
);
create unique index elements_display on elements (plan_id) where kind = 'display';

insert into elements (plan_id, kind, id, seq, rev, body)
          select plan_id, 'display', id, seq, rev, body from displays
union all select plan_id, 'prop', id, seq, rev, body from props
union all select plan_id, 'solid', id, seq, rev, body from solids
union all select plan_id, 'joint', id, seq, rev, body from joints
union all select plan_id, 'finish', id, seq, rev, body from finishes
union all select plan_id, 'device', id, seq, rev, body from devices
union all select plan_id, 'input', id, seq, rev, body from inputs
union all select plan_id, 'scene', id, seq, rev, body from scenes
union all select plan_id, 'trigger', id, seq, rev, body from triggers
union all select plan_id, 'lot', id, seq, rev, body from lots
union all select plan_id, 'waiver', id, seq, rev, body from waivers
union all select plan_id, 'reading', id, seq, rev, body from readings
union all select plan_id, 'offcut', id, seq, rev, body from offcuts
union all select plan_id, 'layout', id, seq, rev, body from layouts
union all select plan_id, 'photo', id, seq, rev, body from photos
union all select plan_id, 'picture', id, seq, rev, body from pictures
union all select plan_id, 'outlet', id, seq, rev, body from outlets
union all select plan_id, 'plug', id, seq, rev, body from plugs;

drop table plugs, pictures, photos, layouts, offcuts, readings, waivers, lots, triggers, scenes, inputs, devices, outlets, finishes, joints, solids, props, displays;

-- What the row of displays shows without working a plan out: its name and
-- date, and what was found when it was worked out last, at which revision and
-- on which day.
alter table plans add column name text not null default '';
alter table plans add column opens text not null default '';
alter table plans add column worst text not null default '';
alter table plans add column seen_rev bigint not null default -1;
alter table plans add column seen_day text not null default '';
update plans p set name = e.body->>'name', opens = coalesce(e.body->>'opens', '') from elements e where e.plan_id = p.id and e.kind = 'display';

-- +goose Down
-- The tables of one kind each are not made again: restore a backup of before.
do $$ begin raise exception 'elements cannot be parted again; restore a backup made before'; end $$;

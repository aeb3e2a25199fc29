-- +goose Up
-- One row a plan, one row an element. The element's own fields are its JSON
-- body; what other rows refer to, or must hold, is generated from it, so that
-- the database itself keeps references and choices true.
create table plans (
  id text primary key check (id ~ '^[a-z0-9][a-z0-9-]{0,79}$'),
  rev bigint not null default 0 check (rev >= 0),
  made timestamptz not null default now(),
  touched timestamptz not null default now()
);

create table displays (
  plan_id text not null references plans(id) on delete cascade,
  id text not null, seq integer not null, rev bigint not null default 1, body jsonb not null,
  name text generated always as (body->>'name') stored not null check (name <> ''),
  units text generated always as (body->>'units') stored check (units in ('in','mm')),
  primary key (plan_id, id), unique (plan_id), check (id = body->>'id')
);

create table props (
  plan_id text not null references plans(id) on delete cascade,
  id text not null, seq integer not null, rev bigint not null default 1, body jsonb not null,
  name text generated always as (body->>'name') stored not null check (name <> ''),
  primary key (plan_id, id), check (id = body->>'id')
);

create table solids (
  plan_id text not null references plans(id) on delete cascade,
  id text not null, seq integer not null, rev bigint not null default 1, body jsonb not null,
  prop_id text generated always as (body->>'prop') stored not null,
  kind text generated always as (body->>'kind') stored not null check (kind in ('box','tower','disc','rings','pipe','panel')),
  stock text generated always as (body->>'stock') stored not null check (stock <> ''),
  primary key (plan_id, id), check (id = body->>'id'),
  foreign key (plan_id, prop_id) references props(plan_id, id) deferrable initially deferred
);

create table joints (
  plan_id text not null references plans(id) on delete cascade,
  id text not null, seq integer not null, rev bigint not null default 1, body jsonb not null,
  prop_id text generated always as (body->>'prop') stored not null,
  glue text generated always as (body->>'glue') stored not null check (glue <> ''),
  a_solid text generated always as (case when left(body->>'a',1) = '=' then null else split_part(body->>'a','/',1) end) stored,
  b_solid text generated always as (case when left(body->>'b',1) = '=' then null else split_part(body->>'b','/',1) end) stored,
  primary key (plan_id, id), check (id = body->>'id'),
  foreign key (plan_id, prop_id) references props(plan_id, id) deferrable initially deferred,
  foreign key (plan_id, a_solid) references solids(plan_id, id) deferrable initially deferred,
  foreign key (plan_id, b_solid) references solids(plan_id, id) deferrable initially deferred
);

create table finishes (
  plan_id text not null references plans(id) on delete cascade,
  id text not null, seq integer not null, rev bigint not null default 1, body jsonb not null,
  solid_id text generated always as (body->>'solid') stored not null,
  primary key (plan_id, id), check (id = body->>'id'), unique (plan_id, solid_id) deferrable initially deferred,
  foreign key (plan_id, solid_id) references solids(plan_id, id) deferrable initially deferred
);

create table devices (
  plan_id text not null references plans(id) on delete cascade,
  id text not null, seq integer not null, rev bigint not null default 1, body jsonb not null,
  prop_id text generated always as (body->>'prop') stored not null,
  kind text generated always as (body->>'kind') stored not null check (kind in ('supply','run','fuse','switch','lamp')),
  from_id text generated always as (nullif(body->>'from','')) stored,
  to_id text generated always as (nullif(body->>'to','')) stored,
  in_solid text generated always as (nullif(body->>'in','')) stored,
  primary key (plan_id, id), check (id = body->>'id'), check (kind <> 'supply' or from_id is null), check (kind = 'run' or to_id is null),
  foreign key (plan_id, prop_id) references props(plan_id, id) deferrable initially deferred,
  foreign key (plan_id, from_id) references devices(plan_id, id) deferrable initially deferred,
  foreign key (plan_id, to_id) references devices(plan_id, id) deferrable initially deferred,
  foreign key (plan_id, in_solid) references solids(plan_id, id) deferrable initially deferred
);

create table inputs (
  plan_id text not null references plans(id) on delete cascade,
  id text not null, seq integer not null, rev bigint not null default 1, body jsonb not null,
  prop_id text generated always as (body->>'prop') stored not null,
  primary key (plan_id, id), check (id = body->>'id'),
  foreign key (plan_id, prop_id) references props(plan_id, id) deferrable initially deferred
);

create table scenes (
  plan_id text not null references plans(id) on delete cascade,
  id text not null, seq integer not null, rev bigint not null default 1, body jsonb not null,
  prop_id text generated always as (body->>'prop') stored not null,
  primary key (plan_id, id), check (id = body->>'id'),
  foreign key (plan_id, prop_id) references props(plan_id, id) deferrable initially deferred
);

create table triggers (
  plan_id text not null references plans(id) on delete cascade,
  id text not null, seq integer not null, rev bigint not null default 1, body jsonb not null,
  input_id text generated always as (body->>'input') stored not null,
  scene_id text generated always as (body->>'scene') stored not null,
  latch text generated always as (body->>'latch') stored not null check (latch in ('one-shot','retrigger','momentary','toggle')),
  primary key (plan_id, id), check (id = body->>'id'),
  foreign key (plan_id, input_id) references inputs(plan_id, id) deferrable initially deferred,
  foreign key (plan_id, scene_id) references scenes(plan_id, id) deferrable initially deferred
);

create table lots (
  plan_id text not null references plans(id) on delete cascade,
  id text not null, seq integer not null, rev bigint not null default 1, body jsonb not null,
  glue text generated always as (body->>'glue') stored not null check (glue <> ''),
  primary key (plan_id, id), check (id = body->>'id')
);

create table waivers (
  plan_id text not null references plans(id) on delete cascade,
  id text not null, seq integer not null, rev bigint not null default 1, body jsonb not null,
  reason text generated always as (body->>'reason') stored not null check (btrim(reason) <> ''),
  primary key (plan_id, id), check (id = body->>'id')
);

create table edits (
  id bigint generated always as identity primary key,
  plan_id text not null references plans(id) on delete cascade,
  at timestamptz not null default now(),
  who text not null default '',
  label text not null,
  changes jsonb not null check (jsonb_typeof(changes) = 'array'),
  state text not null default 'done' check (state in ('done','undone','dropped')),
  rev bigint not null
);
create index edits_plan on edits (plan_id, id);

-- +goose Down
drop table edits, waivers, lots, triggers, scenes, inputs, devices, finishes, joints, solids, props, displays, plans;

-- +goose Up
-- The learner's record: one row a drill that was answered.
create table drills (
  id bigint generated always as identity primary key,
  plan_id text not null references plans(id) on delete cascade,
  at timestamptz not null default now(),
  who text not null check (btrim(who) <> ''),
  level integer not null check (level between 1 and 3),
  truth text not null,
  answer text not null,
  readings integer not null check (readings >= 0),
  best integer not null check (best >= 0),
  score integer not null check (score between 0 and 100)
);
create index drills_plan on drills (plan_id, who, id);

-- +goose Down
drop table drills;

-- +goose Up
-- Mains outlets, and what is plugged in; a supply may name its outlet.
create table outlets (
  plan_id text not null references plans(id) on delete cascade,
  id text not null, seq integer not null, rev bigint not null default 1, body jsonb not null,
  name text generated always as (body->>'name') stored not null check (name <> ''),
  primary key (plan_id, id), check (id = body->>'id')
);

create table plugs (
  plan_id text not null references plans(id) on delete cascade,
  id text not null, seq integer not null, rev bigint not null default 1, body jsonb not null,
  outlet_id text generated always as (body->>'outlet') stored not null,
  primary key (plan_id, id), check (id = body->>'id'),
  foreign key (plan_id, outlet_id) references outlets(plan_id, id) deferrable initially deferred
);

alter table devices add column outlet_id text generated always as (nullif(body->>'outlet','')) stored;
alter table devices add foreign key (plan_id, outlet_id) references outlets(plan_id, id) deferrable initially deferred;

-- +goose Down
alter table devices drop column outlet_id;
drop table plugs;
drop table outlets;

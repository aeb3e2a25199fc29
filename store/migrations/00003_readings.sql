-- +goose Up
create table readings (
  plan_id text not null references plans(id) on delete cascade,
  id text not null, seq integer not null, rev bigint not null default 1, body jsonb not null,
  device_id text generated always as (body->>'device') stored not null,
  primary key (plan_id, id), check (id = body->>'id'),
  check ((nullif(body->>'volts','') is null) <> (nullif(body->>'light','') is null)),
  foreign key (plan_id, device_id) references devices(plan_id, id) deferrable initially deferred
);

-- +goose Down
drop table readings;

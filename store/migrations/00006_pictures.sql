-- +goose Up
-- Reference pictures, and how they are measured. The data stands apart, so that
-- moving a point does not write the picture again.
create table photos (
  plan_id text not null references plans(id) on delete cascade,
  id text not null, seq integer not null, rev bigint not null default 1, body jsonb not null,
  primary key (plan_id, id), check (id = body->>'id'), check (length(body->>'data') > 0)
);

create table pictures (
  plan_id text not null references plans(id) on delete cascade,
  id text not null, seq integer not null, rev bigint not null default 1, body jsonb not null,
  prop_id text generated always as (body->>'prop') stored not null,
  photo_id text generated always as (body->>'photo') stored not null,
  primary key (plan_id, id), check (id = body->>'id'),
  foreign key (plan_id, prop_id) references props(plan_id, id) deferrable initially deferred,
  foreign key (plan_id, photo_id) references photos(plan_id, id) deferrable initially deferred
);

-- +goose Down
drop table pictures;
drop table photos;

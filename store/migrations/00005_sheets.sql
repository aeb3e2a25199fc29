-- +goose Up
-- Silhouettes and meshes become solids; offcuts wait on a shelf; a layout of
-- sheets can be kept or laid by hand.
alter table solids drop constraint solids_kind_check;
alter table solids add constraint solids_kind_check check (kind in ('box','tower','disc','rings','pipe','panel','gores','slices','cone','wrap','boards','outline','mesh'));

create table offcuts (
  plan_id text not null references plans(id) on delete cascade,
  id text not null, seq integer not null, rev bigint not null default 1, body jsonb not null,
  stock text generated always as (body->>'stock') stored not null check (stock <> ''),
  primary key (plan_id, id), check (id = body->>'id')
);

create table layouts (
  plan_id text not null references plans(id) on delete cascade,
  id text not null, seq integer not null, rev bigint not null default 1, body jsonb not null,
  primary key (plan_id, id), check (id = body->>'id')
);

-- +goose Down
drop table layouts;
drop table offcuts;
delete from solids where kind in ('outline','mesh');
alter table solids drop constraint solids_kind_check;
alter table solids add constraint solids_kind_check check (kind in ('box','tower','disc','rings','pipe','panel','gores','slices','cone','wrap','boards'));

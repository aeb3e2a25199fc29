-- +goose Up
-- Connectors, controllers, and where pixels get their data from.
alter table devices drop constraint devices_kind_check;
alter table devices add constraint devices_kind_check check (kind in ('supply','run','fuse','switch','lamp','converter','connector','controller'));
alter table devices add column data_id text generated always as (nullif(body->>'data','')) stored;
alter table devices add foreign key (plan_id, data_id) references devices(plan_id, id) deferrable initially deferred;

-- +goose Down
alter table devices drop column data_id;
delete from devices where kind in ('connector','controller');
alter table devices drop constraint devices_kind_check;
alter table devices add constraint devices_kind_check check (kind in ('supply','run','fuse','switch','lamp','converter'));

-- +goose Up
alter table devices drop constraint devices_kind_check;
alter table devices add constraint devices_kind_check check (kind in ('supply','run','fuse','switch','lamp','converter'));

-- +goose Down
delete from devices where kind = 'converter';
alter table devices drop constraint devices_kind_check;
alter table devices add constraint devices_kind_check check (kind in ('supply','run','fuse','switch','lamp'));

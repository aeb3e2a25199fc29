-- +goose Up
-- A display that is taken away lies in the bin for a while, under an ID of its own; each edit
-- knows which browser or program it came from, by which its own edits are known.
alter table plans add column binned timestamptz;
alter table plans add column was_id text not null default '';
alter table edits add column by text not null default '';
-- What all processes that serve this database share.
create table settings (key text primary key, value text not null);
create index edits_own on edits (plan_id, by, id);

-- +goose Down
drop table settings;
drop index edits_own;
alter table edits drop column by;
delete from plans where binned is not null;
alter table plans drop column was_id;
alter table plans drop column binned;

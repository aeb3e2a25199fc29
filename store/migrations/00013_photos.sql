-- +goose Up
-- Pictures' data as rows of their own, named by what they hold: read when a
-- picture is shown, never with the plan, and written once however often an edit
-- that brought one in is undone and done again.
create table photos (
  plan_id text not null references plans(id) on delete cascade,
  sum text not null check (sum ~ '^[0-9a-f]{64}$'),
  jpeg bytea not null,
  primary key (plan_id, sum), check (length(jpeg) between 1 and 1048576)
);

-- +goose Down
drop table photos;

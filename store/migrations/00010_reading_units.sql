-- +goose Up
-- A reading is volts, amperes, ohms or light: exactly one of them.
alter table readings drop constraint if exists readings_body_check;
alter table readings drop constraint if exists readings_check;
alter table readings drop constraint if exists readings_check1;
alter table readings add constraint readings_one check (id = body->>'id' and
  (nullif(body->>'volts','') is not null)::int + (nullif(body->>'amps','') is not null)::int + (nullif(body->>'ohms','') is not null)::int + (nullif(body->>'light','') is not null)::int = 1);

-- +goose Down
delete from readings where nullif(body->>'volts','') is null and nullif(body->>'light','') is null;
alter table readings drop constraint readings_one;
alter table readings add constraint readings_check check ((nullif(body->>'volts','') is null) <> (nullif(body->>'light','') is null));

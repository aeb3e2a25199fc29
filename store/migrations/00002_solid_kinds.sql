-- +goose Up
alter table solids drop constraint solids_kind_check;
alter table solids add constraint solids_kind_check check (kind in ('box','tower','disc','rings','pipe','panel','gores','slices','cone','wrap','boards'));

-- +goose Down
alter table solids drop constraint solids_kind_check;
alter table solids add constraint solids_kind_check check (kind in ('box','tower','disc','rings','pipe','panel'));

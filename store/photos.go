package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"

	"zapbarn/core/plan"

	"github.com/pressly/goose/v3"
	"gorm.io/gorm"
	"gorm.io/gorm/clause"
)

// photoRow is one picture's data.
type photoRow struct {
	PlanID string `gorm:"primaryKey"`
	Sum    string `gorm:"primaryKey"`
	JPEG   []byte `gorm:"column:jpeg"`
}

func (photoRow) TableName() string { return "photos" }

// ErrPhotoGone is of a picture whose data is not there.
var ErrPhotoGone = errors.New("the picture's data is not there; bring it in again")

// Photo reads a picture's data, a JPEG, by its sum.
func (s *Store) Photo(ctx context.Context, id, sum string) ([]byte, error) {
	var r photoRow
	err := s.db.WithContext(ctx).Where("plan_id = ? and sum = ?", id, sum).Take(&r).Error
	if errors.Is(err, gorm.ErrRecordNotFound) {
		return nil, ErrPhotoGone
	}
	return r.JPEG, s.down(ctx, err)
}

// Whole is a plan with its pictures' data, as files have it.
func (s *Store) Whole(ctx context.Context, p *plan.Plan) (*plan.Plan, error) {
	q := p.Clone()
	for i, ph := range q.Photos() {
		if ph.Data != "" {
			continue
		}
		jpeg, err := s.Photo(ctx, p.Display().ID, ph.Sum)
		if err != nil {
			return nil, fmt.Errorf("photo %s: %w", ph.ID, err)
		}
		q.Photos()[i] = ph.Whole(jpeg)
	}
	return q, nil
}

// apart keeps a picture's data as a row of its own and returns the picture
// without it.
func apart(tx *gorm.DB, id string, ph plan.Photo) (plan.Photo, error) {
	bare, jpeg, err := ph.Apart()
	if err != nil {
		return ph, err
	}
	if jpeg != nil {
		return bare, tx.Clauses(clause.OnConflict{DoNothing: true}).Create(&photoRow{id, bare.Sum, jpeg}).Error
	}
	var n int64
	if err := tx.Model(&photoRow{}).Where("plan_id = ? and sum = ?", id, ph.Sum).Count(&n).Error; err != nil {
		return ph, err
	}
	if n == 0 {
		return ph, fmt.Errorf("photo %s: %w", ph.ID, ErrPhotoGone)
	}
	return ph, nil
}

// editApart does so for the pictures that an edit brings in or takes away.
func editApart(tx *gorm.DB, id string, e plan.Edit) (plan.Edit, error) {
	out := plan.Edit{Label: e.Label, Changes: append([]plan.Change(nil), e.Changes...)}
	for i := range out.Changes {
		c := &out.Changes[i]
		for _, raw := range []*json.RawMessage{&c.Before, &c.After} {
			if c.Kind != "photo" || len(*raw) == 0 {
				continue
			}
			var ph plan.Photo
			if json.Unmarshal(*raw, &ph) != nil {
				continue // Apply says what is wrong with it
			}
			bare, err := apart(tx, id, ph)
			if err != nil {
				return e, err
			}
			if *raw, err = json.Marshal(bare); err != nil {
				return e, err
			}
		}
	}
	return out, nil
}

// photosApart is the migration that takes pictures' data out of elements and out
// of the log of edits.
func photosApart(number int64) *goose.Migration {
	return goose.NewGoMigration(number, &goose.GoFunc{RunTx: func(ctx context.Context, tx *sql.Tx) error {
		type key struct{ plan, id string }
		keys, err := all(
			ctx,
			tx,
			`select plan_id, id from elements where kind = 'photo'`,
			func(r *sql.Rows) (k key, err error) {
				return k, r.Scan(&k.plan, &k.id)
			},
		)
		if err != nil {
			return err
		}
		for _, k := range keys { // one at a time: each may be half a megabyte
			var raw json.RawMessage
			if err := tx.QueryRowContext(ctx, `select body from elements where plan_id = $1 and kind = 'photo' and id = $2`,
				k.plan, k.id).Scan(&raw); err != nil {
				return err
			}
			if raw, err = rawApart(ctx, tx, k.plan, raw); err != nil {
				return err
			}
			if _, err := tx.ExecContext(ctx, `update elements set body = $3 where plan_id = $1 and kind = 'photo' and id = $2`,
				k.plan, k.id, []byte(raw)); err != nil {
				return err
			}
		}
		ids, err := all(
			ctx,
			tx,
			`select id from edits where changes @> '[{"kind": "photo"}]'`,
			func(r *sql.Rows) (id int64, err error) { return id, r.Scan(&id) },
		)
		for _, id := range ids {
			if err := editPhotosApart(ctx, tx, id); err != nil {
				return fmt.Errorf("edit %d: %w", id, err)
			}
		}
		return err
	}}, &goose.GoFunc{RunTx: func(context.Context, *sql.Tx) error {
		return errors.New("pictures cannot go back into their plans; restore a backup made before")
	}})
}

func editPhotosApart(ctx context.Context, tx *sql.Tx, id int64) error {
	var planID string
	var was []byte
	var changes []plan.Change
	if err := tx.QueryRowContext(ctx, `select plan_id, changes from edits where id = $1`, id).Scan(&planID,
		&was); err != nil {
		return err
	}
	if json.Unmarshal(was, &changes) != nil {
		return nil // it says so when it is undone
	}
	for i := range changes {
		for _, raw := range []*json.RawMessage{&changes[i].Before, &changes[i].After} {
			if changes[i].Kind != "photo" || len(*raw) == 0 {
				continue
			}
			var err error
			if *raw, err = rawApart(ctx, tx, planID, *raw); err != nil {
				return err
			}
		}
	}
	now, err := json.Marshal(changes)
	if err != nil {
		return err
	}
	_, err = tx.ExecContext(ctx, `update edits set changes = $2 where id = $1`, id, now)
	return err
}

// rawApart keeps a stored picture's data as a row and returns its element
// without; what is no picture stays as it is.
func rawApart(ctx context.Context, tx *sql.Tx, planID string, raw json.RawMessage) (json.RawMessage, error) {
	var ph plan.Photo
	if json.Unmarshal(raw, &ph) != nil {
		return raw, nil
	}
	bare, jpeg, err := ph.Apart()
	if err != nil || jpeg == nil {
		return raw, nil
	}
	if _, err := tx.ExecContext(ctx, `insert into photos (plan_id, sum, jpeg) values ($1, $2, $3) on conflict do nothing`,
		planID, bare.Sum, jpeg); err != nil {
		return nil, err
	}
	return json.Marshal(bare)
}

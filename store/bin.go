package store

import (
	"context"
	"encoding/json"
	"fmt"
	"strings"
	"time"

	"zapbarn/core/plan"

	"gorm.io/gorm"
)

// BinDays is how long a display that was taken away lies in the bin.
const BinDays = 30

// InBin is a display in the bin.
type InBin struct {
	ID, WasID, Name string
	At              time.Time // it was put there
}

// Bin puts a display in the bin, with its log: its ID is free for another, and it can be put
// back for BinDays. now is when that is.
func (s *Store) Bin(ctx context.Context, id string, now time.Time) error {
	err := s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error { return binned(tx, id, now) })
	return s.down(ctx, err)
}

// binned puts a display in the bin under an ID of its own.
func binned(tx *gorm.DB, id string, now time.Time) error {
	if _, err := versionOf(tx, id, true); err != nil {
		return err
	}
	to, err := freeID(tx, strings.TrimRight(id[:min(len(id), 30)], "-")+"-bin")
	if err != nil {
		return err
	}
	if err := moved(tx, id, to); err != nil {
		return err
	}
	return tx.Model(&planRow{}).Where("id = ?", to).Updates(map[string]any{"binned": now, "was_id": id}).Error
}

// Bins lists what lies in the bin, the last put there first.
func (s *Store) Bins(ctx context.Context) ([]InBin, error) {
	var rows []planRow
	err := s.db.WithContext(ctx).Where("binned is not null").Order("binned desc, id").Find(&rows).Error
	out := make([]InBin, len(rows))
	for i, r := range rows {
		out[i] = InBin{r.ID, r.WasID, r.Name, *r.Binned}
	}
	return out, s.down(ctx, err)
}

// PutBack takes a display out of the bin, with its log: under the ID it had, or one with a
// number behind where another has that by now. It returns that ID.
func (s *Store) PutBack(ctx context.Context, bin string) (id string, err error) {
	err = s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		var rows []planRow
		if err := tx.Where("id = ? and binned is not null", bin).Limit(1).Find(&rows).Error; err != nil {
			return err
		}
		if len(rows) == 0 {
			return ErrNone
		}
		if id, err = freeID(tx, rows[0].WasID); err != nil {
			return err
		}
		if err := moved(tx, bin, id); err != nil {
			return err
		}
		return tx.Model(&planRow{}).Where("id = ?", id).Updates(map[string]any{"binned": nil, "was_id": ""}).Error
	})
	return id, s.down(ctx, err)
}

// Empty takes a display in the bin away for good, with its log.
func (s *Store) Empty(ctx context.Context, bin string) error {
	r := s.db.WithContext(ctx).Delete(&planRow{}, "id = ? and binned is not null", bin)
	if r.Error == nil && r.RowsAffected == 0 {
		return ErrNone
	}
	return s.down(ctx, r.Error)
}

// EmptyOld takes away for good what has lain in the bin for BinDays, and tells how many.
func (s *Store) EmptyOld(ctx context.Context, now time.Time) (int, error) {
	r := s.db.WithContext(ctx).Delete(&planRow{}, "binned < ?", now.AddDate(0, 0, -BinDays))
	return int(r.RowsAffected), s.down(ctx, r.Error)
}

// freeID is an ID no display has, one in the bin neither: as wanted, or with a number behind.
func freeID(tx *gorm.DB, wanted string) (string, error) {
	for id, n := wanted, 2; ; n++ {
		var there int64
		if err := tx.Model(&planRow{}).Where("id = ?", id).Count(&there).Error; err != nil || there == 0 {
			return id, err
		}
		id = plan.Numbered(wanted, n)
	}
}

// moved gives a display another ID, with its elements, its log, its pictures and drills.
func moved(tx *gorm.DB, from, to string) error {
	for _, do := range []string{
		`insert into plans select (jsonb_populate_record(p, jsonb_build_object('id', cast(@to as text)))).* from plans p where id = @from`,
		`update elements set plan_id = @to where plan_id = @from and kind <> 'display'`,
		`update elements set plan_id = @to, id = @to, body = jsonb_set(body, '{id}', to_jsonb(cast(@to as text)))
			where plan_id = @from and kind = 'display'`,
		`update edits set plan_id = @to where plan_id = @from`,
		`update photos set plan_id = @to where plan_id = @from`,
		`update drills set plan_id = @to where plan_id = @from`,
		`delete from plans where id = @from`,
	} {
		if err := tx.Exec(do, map[string]any{"from": from, "to": to}).Error; err != nil {
			return fmt.Errorf("moving %s to %s: %w", from, to, err)
		}
	}
	return renamedLog(tx, to, from)
}

// renamedLog has a display's log speak of it by the ID it has now.
func renamedLog(tx *gorm.DB, id, was string) error {
	var rows []editRow
	if err := tx.Where(`plan_id = ? and changes @> '[{"kind":"display"}]'`, id).Find(&rows).Error; err != nil {
		return err
	}
	for _, r := range rows {
		var changes []plan.Change
		if json.Unmarshal(r.Changes, &changes) != nil {
			continue // it says so when it is undone
		}
		for i := range changes {
			if c := &changes[i]; c.Kind == "display" && c.ID == was {
				c.ID, c.Before, c.After = id, withID(c.Before, id), withID(c.After, id)
			}
		}
		body, err := json.Marshal(changes)
		if err != nil {
			return err
		}
		if err := tx.Model(&editRow{}).Where("id = ?", r.ID).Update("changes", body).Error; err != nil {
			return err
		}
	}
	return nil
}

// withID is an element under another ID.
func withID(raw json.RawMessage, id string) json.RawMessage {
	var body map[string]json.RawMessage
	if len(raw) == 0 || json.Unmarshal(raw, &body) != nil {
		return raw
	}
	body["id"], _ = json.Marshal(id) // a text cannot fail
	out, err := json.Marshal(body)
	if err != nil {
		return raw
	}
	return out
}

package store

import (
	"context"
	"encoding/json"
	"errors"
	"time"

	"zapbarn/core/plan"

	"gorm.io/gorm"
)

// Logged is one line of a display's log as a file holds it, with the edit itself.
type Logged struct {
	At      time.Time     `json:"at"`
	Who     string        `json:"who,omitempty"`
	Label   string        `json:"label"`
	State   string        `json:"state"` // done, undone or dropped
	Changes []plan.Change `json:"changes"`
}

// WholeLog is a display's log from its beginning.
func (s *Store) WholeLog(ctx context.Context, id string) (out []Logged, err error) {
	var rows []editRow
	if err := s.db.WithContext(ctx).Where("plan_id = ?", id).Order("id").Find(&rows).Error; err != nil {
		return nil, s.down(ctx, err)
	}
	for _, r := range rows {
		l := Logged{At: r.At, Who: r.Who, Label: r.Label, State: r.State}
		if err := json.Unmarshal(r.Changes, &l.Changes); err != nil {
			return nil, err
		}
		out = append(out, l)
	}
	return out, nil
}

// CreateWithLog is Create for a plan that brings its log: what was done can be undone, what
// was undone done again.
func (s *Store) CreateWithLog(ctx context.Context, p *plan.Plan, log []Logged, replace bool) error {
	for _, l := range log {
		if l.State != "done" && l.State != "undone" && l.State != "dropped" {
			return errors.New("the log has an edit that is neither done, undone nor dropped; export it again")
		}
	}
	_, err := s.create(ctx, p, replace, false, func(tx *gorm.DB, id string) error {
		rows := make([]editRow, len(log))
		for i, l := range log {
			changes, err := json.Marshal(l.Changes)
			if err != nil {
				return err
			}
			rows[i] = editRow{PlanID: id, At: l.At, Who: l.Who, Label: l.Label, State: l.State, Changes: changes, Rev: int64(i + 1)}
		}
		if err := tx.CreateInBatches(rows, 200).Error; err != nil {
			return err
		}
		return tx.Model(&planRow{}).Where("id = ?", id).Update("rev", len(rows)).Error
	})
	return err
}

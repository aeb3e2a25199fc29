package store

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"

	"zapbarn/core/plan"

	"gorm.io/gorm"
)

// own are the edits of whoever asks, and those of before edits knew whose they are.
const own = "by in ('', ?)"

// Blocked says that an edit cannot be taken back, or done again, because of a later one.
type Blocked struct {
	Label       string // of the edit
	Again       bool   // it was to be done again
	Who, Theirs string // who made the later one, and what it is; "" where none touched the same things
	Why         error
}

func (b *Blocked) Error() string {
	what := "taken back"
	if b.Again {
		what = "done again"
	}
	if b.Theirs == "" {
		return fmt.Sprintf("“%s” cannot be %s: %v", b.Label, what, b.Why)
	}
	who := "a later edit"
	if b.Who != "" {
		who = b.Who + "'s later edit"
	}
	return fmt.Sprintf("“%s” cannot be %s: %s “%s” changed the same thing; that one is to be undone first",
		b.Label, what,
		who, b.Theirs)
}

func (b *Blocked) Unwrap() error { return b.Why }

// Undo takes the latest edit of whoever asks back; Redo does the one they undid last again.
// They return its label. A *Blocked says which later edit of another stands in the way.
func (s *Store) Undo(ctx context.Context, id string, by By) (string, error) {
	return s.travel(ctx, id, "done", func(tx *gorm.DB) *gorm.DB { return tx.Where(own, by.Key).Order("id desc") })
}

// Redo is the other way round.
func (s *Store) Redo(ctx context.Context, id string, by By) (string, error) {
	return s.travel(ctx, id, "undone", func(tx *gorm.DB) *gorm.DB { return tx.Where(own, by.Key).Order("id") })
}

// travel takes one edit back that is done, or does one again that is undone: the first that
// pick finds.
func (s *Store) travel(ctx context.Context, id, from string, pick func(tx *gorm.DB) *gorm.DB) (label string,
	err error) {
	to := map[string]string{"done": "undone", "undone": "done"}[from]
	err = s.change(ctx, id, func(tx *gorm.DB, p *plan.Plan, _ int64) (*plan.Plan, plan.Edit, error) {
		var r editRow
		if err := pick(tx.Where("plan_id = ? and state = ?", id, from)).Take(&r).Error; err != nil {
			if errors.Is(err, gorm.ErrRecordNotFound) {
				return nil, plan.Edit{}, ErrNothing
			}
			return nil, plan.Edit{}, err
		}
		e := plan.Edit{Label: r.Label}
		if err := json.Unmarshal(r.Changes, &e.Changes); err != nil {
			return nil, e, err
		}
		label = r.Label
		if from == "done" {
			e = e.Inverse()
		}
		q, err := p.Apply(e)
		if err != nil {
			return nil, e, blocked(tx, r, e, err)
		}
		return q, e, tx.Model(&editRow{}).Where("id = ?", r.ID).Update("state", to).Error
	})
	return label, err
}

// blocked names the latest edit that came after one and touched what it touches.
func blocked(tx *gorm.DB, r editRow, e plan.Edit, why error) error {
	b := &Blocked{Label: r.Label, Again: r.State == "undone", Why: why}
	for _, c := range e.Changes {
		var later editRow
		touches, err := json.Marshal([]map[string]string{{"kind": c.Kind, "id": c.ID}})
		if err != nil {
			return err
		}
		err = tx.Where("plan_id = ? and state = 'done' and id > ? and changes @> ?::jsonb", r.PlanID, r.ID,
			string(touches)).
			Order("id desc").Take(&later).Error
		switch {
		case errors.Is(err, gorm.ErrRecordNotFound):
		case err != nil:
			return err
		default:
			b.Who, b.Theirs = later.Who, later.Label
			return b
		}
	}
	return b
}

// StepTo takes a plan to just after one edit of its log, whoever made them: later ones are
// undone, undone ones up to it are done again.
func (s *Store) StepTo(ctx context.Context, id string, entry int64) error {
	for range mostSteps {
		_, err := s.travel(ctx, id, "done", func(tx *gorm.DB) *gorm.DB {
			return tx.Where("id > ?",
				entry).Order("id desc")
		})
		if errors.Is(err, ErrNothing) {
			_, err = s.travel(ctx, id, "undone", func(tx *gorm.DB) *gorm.DB {
				return tx.Where("id <= ?",
					entry).Order("id")
			})
		}
		if errors.Is(err, ErrNothing) {
			return nil
		}
		if err != nil {
			return err
		}
	}
	return nil
}

// mostSteps is how far StepTo goes at once.
const mostSteps = 500

// Steps is what undo and redo would do; "" when nothing.
type Steps struct {
	Undo, Redo string
	Since      string // who edited since the edit that undo would take back, where it was another
}

// Steps says what undo and redo of whoever asks would do.
func (s *Store) Steps(ctx context.Context, id string, by By) (out Steps, err error) {
	var rows []editRow
	err = s.db.WithContext(ctx).
		Raw(`(select * from edits where plan_id = ? and state = 'done' and `+own+` order by id desc limit 1)
		union all (select * from edits where plan_id = ? and state = 'undone' and `+own+` order by id limit 1)
		union all (select * from edits where plan_id = ? and state = 'done' and not (`+own+`) order by id desc limit 1)`,
			id, by.Key, id, by.Key, id, by.Key).
		Scan(&rows).
		Error
	var mine int64
	for _, r := range rows {
		switch {
		case r.By != "" && r.By != by.Key:
			if r.ID > mine && out.Undo != "" {
				out.Since = r.Who
				if r.Who == "" {
					out.Since = "somebody else"
				}
			}
		case r.State == "done":
			out.Undo, mine = r.Label, r.ID
		default:
			out.Redo = r.Label
		}
	}
	return out, s.down(ctx, err)
}

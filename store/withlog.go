package store

import (
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io"
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
	_, err := s.create(ctx, p, replace, false, withLog(p.Display().ID, log))
	return err
}

// withLog stores the log of a display that had an ID under the one it has now.
func withLog(was string, log []Logged) func(tx *gorm.DB, id string) error {
	if len(log) == 0 {
		return nil
	}
	return func(tx *gorm.DB, id string) error {
		rows := make([]editRow, len(log))
		for i, l := range log {
			if l.State != "done" && l.State != "undone" && l.State != "dropped" {
				return errors.New("the log has an edit that is neither done, undone nor dropped; export it again")
			}
			changes, err := json.Marshal(l.Changes)
			if err != nil {
				return err
			}
			rows[i] = editRow{PlanID: id, At: l.At, Who: l.Who, Label: l.Label, State: l.State, Changes: changes,
				Rev: int64(i + 1)}
		}
		if err := tx.CreateInBatches(rows, 200).Error; err != nil {
			return err
		}
		if err := tx.Model(&planRow{}).Where("id = ?", id).Update("rev", len(rows)).Error; err != nil || id == was {
			return err
		}
		return renamedLog(tx, id, was)
	}
}

// displayFormat names a file that holds a display with its log.
const displayFormat = "zapbarn-display/1"

// MaxDisplayFile is how large such a file may be, in bytes.
const MaxDisplayFile = 24 << 20

// displayFile is a display with its log, as a file.
type displayFile struct {
	Format string          `json:"format"`
	Plan   json.RawMessage `json:"plan"`
	Log    json.RawMessage `json:"log"`
}

// mostLogged is how many edits a log in a file may have.
const mostLogged = 20_000

// WriteDisplay writes a plan with its log as one file.
func WriteDisplay(out io.Writer, p *plan.Plan, log []Logged) error {
	if log == nil {
		log = []Logged{}
	}
	enc := json.NewEncoder(out)
	enc.SetEscapeHTML(false)
	enc.SetIndent("", " ")
	lines, err := json.Marshal(log)
	if err != nil {
		return err
	}
	return enc.Encode(displayFile{displayFormat, p.Encode(), lines})
}

// ReadDisplay reads a plan file, or a file of a plan with its log. The error says what is wrong
// with it.
func ReadDisplay(data []byte) (*plan.Plan, []Logged, error) {
	var head struct {
		Format string `json:"format"`
	}
	if json.Unmarshal(data, &head) != nil || head.Format != displayFormat {
		p, err := plan.Open(data)
		return p, nil, err
	}
	if len(data) > MaxDisplayFile {
		return nil, nil, fmt.Errorf("the file is %d MB; a display with its log is at most %d MB", len(data)>>20,
			MaxDisplayFile>>20)
	}
	var f displayFile
	d := json.NewDecoder(bytes.NewReader(data))
	d.DisallowUnknownFields()
	if err := d.Decode(&f); err != nil {
		return nil, nil, fmt.Errorf("the file is no display with its log: %w", err)
	}
	p, err := plan.Open(f.Plan)
	if err != nil {
		return nil, nil, err
	}
	log, err := plan.ReadList[Logged](f.Log, mostLogged)
	if err != nil {
		return nil, nil, fmt.Errorf("log: %w", err)
	}
	return p, log, nil
}

// Package store keeps plans in PostgreSQL through GORM. Each element is a row;
// an edit is one transaction that reads the plan under its lock, checks,
// changes rows and writes the log.
package store

import (
	"context"
	"database/sql"
	"embed"
	"encoding/json"
	"errors"
	"fmt"
	"strings"
	"time"

	"zapbarn/core/form"
	"zapbarn/core/memo"
	"zapbarn/core/plan"
	"zapbarn/core/stock"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"
)

//go:embed migrations/*.sql
var migrations embed.FS

// Store is the database.
type Store struct {
	db   *gorm.DB
	kept *memo.Memo[string, kept] // plans as they were loaded or written last
	lib  *stock.Library           // the shop that its plans are in
	dir  string                   // of the private cluster; "" of another's database
}

// kept is a plan at the version it was read or written at. It never changes: what
// is given out is a clone.
type kept struct {
	at   Version
	plan *plan.Plan
}

// mostKept is how much is kept of plans in memory, in bytes as roughly weighed.
const mostKept = 64 << 20

func weigh(k kept) int64 {
	n := int64(k.plan.Count()) * 800
	for i := range k.plan.Solids() {
		if m, ok := k.plan.Solids()[i].Form.(form.Mesh); ok {
			n += int64(len(m.Mesh))
		}
	}
	return n
}

type planRow struct {
	ID      string
	Rev     int64
	Made    time.Time
	Touched time.Time
	Name    string
	Opens   string
	Worst   string     // what was found when it was worked out last
	SeenRev int64      // and at which revision
	SeenDay string     // and on which day
	Binned  *time.Time // when it was put in the bin; nil where it was not
	WasID   string     // of what is in the bin: the ID it had
}

func (planRow) TableName() string { return "plans" }

// row is one element of any kind.
type row struct {
	PlanID string `gorm:"primaryKey"`
	Kind   string `gorm:"primaryKey"`
	ID     string `gorm:"primaryKey"`
	Seq    int
	Rev    int64
	Body   json.RawMessage `gorm:"type:jsonb"`
}

func (row) TableName() string { return "elements" }

type editRow struct {
	ID      int64
	PlanID  string
	At      time.Time `gorm:"default:now()"`
	Who     string
	By      string // the browser or program it came from
	Label   string
	Changes json.RawMessage `gorm:"type:jsonb"`
	State   string
	Rev     int64
}

func (editRow) TableName() string { return "edits" }

// Listing is a display in the list, with what was found when it was worked
// out last.
type Listing struct {
	ID, Name, Opens string
	Touched         time.Time
	Rev             int64
	Seen            Summary
}

// Summary is what a plan's working out found, kept for the list of displays.
type Summary struct {
	Rev   int64
	Day   string
	Worst string
}

// List is every display, in the order they were made. It reads kept summaries:
// no plan can slow it.
func (s *Store) List(ctx context.Context) ([]Listing, error) {
	var rows []planRow
	err := s.db.WithContext(ctx).Where("binned is null").Order("made, id").Find(&rows).Error
	out := make([]Listing, len(rows))
	for i, r := range rows {
		out[i] = Listing{r.ID, r.Name, r.Opens, r.Touched, r.Rev, Summary{r.SeenRev, r.SeenDay, r.Worst}}
	}
	return out, s.down(ctx, err)
}

// Summarise keeps what working a plan out found. It does not touch the plan.
func (s *Store) Summarise(ctx context.Context, id string, m Summary) error {
	return s.down(ctx, s.db.WithContext(ctx).Model(&planRow{}).Where("id = ? and seen_rev <= ?", id, m.Rev).
		Updates(map[string]any{"worst": m.Worst, "seen_rev": m.Rev, "seen_day": m.Day}).Error)
}

// Version is which state of which plan: it grows with every edit, and a plan
// taken away and made again under its ID has another.
type Version struct {
	Made int64 // microseconds
	Rev  int64
}

// Version is the version a plan is at.
func (s *Store) Version(ctx context.Context, id string) (Version, error) {
	v, err := versionOf(s.db.WithContext(ctx), id, false)
	return v, s.down(ctx, err)
}

func versionOf(tx *gorm.DB, id string, forUpdate bool) (Version, error) {
	var heads []planRow
	if forUpdate {
		tx = tx.Clauses(clause.Locking{Strength: "UPDATE"})
	}
	if err := tx.Select("rev", "made").Where("id = ? and binned is null", id).Limit(1).Find(&heads).Error; err != nil {
		return Version{}, err
	}
	if len(heads) == 0 {
		return Version{}, ErrNone
	}
	return Version{heads[0].Made.UnixMicro(), heads[0].Rev}, nil
}

// Load reads a plan and its version. The plan is only to be read: others hold it too.
func (s *Store) Load(ctx context.Context, id string) (p *plan.Plan, v Version, err error) {
	err = s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		p, v, err = s.load(tx, id, false)
		return err
	}, &sql.TxOptions{Isolation: sql.LevelRepeatableRead, ReadOnly: true})
	return p, v, s.down(ctx, err)
}

// load reads a plan at the version its row has, from memory where that is the
// one kept.
func (s *Store) load(tx *gorm.DB, id string, forUpdate bool) (*plan.Plan, Version, error) {
	v, err := versionOf(tx, id, forUpdate)
	if err != nil {
		return nil, v, err
	}
	if k, ok := s.kept.Look(id); ok && k.at == v {
		return k.plan, v, nil
	}
	var rows []row
	if err := tx.Where("plan_id = ?", id).Order("kind, seq, id").Find(&rows).Error; err != nil {
		return nil, v, err
	}
	of := map[string][]json.RawMessage{}
	for _, r := range rows {
		of[r.Kind] = append(of[r.Kind], r.Body)
	}
	p, err := plan.Assemble(s.lib, of)
	if err == nil {
		s.kept.Keep(id, kept{v, p})
	}
	return p, v, err
}

// Create stores a new plan. With replace, one of the same ID gives way: it goes to the bin.
func (s *Store) Create(ctx context.Context, p *plan.Plan, replace bool) error {
	_, err := s.create(ctx, p, replace, false, nil)
	return err
}

// CreateFresh stores a new plan under its ID, or, where that is taken, under
// the first free one with a number behind, with the log it brings. It returns that ID.
func (s *Store) CreateFresh(ctx context.Context, p *plan.Plan, log ...Logged) (string, error) {
	return s.create(ctx, p, false, true, withLog(p.Display().ID, log))
}

// create stores a new plan; also, where it is not nil, is done with it in one.
func (s *Store) create(ctx context.Context, p *plan.Plan, replace, fresh bool, also func(*gorm.DB,
	string) error) (id string,
	err error) {
	if err := p.Validate(); err != nil {
		return "", err
	}
	err = s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		id = p.Display().ID
		if replace {
			if err := binned(tx, id, time.Now()); err != nil && !errors.Is(err, ErrNone) {
				return err
			}
		}
		now := time.Now()
		name := p.Display().Name
		for n := 2; ; n++ { // another may take an ID between a look and a write: the write itself decides
			r := tx.Clauses(clause.OnConflict{DoNothing: true}).
				Create(&planRow{ID: id, Made: now, Touched: now, Name: name, Opens: p.Display().Opens, SeenRev: -1})
			if r.Error != nil {
				return r.Error
			}
			if r.RowsAffected == 1 {
				break
			}
			if !fresh {
				return fmt.Errorf("%w: %q", ErrTaken, id)
			}
			id = plan.Numbered(p.Display().ID, n)
			name = named(p.Display().Name, n)
		}
		q := p.Clone()
		q.Doc().Display.ID, q.Doc().Display.Name = id, name
		for i, ph := range q.Photos() {
			bare, err := apart(tx, id, ph)
			if err != nil {
				return err
			}
			q.Photos()[i] = bare
		}
		var rows []row
		for _, kind := range plan.Kinds() {
			for i, e := range q.Elements(kind) {
				body, err := json.Marshal(e.Value)
				if err != nil {
					return err
				}
				rows = append(rows, row{id, kind, e.ID, i, 1, body})
			}
		}
		for i, b := range q.Broken() { // what is set aside is kept as it was
			rows = append(rows, row{id, b.Kind, b.ID, 1_000_000 + i, 1, b.Raw})
		}
		if err := tx.CreateInBatches(rows, 500).Error; err != nil || also == nil {
			return err
		}
		return also(tx, id)
	})
	return id, s.down(ctx, err)
}

// By is who makes an edit: the name that stands in the log, and a key of the browser or
// program it comes from, by which its own edits are known.
type By struct{ Who, Key string }

// Apply stores an edit. A *plan.Stale says the element was changed meanwhile.
func (s *Store) Apply(ctx context.Context, id string, by By, e plan.Edit) error {
	_, err := s.Edit(ctx, id, by, func(*plan.Plan) (plan.Edit, error) { return e, nil })
	return err
}

// Edit makes an edit from the plan as it stands, under its lock, and stores
// it: what is made there cannot be stale. An edit that changes nothing is not
// stored. It returns the revision after.
func (s *Store) Edit(
	ctx context.Context,
	id string,
	by By,
	of func(*plan.Plan) (plan.Edit, error),
) (rev int64, err error) {
	err = s.change(ctx, id, func(tx *gorm.DB, p *plan.Plan, was int64) (*plan.Plan, plan.Edit, error) {
		rev = was
		e, err := of(p)
		if err != nil {
			return nil, e, err
		}
		if e, err = editApart(tx, id, p.Settled(e)); err != nil {
			return nil, e, err
		}
		q, err := p.Apply(e)
		if err != nil {
			return nil, e, err
		}
		if e.Idle() {
			return nil, e, errSame
		}
		if err := tx.Model(&editRow{}).Where("plan_id = ? and state = 'undone' and "+own, id, by.Key).Update("state",
			"dropped").Error; err != nil {
			return nil, e, err
		}
		body, err := json.Marshal(e.Changes)
		if err != nil {
			return nil, e, err
		}
		rev = was + 1
		return q, e, tx.Create(
			&editRow{PlanID: id, At: time.Now(), Who: by.Who, By: by.Key, Label: e.Label, Changes: body, State: "done",
				Rev: rev},
		).Error
	})
	if errors.Is(err, errSame) {
		err = nil
	}
	return rev, err
}

// errSame ends a transaction that has nothing to store.
var errSame = errors.New("nothing changes")

// change runs one edit as one transaction, edits of one plan after another.
func (s *Store) change(
	ctx context.Context,
	id string,
	edit func(tx *gorm.DB, p *plan.Plan, rev int64) (*plan.Plan, plan.Edit, error),
) error {
	var after kept
	err := s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		p, v, err := s.load(tx, id, true)
		if err != nil {
			return err
		}
		rev := v.Rev
		q, e, err := edit(tx, p, rev)
		if err != nil {
			return err
		}
		if err := write(tx, id, p, q, e); err != nil {
			return err
		}
		after = kept{Version{v.Made, rev + 1}, q}
		return tx.Model(&planRow{}).Where("id = ?", id).
			Updates(map[string]any{"rev": rev + 1, "touched": time.Now(), "name": q.Display().Name,
				"opens": q.Display().Opens}).
			Error
	})
	if err == nil && after.plan != nil { // what was written need not be read again
		s.kept.Keep(id, after)
	}
	return s.down(ctx, err)
}

// write stores what the edit touched; where it put elements in the middle of their list, or
// several, that list is numbered afresh.
func write(tx *gorm.DB, id string, before, after *plan.Plan, e plan.Edit) error {
	renumber := map[string]bool{}
	fresh := map[string]int{} // by kind
	for _, c := range e.Changes {
		if old, _ := before.Get(c.Kind, c.ID); old == nil {
			fresh[c.Kind]++
		}
	}
	for _, c := range e.Changes {
		of := func() *gorm.DB {
			return tx.Model(&row{}).Where("plan_id = ? and kind = ? and id = ?", id, c.Kind, c.ID)
		}
		v, at := after.Get(c.Kind, c.ID)
		if v == nil {
			if err := of().Delete(&row{}).Error; err != nil {
				return err
			}
			continue
		}
		body, err := json.Marshal(v)
		if err != nil {
			return err
		}
		if old, _ := before.Get(c.Kind, c.ID); old != nil {
			err = of().Updates(map[string]any{"body": body, "rev": gorm.Expr("rev + 1")}).Error
		} else {
			var seq any = at
			if fresh[c.Kind] == 1 && at == len(after.Elements(c.Kind))-1 { // at the end
				seq = gorm.Expr("(select coalesce(max(seq), -1) + 1 from elements where plan_id = ? and kind = ?)", id, c.Kind)
			} else {
				renumber[c.Kind] = true
			}
			err = tx.Model(&row{}).Clauses(clause.OnConflict{UpdateAll: true}).Create(map[string]any{
				"plan_id": id, "kind": c.Kind, "id": c.ID, "seq": seq, "rev": 1, "body": body}).Error
		}
		if err != nil {
			return err
		}
	}
	for kind := range renumber {
		if err := number(tx, id, kind, after.Elements(kind)); err != nil {
			return err
		}
	}
	return nil
}

// number writes where the elements of a list stand, in one statement.
func number(tx *gorm.DB, id, kind string, list []plan.Element) error {
	ids := make([]string, len(list))
	for i, x := range list {
		ids[i] = x.ID
	}
	order, err := json.Marshal(ids)
	if err != nil {
		return err
	}
	return tx.Exec(
		`update elements e set seq = n.at - 1 from jsonb_array_elements_text(?::jsonb) with ordinality n(id, at)
		where e.plan_id = ? and e.kind = ? and e.id = n.id and e.seq <> n.at - 1`,
		string(order),
		id,
		kind,
	).Error
}

// Entry is one line of the change log.
type Entry struct {
	At    time.Time
	Who   string
	Label string
	State string
	ID    int64
}

// Log is the plan's latest edits, newest first.
func (s *Store) Log(ctx context.Context, id string, most int) ([]Entry, error) {
	var rows []editRow
	err := s.db.WithContext(ctx).Where("plan_id = ?", id).Order("id desc").Limit(most).Find(&rows).Error
	out := make([]Entry, len(rows))
	for i, r := range rows {
		out[i] = Entry{r.At, r.Who, r.Label, r.State, r.ID}
	}
	return out, s.down(ctx, err)
}

// named is what a second display of a name is called, within the letters a name may have.
func named(name string, n int) string {
	end := fmt.Sprintf(" (%d)", n)
	r := []rune(name)
	return strings.TrimSpace(string(r[:min(len(r), 80-len(end))])) + end
}

// Past is the plan's latest edits that stand, newest first, with what each changed.
func (s *Store) Past(ctx context.Context, id string, most int) (out []Edited, err error) {
	var rows []editRow
	err = s.db.WithContext(ctx).
		Where("plan_id = ? and state = 'done'", id).
		Order("id desc").
		Limit(most).
		Find(&rows).
		Error
	for _, r := range rows {
		e := Edited{Entry: Entry{r.At, r.Who, r.Label, r.State, r.ID}, Edit: plan.Edit{Label: r.Label}}
		if err := json.Unmarshal(r.Changes, &e.Edit.Changes); err != nil {
			return out, err
		}
		out = append(out, e)
	}
	return out, s.down(ctx, err)
}

// Edited is a line of the change log with the edit itself.
type Edited struct {
	Entry
	Edit plan.Edit
}

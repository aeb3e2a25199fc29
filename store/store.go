// Package store keeps plans in PostgreSQL through GORM. Each element is a row;
// an edit is one transaction that checks, changes rows and writes the log.
package store

import (
	"context"
	"database/sql"
	"embed"
	"encoding/json"
	"errors"
	"fmt"
	"log/slog"
	"time"

	"github.com/pressly/goose/v3"
	"gorm.io/driver/postgres"
	"gorm.io/gorm"
	"gorm.io/gorm/clause"
	"gorm.io/gorm/logger"
	"zapbarn/core/plan"
)

//go:embed migrations/*.sql
var migrations embed.FS

// Store is the database.
type Store struct{ db *gorm.DB }

// The errors a caller tells apart.
var (
	ErrNone    = errors.New("there is no such display")
	ErrNothing = errors.New("nothing to undo")
	ErrDown    = errors.New("the database does not answer; start it again, nothing you entered is lost")
)

type planRow struct {
	ID      string
	Rev     int64
	Made    time.Time
	Touched time.Time
}

func (planRow) TableName() string { return "plans" }

// row is one element of any kind.
type row struct {
	PlanID string `gorm:"primaryKey"`
	ID     string `gorm:"primaryKey"`
	Seq    int
	Rev    int64
	Body   json.RawMessage `gorm:"type:jsonb"`
}

type editRow struct {
	ID      int64
	PlanID  string
	At      time.Time `gorm:"default:now()"`
	Who     string
	Label   string
	Changes json.RawMessage `gorm:"type:jsonb"`
	State   string
	Rev     int64
}

func (editRow) TableName() string { return "edits" }

var tables = map[string]string{"display": "displays", "prop": "props", "solid": "solids", "joint": "joints", "finish": "finishes", "device": "devices",
	"input": "inputs", "scene": "scenes", "trigger": "triggers", "lot": "lots", "waiver": "waivers", "reading": "readings", "offcut": "offcuts", "layout": "layouts", "photo": "photos", "picture": "pictures", "outlet": "outlets", "plug": "plugs"}

// Open connects, and brings the schema up to date.
func Open(ctx context.Context, url string) (*Store, error) {
	db, err := gorm.Open(postgres.Open(url), &gorm.Config{Logger: logger.Default.LogMode(logger.Silent), SkipDefaultTransaction: true})
	if err != nil {
		return nil, fmt.Errorf("%w (%v)", ErrDown, err)
	}
	raw, err := db.DB()
	if err != nil {
		return nil, err
	}
	raw.SetMaxOpenConns(16)
	raw.SetConnMaxIdleTime(time.Minute)
	provider, err := goose.NewProvider(goose.DialectPostgres, raw, mustSub(), goose.WithSlog(slog.New(slog.DiscardHandler)))
	if err != nil {
		return nil, err
	}
	if _, err := provider.Up(ctx); err != nil {
		return nil, fmt.Errorf("bringing the database up to date: %w", err)
	}
	return &Store{db}, nil
}

// Close lets the connections go.
func (s *Store) Close() error {
	raw, err := s.db.DB()
	if err != nil {
		return err
	}
	return raw.Close()
}

// Ping reports whether the database answers.
func (s *Store) Ping(ctx context.Context) error {
	raw, err := s.db.DB()
	if err != nil {
		return err
	}
	if err := raw.PingContext(ctx); err != nil {
		return ErrDown
	}
	return nil
}

// down turns a lost connection into ErrDown and leaves the rest.
func (s *Store) down(ctx context.Context, err error) error {
	if err == nil || errors.Is(err, ErrNone) || errors.Is(err, ErrNothing) {
		return err
	}
	var stale *plan.Stale
	if errors.As(err, &stale) {
		return err
	}
	if s.Ping(ctx) != nil {
		return ErrDown
	}
	return err
}

// Listing is a display in the list.
type Listing struct {
	ID, Name string
	Touched  time.Time
}

// List is every display, latest first.
func (s *Store) List(ctx context.Context) ([]Listing, error) {
	var out []Listing
	err := s.db.WithContext(ctx).Raw("select p.id, d.name, p.touched from plans p join displays d on d.plan_id = p.id order by p.made").Scan(&out).Error
	return out, s.down(ctx, err)
}

// Load reads a plan and its revision.
func (s *Store) Load(ctx context.Context, id string) (p *plan.Plan, rev int64, err error) {
	err = s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		p, rev, err = load(tx, id, false)
		return err
	}, &sql.TxOptions{Isolation: sql.LevelRepeatableRead, ReadOnly: true})
	return p, rev, s.down(ctx, err)
}

func load(tx *gorm.DB, id string, forUpdate bool) (*plan.Plan, int64, error) {
	var head planRow
	q := tx
	if forUpdate {
		q = tx.Clauses(clause.Locking{Strength: "UPDATE"})
	}
	if err := q.Take(&head, "id = ?", id).Error; err != nil {
		if errors.Is(err, gorm.ErrRecordNotFound) {
			return nil, 0, ErrNone
		}
		return nil, 0, err
	}
	doc := map[string]any{"format": plan.Format}
	for _, kind := range plan.Kinds() {
		var rows []row
		if err := tx.Table(tables[kind]).Where("plan_id = ?", id).Order("seq, id").Find(&rows).Error; err != nil {
			return nil, 0, err
		}
		if kind == "display" {
			if len(rows) != 1 {
				return nil, 0, ErrNone
			}
			doc["display"] = rows[0].Body
			continue
		}
		list := make([]json.RawMessage, len(rows))
		for i := range rows {
			list[i] = rows[i].Body
		}
		doc[tables[kind]] = list
	}
	b, err := json.Marshal(doc)
	if err != nil {
		return nil, 0, err
	}
	p, err := plan.Decode(b)
	return p, head.Rev, err
}

// Create stores a new plan. With replace, one of the same ID gives way.
func (s *Store) Create(ctx context.Context, p *plan.Plan, replace bool) error {
	if err := p.Validate(); err != nil {
		return err
	}
	return s.down(ctx, s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		id := p.Display.ID
		if replace {
			if err := tx.Delete(&planRow{}, "id = ?", id).Error; err != nil {
				return err
			}
		}
		now := time.Now()
		if err := tx.Create(&planRow{ID: id, Made: now, Touched: now}).Error; err != nil {
			return fmt.Errorf("there is already a display %q", id)
		}
		for _, kind := range plan.Kinds() {
			var rows []row
			for i, e := range p.Elements(kind) {
				body, err := json.Marshal(e.Value)
				if err != nil {
					return err
				}
				rows = append(rows, row{id, e.ID, i, 1, body})
			}
			if len(rows) > 0 {
				if err := tx.Table(tables[kind]).CreateInBatches(rows, 500).Error; err != nil {
					return err
				}
			}
		}
		return nil
	}))
}

// Delete takes a display away with its log.
func (s *Store) Delete(ctx context.Context, id string) error {
	r := s.db.WithContext(ctx).Delete(&planRow{}, "id = ?", id)
	if r.Error == nil && r.RowsAffected == 0 {
		return ErrNone
	}
	return s.down(ctx, r.Error)
}

// Apply stores an edit. A *plan.Stale says the element was changed meanwhile.
func (s *Store) Apply(ctx context.Context, id, who string, e plan.Edit) error {
	return s.change(ctx, id, func(tx *gorm.DB, p *plan.Plan, rev int64) (*plan.Plan, plan.Edit, error) {
		q, err := p.Apply(e)
		if err != nil {
			return nil, e, err
		}
		if err := tx.Model(&editRow{}).Where("plan_id = ? and state = 'undone'", id).Update("state", "dropped").Error; err != nil {
			return nil, e, err
		}
		body, err := json.Marshal(e.Changes)
		if err != nil {
			return nil, e, err
		}
		return q, e, tx.Create(&editRow{PlanID: id, At: time.Now(), Who: who, Label: e.Label, Changes: body, State: "done", Rev: rev + 1}).Error
	})
}

// Undo takes the latest edit back; Redo does the last one undone again. They
// return its label.
func (s *Store) Undo(ctx context.Context, id string) (string, error) {
	return s.travel(ctx, id, "done", "undone", "id desc", plan.Edit.Inverse)
}

// Redo does the edit undone last again.
func (s *Store) Redo(ctx context.Context, id string) (string, error) {
	return s.travel(ctx, id, "undone", "done", "id", func(e plan.Edit) plan.Edit { return e })
}

func (s *Store) travel(ctx context.Context, id, from, to, order string, turn func(plan.Edit) plan.Edit) (label string, err error) {
	err = s.change(ctx, id, func(tx *gorm.DB, p *plan.Plan, _ int64) (*plan.Plan, plan.Edit, error) {
		var r editRow
		if err := tx.Where("plan_id = ? and state = ?", id, from).Order(order).Take(&r).Error; err != nil {
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
		e = turn(e)
		q, err := p.Apply(e)
		if err != nil {
			return nil, e, err
		}
		return q, e, tx.Model(&editRow{}).Where("id = ?", r.ID).Update("state", to).Error
	})
	return label, err
}

// change runs one edit as one transaction, edits of one plan after another.
func (s *Store) change(ctx context.Context, id string, edit func(tx *gorm.DB, p *plan.Plan, rev int64) (*plan.Plan, plan.Edit, error)) error {
	return s.down(ctx, s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		p, rev, err := load(tx, id, true)
		if err != nil {
			return err
		}
		q, e, err := edit(tx, p, rev)
		if err != nil {
			return err
		}
		if err := write(tx, id, p, q, e); err != nil {
			return err
		}
		return tx.Model(&planRow{}).Where("id = ?", id).Updates(map[string]any{"rev": rev + 1, "touched": time.Now()}).Error
	}))
}

// write stores what the edit touched; where it put an element in the middle of
// its list, that list is numbered afresh.
func write(tx *gorm.DB, id string, before, after *plan.Plan, e plan.Edit) error {
	renumber := map[string]bool{}
	for _, c := range e.Changes {
		table := tables[c.Kind]
		v, at := after.Get(c.Kind, c.ID)
		if v == nil {
			if err := tx.Table(table).Where("plan_id = ? and id = ?", id, c.ID).Delete(&row{}).Error; err != nil {
				return err
			}
			continue
		}
		body, err := json.Marshal(v)
		if err != nil {
			return err
		}
		if old, _ := before.Get(c.Kind, c.ID); old != nil {
			err = tx.Table(table).Where("plan_id = ? and id = ?", id, c.ID).Updates(map[string]any{"body": body, "rev": gorm.Expr("rev + 1")}).Error
		} else {
			renumber[c.Kind] = true
			err = tx.Table(table).Clauses(clause.OnConflict{UpdateAll: true}).Create(&row{id, c.ID, at, 1, body}).Error
		}
		if err != nil {
			return err
		}
	}
	for kind := range renumber {
		for i, x := range after.Elements(kind) {
			if err := tx.Table(tables[kind]).Where("plan_id = ? and id = ? and seq <> ?", id, x.ID, i).Update("seq", i).Error; err != nil {
				return err
			}
		}
	}
	return nil
}

// Entry is one line of the change log.
type Entry struct {
	At    time.Time
	Who   string
	Label string
	State string
}

// Log is the plan's latest edits, newest first.
func (s *Store) Log(ctx context.Context, id string, most int) ([]Entry, error) {
	var rows []editRow
	err := s.db.WithContext(ctx).Where("plan_id = ?", id).Order("id desc").Limit(most).Find(&rows).Error
	out := make([]Entry, len(rows))
	for i, r := range rows {
		out[i] = Entry{r.At, r.Who, r.Label, r.State}
	}
	return out, s.down(ctx, err)
}

// Steps says what undo and redo would do; "" when nothing.
func (s *Store) Steps(ctx context.Context, id string) (undo, redo string, err error) {
	var rows []editRow
	err = s.db.WithContext(ctx).Raw(`(select * from edits where plan_id = ? and state = 'done' order by id desc limit 1)
		union all (select * from edits where plan_id = ? and state = 'undone' order by id limit 1)`, id, id).Scan(&rows).Error
	for _, r := range rows {
		if r.State == "done" {
			undo = r.Label
		} else {
			redo = r.Label
		}
	}
	return undo, redo, s.down(ctx, err)
}

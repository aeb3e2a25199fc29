package store

import (
	"context"
	"time"
)

// Drill is one answered drill of a learner.
type Drill struct {
	ID       int64
	PlanID   string
	At       time.Time `gorm:"default:now()"`
	Who      string
	Level    int
	Truth    string // in words
	Answer   string
	Readings int
	Best     int
	Score    int
}

// AddDrill keeps an answered drill.
func (s *Store) AddDrill(ctx context.Context, d Drill) error {
	d.At = time.Now()
	return s.down(ctx, s.db.WithContext(ctx).Create(&d).Error)
}

// Drills is the record of a display's learners, newest first.
func (s *Store) Drills(ctx context.Context, plan string, most int) ([]Drill, error) {
	var out []Drill
	err := s.db.WithContext(ctx).Where("plan_id = ?", plan).Order("id desc").Limit(most).Find(&out).Error
	return out, s.down(ctx, err)
}

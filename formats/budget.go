package formats

import (
	"context"
	"errors"
	"time"

	"zapbarn/core/measure"
	"zapbarn/core/pattern"
)

// What reading one file may cost. Each limit is checked while reading, so that
// a small file that stands for a huge drawing ends early.
const (
	MaxElements = 50_000          // shapes of a drawing, counted again at each use
	MaxDepth    = 64              // groups within groups
	MaxPoints   = 200_000         // corners and curve ends before any are dropped
	MaxCoord    = 1e9             // of a coordinate, in the file's own units
	MaxReading  = 5 * time.Second // of one file
)

// budget counts what reading a file costs and ends it when that is too much,
// when its time is over, or when whoever sent the file has gone.
type budget struct {
	ctx              context.Context
	elements, points int
	since            int // points since the clock was looked at
}

// newBudget starts the clock; done lets it go.
func newBudget(ctx context.Context) (b *budget, done context.CancelFunc) {
	ctx, done = context.WithTimeout(ctx, MaxReading)
	return &budget{ctx: ctx}, done
}

func (b *budget) look() error {
	switch err := b.ctx.Err(); {
	case err == nil:
		return nil
	case errors.Is(err, context.DeadlineExceeded):
		return measure.Bad("file", "takes longer than %s to read; make it simpler", measure.Span(MaxReading.Seconds()))
	default:
		return err
	}
}

// element counts one more element at a depth.
func (b *budget) element(depth int) error {
	if depth > MaxDepth {
		return measure.Bad("file", "has groups more than %d deep; export it again without groups", MaxDepth)
	}
	if b.elements++; b.elements > MaxElements {
		return measure.Bad("file", "has more than %d elements; make it simpler", MaxElements)
	}
	return b.look()
}

// point counts n more points.
func (b *budget) point(n int) error {
	if b.points += n; b.points > MaxPoints {
		return measure.Bad(
			"file",
			"has more than %d corners; %d are read, so make the curves simpler",
			MaxPoints,
			pattern.MaxOutline,
		)
	}
	if b.since += n; b.since > 2000 {
		b.since = 0
		return b.look()
	}
	return nil
}

// far refuses a coordinate no drawing has: NaN, infinite or beyond MaxCoord.
func far(v float64) error {
	if v != v || v > MaxCoord || v < -MaxCoord {
		return measure.Bad("file", "has a corner at %.3g; %.0g is the farthest read", v, MaxCoord)
	}
	return nil
}

package formats

import (
	"context"

	"zapbarn/core/measure"
	"zapbarn/core/pattern"
)

// What reading one file may cost. A reader asks its budget before it makes anything and
// inside every loop that does, so that a small file that stands for something huge ends
// early. All of it is counted, nothing is guessed by the clock.
const (
	MaxElements = 50_000    // shapes of a drawing, counted again at each use
	MaxDepth    = 64        // groups within groups
	MaxPoints   = 200_000   // corners, control points and curve ends, before any are dropped
	MaxLetters  = 32 << 20  // letters of a drawing looked at, counted again at each use
	MaxCoord    = 1e9       // of a coordinate, in the file's own units
	MaxCells    = 200_000   // cells of a table, empty ones counted
	MaxRoom     = 128 << 20 // bytes that what was read takes
)

// budget counts what reading a file costs and ends it when that is too much, or when
// whoever sent the file has gone.
type budget struct {
	ctx                              context.Context
	elements, points, letters, cells int
	room                             int64
	since                            int // things counted since ctx was looked at
}

func newBudget(ctx context.Context) *budget { return &budget{ctx: ctx} }

// look ends the reading when nobody waits for it; n things were counted since the last.
func (b *budget) look(n int) error {
	if b.since += n; b.since < 2000 {
		return nil
	}
	b.since = 0
	return b.ctx.Err()
}

// element counts one more element at a depth.
func (b *budget) element(depth int) error {
	if depth > MaxDepth {
		return measure.Bad("file", "has groups more than %d deep; export it again without groups", MaxDepth)
	}
	if b.elements++; b.elements > MaxElements {
		return measure.Bad("file", "has more than %d elements; make it simpler", MaxElements)
	}
	return b.look(20)
}

// point counts n more points, before they are made.
func (b *budget) point(n int) error {
	if b.points += n; b.points > MaxPoints {
		return measure.Bad(
			"file",
			"has more than %d corners; %d are read, so make the curves simpler",
			MaxPoints,
			pattern.MaxOutline,
		)
	}
	return b.look(n)
}

// letter counts n more letters, before they are looked at.
func (b *budget) letter(n int) error {
	if b.letters += n; b.letters > MaxLetters {
		return measure.Bad("file", "uses long paths again and again; draw each once, or make them simpler")
	}
	return b.look(n / 10)
}

// cell counts n more cells of a table, before they are read.
func (b *budget) cell(n int) error {
	if b.cells += n; b.cells > MaxCells {
		return measure.Bad("file", "has more than %d cells; keep the columns that are asked for", MaxCells)
	}
	return b.look(n)
}

// bytes counts n more bytes that what is read will take; what says what it is.
func (b *budget) bytes(n int64, what string) error {
	if n < 0 || n > MaxRoom || b.room+n > MaxRoom {
		return measure.Bad("file", "%s; at most %d MB are read at once", what, MaxRoom>>20)
	}
	b.room += n
	return b.ctx.Err()
}

// far refuses a coordinate no drawing has: NaN, infinite or beyond MaxCoord.
func far(v float64) error {
	if v != v || v > MaxCoord || v < -MaxCoord {
		return measure.Bad("file", "has a corner at %.3g; %.0g is the farthest read", v, MaxCoord)
	}
	return nil
}

// one lets one large thing be read at a time: a picture, a sound or a table of many
// takes a hundred megabytes while it is read.
var one = make(chan struct{}, 1)

// alone waits until no other large thing is being read; done lets the next one in.
func alone(ctx context.Context) (done func(), err error) {
	select {
	case one <- struct{}{}:
		return func() { <-one }, nil
	case <-ctx.Done():
		return nil, ctx.Err()
	}
}

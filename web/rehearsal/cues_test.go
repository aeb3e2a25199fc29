package rehearsal

import (
	"testing"

	"zapbarn/core/measure"
	"zapbarn/core/plan"

	"github.com/stretchr/testify/assert"
)

// A cue settles on the edges of the others and of the scene, else on a tenth of a second;
// it never begins before the scene, and is never shorter than a tenth.
func TestACueSettles(t *testing.T) {
	d := func(s float64) measure.Duration { return measure.Of[measure.DurationKind](s) }
	s := &plan.Scene{Length: d(10), Cues: []plan.Cue{
		{Channel: "K1", Start: d(1), Length: d(2)}, {Channel: "K2", Start: d(4), Length: d(2.5)},
	}}
	at := func(start, length, near float64) (from, long float64) {
		q := settledCue(s, 0, start, length, near)
		return q.Start.Value(), q.Length.Value()
	}
	for _, c := range [][5]float64{
		{3.93, 2, .2, 4, 2},   // to the other's start
		{3.93, 2, 0, 3.9, 2},  // to a tenth
		{-3, 2, .2, 0, 2},     // not before the scene
		{1, 2.95, .2, 1, 3},   // its end to the other's start
		{1, 5.45, .2, 1, 5.5}, // and to the other's end
		{1, 8.9, .2, 1, 9},    // and to the scene's
		{1, -4, 0, 1, 0.1},    // never shorter than a tenth
		{1.04, 2, 0, 1, 2},    // a tenth
		{1.06, 2, 0, 1.1, 2},  // the next
	} {
		from, long := at(c[0], c[1], c[2])
		assert.InDelta(t, c[3], from, 1e-9)
		assert.InDelta(t, c[4], long, 1e-9)
	}
}

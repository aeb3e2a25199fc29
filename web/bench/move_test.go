package bench

import (
	"testing"
	"time"

	"zapbarn/core/form"
	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/work"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// What is moved settles on the nearest of: the floor, a top, an edge, a middle;
// else on a quarter inch or 5 mm; never under the floor.
func TestWhatIsMovedSettles(t *testing.T) {
	for _, units := range []string{"in", "mm"} {
		p := plan.New("x", "X", units, "").In(shop.Kept)
		p.Doc().Props = []plan.Prop{{ID: "a", Name: "A"}}
		mm := func(v float64) measure.Length { return measure.Of[measure.LengthKind](v) }
		box := func(id string, w, h, x, z float64) plan.Solid {
			return plan.Solid{
				ID:    id,
				Prop:  "a",
				Name:  id,
				Kind:  "box",
				Stock: "xps1",
				X:     mm(x),
				Z:     mm(z),
				Form:  form.Box{W: mm(w), D: mm(254), H: mm(h)},
			}
		}
		p.Doc().Solids = []plan.Solid{box("base", 508, 254, 0, 0), box("cap", 254, 127, 762, 0)}
		w := work.Do(p, shop.Kept, today)
		require.Len(t, w.Shapes(), 2)
		at := func(dx, dz, near float64) (x, z float64) {
			s := moved(w, w.Plan.Solid("cap"), dx, 0, dz, near)
			return s.X.Value(), s.Z.Value()
		}
		x, z := at(-755, 250, 20)
		assert.Zero(t, x, "middle over middle")
		assert.InDelta(t, 254, z, .6, "on the top")
		x, _ = at(-375, 0, 20)
		assert.InDelta(t, 381, x, .6, "edge to edge")
		x, _ = at(-630, 0, 20)
		assert.InDelta(t, 127, x, .6, "flush at the right")
		_, z = at(0, -300, 20)
		assert.Zero(t, z, "not under the floor")
		x, z = at(-101, 61, 2)
		step := map[string]float64{"in": 6.35, "mm": 5}[units]
		assert.InDelta(t, 0, x/step-float64(int(x/step+.5)), .02, "%s: %g", units, x)
		assert.InDelta(t, 0, z/step-float64(int(z/step+.5)), .02, "%s: %g", units, z)
		y := func(dy float64) float64 { // from above: by the other's middle, behind it, before it
			s := moved(w, w.Plan.Solid("cap"), 0, dy, 0, 20)
			return s.Y.Value()
		}
		assert.Zero(t, y(9))
		assert.InDelta(t, 254, y(249), .6)
		assert.InDelta(t, -254, y(-260), .6)
		x, z = at(0, 61, 2)
		assert.InDelta(t, 762, x, 1e-9, "what is not moved stays")
		assert.NotZero(t, z)
	}
}

// An opening that is slid settles on the face's middle, or in line with another, else on a
// quarter inch or 5 mm.
func TestAnOpeningSettles(t *testing.T) {
	p := plan.New("x", "X", "in", "").In(shop.Kept)
	p.Doc().Props = []plan.Prop{{ID: "a", Name: "A"}}
	l := measure.Len
	p.Doc().Solids = []plan.Solid{{ID: "b", Prop: "a", Name: "B", Kind: "panel", Stock: "ply1/4",
		Form: form.Panel{W: l("40 in"), H: l("40 in"), Copies: 1}, Openings: []plan.Opening{
			{Name: "one", Face: "panel", Kind: "round", W: l("2 in"), X: l("5 in"), Y: l("10 in")},
			{Name: "two", Face: "panel", Kind: "round", W: l("2 in"), X: l("-8 in"), Y: l("22 in")},
			{Name: "elsewhere", Face: "other", Kind: "round", W: l("2 in"), X: l("3 in"), Y: l("3 in")},
		}}}
	w := work.Do(p, shop.Kept, today)
	at := func(dx, dy, near float64) (x, y float64) {
		o := slidTo(w, &p.Solids()[0], 0, dx*25.4, dy*25.4, near*25.4).Openings[0]
		return o.X.Value() / 25.4, o.Y.Value() / 25.4
	}
	for _, c := range [][5]float64{
		{-4.8, 0, .5, 0, 10},      // the middle
		{-12.7, 12.3, .5, -8, 22}, // in line with the other, both ways
		{-2.1, 0, .5, 3, 10},      // not with one of another face: a quarter inch does it here
		{-4.3, 0, .5, .75, 10},    // too far from the middle
		{1.1, 1.1, 0, 6, 11},      // by a quarter inch
	} {
		x, y := at(c[0], c[1], c[2])
		assert.InDelta(t, c[3], x, 0.02)
		assert.InDelta(t, c[4], y, 0.02)
	}
}

var today = time.Date(2026, 9, 20, 12, 0, 0, 0, time.UTC)

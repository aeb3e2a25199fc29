package web

import (
	"testing"

	"zapbarn/core/form"
	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/stock"
	"zapbarn/core/work"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// What is moved settles on the nearest of: the floor, a top, an edge, a middle;
// else on a quarter inch or 5 mm; never under the floor.
func TestWhatIsMovedSettles(t *testing.T) {
	for _, units := range []string{"in", "mm"} {
		p := plan.New("x", "X", units, "")
		p.Props = []plan.Prop{{ID: "a", Name: "A"}}
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
		p.Solids = []plan.Solid{box("base", 508, 254, 0, 0), box("cap", 254, 127, 762, 0)}
		w := work.Do(p, stock.Shop, today)
		require.Len(t, w.Shapes, 2)
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

package check

import (
	"testing"

	"zapbarn/core/measure"
	"zapbarn/core/pattern"
	"zapbarn/core/plan"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"
)

// A line goes through a box or not, against small steps along it.
func TestEntersByBruteForce(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		num := func(n string) float64 { return rapid.Float64Range(-10, 10).Draw(t, n) }
		a, b := pattern.Point{X: num("ax"), Y: num("ay")}, pattern.Point{X: num("bx"), Y: num("by")}
		lo := pattern.Point{X: num("x"), Y: num("y")}
		hi := pattern.Point{X: lo.X + 3, Y: lo.Y + 2}
		inside, near := false, false
		for k := 0; k <= 4000; k++ {
			f := float64(k) / 4000
			x, y := a.X+f*(b.X-a.X), a.Y+f*(b.Y-a.Y)
			inside = inside || x > lo.X+.02 && x < hi.X-.02 && y > lo.Y+.02 && y < hi.Y-.02
			near = near || x > lo.X-.02 && x < hi.X+.02 && y > lo.Y-.02 && y < hi.Y+.02
		}
		if inside == near && enters(a, b, lo, hi) != inside {
			t.Fatalf("enters %v: %v %v in %v %v", !inside, a, b, lo, hi)
		}
	})
}

// A post beside the sweep, before it or behind it is none of its business; a wire over which
// it goes is.
func TestWhatIsSwept(t *testing.T) {
	has := func(code string, spoil func(p *plan.Plan, m *plan.Mechanism)) bool {
		p := clean()
		lifted(func(p *plan.Plan, m *plan.Mechanism) {
			m.X, m.Z = measure.Len("0 in"), measure.Len("4 in")
			spoil(p, m)
		})(p)
		return find(snags(t, p), code, "") != nil
	}
	assert.False(t, has("sweeps-into", func(*plan.Plan, *plan.Mechanism) {}), "nothing in its way")
	wire := func(path string) func(p *plan.Plan, m *plan.Mechanism) {
		return func(p *plan.Plan, _ *plan.Mechanism) { p.Device("W1").Path = path }
	}
	assert.True(t, has("sweeps-into", wire("12,0,7 12,0,30")), "its tip comes by 7 in up there")
	assert.False(t, has("sweeps-into", wire("12,0,9 12,0,30")), "above all of it")
	assert.False(t, has("sweeps-into", wire("-12,0,0 -12,0,30")), "on the other side")
}

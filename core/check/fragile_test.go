package check

import (
	"testing"
	"time"

	"zapbarn/core/form"
	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/work"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
)

// What stands on what is carried rides, too; what stands beside it does not. Foam may ride.
// The jolt by hand: v2 / (2 x 5 mm) over g.
func TestWhatRides(t *testing.T) {
	p := clean()
	lifted(func(p *plan.Plan, m *plan.Mechanism) {
		l := measure.Len
		add := func(id, of, by string) {
			p.Doc().Solids = append(
				p.Solids(),
				plan.Solid{ID: id, Prop: "a", Name: id, Kind: "panel", Stock: of, By: by, How: "on",
					X: l("90 in"), Form: form.Panel{W: l("8 in"), H: l("8 in")}},
			)
		}
		add("face", "ply1/8", "")
		add("eye", "acrylic3", "face")
		add("lens", "acrylic3", "eye")
		add("foam", "xps1", "face")
		add("beside", "acrylic3", "")
		p.Solids()[len(p.Solids())-3].How, p.Solids()[len(p.Solids())-1].How = "on", ""
		m.Carries, m.X, m.Z = "face", l("90 in"), l("4 in")
	})(p)
	w := work.Do(p, shop.Kept, time.Date(2026, 9, 20, 0, 0, 0, 0, time.UTC))
	var who []string
	for _, s := range run(w) {
		if s.Code == "fragile-rides" {
			who = append(who, s.At[1])
			assert.Contains(t, s.Why, "cracks from its holes")
		}
	}
	assert.ElementsMatch(t, []string{"solid:eye", "solid:lens"}, who)
	m := w.Moved("lid")
	end := max(m.Up.End, m.Down.End)
	jolt := measure.Decimal(end*end/0.01/9.80665, 1)
	for _, s := range run(w) {
		if s.Code == "fragile-rides" {
			assert.Contains(t, s.Why, "a jolt of "+jolt+" times its weight")
		}
	}
}

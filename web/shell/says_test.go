package shell

import (
	"testing"
	"time"

	"zapbarn/core/plan"
	"zapbarn/core/shorthand"
	"zapbarn/core/work"
	"zapbarn/demo"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// What a press says about a thing can be said: of every solid and lamp of the
// demo, of its metric twin and of the pattern book, with the plan's own names.
func TestWhatAPressSaysIsUnderstood(t *testing.T) {
	n := map[string]int{}
	for _, p := range []*plan.Plan{demo.Apiary(today), demo.Metric(today), demo.Patterns()} {
		p = p.In(shop.Kept)
		w := work.Do(p, shop.Kept, today)
		page := &Page{Plan: p, Work: w}
		for _, kind := range []string{"solid", "device"} {
			for _, e := range p.Elements(kind) {
				for _, s := range page.says(e.Value) {
					_, err := shorthand.Read(p, shop.Kept, p.Belongs(e.Value), s.Line)
					if err != nil && s.Name != "glue its seams" { // they may be glued already
						assert.NoError(t, err, "%s: %s", e.ID, s.Line)
					}
					n[s.Name]++
				}
			}
		}
	}
	for _, name := range []string{"hole", "slot", "window", "door", "pocket", "letters", "glue its seams",
		"one more like it"} {
		require.Greater(t, n[name], 5, name)
	}
}

// The buttons for openings cut the panel that is selected, whichever that is.
func TestOpeningsAreCutWhereOneLooks(t *testing.T) {
	p := demo.Apiary(today).In(shop.Kept)
	w := work.Do(p, shop.Kept, today)
	s := p.Solid("riser-box")
	for _, panel := range w.Shapes()["riser-box"].Panels {
		page := &Page{Plan: p, Work: w, Asked: Asked{Sel: "part:riser-box/" + panel.ID}}
		some := 0
		for _, say := range page.says(s) {
			if say.Name != "hole" && say.Name != "window" && say.Name != "slot" {
				continue
			}
			r, err := shorthand.Read(p, shop.Kept, "riser", say.Line)
			require.NoError(t, err, say.Line)
			q, err := p.Apply(r.Edit)
			require.NoError(t, err, say.Line)
			cut := q.Solid("riser-box").Openings
			assert.Equal(t, panel.ID, cut[len(cut)-1].Face, say.Line)
			some++
		}
		assert.Positive(t, some, panel.ID)
	}
}

var today = time.Date(2026, 9, 20, 12, 0, 0, 0, time.UTC)

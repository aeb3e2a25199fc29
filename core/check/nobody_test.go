package check

import (
	"testing"
	"time"

	"zapbarn/core/order"
	"zapbarn/core/plan"
	"zapbarn/core/shorthand"
	"zapbarn/core/work"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Sheets that two must carry, and two who are never there together, or one alone: what has
// no time is told, and the mends give it one.
func TestTwoWhoAreNeverThereTogether(t *testing.T) {
	today := time.Date(2026, 9, 20, 0, 0, 0, 0, time.UTC)
	p := plan.New("x", "X", "in", "2026-10-30").In(shop.Kept)
	p.Doc().Props = []plan.Prop{{ID: "a", Name: "Organ"}}
	r, err := shorthand.Read(p, shop.Kept, "a", "box 70 x 20 x 36 xps2 mitre bottom lid called Case")
	require.NoError(t, err)
	p, err = p.Apply(r.Edit)
	require.NoError(t, err)
	ola := plan.Person{ID: "ola", Name: "Ola", Hours: "sat sun 10-18"}
	tess := plan.Person{ID: "tess", Name: "Tess", Hours: "mon-fri 18-21"}
	for name, people := range map[string][]plan.Person{"two": {ola, tess}, "one": {ola}} {
		q := p.Clone()
		q.Doc().People = people
		w := work.Do(q, shop.Kept, today)
		tt := order.In(w)
		assert.Contains(t, tt.Stuck(), "Lay out and cut Organ: wants 2 people at once", name)
		assert.Contains(t, tt.Stuck(), "have no time", name)
		assert.Contains(t, tt.Stuck(), "waits for it", name)
		var s *Snag
		all := Check(w)
		for i := range all {
			if all[i].Code == "nobody" {
				s = &all[i]
			}
		}
		require.NotNil(t, s, name)
		require.NotEmpty(t, s.Mends, name)
		for _, m := range s.Mends {
			assert.Contains(t, m.Effect, "with no time, then all done", m.Label)
			mended, err := q.Apply(m.Edit)
			require.NoError(t, err, m.Label)
			assert.Empty(t, order.In(work.Do(mended, shop.Kept, today)).Stuck(), m.Label)
		}
		if name == "two" {
			assert.Len(t, s.Mends, 2)
			assert.Equal(t, "Tess comes when Ola does, too: sat sun 10-18", s.Mends[0].Label)
		} else {
			assert.Equal(t, "Somebody comes to help when Ola is there", s.Mends[0].Label)
		}
	}
	q := p.Clone()
	q.Doc().People = []plan.Person{{ID: "ola", Name: "Ola", Off: "2026-09-20"},
		{ID: "t", Name: "Tess", Hours: "mon-fri 8-12"}}
	seen := false
	for _, s := range Check(work.Do(q, shop.Kept, today)) {
		if s.Code == "nobody" { // Ola said nothing of her hours: she keeps those that are taken for hers
			require.Len(t, s.Mends, 2)
			seen = true
			assert.Equal(t, "Tess comes when Ola does, too: "+plan.AnyHours, s.Mends[0].Label)
			for _, m := range s.Mends {
				mended, err := q.Apply(m.Edit)
				require.NoError(t, err, m.Label)
				for _, x := range mended.People() {
					if x.Hours != "" && x.Name == "Ola" {
						assert.Contains(t, x.Hours, plan.AnyHours)
					}
				}
			}
		}
	}
	assert.True(t, seen)
	q.Doc().People = []plan.Person{ola, {ID: "t", Name: "Tess", Hours: "sun 12-18"}}
	assert.Empty(t, order.In(work.Do(q, shop.Kept, today)).Stuck(), "together on Sundays")
}

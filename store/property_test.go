package store_test

import (
	"fmt"
	"math/rand/v2"
	"testing"

	"zapbarn/core/form"
	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/work"
	"zapbarn/demo"
	"zapbarn/store"
	"zapbarn/testkit"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// randomEdit is one thing a builder might do to the plan as it stands.
func randomEdit(r *rand.Rand, p *plan.Plan, n int) plan.Edit {
	pick := func(list []plan.Element) plan.Element { return list[r.IntN(len(list))] }
	switch r.IntN(13) {
	case 0:
		id := p.FreshID("prop", fmt.Sprintf("Prop %d", n))
		return plan.Edit{
			Label:   "add a prop",
			Changes: []plan.Change{p.Put("prop", id, plan.Prop{ID: id, Name: "Prop"})},
		}
	case 1:
		prop := pick(p.Elements("prop")).ID
		id := p.FreshID("solid", "box")
		s := plan.Solid{
			ID:    id,
			Prop:  prop,
			Name:  "Box",
			Kind:  "box",
			Stock: "xps1",
			Form:  form.Box{W: measure.Len("20 in"), D: measure.Len("10 in")},
		}
		if r.IntN(2) == 0 {
			s = s.Set("h", measure.Len(fmt.Sprintf("%d in", 5+r.IntN(40))))
		}
		return plan.Edit{Label: "add a box", Changes: []plan.Change{p.Put("solid", id, s)}}
	case 2:
		if len(p.Devices()) == 0 {
			break
		}
		d := *pick(p.Elements("device")).Value.(*plan.Device)
		d.Proven = !d.Proven
		return plan.Edit{Label: "prove", Changes: []plan.Change{p.Put("device", d.ID, d)}}
	case 3:
		d := p.Display()
		d.RH = 30 + r.IntN(60)
		return plan.Edit{Label: "damp", Changes: []plan.Change{p.Put("display", d.ID, d)}}
	case 4:
		if len(p.Devices()) > 3 {
			return p.Without("device", pick(p.Elements("device")).ID)
		}
	case 5:
		if len(p.Props()) > 2 {
			return p.Without("prop", pick(p.Elements("prop")).ID)
		}
	case 7:
		id := p.FreshID("offcut", "xps1")
		return plan.Edit{
			Label: "offcut",
			Changes: []plan.Change{
				p.Put("offcut", id, plan.Offcut{ID: id, Stock: "xps1", W: measure.Len("18 in"), H: measure.Len("30 in")}),
			},
		}
	case 8: // a piece laid by hand, or a sheet cut
		w := work.Do(p, shop.Kept, today)
		if len(w.Sheets()) == 0 {
			break
		}
		sh := w.Sheets()[r.IntN(len(w.Sheets()))]
		if n := len(sh.Layout.Sheets); n > sh.Cut {
			if r.IntN(3) == 0 {
				if e, err := w.CutSheet(sh, sh.Cut+r.IntN(n-sh.Cut)); err == nil {
					return e
				}
			}
			if e, err := w.Move(sh, r.IntN(len(sh.Pieces)), sh.Cut+r.IntN(n-sh.Cut), 900*r.Float64(), 1500*r.Float64(), false,
				r.IntN(2) == 0); err == nil {
				return e
			}
		}
	case 9:
		id := p.FreshID("outlet", "yard")
		o := plan.Outlet{
			ID:      id,
			Name:    "Yard",
			Volts:   measure.Must[measure.VoltKind]("120 V"),
			Breaker: measure.Must[measure.AmpKind]("15 A"),
			Guard:   r.IntN(2) == 0,
		}
		e := plan.Edit{Label: "outlet", Changes: []plan.Change{p.Put("outlet", id, o)}}
		plug := p.FreshID("plug", "fog")
		e.Changes = append(
			e.Changes,
			p.Put(
				"plug",
				plug,
				plan.Plug{ID: plug, Name: "Fog", Outlet: id, Watts: measure.Must[measure.WattKind]("400 W")},
			),
		)
		return e
	case 10:
		if len(p.Outlets()) > 0 {
			return p.Without("outlet", pick(p.Elements("outlet")).ID)
		}
	case 11:
		if len(p.Pictures()) > 0 {
			x := *pick(p.Elements("picture")).Value.(*plan.Picture)
			x.A.X += 1 + r.IntN(9)
			return plan.Edit{Label: "point", Changes: []plan.Change{p.Put("picture", x.ID, x)}}
		}
	case 12:
		if len(p.Props()) > 0 {
			return p.Scaled(pick(p.Elements("prop")).ID, .8+.4*r.Float64())
		}
	case 6:
		if len(p.Solids()) > 2 {
			return p.Without("solid", pick(p.Elements("solid")).ID)
		}
	}
	id := p.FreshID("lot", "pva")
	return plan.Edit{
		Label:   "open a bottle",
		Changes: []plan.Change{p.Put("lot", id, plan.Lot{ID: id, Glue: "pva", Opened: "2026-01-02"})},
	}
}

// Any run of edits: what is stored is what core made of them; undoing all
// gives the plan as it came, and redoing all the plan as it was left.
func TestAnyRunOfEditsUndoesAndRedoes(t *testing.T) {
	seeds := uint64(1)
	if testkit.Slow() {
		seeds = 6
	}
	for seed := range seeds {
		url := testkit.Database(t)
		s, err := store.Open(ctx, url)
		require.NoError(t, err)
		other, err := store.Open(ctx, url) // has kept nothing: it reads what is stored
		require.NoError(t, err)
		s.In(shop.Kept)
		other.In(shop.Kept)
		t.Cleanup(func() { _ = s.Close(); _ = other.Close() })
		want := demo.Apiary(today).In(shop.Kept)
		require.NoError(t, s.Create(ctx, want, false))
		first := string(want.Encode())
		id := want.Display().ID
		r := rand.New(rand.NewPCG(seed, 5))
		const steps = 25
		for n := range steps {
			e := randomEdit(r, want, n)
			next, err := want.Apply(e)
			require.NoError(t, err, "seed %d step %d %s", seed, n, e.Label)
			require.NoError(t, s.Apply(ctx, id, store.By{Who: "crew"}, e))
			want = next
			require.Equal(t, string(want.Encode()), string(load(t, s, id).Encode()), "seed %d step %d %s", seed, n, e.Label)
			require.Equal(
				t,
				string(want.Encode()),
				string(load(t, other, id).Encode()),
				"seed %d step %d %s",
				seed,
				n,
				e.Label,
			)
		}
		last := string(want.Encode())
		work.Do(want, shop.Kept, today) // whatever is left can be worked out
		for range steps {
			_, err := s.Undo(ctx, id, store.By{})
			require.NoError(t, err)
		}
		assert.Equal(t, first, string(load(t, s, id).Encode()), "seed %d", seed)
		assert.Equal(t, first, string(load(t, other, id).Encode()), "seed %d", seed)
		for range steps {
			_, err := s.Redo(ctx, id, store.By{})
			require.NoError(t, err)
		}
		assert.Equal(t, last, string(load(t, s, id).Encode()), "seed %d", seed)
	}
}

// Two displays do not touch each other.
func TestDisplaysAreApart(t *testing.T) {
	s := testkit.Open(t)
	a, b := demo.Apiary(today), demo.Metric(today)
	require.NoError(t, s.Create(ctx, a, false))
	require.NoError(t, s.Create(ctx, b, false))
	require.NoError(t, s.Apply(ctx, a.Display().ID, store.By{Who: ""}, a.Without("device", "S1")))
	assert.Equal(t, string(b.Encode()), string(load(t, s, b.Display().ID).Encode()))
	_, err := s.Undo(ctx, b.Display().ID, store.By{})
	assert.Error(t, err, "nothing was done there")
	require.NoError(t, s.Bin(ctx, a.Display().ID, today))
	assert.Equal(t, string(b.Encode()), string(load(t, s, b.Display().ID).Encode()))
}

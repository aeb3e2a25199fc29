package web

import (
	"strings"
	"testing"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/demo"
	"zapbarn/store"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Each edit says which snag it raised and which it mended, the last one first; a waived one
// is mended as far as anybody is told, and what was undone is no part of it.
func TestWhichEditRaisedASnag(t *testing.T) {
	s := site(t, demo.Apiary(today).In(shop.Kept))
	do := func(label string, change func(p *plan.Plan) plan.Change) {
		_, err := s.Store.Edit(t.Context(), "midnight-apiary", store.By{Who: "Ola"}, func(p *plan.Plan) (plan.Edit, error) {
			return plan.Edit{Label: label, Changes: []plan.Change{change(p)}}, nil
		})
		require.NoError(t, err)
	}
	fuse := func(amps string) func(p *plan.Plan) plan.Change {
		return func(p *plan.Plan) plan.Change {
			d := *p.Device("F3")
			d.Rating = measure.Must[measure.AmpKind](amps)
			return p.Put("device", d.ID, d)
		}
	}
	do("a large fuse", fuse("30 A"))
	do("the name", func(p *plan.Plan) plan.Change {
		d := p.Display()
		d.Name = "Apiary"
		return p.Put("display", d.ID, d)
	})
	do("a small fuse", fuse("5 A"))
	do("undone", fuse("20 A"))
	_, err := s.Store.Undo(t.Context(), "midnight-apiary", store.By{})
	require.NoError(t, err)
	page := fetch(t, s, "/p/midnight-apiary/walkdown?way=history").Body.String()
	turns := strings.Split(page, `<article class="turn`)[1:]
	require.Len(t, turns, 3)
	assert.Contains(t, turns[0], "a small fuse")
	assert.Contains(t, turns[0], "stop: Fuse F3 does not guard the wire")
	assert.Contains(t, turns[0], `aria-label="Mended"`)
	assert.Contains(t, turns[1], "No snag came or went.")
	assert.Contains(t, turns[2], "a large fuse")
	assert.Contains(t, turns[2], `aria-label="Raised"`)
	assert.Contains(t, turns[2], "Ola")
	assert.NotContains(t, strings.Join(turns, ""), "undone")
}

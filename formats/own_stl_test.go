package formats

import (
	"bytes"
	"testing"

	"zapbarn/core/work"
	"zapbarn/demo"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// What is written of every prop and solid is cut again by the program itself, and what lies in
// two of its bodies is counted once, so that the layers come to no more than the bodies do.
func TestOwnSTLIsCut(t *testing.T) {
	w := work.Do(demo.Apiary(bookDay), shop.Kept, bookDay)
	cut := func(prop, solid string) (union bool) {
		var b bytes.Buffer
		if SolidsSTL(&b, w, prop, solid) != nil {
			return false // it has no shape
		}
		m, err := STL(b.Bytes(), 1)
		require.NoError(t, err)
		r, err := SliceSTL(m, 76.2)
		if m.Report().Open > 0 {
			require.ErrorContains(t, err, "holes", "%s %s", prop, solid) // a skin without its ends
			return false
		}
		require.NoError(t, err, "%s %s", prop, solid)
		assert.Positive(t, r.Volume)
		if r.Union {
			assert.Less(t, r.Volume, r.Mesh.Volume*1.3, "%s %s", prop, solid)
		}
		return r.Union
	}
	unions := 0
	for _, p := range w.Plan.Props() {
		if cut(p.ID, "") {
			unions++
		}
	}
	for _, s := range w.Plan.Solids() {
		cut(s.Prop, s.ID)
	}
	assert.Greater(t, unions, 3)
}

package plan

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// An edit of elements anywhere in their lists, in any order, however wrong it knows their
// places, is taken back to the same plan once it is placed.
func TestAPlacedEditIsTakenBackWhole(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := New("x", "X", "in", "")
		for i := range rapid.IntRange(2, 9).Draw(t, "props") {
			p.doc.Props = append(p.Props(), Prop{ID: fmt.Sprint("p", i), Name: fmt.Sprint("P", i)})
		}
		e := Edit{Label: "some"}
		for _, i := range rapid.Permutation([]int{0, 1, 2, 3, 4, 5, 6, 7, 8}).Draw(t, "order") {
			if i >= len(p.Props()) {
				continue
			}
			x := p.Props()[i]
			switch rapid.IntRange(0, 2).Draw(t, "what") {
			case 0:
				c := p.Drop("prop", x.ID)
				c.At = rapid.IntRange(-1, 9).Draw(t, "at")
				e.Changes = append(e.Changes, c)
			case 1:
				x.Name += " changed"
				e.Changes = append(e.Changes, p.Put("prop", x.ID, x))
			}
		}
		e.Changes = append(e.Changes, p.Put("prop", "new", Prop{ID: "new", Name: "New"}))
		e = p.Placed(e)
		q, err := p.Apply(e)
		require.NoError(t, err)
		back, err := q.Apply(e.Inverse())
		require.NoError(t, err)
		require.Equal(t, string(p.Encode()), string(back.Encode()))
	})
}

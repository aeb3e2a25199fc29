package shorthand

import (
	"strings"
	"testing"

	"zapbarn/core/plan"
	"zapbarn/core/stock"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Whatever a thing is called, it is found by its name: commas, apostrophes, case and
// spaces, written as on the screen or carelessly.
func TestAnythingIsFoundByItsName(t *testing.T) {
	for _, name := range []string{"Skep, small", "Keeper's hand", "Keeper’s left hand, outer", "Box no 2", "A  wide one"} {
		p := plan.New("x", "X", "in", "")
		p.Props = []plan.Prop{{ID: "a", Name: "A"}}
		for _, line := range []string{"box 10 x 10 x 10", "box 6 x 6 x 6 beside"} {
			r, err := Read(p, stock.Shop, "a", line)
			require.NoError(t, err)
			p, err = p.Apply(r.Edit)
			require.NoError(t, err)
		}
		p.Solids[0].Name = name
		id := p.Solids[0].ID
		for _, said := range []string{name, strings.ToUpper(name), strings.ReplaceAll(name, " ", "   "),
			strings.ReplaceAll(name, "’", "'"), strings.ReplaceAll(name, ", ", ",")} {
			for line, want := range map[string]string{
				said + " height 12":                  id,
				"coat " + said + " latex":            id,
				"remove " + said:                     id,
				"hole 1 in in " + said + " front":    id,
				"rename " + said + " to another one": id,
			} {
				r, err := Read(p, stock.Shop, "a", line)
				require.NoError(t, err, line)
				assert.Contains(t, string(r.Edit.Changes[0].Before)+r.Edit.Changes[0].ID, want, line)
			}
		}
	}
}

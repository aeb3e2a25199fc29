package shorthand

import (
	"errors"
	"testing"

	"zapbarn/core/stock"
	"zapbarn/demo"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A line that is only a name says where the thing is and goes on with a line that reads:
// so for every thing of the display, from every prop.
func TestALineThatIsOnlyAName(t *testing.T) {
	p := demo.Apiary(today)
	for _, prop := range p.Props {
		for _, kind := range []string{"solid", "device", "prop", "input", "scene"} {
			for _, e := range p.Elements(kind) {
				_, err := Read(p, stock.Shop, prop.ID, e.ID)
				if err == nil {
					continue // it is a phrase of its own
				}
				var wrong *Error
				require.True(t, errors.As(err, &wrong), e.ID)
				assert.Contains(t, wrong.Why, "say what of", e.ID)
				if in := p.Belongs(e.Value); in != "" && in != prop.ID && kind != "prop" {
					assert.Contains(t, wrong.Why, "is in "+p.Prop(in).Name, e.ID)
				} else {
					assert.NotContains(t, wrong.Why, " is in ", e.ID)
				}
				_, err = Read(p, stock.Shop, prop.ID, wrong.Example)
				assert.NoError(t, err, "%s: %s", e.ID, wrong.Example)
			}
		}
	}
	_, err := Read(p, stock.Shop, "riser", "hat")
	assert.EqualError(t, err, "Hat is in Keeper: say what of it; try: Hat right by 3 in")
}

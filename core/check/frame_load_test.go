package check

import (
	"math"
	"testing"

	"zapbarn/core/form"
	"zapbarn/core/measure"
	"zapbarn/core/pattern"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A rail carried at both ends bears at its middle what bends it to its limit, 4 Z S / L, and sags
// L / 200 under 48 E I / (200 L^2): Roark's cases for a simply carried beam with a load at its middle.
// Its longer side is the rail that is judged.
func TestARailBearsWhatItsFormulaSays(t *testing.T) {
	m := shop.Kept.Materials["pvc3/4"]
	require.NotZero(t, m.OD.Value())
	od, bore := m.OD.Value(), m.Bore()
	i := math.Pi / 64 * (math.Pow(od, 4) - math.Pow(bore, 4)) * 1e-12 // m4
	const g = 9.80665
	for _, wide := range []bool{true, false} {
		l := 1.2 // m
		f := form.Frame{W: measure.Of[measure.LengthKind](l * 1000), D: measure.Of[measure.LengthKind](300)}
		if !wide {
			f.W, f.D = f.D, f.W
		}
		f.Load = measure.Of[measure.MassKind](4 * (i / (od / 2000)) * pattern.PipeStress / l / g)
		bends, _ := borne(f, m)
		assert.InDelta(t, 1, bends, 1e-9, "bent to its limit")
		f.Load = measure.Of[measure.MassKind](48 * pattern.PipeModulus * i / (200 * l * l) / g)
		_, sags := borne(f, m)
		assert.InDelta(t, 1, sags, 1e-9, "sags a two-hundredth")
	}
}

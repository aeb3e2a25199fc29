package shell

import (
	"math"
	"strconv"

	"zapbarn/core/measure"

	"github.com/gin-gonic/gin"
)

// Settle is where something that was dragged comes to rest: on the nearest of some places
// that is nearer than near, else on the nearest step.
func Settle(v, step, near float64, to ...float64) float64 {
	best, off := math.Round(v/step)*step, near
	for _, t := range to {
		if d := math.Abs(v - t); d < off {
			best, off = t, d
		}
	}
	return best
}

// LengthStep is what lengths are dragged by: a quarter inch, or 5 mm.
func LengthStep(metric bool) float64 {
	if metric {
		return 5
	}
	return measure.Inch / 4
}

// Dragged reads what something was dragged by; what is left out is nothing. The error
// names the field.
func Dragged(c *gin.Context, most float64, names ...string) (map[string]float64, error) {
	by := map[string]float64{}
	for _, k := range names {
		v, err := strconv.ParseFloat(c.DefaultPostForm(k, "0"), 64)
		if err != nil || math.IsNaN(v) || math.Abs(v) > most {
			return nil, measure.Bad(k, "is no distance; drag it again")
		}
		by[k] = v
	}
	return by, nil
}

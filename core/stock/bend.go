package stock

import "zapbarn/core/source"

// Bend is how tight a family of sheet bends: its least inside radius in
// thicknesses, cold and warmed through; 0 is not at all.
type Bend struct {
	Cold, Warm float64
	How        string // how it is warmed, and the caution that goes with it
}

// BendFrom is where the radii come from.
var BendFrom = source.FromMemory(
	"typical least radii: acrylic 180 to 200 thicknesses cold; plywood across the face grain about 95; foam board by " +
		"its breaking strain of 1 to 2 %",
)

var bends = map[string]Bend{
	"eva":       {2, 1, "a heat gun on low, outdoors or under a hood, gloves on"},
	"xps":       {40, 10, "slow even warmth under its softening point, outdoors, no flame"},
	"eps":       {40, 0, ""},
	"foamboard": {60, 0, ""},
	"pp":        {25, 0, ""},
	"acrylic":   {180, 3, "a strip heater at 150 to 160 C, gloves, good air, never a flame"},
	"wood":      {95, 0, ""},
}

// Bends is how tight a stock bends; false where it is not known.
func (m Material) Bends() (Bend, bool) {
	b, ok := bends[m.Family]
	return b, ok
}

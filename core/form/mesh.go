package form

import (
	"zapbarn/core/measure"
	"zapbarn/core/pattern"
)

// Mesh is a closed triangle mesh in layers of the stock's thickness.
type Mesh struct {
	H      measure.Length `json:"h,omitzero" label:"Height" grip:"up"`
	Wall   measure.Length `json:"wall,omitzero" label:"Wall" scale:"no"`
	Allow  measure.Length `json:"allow,omitzero" label:"Carve allowance" scale:"no"`
	Dowels int            `json:"dowels,omitempty" label:"Pins a joint"`
	Dowel  measure.Length `json:"dowel,omitzero" label:"Pin, thick" scale:"no"`
	Mesh   string         `json:"mesh,omitempty" max:"2000000"` // packed triangles
}

var _ = register(
	Kind{
		Name:   "mesh",
		Title:  "Carved body from a mesh",
		Form:   "sheet",
		Stock:  "xps2",
		Piles:  true,
		Splits: true,
		Blank:  Mesh{},
	},
)

// Lay lays out the layers.
func (m Mesh) Lay(on On) (*pattern.Shape, error) {
	if err := need("h", m.H); err != nil {
		return nil, err
	}
	mesh, err := pattern.Unpack(m.Mesh)
	if err != nil {
		return nil, err
	}
	return laid(
		pattern.MeshSlices{
			Mesh:   mesh,
			H:      m.H.Value(),
			T:      on.Thick(),
			Wall:   m.Wall.Value(),
			Allow:  m.Allow.Value(),
			Dowels: m.Dowels,
			Dowel:  m.Dowel.Or(measure.Inch / 2),
		},
		"height",
		"h",
		"width",
		"h",
		"depth",
		"h",
	)
}

// Order is from slice 1 upwards.
func (m Mesh) Order(p Parts) []string { return stacked(p) }

// Lies is true: each slice is drawn from above.
func (m Mesh) Lies() bool { return true }

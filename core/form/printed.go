package form

import (
	"strings"

	"zapbarn/core/measure"
	"zapbarn/core/pattern"
)

// Printed is a part made of a mesh on a printer.
type Printed struct {
	H      measure.Length `json:"h,omitzero" label:"Height" grip:"up"`
	BedW   measure.Length `json:"bedW,omitzero" label:"Bed, wide" scale:"no"`
	BedD   measure.Length `json:"bedD,omitzero" label:"Bed, deep" scale:"no"`
	BedH   measure.Length `json:"bedH,omitzero" label:"Bed, high" scale:"no"`
	Wall   measure.Length `json:"wall,omitzero" label:"Shells" scale:"no"`
	Infill int            `json:"infill,omitempty" label:"Infill, %"`
	Mesh   string         `json:"mesh,omitempty" max:"2000000"` // packed triangles
}

var _ = register(
	Kind{
		Name:    "printed",
		Title:   "Printed part",
		Form:    "filament",
		Stock:   "pla",
		Piles:   true,
		Flat:    true,
		Layered: true,
		Blank:   Printed{},
	},
)

// Lay reckons plastic, pieces and glued faces; with nothing said, a bed of 220 x
// 220 x 250 mm, shells of 1.2 mm, 15 % infill: common practice, no source.
func (p Printed) Lay(on On) (*pattern.Shape, error) {
	if err := need("h", p.H); err != nil {
		return nil, err
	}
	mesh, err := pattern.Unpack(p.Mesh)
	if err != nil {
		return nil, err
	}
	infill := .15
	if p.Infill > 0 {
		infill = float64(p.Infill) / 100
	}
	return laid(
		pattern.Printed{
			Mesh:    mesh,
			H:       p.H.Value(),
			Bed:     [3]float64{p.BedW.Or(220), p.BedD.Or(220), p.BedH.Or(250)},
			Wall:    p.Wall.Or(1.2),
			Infill:  infill,
			Density: on.Stock.Density,
			Unit:    on.Stock.Unit,
		},
		"height",
		"h",
		"width",
		"bedW",
		"depth",
		"bedD",
		"bed",
		"bedH",
	)
}

// Order is largest face down.
func (p Printed) Order(Parts) []string {
	return []string{
		"Change the model rather than the print: holes, seats and keys belong in it.",
		"Print each piece with its cut face on the bed.",
		"Dry-fit with pins or keys, glue the cut faces, fill and sand the seams.",
	}
}

// PrintLitre is how long a printer takes to a litre of plastic, and PrintPiece how long hands are at
// a piece, minutes: some 15 cm3 an hour (typical, from memory).
const (
	PrintLitre = 1000. / 15 * 60
	PrintPiece = 15.0
)

// Make is the filament by the spool, and the hours that the printer runs by itself.
func (p Printed) Make(on On, s *pattern.Shape) Making {
	plastic, pieces := s.Mass/on.Stock.Density*1000, figure(s, "pieces")
	_, pack, _ := strings.Cut(on.Stock.Name, ", ")
	return Making{
		Jobs: []Job{{ID: "print", Name: "Print %s", Tool: "printer", Wait: plastic * PrintLitre,
			Takes:    []Takes{{"pieces sliced, started and cleaned", pieces, PrintPiece}},
			Steps:    []string{"Each piece with its cut face on the bed; brim where it is tall and narrow."},
			Cautions: []string{"Moving air and a smoke alarm where it prints; it is not left to run with nobody near."}}},
		Goods: []Good{{What: "material:" + on.Stock.ID, Name: on.Stock.Name, Unit: "L", Use: plastic, Spare: .1,
			Pack: on.Stock.Unit, In: pack, Price: on.Stock.Price, Lead: 3, How: "shells and infill"}},
	}
}

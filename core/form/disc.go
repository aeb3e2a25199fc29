package form

import (
	"fmt"

	"zapbarn/core/measure"
	"zapbarn/core/pattern"
	"zapbarn/core/words"
)

// Disc is a round plate, flat or standing on edge.
type Disc struct {
	W       measure.Length `json:"w,omitzero" label:"Across" grip:"across"`
	Bore    measure.Length `json:"bore,omitzero" label:"Hole"`
	Copies  int            `json:"copies,omitempty" label:"Copies"`
	Upright bool           `json:"upright,omitempty" label:"Standing on edge"`
	Pitch   measure.Length `json:"pitch,omitzero" label:"Pitch"`
}

var _ = register(
	Kind{
		Name:    "disc",
		Title:   "Disc",
		Form:    "sheet",
		Stock:   "xps1",
		Piles:   true,
		Flat:    true,
		Layered: true,
		Blank:   Disc{},
		Read:    readDisc,
		Example: "disc 36 in xps1 x2",
		Press:   Press{5, "disc", "disc 24 in xps1", "disc 600 xps1", "M2 13a13 7 0 1 0 26 0a13 7 0 1 0 -26 0", ""},
	},
)

// Lay lays out the disc.
func (d Disc) Lay(on On) (*pattern.Shape, error) {
	if err := need("w", d.W); err != nil {
		return nil, err
	}
	return laid(
		pattern.Disc{
			D:       d.W.Value(),
			Bore:    d.Bore.Value(),
			T:       on.Thick(),
			Copies:  max(1, d.Copies),
			Upright: d.Upright,
			Pitch:   d.Pitch.Value(),
		},
		"diameter",
		"w",
	)
}

// Order of a single plate.
func (d Disc) Order(Parts) []string { return plate() }

func plate() []string {
	return []string{"Cut, number it on the inside, and ease the edges with a rasp."}
}

// Lies is true but for one that stands on edge.
func (d Disc) Lies() bool { return !d.Upright }

// Alone is true of one that stands on edge.
func (d Disc) Alone() bool { return d.Upright }

func readDisc(w *words.Words) (Form, string, error) {
	d := Disc{Pitch: w.After("pitch"), Copies: w.Copies(), Bore: w.After("bore", "hole"), Upright: w.Take("upright")}
	dims, err := w.Exactly(1, "a disc takes one diameter")
	if err != nil {
		return nil, "", err
	}
	d.W = dims[0]
	return d, fmt.Sprintf("%s, %s across", words.Count(max(1, d.Copies), "disc"), w.Say(d.W)), nil
}

// Free is true: nothing covers its faces or its edges.
func (Disc) Free() bool { return true }

package form

import (
	"zapbarn/core/measure"
	"zapbarn/core/pattern"
	"zapbarn/core/words"
)

// Boards is a disc larger than its sheet, laid over boards side by side.
type Boards struct {
	W      measure.Length `json:"w,omitzero" label:"Across" grip:"across"`
	Offset measure.Length `json:"offset,omitzero" label:"Seam offset" scale:"no" signed:"yes"`
	Brace  measure.Length `json:"brace,omitzero" label:"Brace, wide" scale:"no"`
}

var _ = register(
	Kind{
		Name:    "boards",
		Title:   "Disc over boards",
		Form:    "sheet",
		Stock:   "xps1",
		Blank:   Boards{},
		Read:    readBoards,
		Example: "boards 8 ft xps1",
	},
)

// Lay lays out the boards and their braces.
func (b Boards) Lay(on On) (*pattern.Shape, error) {
	if err := need("w", b.W); err != nil {
		return nil, err
	}
	return laid(
		pattern.Boards{
			D:      b.W.Value(),
			T:      on.Thick(),
			Board:  on.Stock.Sheet[0].Value(),
			Offset: b.Offset.Value(),
			Brace:  b.Brace.Or(6 * measure.Inch),
		},
		"diameter",
		"w",
		"board",
		"stock",
	)
}

// Order glues first and cuts round last.
func (b Boards) Order(Parts) []string {
	return []string{
		"Lay the boards side by side, seams tight, and glue the braces over the seams behind.",
		"Draw the circle with the string when the glue holds, and cut it in one go.",
	}
}

// Lies is true: it is drawn from above.
func (b Boards) Lies() bool { return true }

func readBoards(w *words.Words) (Form, string, error) {
	dims, err := w.Exactly(1, "a disc over boards takes one diameter")
	if err != nil {
		return nil, "", err
	}
	return Boards{W: dims[0]}, "disc over boards, " + w.Say(dims[0]) + " across", nil
}

// Free is true: nothing covers its faces or its edges.
func (Boards) Free() bool { return true }

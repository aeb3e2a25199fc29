package form

import (
	"fmt"

	"zapbarn/core/measure"
	"zapbarn/core/pattern"
	"zapbarn/core/words"
)

// Box is a box or crate; its sizes are outside ones, a lid counted.
type Box struct {
	W        measure.Length `json:"w,omitzero" label:"Width" grip:"across"`
	D        measure.Length `json:"d,omitzero" label:"Depth"`
	H        measure.Length `json:"h,omitzero" label:"Height" grip:"up"`
	Joint    string         `json:"joint,omitempty" label:"Corners" choose:"butt|mitre|rabbet"`
	Bottom   bool           `json:"bottom,omitempty" label:"Bottom"`
	Lid      bool           `json:"lid,omitempty" label:"Lid"`
	Overhang measure.Length `json:"overhang,omitzero" label:"Lid overhang" scale:"no"`
}

var _ = register(
	Kind{
		Name:    "box",
		Title:   "Box",
		Form:    "sheet",
		Stock:   "xps1",
		Piles:   true,
		Splits:  true,
		Blank:   Box{Joint: "butt"},
		Read:    readBox,
		Example: "box 22 x 18 x 26 1/2 xps1 rabbet lid bottom (or: box 10 x 10 x 10 xps1 beside)",
		Press: Press{
			1,
			"box",
			"box 24 x 18 x 24 xps1 rabbet",
			"box 600 x 450 x 600 xps1 rabbet",
			"M3 9L15 3L27 8V20L15 25L3 19Z",
			"M3 9L15 14L27 8M15 14V25",
		},
	},
)

// Lay lays out the box.
func (b Box) Lay(on On) (*pattern.Shape, error) {
	if err := need("w", b.W, "d", b.D, "h", b.H); err != nil {
		return nil, err
	}
	joint := b.Joint
	if joint == "" {
		joint = "butt"
	}
	return laid(
		pattern.Box{
			W:        b.W.Value(),
			D:        b.D.Value(),
			H:        b.H.Value(),
			T:        on.Thick(),
			Joint:    joint,
			Bottom:   b.Bottom,
			Lid:      b.Lid,
			Overhang: b.Overhang.Value(),
		},
		"width",
		"w",
		"depth",
		"d",
		"height",
		"h",
	)
}

// Order goes from the bottom to the lid.
func (b Box) Order(p Parts) []string {
	out := []string{"Dry-fit all of it with tape; the ticks of neighbours meet."}
	if p.Have["bottom"] {
		out = append(out, "Glue the bottom into the front, then both sides to bottom and front.")
	} else {
		out = append(out, "Glue both sides to the front.")
	}
	out = append(out, "Glue the back on; check that both diagonals are equal before it grabs.")
	if p.Have["lid"] {
		out = append(out, "Lid last, when what belongs inside is in and proven.")
	}
	return out
}

func readBox(w *words.Words) (Form, string, error) {
	b := Box{Joint: w.OneOf("butt", "butt", "mitre", "rabbet"), Bottom: w.Take("bottom"), Lid: w.Take("lid")}
	dims, err := w.Exactly(3, "a box takes width x depth x height")
	if err != nil {
		return nil, "", err
	}
	b.W, b.D, b.H = dims[0], dims[1], dims[2]
	text := fmt.Sprintf("box, %s wide, %s deep, %s tall, %s corners", w.Say(b.W), w.Say(b.D), w.Say(b.H), b.Joint)
	if b.Lid {
		text += ", lid"
	}
	if b.Bottom {
		text += ", bottom"
	}
	return b, text, nil
}

package form

import (
	"fmt"
	"strings"

	"zapbarn/core/measure"
	"zapbarn/core/pattern"
	"zapbarn/core/words"
)

// Outline is a silhouette: flat pieces of any outline, with holes.
type Outline struct {
	W      measure.Length `json:"w,omitzero" label:"Width" grip:"across"`
	H      measure.Length `json:"h,omitzero" label:"Height" grip:"up"`
	Bore   measure.Length `json:"bore,omitzero" label:"Round a circle"` // its copies stand out from it
	Copies int            `json:"copies,omitempty" label:"Copies"`
	Lying  bool           `json:"lying,omitempty" label:"Lying flat"`
	Pitch  measure.Length `json:"pitch,omitzero" label:"Pitch"`
	Path   string         `json:"path,omitempty" max:"130000" label:"Corners, x,y" wide:"yes"` // rings parted by ;
	Pair   bool           `json:"pair,omitempty" label:"Left and right"`                       // as many again, mirrored
}

var _ = register(
	Kind{
		Name:    "outline",
		Title:   "Silhouette",
		Form:    "sheet",
		Stock:   "ply1/4",
		Splits:  true,
		Flat:    true,
		Blank:   Outline{},
		Read:    readOutline,
		Example: "outline 40 in tall ply1/4 pair 0,0 10,8 12,20 0,40",
		Press: Press{
			13,
			"silhouette",
			"outline 36 in tall ply1/4 0,0 8,0 9,10 16,20 10,36 4,30 -2,36 -8,20 -1,10",
			"outline 900 mm tall ply1/4 0,0 8,0 9,10 16,20 10,36 4,30 -2,36 -8,20 -1,10",
			"M12 24L11 16L5 10L9 3L15 7L21 3L25 10L19 16L18 24Z",
			"",
		},
	},
)

// Lay lays out the pieces.
func (o Outline) Lay(on On) (*pattern.Shape, error) {
	if o.W.IsZero() && o.H.IsZero() {
		return nil, &Missing{[]string{"w or h"}}
	}
	rings, err := pattern.ReadRings(o.Path)
	if err != nil {
		return nil, err
	}
	return laid(
		pattern.Outline{
			Rings:  rings,
			W:      o.W.Value(),
			H:      o.H.Value(),
			T:      on.Thick(),
			Copies: max(1, o.Copies),
			Pair:   o.Pair,
			Lying:  o.Lying,
			Pitch:  o.Pitch.Value(),
			Around: o.Bore.Value(),
		},
		"width",
		"w",
		"height",
		"h",
	)
}

// Order rounds the edges.
func (o Outline) Order(p Parts) []string {
	out := []string{"Round the edges, then back what is narrow with a strip."}
	if p.N > 1 {
		out = append([]string{"Stack pieces that must be alike and sand their edges together."}, out...)
	}
	return out
}

// Lies is true when it lies flat.
func (o Outline) Lies() bool { return o.Lying }

// Raised is true of one that stands, and not in a ring.
func (o Outline) Raised() bool { return !o.Lying && o.Bore.IsZero() }

func readOutline(w *words.Words) (Form, string, error) {
	o := Outline{
		Pair:   w.Take("pair"),
		Lying:  w.Take("lying", "flat"),
		Pitch:  w.After("pitch"),
		Copies: w.Copies(),
		H:      w.Before("tall"),
		W:      w.Before("wide"),
	}
	// commas stand apart; corners are number , number
	var corners []string
	for i := 0; i < len(w.List); i++ {
		if i+2 < len(w.List) && w.List[i+1] == "," {
			corners = append(corners, w.List[i]+","+w.List[i+2])
			i += 2
			continue
		}
		corners = append(corners, w.List[i])
	}
	w.List = nil
	o.Path = strings.Join(corners, " ")
	if o.W.IsZero() && o.H.IsZero() {
		return nil, "", fmt.Errorf("say how tall or how wide it is")
	}
	if _, err := pattern.ReadRings(o.Path); err != nil {
		return nil, "", err
	}
	size := w.Say(o.H) + " tall"
	if o.H.IsZero() {
		size = w.Say(o.W) + " wide"
	}
	text := fmt.Sprintf("silhouette of %d corners, %s", len(corners), size)
	if o.Pair {
		text += ", a left and a right"
	}
	return o, text, nil
}

// Free is true: nothing covers its faces or its edges.
func (Outline) Free() bool { return true }

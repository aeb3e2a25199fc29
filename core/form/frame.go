package form

import (
	"fmt"

	"zapbarn/core/measure"
	"zapbarn/core/pattern"
	"zapbarn/core/words"
)

// Frame is a rectangular frame of pipe and fittings.
type Frame struct {
	W       measure.Length `json:"w,omitzero" label:"Width, outside" grip:"across"`
	D       measure.Length `json:"d,omitzero" label:"Depth, outside"`
	H       measure.Length `json:"h,omitzero" label:"Height" grip:"up"`
	Levels  int            `json:"levels,omitempty" label:"Levels of rails"`
	TakeOff measure.Length `json:"takeOff,omitzero" label:"Fitting's take-off" scale:"no"`
	Load    measure.Mass   `json:"load,omitzero" label:"Hung on a rail"`
}

var _ = register(
	Kind{
		Name:    "frame",
		Title:   "Frame of pipe and fittings",
		Form:    "pipe",
		Stock:   "pvc1",
		Blank:   Frame{Levels: 2},
		Read:    readFrame,
		Example: "frame 36 x 24 x 72 tall 3 levels pvc1",
		Press: Press{
			15,
			"frame",
			"frame 36 x 24 x 48 in pvc1",
			"frame 900 x 600 x 1200 pvc1",
			"M4 9L13 4H27V19L18 24H4ZM6.500 10.500V21.500H16V10.500ZM18.500 10.500V21L24.500 17.500V7Z",
			"M8 8.500L14 5.500H24",
		},
	},
)

// Lay cuts the pipes between the fittings.
func (f Frame) Lay(on On) (*pattern.Shape, error) {
	if err := need("w", f.W, "d", f.D, "h", f.H); err != nil {
		return nil, err
	}
	levels := f.Levels
	if levels == 0 {
		levels = 2
	}
	od := on.Stock.OD.Value()
	return laid(
		pattern.Frame{
			W:       f.W.Value(),
			D:       f.D.Value(),
			H:       f.H.Value(),
			Levels:  levels,
			OD:      od,
			Bore:    on.Stock.Bore(),
			TakeOff: f.TakeOff.Or(pattern.TakeOff(od)),
			Load:    f.Load.Value(),
		},
		"width",
		"w",
		"depth",
		"d",
		"height",
		"h",
	)
}

// Order is dry first, one level after another.
func (f Frame) Order(Parts) []string {
	return []string{
		"Cut, deburr, and dry-fit one rectangle of rails flat on the floor; it must lie flat and square.",
		"Posts into it, then the next level; push every pipe home to its stop.",
		"Drill and screw, or cement, only what need not come apart again.",
	}
}

func readFrame(w *words.Words) (Form, string, error) {
	f := Frame{}
	var err error
	if f.Levels, err = w.Count(2, "levels", "level"); err != nil {
		return nil, "", err
	}
	w.Take("tall")
	for i, x := range w.List { // a load, such as 5kg
		if m, err := measure.Parse[measure.MassKind](x); err == nil && x[len(x)-1] >= 'a' {
			f.Load = m
			w.List = append(append([]string(nil), w.List[:i]...), w.List[i+1:]...)
			break
		}
	}
	dims, err := w.Exactly(3, "a frame takes width x depth x height")
	if err != nil {
		return nil, "", err
	}
	f.W, f.D, f.H = dims[0], dims[1], dims[2]
	return f, fmt.Sprintf(
		"frame of pipe, %s wide, %s deep, %s tall, %d levels of rails",
		w.Say(f.W),
		w.Say(f.D),
		w.Say(f.H),
		f.Levels,
	), nil
}

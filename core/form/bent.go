package form

import (
	"fmt"
	"strconv"
	"strings"

	"zapbarn/core/measure"
	"zapbarn/core/pattern"
	"zapbarn/core/words"
)

// BentPipe is a pipe that turns: bent by heat, or with elbows.
type BentPipe struct {
	Legs   string         `json:"legs,omitempty" max:"600" label:"Legs" wide:"yes"` // 24 in turn 90 18 in turn -45 12 in
	Radius measure.Length `json:"radius,omitzero" label:"Bend radius" scale:"no"`
	Elbows bool           `json:"elbows,omitempty" label:"With elbows"`
	Take   measure.Length `json:"take,omitzero" label:"Elbow's take-off" scale:"no"`
}

var _ = register(Kind{
	Name: "bent", Title: "Bent pipe", Form: "pipe", Stock: "pvc1", Blank: BentPipe{}, Read: readBent,
	Example: "bent 24 in turn 90 18 in turn -45 12 in radius 6 in pvc1",
	Press: Press{22, "bend", "bent 24 in turn 60 18 in pvc1", "bent 600 mm turn 60 450 mm pvc1",
		"M7 25V14A9 9 0 0 1 16 5H26V9H16A5 5 0 0 0 11 14V25Z", ""},
})

// legs reads lengths with a turn between each two.
func legs(text string) (lengths, turns []float64, err error) {
	for i, piece := range strings.Split(text, "turn") {
		piece = strings.TrimSpace(piece)
		if i > 0 {
			angle, rest, _ := strings.Cut(piece, " ")
			turn, err := strconv.ParseFloat(strings.TrimSuffix(angle, "deg"), 64)
			if err != nil {
				return nil, nil, measure.Bad("legs", "%q is no turn; write degrees, such as turn 90 18 in", angle)
			}
			turns, piece = append(turns, turn), strings.TrimSpace(rest)
		}
		l, err := measure.Parse[measure.LengthKind](piece)
		if err != nil {
			return nil, nil, measure.Bad("legs", "%q is no length; write such as 24 in turn 90 18 in", piece)
		}
		lengths = append(lengths, l.Value())
	}
	return lengths, turns, nil
}

// Lay cuts it: one piece before it is bent, or one a leg.
func (b BentPipe) Lay(on On) (*pattern.Shape, error) {
	if strings.TrimSpace(b.Legs) == "" {
		return nil, &Missing{[]string{"legs"}}
	}
	lengths, turns, err := legs(b.Legs)
	if err != nil {
		return nil, err
	}
	od := on.Stock.OD.Value()
	return laid(pattern.BentPipe{
		Legs: lengths, Turns: turns, Radius: b.Radius.Or(pattern.BendUsual * od), Elbows: b.Elbows, OD: od,
		Bore: on.Stock.Bore(), TakeOff: b.Take.Or(pattern.TakeOff(od)),
	})
}

// Order bends warm, filled, or joins dry first.
func (b BentPipe) Order(Parts) []string {
	if b.Elbows {
		return []string{"Cut, deburr, and dry-fit all of it flat on the floor: it turns in one plane.",
			"Mark across each joint, take it apart, and glue only what need not come apart again."}
	}
	return []string{"Mark where each bend begins and ends before it is warmed.",
		"Fill it with dry sand, cap both ends, warm it evenly and never with a flame; respirator, open doors, heat-proof " +
			"gloves.",
		"Bend round a form of the radius, flat on the bench, and hold it until it is cool."}
}

func (b BentPipe) stretched(by func(measure.Length) measure.Length, _ float64) Form {
	lengths, turns, err := legs(b.Legs)
	if err != nil {
		return b
	}
	var out strings.Builder
	for i, l := range lengths {
		if i > 0 {
			fmt.Fprintf(&out, " turn %g ", turns[i-1])
		}
		out.WriteString(by(measure.Of[measure.LengthKind](l)).String())
	}
	b.Legs = out.String()
	return b
}

func readBent(w *words.Words) (Form, string, error) {
	b := BentPipe{Elbows: w.Take("elbows", "elbow"), Radius: w.After("radius")}
	unit := "in"
	if w.Metric {
		unit = "mm"
	}
	pieces := strings.Split(" "+strings.Join(w.List, " "), " turn ")
	w.List = nil
	for i, piece := range pieces {
		turn, rest := "", strings.TrimSpace(piece)
		if i > 0 {
			turn, rest, _ = strings.Cut(rest, " ")
			b.Legs += " turn " + turn + " "
		}
		l, err := measure.ParseLengthIn(rest, unit)
		if err != nil {
			return nil, "", fmt.Errorf("%q is no length; write legs with turns between, such as 24 turn 90 18", rest)
		}
		b.Legs += w.Say(l)
	}
	lengths, turns, err := legs(b.Legs)
	if err != nil {
		return nil, "", err
	}
	how := "bent by heat"
	if b.Elbows {
		how = "with elbows"
	}
	return b, fmt.Sprintf("pipe of %d legs and %d turns, %s: %s", len(lengths), len(turns), how, b.Legs), nil
}

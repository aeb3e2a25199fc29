package wiring

import (
	"math"
	"strconv"
	"strings"

	"zapbarn/core/measure"
	"zapbarn/core/source"
)

// PathSlack is what a wire is longer than its path: it is never pulled tight.
const PathSlack = 0.05

var SlackFrom = source.FromTrade("5 % more than the path, never pulled tight")

// Corner is a point of a wire's path in mm from the prop's middle: right, back
// and up from the floor.
type Corner [3]float64

// ParsePath reads the corners of a path, such as "0,0,4 20,0,4 20,-3,40 in".
// Bare numbers are inches, or mm when metric. Empty is none.
func ParsePath(text string, metric bool) ([]Corner, error) {
	unit := measure.Inch
	if metric {
		unit = 1
	}
	text = strings.TrimSpace(text)
	if head, ok := strings.CutSuffix(text, "in"); ok {
		text, unit = head, measure.Inch
	} else if head, ok := strings.CutSuffix(text, "mm"); ok {
		text, unit = head, 1
	} else if head, ok := strings.CutSuffix(text, "cm"); ok {
		text, unit = head, 10
	}
	words := strings.FieldsFunc(text, func(c rune) bool { return c == ' ' || c == ';' })
	if len(words) == 0 {
		return nil, nil
	}
	if len(words) < 2 || len(words) > 60 {
		return nil, measure.Bad("path", "%d corners; write 2 to 60, such as 0,0,4 20,0,4 20,0,40", len(words))
	}
	var out []Corner
	for _, w := range words {
		parts := strings.Split(w, ",")
		var c Corner
		if len(parts) != 3 {
			return nil, measure.Bad("path", "%q is no corner; write right,back,up such as 20,0,4", w)
		}
		for i, x := range parts {
			v, err := strconv.ParseFloat(x, 64)
			if err != nil || !(math.Abs(v*unit) <= 30000) {
				return nil, measure.Bad("path", "%q is no place in the prop; write a number up to 30 m", x)
			}
			c[i] = v * unit
		}
		out = append(out, c)
	}
	return out, nil
}

// PathLength is how long a path is, mm, along its corners.
func PathLength(corners []Corner) (mm float64) {
	for i := 1; i < len(corners); i++ {
		a, b := corners[i-1], corners[i]
		mm += math.Hypot(math.Hypot(b[0]-a[0], b[1]-a[1]), b[2]-a[2])
	}
	return mm
}

// PathNeeds is the length of run that a path needs, slack in it, in mm; 0 where
// there is none.
func (d *Device) PathNeeds(metric bool) float64 {
	corners, err := ParsePath(d.Path, metric)
	if err != nil {
		return 0
	}
	return PathLength(corners) * (1 + PathSlack)
}

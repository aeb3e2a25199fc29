package pattern

import "math"

// Band is banding round a rectangle: two long strips over its width, two short
// ones over its depth, mitred or butted between them.
type Band struct {
	W, D, H, T float64
	Mitred     bool
	Copies     int
	Pitch      float64 // from one band to the next
}

// Lay lays out the strips; lengths are Banding's.
func (b Band) Lay() (*Shape, error) {
	if err := sizes("width", b.W, "depth", b.D, "height", b.H, "thickness", b.T); err != nil {
		return nil, err
	}
	if err := copies(b.Copies); err != nil {
		return nil, err
	}
	results, err := Banding(b.W, b.D, b.T, b.Mitred)
	if err != nil {
		return nil, err
	}
	long, short := results[0].Value, results[1].Value
	strip := func(id, name string, l float64) Panel {
		p := Panel{
			ID:      id,
			Name:    name,
			Copies:  2 * b.Copies,
			Thick:   b.T,
			Outline: Rect(l, b.H),
			Edges:   []Edge{{Name: "bottom"}, {Name: "right"}, {Name: "top"}, {Name: "left"}},
		}
		if b.Mitred {
			p.Edges[1] = Edge{Name: "right", Joint: "mitre", Tilt: 45, Reason: "mitred corner"}
			p.Edges[3] = Edge{Name: "left", Joint: "mitre", Tilt: 45, Reason: "mitred corner"}
			p.Inside = []Point{{b.T, 0}, {l - b.T, 0}, {l - b.T, b.H}, {b.T, b.H}}
		}
		return p
	}
	s := &Shape{Panels: []Panel{strip("long", "Front and back", long), strip("short", "Side", short)}, Results: results}
	pitch := b.Pitch
	if pitch <= 0 {
		pitch = 3 * b.H
	}
	box := func(id string, no int, cx, cy, w, d, z float64, ex Vec) {
		ring := func(z float64) []Vec {
			return []Vec{{cx - w/2, cy - d/2, z}, {cx + w/2, cy - d/2, z}, {cx + w/2, cy + d/2, z}, {cx - w/2, cy + d/2, z}}
		}
		s.Bodies = append(s.Bodies, prism(id, no, ring(z+b.H), ring(z), ex))
	}
	for k := range min(b.Copies, 40) {
		z := float64(k) * pitch
		for i, at := range []float64{-1, 1} {
			box("long", 2*k+i, 0, at*(b.D+b.T)/2, b.W+2*b.T, b.T, z, Vec{0, at, 0})
			box("short", 2*k+i, at*(b.W+b.T)/2, 0, b.T, b.D, z, Vec{at, 0, 0})
		}
	}
	s.Size = extent(s.Bodies)
	return s, nil
}

// Scaling is rows of scales over a face, from the bottom row up, each row half a
// scale over.
type Scaling struct {
	W, H, Wide, Tall, Show, T float64
}

// Lay lays out the scale, straight above and half round below, as often as Scales
// counts.
func (x Scaling) Lay() (*Shape, error) {
	results, err := Scales(x.W, x.H, x.Wide, x.Tall, x.Show)
	if err != nil {
		return nil, err
	}
	rows, n := int(results[0].Value), int(results[1].Value)
	if err := copies(n); err != nil {
		return nil, err
	}
	r := math.Min(x.Wide/2, x.Tall)
	var o []Point
	steps := max(4, arcSteps(r, math.Pi))
	for k := range steps + 1 { // the round foot, from left to right
		sn, cs := math.Sincos(math.Pi + math.Pi*float64(k)/float64(steps))
		o = append(o, Point{x.Wide/2 + x.Wide/2*cs, r + r*sn})
	}
	if x.Tall > r {
		o = append(o, Point{x.Wide, x.Tall}, Point{0, x.Tall})
	}
	s := &Shape{
		Panels: []Panel{
			{
				ID:      "scale",
				Name:    "Scale",
				Copies:  n,
				Thick:   x.T,
				Outline: o,
				Notes:   []string{"Trim those at the sides flush with the face when the glue holds."},
			},
		},
		Results: results,
	}
	drawn := 0
	for row := range rows {
		shift := float64(row%2) * x.Wide / 2
		for c := 0; float64(c)*x.Wide-shift < x.W-1e-9 && drawn < 600; c++ {
			left, foot, y := float64(c)*x.Wide-shift-x.W/2, float64(row)*x.Show, -x.T*float64(1+row%2)
			var outer, inner []Vec
			for _, q := range o { // those at the sides are trimmed to the face
				at := math.Min(math.Max(left+q.X, -x.W/2), x.W/2)
				outer = append(outer, Vec{at, y, foot + q.Y})
				inner = append(inner, Vec{at, y + x.T, foot + q.Y})
			}
			s.Bodies = append(s.Bodies, prism("scale", drawn, outer, inner, Vec{0, -1, 0}))
			drawn++
		}
	}
	s.Size = Vec{x.W, 2 * x.T, float64(rows-1)*x.Show + x.Tall}
	return s, nil
}

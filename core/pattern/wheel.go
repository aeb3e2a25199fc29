package pattern

import (
	"math"

	"zapbarn/core/measure"
)

// Wheel is a disc with teeth round its edge, windows that leave spokes, and
// holes on a circle: a gear, a cartwheel, a flange. Zero leaves each out.
type Wheel struct {
	D, Bore           float64
	Teeth             int
	Depth             float64 // of the teeth, out of D
	Spokes            int
	Spoke, Rim, Hub   float64 // how wide; the hub across
	Holes             int
	HoleD, HoleCircle float64
}

// Rings are its outline and its holes, about the middle.
func (w Wheel) Rings() ([][]Point, error) {
	if err := sizes("diameter", w.D); err != nil {
		return nil, err
	}
	for _, n := range []int{w.Teeth, w.Spokes, w.Holes} {
		if n < 0 || n > 400 {
			return nil, measure.Bad("teeth", "%d cannot be cut; write 1 to 400, or none", n)
		}
	}
	r := w.D / 2
	root := r
	var rings [][]Point
	if w.Teeth > 0 {
		if w.Teeth < 3 || w.Depth <= 0 || w.Depth >= r {
			return nil, measure.Bad(
				"depth",
				"of the teeth must lie between nothing and half of %s, and there must be 3 of them or more",
				inches(w.D),
			)
		}
		root = r - w.Depth
		rings = append(rings, w.teeth(r, root))
	} else {
		rings = append(rings, Circle(0, 0, w.D))
	}
	if w.Bore < 0 || w.Bore >= 2*root {
		return nil, measure.Bad("bore", "must be smaller than %s", inches(2*root))
	}
	if w.Bore > 0 {
		rings = append(rings, Circle(0, 0, w.Bore))
	}
	windows, err := w.windows(root)
	if err != nil {
		return nil, err
	}
	rings = append(rings, windows...)
	if w.Holes > 0 {
		if w.HoleD <= 0 || w.HoleCircle <= 0 || w.HoleCircle+w.HoleD >= 2*root {
			return nil, measure.Bad("holes", "need a size and a circle that keeps them inside %s", inches(2*root))
		}
		for k := range w.Holes {
			sn, cs := math.Sincos(math.Pi/2 + 2*math.Pi*float64(k)/float64(w.Holes))
			rings = append(rings, Circle(w.HoleCircle/2*cs, w.HoleCircle/2*sn, w.HoleD))
		}
	}
	if at, crosses := crossing(rings); crosses {
		return nil, measure.Bad(
			"holes",
			"two cut-outs run into each other at %s, %s from the middle",
			inches(at.X),
			inches(at.Y),
		)
	}
	return rings, nil
}

// teeth is the toothed edge: each tooth takes 0.6 of its pitch at the root and
// 0.4 at the tip, round at the tip and between.
func (w Wheel) teeth(r, root float64) (out []Point) {
	step := 2 * math.Pi / float64(w.Teeth)
	arc := func(radius, from, to float64) {
		n := max(1, arcSteps(radius, to-from))
		for k := 0; k <= n; k++ {
			sn, cs := math.Sincos(from + (to-from)*float64(k)/float64(n))
			out = append(out, Point{radius * cs, radius * sn})
		}
	}
	for k := range w.Teeth {
		mid := math.Pi/2 + step*float64(k)
		arc(r, mid-.2*step, mid+.2*step)
		arc(root, mid+.3*step, mid+.7*step)
	}
	return out
}

// window is one opening between two spokes of even width, from hub to rim.
func (w Wheel) window(hub, rim, from, step float64) (out []Point) {
	from += math.Pi / 2
	arc := func(radius, a, b float64) {
		n := max(1, arcSteps(radius, b-a))
		for k := 0; k <= n; k++ {
			sn, cs := math.Sincos(a + (b-a)*float64(k)/float64(n))
			out = append(out, Point{radius * cs, radius * sn})
		}
	}
	in, far := math.Asin(w.Spoke/2/hub), math.Asin(w.Spoke/2/rim)
	arc(rim, from+far, from+step-far)
	arc(hub, from+step-in, from+in)
	return out
}

// windows are the cut-outs between its spokes: root is the radius where its teeth begin.
func (w Wheel) windows(root float64) (rings [][]Point, err error) {
	if w.Spokes <= 0 {
		return nil, nil
	}
	hub, rim := w.Hub/2, root-w.Rim
	if w.Spokes < 2 || w.Spoke <= 0 || w.Rim <= 0 || hub <= w.Bore/2 || rim <= hub {
		return nil, measure.Bad(
			"spokes",
			"need a width, a rim and a hub wider than the hole, and room between hub and rim",
		)
	}
	step := 2 * math.Pi / float64(w.Spokes)
	if 2*math.Asin(math.Min(1, w.Spoke/2/hub)) >= step-.02 {
		return nil, measure.Bad(
			"spokes",
			"%d of %s leave no window at the hub; make the hub wider or the spokes narrower",
			w.Spokes,
			inches(w.Spoke),
		)
	}
	for k := range w.Spokes {
		rings = append(rings, w.window(hub, rim, step*float64(k), step))
	}
	return rings, nil
}

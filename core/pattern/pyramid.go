package pattern

import (
	"fmt"
	"math"

	"zapbarn/core/measure"
	"zapbarn/core/source"
)

// Pyramid is a hollow rectangular frustum, or a pyramid to a point where both
// top sizes are nothing: four faces, alike in pairs. Sizes are outside ones.
type Pyramid struct {
	W, D, H    float64
	TopW, TopD float64
	T          float64
}

// Lay works the faces out from their planes: the outside ones, and those the
// stock's thickness further in. The blade tilts by half the angle between two
// faces' normals; on a square it is the tower's asin(sin s sin 45).
func (p Pyramid) Lay() (*Shape, error) {
	if err := sizes("width", p.W, "depth", p.D, "height", p.H, "thickness", p.T); err != nil {
		return nil, err
	}
	point := p.TopW == 0 && p.TopD == 0
	if p.TopW < 0 || p.TopD < 0 || !point && (p.TopW == 0 || p.TopD == 0) {
		return nil, measure.Bad("top width", "give both sizes of the top, or neither for a point")
	}
	rx, ry := (p.W-p.TopW)/2, (p.D-p.TopD)/2
	lx, ly := math.Hypot(p.H, rx), math.Hypot(p.H, ry)
	fx, fy := p.T*lx/p.H, p.T*ly/p.H // walls measured level: of the sides, of front and back
	if math.Min(p.W, p.D) <= 2*math.Max(fx, fy) || !point && (p.TopW <= 2*fx || p.TopD <= 2*fy) {
		return nil, measure.Bad(
			"top width",
			"walls of %s, measured level, leave nothing inside; make it larger or the stock thinner",
			inches(math.Max(fx, fy)),
		)
	}
	tilt := math.Acos(rx*ry/(lx*ly)) / 2 * 180 / math.Pi
	// half is the inner half sizes at a height
	half := func(z float64) (w, d float64) { return p.W/2 - rx*z/p.H - fx, p.D/2 - ry*z/p.H - fy }
	front := slantFace{"front", "Front and back", p.W, p.TopW, ry, ly, p.H,
		func(z float64) float64 { w, _ := half(z); return math.Max(0, w) }}
	side := slantFace{"side", "Side", p.D, p.TopD, rx, lx, p.H,
		func(z float64) float64 { _, d := half(z); return math.Max(0, d) }}
	if point {
		front.apex, side.apex = p.H*(1-2*fx/p.W), p.H*(1-2*fy/p.D)
	}
	s := &Shape{Panels: []Panel{p.face(front, tilt), p.face(side, tilt)}}
	corner := math.Hypot(p.H, math.Hypot(rx, ry))
	s.Lines = []Line{{"front", "side", 4 * corner, p.T / math.Cos(tilt*math.Pi/180)}}
	p.stand(s, half, front.apex, side.apex)
	s.Size = Vec{math.Max(p.W, p.TopW), math.Max(p.D, p.TopD), p.H}
	s.Results = append(s.Results, result("tilt", "Blade tilt of the corners", tilt, "deg", measure.Degrees(tilt)).
		With("B = acos(cos a cos b) / 2, a and b the slopes of front and side",
			fmt.Sprintf("acos(%.4f x %.4f) / 2", ry/ly, rx/lx), measure.Degrees(tilt),
			source.Exact("half the angle between the faces' normals")),
		result("corner", "Length of a corner", corner, "mm", inches(corner)).
			With("sqrt(H^2 + run of both)", fmt.Sprintf("sqrt(%.1f^2 + %.1f^2 + %.1f^2)", p.H, rx, ry),
				measure.MarkedTape(corner), source.Exact("Pythagoras")),
	)
	return s, nil
}

// slantFace is one face: as wide as that below and above, leaning in by run over slant up
// it; half its inner width at a height, and where the inner face comes to its point.
type slantFace struct {
	id, name  string
	base, top float64
	run       float64
	slant     float64
	apex      float64
	width     func(z float64) float64
}

// face is the panel of a face, its corners mitred by a tilt of the blade.
func (p Pyramid) face(f slantFace, tilt float64) Panel {
	slope := math.Atan2(p.H, f.run) * 180 / math.Pi
	wide := math.Max(f.base, f.top) / 2
	lift := func(z float64) float64 { // of the inner face along the outer: its level wall seen along the slope
		flat := p.T * f.slant / p.H
		return (flat*f.run + z*f.slant*f.slant/p.H) / f.slant
	}
	q := Panel{
		ID:       f.id,
		Name:     f.name,
		Copies:   2,
		Thick:    p.T,
		Grain:    "up",
		CutAngle: math.Abs(math.Atan2((f.base-f.top)/2, f.slant)) * 180 / math.Pi,
	}
	corner := Edge{Joint: "mitre", Tilt: tilt, Reason: "next face"}
	right, left := corner, corner
	right.Name, left.Name = "right", "left"
	bottom := Edge{Name: "bottom", Joint: "level", Tilt: 90 - slope, Reason: "lies level"}
	low, high := f.width(0), f.width(p.H)
	if p.TopW == 0 {
		q.Outline = []Point{{0, 0}, {f.base, 0}, {f.base / 2, f.slant}}
		q.Inside = []Point{{wide - low, lift(0)}, {wide + low, lift(0)}, {wide, lift(f.apex)}}
		q.Edges = []Edge{bottom, right, left}
		q.Notes = []string{"The point closes inside before it does outside: ease the tips until the faces meet."}
	} else {
		q.Outline = []Point{{wide - f.base/2, 0}, {wide + f.base/2, 0}, {wide + f.top/2, f.slant},
			{wide - f.top/2, f.slant}}
		q.Inside = []Point{{wide - low, lift(0)}, {wide + low, lift(0)}, {wide + high, lift(p.H)}, {wide - high, lift(p.H)}}
		q.Edges = []Edge{bottom, right, {Name: "top", Joint: "level", Tilt: -(90 - slope), Reason: "lies level"}, left}
	}
	q.tick("left", "right")
	return q
}

// stand places the four faces in space.
func (p Pyramid) stand(s *Shape, half func(z float64) (w, d float64), apexX, apexY float64) {
	point := p.TopW == 0 && p.TopD == 0
	iw, id := half(0)
	tw, td := half(p.H)
	for k, face := range []string{"front", "side", "front", "side"} {
		sn, cs := math.Sincos(math.Pi / 2 * float64(k))
		turn := func(x, y, z float64) Vec { return Vec{x*cs - y*sn, x*sn + y*cs, z} }
		w, d, tx, ty, ix, iy, jx, jy, apex := p.W/2, p.D/2, p.TopW/2, p.TopD/2, iw, id, tw, td, apexX
		if face == "side" {
			w, d, tx, ty, ix, iy, jx, jy, apex = d, w, ty, tx, iy, ix, jy, jx, apexY
		}
		var outer, inner []Vec
		if point {
			run := d - iy // of the level wall
			outer = []Vec{turn(-w, -d, 0), turn(w, -d, 0), turn(0, 0, p.H)}
			inner = []Vec{turn(-ix, -iy, 0), turn(ix, -iy, 0), turn(0, -math.Max(0, d*(1-apex/p.H)-run), apex)}
		} else {
			outer = []Vec{turn(-w, -d, 0), turn(w, -d, 0), turn(tx, -ty, p.H), turn(-tx, -ty, p.H)}
			inner = []Vec{turn(-ix, -iy, 0), turn(ix, -iy, 0), turn(jx, -jy, p.H), turn(-jx, -jy, p.H)}
		}
		s.Bodies = append(s.Bodies, prism(face, k/2, outer, inner, turn(0, -1, 0)))
	}
}

package formats

import (
	"bufio"
	"encoding/binary"
	"io"
	"math"

	"zapbarn/core/pattern"
	"zapbarn/core/work"
)

// SolidsSTL writes a prop's solids as they stand, or one of them, as a binary STL in
// millimetres: every part a body of its own, its openings filled. It is for looking at and
// fitting, not for printing; a skin without its ends, such as a hat's, stays open.
func SolidsSTL(out io.Writer, w *work.Work, prop, solid string) error {
	var all [][3]pattern.Vec
	for i := range w.Plan.Solids() {
		s := &w.Plan.Solids()[i]
		shape := w.Shapes()[s.ID]
		if s.Prop != prop || shape == nil || solid != "" && s.ID != solid {
			continue
		}
		at := pattern.Vec{X: s.X.Value(), Y: s.Y.Value(), Z: s.Z.Value()}
		for _, b := range shape.Bodies {
			for _, f := range b.At(at).Faces {
				all = append(all, triangles(f.Points)...)
			}
		}
	}
	if len(all) == 0 {
		return empty("solid", "has no shape yet; give its sizes first")
	}
	b := bufio.NewWriter(out)
	var head [80]byte
	copy(head[:], "Zap Barn, millimetres")
	if _, err := b.Write(head[:]); err != nil {
		return err
	}
	write := func(v any) error { return binary.Write(b, binary.LittleEndian, v) }
	if err := write(uint32(len(all))); err != nil {
		return err
	}
	for _, t := range all {
		n := normalOf(t)
		for _, v := range []pattern.Vec{n, t[0], t[1], t[2]} {
			if err := write([3]float32{float32(v.X), float32(v.Y), float32(v.Z)}); err != nil {
				return err
			}
		}
		if err := write(uint16(0)); err != nil {
			return err
		}
	}
	return b.Flush()
}

// normalOf is a triangle's unit normal.
func normalOf(t [3]pattern.Vec) pattern.Vec {
	a := pattern.Vec{X: t[1].X - t[0].X, Y: t[1].Y - t[0].Y, Z: t[1].Z - t[0].Z}
	b := pattern.Vec{X: t[2].X - t[0].X, Y: t[2].Y - t[0].Y, Z: t[2].Z - t[0].Z}
	n := pattern.Vec{X: a.Y*b.Z - a.Z*b.Y, Y: a.Z*b.X - a.X*b.Z, Z: a.X*b.Y - a.Y*b.X}
	if l := math.Sqrt(n.X*n.X + n.Y*n.Y + n.Z*n.Z); l > 0 {
		n = pattern.Vec{X: n.X / l, Y: n.Y / l, Z: n.Z / l}
	}
	return n
}

// triangles cuts a flat polygon into triangles that face as it does, ear by ear.
func triangles(p []pattern.Vec) (out [][3]pattern.Vec) {
	if len(p) == 4 && convex(p) || len(p) < 4 { // most faces are
		for i := 2; i < len(p); i++ {
			out = append(out, [3]pattern.Vec{p[0], p[i-1], p[i]})
		}
		return out
	}
	flat := flattened(p)
	at := make([]int, len(p))
	for i := range at {
		at[i] = i
	}
	for len(at) > 3 {
		ear := -1
		for i := range at {
			if isEar(flat, at, i) {
				ear = i
				break
			}
		}
		if ear < 0 { // what is left has no area
			break
		}
		n := len(at)
		out = append(out, [3]pattern.Vec{p[at[(ear+n-1)%n]], p[at[ear]], p[at[(ear+1)%n]]})
		at = append(at[:ear], at[ear+1:]...)
	}
	if len(at) == 3 {
		out = append(out, [3]pattern.Vec{p[at[0]], p[at[1]], p[at[2]]})
	}
	return out
}

// flattened lays a flat polygon on the axis it faces most, anticlockwise.
func flattened(p []pattern.Vec) []pattern.Point {
	var n pattern.Vec
	for i, a := range p {
		b := p[(i+1)%len(p)]
		n.X += (a.Y - b.Y) * (a.Z + b.Z)
		n.Y += (a.Z - b.Z) * (a.X + b.X)
		n.Z += (a.X - b.X) * (a.Y + b.Y)
	}
	x, y, z := math.Abs(n.X), math.Abs(n.Y), math.Abs(n.Z)
	out := make([]pattern.Point, len(p))
	for i, v := range p {
		switch {
		case z >= x && z >= y:
			out[i] = pattern.Point{X: v.X * math.Copysign(1, n.Z), Y: v.Y}
		case x >= y:
			out[i] = pattern.Point{X: v.Y * math.Copysign(1, n.X), Y: v.Z}
		default:
			out[i] = pattern.Point{X: v.Z * math.Copysign(1, n.Y), Y: v.X}
		}
	}
	return out
}

func convex(p []pattern.Vec) bool {
	f := flattened(p)
	for i := range f {
		if cross(f[i], f[(i+1)%len(f)], f[(i+2)%len(f)]) < -1e-9 {
			return false
		}
	}
	return true
}

func cross(a, b, c pattern.Point) float64 { return (b.X-a.X)*(c.Y-a.Y) - (b.Y-a.Y)*(c.X-a.X) }

// isEar is true of a corner that can be cut off: it turns outward, and no other corner
// lies in it.
func isEar(f []pattern.Point, at []int, i int) bool {
	n := len(at)
	a, b, c := f[at[(i+n-1)%n]], f[at[i]], f[at[(i+1)%n]]
	if cross(a, b, c) <= 1e-12 {
		return cross(a, b, c) > -1e-12 && n > 3 // it lies on its neighbours' line: nothing is cut off
	}
	for _, k := range at {
		q := f[k]
		if q == a || q == b || q == c {
			continue
		}
		if cross(a, b, q) >= -1e-12 && cross(b, c, q) >= -1e-12 && cross(c, a, q) >= -1e-12 {
			return false
		}
	}
	return true
}

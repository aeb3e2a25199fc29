package pattern

import (
	"fmt"
	"math"
	"sort"
)

// Triangle is one face of a mesh, anticlockwise seen from outside.
type Triangle [3]Vec

// Mesh is a closed surface of triangles, in mm.
type Mesh []Triangle

// MeshReport says in numbers and words how sound a mesh is.
type MeshReport struct {
	Triangles int
	Open      int // edges with a face on one side only: holes
	Flipped   int // edges whose two faces run the same way
	Crowded   int // edges with more than two faces: self-contact
	Uneven    int // edges with more faces one way than the other
	Thin      int // triangles with no area
	Volume    float64
	Area      float64
	Lo, Hi    Vec
}

// Sound reports a mesh that can be sliced.
func (r MeshReport) Sound() bool {
	return r.Open == 0 && r.Flipped == 0 && r.Crowded == 0 && r.Volume > 0 && !r.Flat()
}

// Shells reports a mesh of closed shells, each facing outwards, that may touch or run into each
// other: what is in any of them can be cut.
func (r MeshReport) Shells() bool { return r.Uneven == 0 && r.Volume > 0 && !r.Flat() }

// Flat reports a mesh that encloses nothing: its faces lie on one another.
func (r MeshReport) Flat() bool { return math.Abs(r.Volume) <= snap*r.Area/2 }

// Words says what is wrong, in the trade's words.
func (r MeshReport) Words() []string {
	var out []string
	say := func(n int, format string) {
		if n > 0 {
			out = append(out, fmt.Sprintf(format, n))
		}
	}
	say(r.Open, "holes: %d edges have a face on one side only")
	say(r.Flipped, "flips: at %d edges the faces look opposite ways")
	say(r.Crowded, "self-contact: %d edges have more than two faces")
	say(r.Thin, "%d triangles have no area")
	switch {
	case r.Flat() && r.Open == 0:
		out = append(out, "flat: it encloses no volume; give it a thickness")
	case r.Volume < 0:
		out = append(out, "the whole mesh is inside out")
	}
	if out == nil {
		out = []string{"closed, every face looks outwards"}
	}
	return out
}

// snap is the size in mm below which two corners are one.
const snap = 1e-4

type corner [3]int64

func cornerOf(v Vec) corner {
	return corner{int64(math.Round(v.X / snap)), int64(math.Round(v.Y / snap)), int64(math.Round(v.Z / snap))}
}

func crossed(a, b Vec) Vec { return Vec{a.Y*b.Z - a.Z*b.Y, a.Z*b.X - a.X*b.Z, a.X*b.Y - a.Y*b.X} }

// Report checks the mesh: each edge must have two faces that run opposite
// ways. The volume is exact by the divergence theorem.
func (m Mesh) Report() MeshReport {
	r := MeshReport{
		Triangles: len(m),
		Lo:        Vec{math.Inf(1), math.Inf(1), math.Inf(1)},
		Hi:        Vec{math.Inf(-1), math.Inf(-1), math.Inf(-1)},
	}
	type edge struct{ a, b corner }
	type count struct{ along, against int }
	edges := make(map[edge]count, len(m)*3/2)
	for _, t := range m {
		n := crossed(sub(t[1], t[0]), sub(t[2], t[0]))
		l := math.Sqrt(n.X*n.X + n.Y*n.Y + n.Z*n.Z)
		r.Area += l / 2
		c := crossed(t[1], t[2])
		r.Volume += (t[0].X*c.X + t[0].Y*c.Y + t[0].Z*c.Z) / 6
		k := [3]corner{cornerOf(t[0]), cornerOf(t[1]), cornerOf(t[2])}
		for _, v := range t {
			r.Lo = Vec{math.Min(r.Lo.X, v.X), math.Min(r.Lo.Y, v.Y), math.Min(r.Lo.Z, v.Z)}
			r.Hi = Vec{math.Max(r.Hi.X, v.X), math.Max(r.Hi.Y, v.Y), math.Max(r.Hi.Z, v.Z)}
		}
		if k[0] == k[1] || k[1] == k[2] || k[0] == k[2] {
			r.Thin++
			continue
		}
		for i := range 3 {
			a, b := k[i], k[(i+1)%3]
			if less(a, b) {
				c := edges[edge{a, b}]
				c.along++
				edges[edge{a, b}] = c
			} else {
				c := edges[edge{b, a}]
				c.against++
				edges[edge{b, a}] = c
			}
		}
	}
	for _, c := range edges {
		if c.along != c.against {
			r.Uneven++
		}
		switch n := c.along + c.against; {
		case n == 1:
			r.Open++
		case n > 2:
			r.Crowded++
		case c.along != 1:
			r.Flipped++
		}
	}
	return r
}

func less(a, b corner) bool {
	for i := range 3 {
		if a[i] != b[i] {
			return a[i] < b[i]
		}
	}
	return false
}

// cuts are where a level plane at z cuts the faces, each directed with the
// material on its right. Corners exactly at z count as just above, so noise
// about the plane opens nothing.
func (m Mesh) cuts(z float64) (out [][2]Point) {
	for _, t := range m {
		lo, hi := math.Min(t[0].Z, math.Min(t[1].Z, t[2].Z)), math.Max(t[0].Z, math.Max(t[1].Z, t[2].Z))
		if hi < z || lo >= z {
			continue
		}
		var from, to Point
		got := 0
		for i := range 3 {
			a, b := t[i], t[(i+1)%3]
			if (a.Z < z) == (b.Z < z) {
				continue
			}
			lowest, highest := a, b // the same edge gives the same point from both its faces
			if a.Z > b.Z {
				lowest, highest = b, a
			}
			f := (z - lowest.Z) / (highest.Z - lowest.Z)
			p := Point{lowest.X + f*(highest.X-lowest.X), lowest.Y + f*(highest.Y-lowest.Y)}
			if a.Z < z { // going up: the cut leaves the face here, material on its left
				from = p
			} else {
				to = p
			}
			got++
		}
		if got == 2 {
			out = append(out, [2]Point{from, to})
		}
	}
	return out
}

// Section is the mesh cut level at z: closed outlines, anticlockwise round
// material, clockwise round holes.
func (m Mesh) Section(z float64) [][]Point {
	type key [2]int64
	keyOf := func(p Point) key { return key{int64(math.Round(p.X / snap)), int64(math.Round(p.Y / snap))} }
	next := map[key][]Point{}
	for _, c := range m.cuts(z) {
		if from, to := c[0], c[1]; keyOf(from) != keyOf(to) {
			next[keyOf(to)] = append(next[keyOf(to)], from)
		}
	}
	ends := make([]key, 0, len(next))
	for k := range next {
		ends = append(ends, k)
	}
	sort.Slice(ends, func(i, j int) bool {
		return ends[i][0] < ends[j][0] || ends[i][0] == ends[j][0] && ends[i][1] < ends[j][1]
	})
	var out [][]Point
	for _, start := range ends {
		for len(next[start]) > 0 {
			var loop []Point
			at := start
			for {
				list := next[at]
				if len(list) == 0 {
					break // an open end: the mesh has a hole there
				}
				p := list[len(list)-1]
				next[at] = list[:len(list)-1]
				loop = append(loop, p)
				at = keyOf(p)
				if at == start {
					break
				}
			}
			if at == start && len(loop) > 2 {
				out = append(out, tidy(loop))
			}
		}
	}
	return out
}

// tidy drops points that lie on the line between their neighbours.
func tidy(p []Point) []Point {
	out := p[:0:0]
	for i, q := range p {
		a, b := p[(i+len(p)-1)%len(p)], p[(i+1)%len(p)]
		if math.Abs((q.X-a.X)*(b.Y-a.Y)-(q.Y-a.Y)*(b.X-a.X)) > 1e-6*math.Max(1, math.Hypot(b.X-a.X, b.Y-a.Y)) {
			out = append(out, q)
		}
	}
	if len(out) < 3 {
		return p
	}
	return out
}

// SignedArea is positive for an anticlockwise outline.
func SignedArea(p []Point) float64 {
	a := 0.0
	for i := range p {
		j := (i + 1) % len(p)
		a += p[i].X*p[j].Y - p[j].X*p[i].Y
	}
	return a / 2
}

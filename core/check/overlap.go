package check

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"zapbarn/core/measure"
	"zapbarn/core/pattern"
	"zapbarn/core/plan"
	"zapbarn/core/words"
	"zapbarn/core/work"
)

// bite is how deep two parts may run into each other and still be called touching, mm.
const bite = 3.0

var _ = rule(
	"overlap",
	Mind,
	"Two solids take up the same room.",
	func(w *work.Work, say func(Snag)) {
		for _, p := range w.Plan.Props() {
			solids := solidsOf(w, p.ID)
			boxes := make([][]box, len(solids))
			for k, s := range solids {
				boxes[k] = flatParts(w, s)
			}
			for l, b := range solids {
				w.Watch.At("solid", b.ID)
				var shared deepest
				for k, a := range solids[:l] {
					deep, ok := bitten(boxes[k], boxes[l])
					if ok && a.By != b.ID && b.By != a.ID && b.How != "in" && a.How != "in" {
						shared.take(sharing{a, deep})
					}
				}
				tellShared(w, b, shared, say)
			}
		}
	},
)

// sharing is how deep, each way, a solid runs into another.
type sharing struct {
	with *plan.Solid
	deep pattern.Vec
}

// mostShared is with how many others a solid is told of: where everything stands in one
// place, a solid tells of its worst.
const mostShared = 3

// deepest are the mostShared deepest of what a solid runs into, and how many there are.
type deepest struct {
	of []sharing
	n  int
}

func (d *deepest) take(x sharing) {
	room := func(x sharing) float64 { return x.deep.X * x.deep.Y * x.deep.Z }
	if d.n++; len(d.of) < mostShared {
		d.of = append(d.of, x)
		return
	}
	least := slices.MinFunc(d.of, func(x, y sharing) int { return cmp.Compare(room(x), room(y)) })
	if room(x) > room(least) {
		d.of = append(slices.DeleteFunc(d.of, func(y sharing) bool { return y == least }), x)
	}
}

// tellShared tells what a solid runs into, in the order of the plan: the deepest of many.
func tellShared(w *work.Work, b *plan.Solid, shared deepest, say func(Snag)) {
	more := ""
	if n := shared.n - len(shared.of); n > 0 {
		more = fmt.Sprintf(" %s runs into %s as well.", b.Name, words.Count(n, "other solid"))
	}
	for _, x := range shared.of {
		a, deep := x.with, x.deep
		snag := Snag{
			Level:  Mind,
			Place:  "bench",
			At:     []string{"solid:" + b.ID, "solid:" + a.ID},
			key:    a.ID + "+" + b.ID,
			weight: deep.Z,
			Title:  fmt.Sprintf("%s and %s take up the same room", a.Name, b.Name),
			Why: fmt.Sprintf(
				"Their parts run %s into each other. Move one, cut it out, or say that it stands in "+
					"the other.%s",
				w.Len(math.Min(deep.X, math.Min(deep.Y, deep.Z))), more,
			),
		}
		snag.Mends = parted(w, b, a)
		say(snag)
	}
}

// solidsOf are a prop's solids that have a shape.
func solidsOf(w *work.Work, prop string) (out []*plan.Solid) {
	for i := range w.Plan.Solids() {
		if s := &w.Plan.Solids()[i]; s.Prop == prop && w.Shapes()[s.ID] != nil {
			out = append(out, s)
		}
	}
	return out
}

// box is a box by two corners: the least and the most of each way.
type box [2]pattern.Vec

// flatParts are the boxes of a solid's parts where it stands. What is round or hollow is
// not judged: its box says nothing of it.
func flatParts(w *work.Work, s *plan.Solid) (out []box) {
	x, y, z := s.X.Value(), s.Y.Value(), s.Z.Value()
	for _, b := range s.Of(w.Lib, blocks{}, func() any { return blocksOf(w.Shapes()[s.ID]) }).([]box) {
		for i := range b {
			b[i].X, b[i].Y, b[i].Z = b[i].X+x, b[i].Y+y, b[i].Z+z
		}
		out = append(out, b)
	}
	return out
}

// blocks is what the boxes of a shape's bodies are remembered by.
type blocks struct{}

func blocksOf(shape *pattern.Shape) (out []box) {
	for _, body := range shape.Bodies {
		if b, ok := block(body); ok {
			out = append(out, b)
		}
	}
	return out
}

// block is the box of a body that fills it, or nearly.
func block(body pattern.Body) (b box, ok bool) {
	lo, hi := body.Bounds()
	full := (hi.X - lo.X) * (hi.Y - lo.Y) * (hi.Z - lo.Z)
	return box{lo, hi}, full > 0 && body.Filled() >= 0.9*full
}

// bitten is how far the parts of two solids run into each other, each way.
func bitten(a, b []box) (deep pattern.Vec, ok bool) {
	for _, p := range a {
		for _, q := range b {
			d := common(p, q)
			if d.X > bite && d.Y > bite && d.Z > bite && d.X*d.Y*d.Z > deep.X*deep.Y*deep.Z {
				deep, ok = d, true
			}
		}
	}
	return deep, ok
}

// common is how far two boxes run into each other, each way; less than nothing where
// they do not.
func common(a, b box) pattern.Vec {
	return pattern.Vec{
		X: math.Min(a[1].X, b[1].X) - math.Max(a[0].X, b[0].X),
		Y: math.Min(a[1].Y, b[1].Y) - math.Max(a[0].Y, b[0].Y),
		Z: math.Min(a[1].Z, b[1].Z) - math.Max(a[0].Z, b[0].Z),
	}
}

// parted moves one solid beside another, or onto it.
func parted(w *work.Work, s, by *plan.Solid) (out []Mend) {
	a, b := w.Shapes()[s.ID].Size, w.Shapes()[by.ID].Size
	free := *s
	free.By, free.How, free.ByAt = "", "", measure.Length{}
	beside, on := free, free
	beside.X = tape(w, by.X.Value()+(a.X+b.X)/2)
	on.Z = tape(w, by.Z.Value()+b.Z)
	out = append(out, put(w, "Stand "+s.Name+" beside "+by.Name, "solid", s.ID, beside))
	if on.Z.Value() > s.Z.Value() {
		out = append(out, put(w, "Stand "+s.Name+" on "+by.Name, "solid", s.ID, on))
	}
	return out
}

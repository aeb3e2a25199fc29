package draw

import (
	"math/rand/v2"
	"testing"

	"zapbarn/core/pattern"

	"github.com/stretchr/testify/assert"
)

// Random boxes that do not overlap, against lines of sight: wherever a line meets
// two of them, the one it meets nearer to the eye is drawn later.
func TestPaintOrderAgainstLinesOfSight(t *testing.T) {
	r := rand.New(rand.NewPCG(4, 4))
	for range 60 {
		var boxes []reach3
		for len(boxes) < 12 {
			p := pattern.Vec{X: r.Float64() * 100, Y: r.Float64() * 100, Z: r.Float64() * 100}
			b := reach3{
				p,
				pattern.Vec{X: p.X + 5 + r.Float64()*60, Y: p.Y + 5 + r.Float64()*60, Z: p.Z + 5 + r.Float64()*60},
			}
			free := true
			for _, o := range boxes {
				free = free &&
					(b.hi.X <= o.lo.X || o.hi.X <= b.lo.X || b.hi.Y <= o.lo.Y || o.hi.Y <= b.lo.Y || b.hi.Z <= o.lo.Z ||
						o.hi.Z <= b.lo.Z)
			}
			if free {
				boxes = append(boxes, b)
			}
			if r.IntN(400) == 0 {
				break
			}
		}
		for _, v := range []View{Iso(1, 0, 0), Front(1, 0, 0)} {
			for range 300 {
				o := pattern.Vec{X: r.Float64() * 160, Y: r.Float64() * 160, Z: r.Float64() * 160}
				for i := range boxes {
					for j := range boxes {
						ti, hitI := meets(boxes[i], o, v.Toward)
						tj, hitJ := meets(boxes[j], o, v.Toward)
						if i == j || !hitI || !hitJ {
							continue
						}
						if ti < tj { // i is further from the eye
							assert.NotEqual(t, 1, behind(boxes[i], boxes[j], v.Toward), "%v %v", boxes[i], boxes[j])
							assert.Equal(t, -1, behind(boxes[i], boxes[j], v.Toward))
						}
					}
				}
			}
		}
	}
}

// meets is where a line o + s d enters a box from behind.
func meets(b reach3, o, d pattern.Vec) (s float64, ok bool) {
	lo, hi := -1e9, 1e9
	for _, a := range [][4]float64{{o.X, d.X, b.lo.X, b.hi.X}, {o.Y, d.Y, b.lo.Y, b.hi.Y}, {o.Z, d.Z, b.lo.Z, b.hi.Z}} {
		if a[1] == 0 {
			if a[0] <= a[2]+.1 || a[0] >= a[3]-.1 {
				return 0, false
			}
			continue
		}
		s0, s1 := (a[2]-a[0])/a[1], (a[3]-a[0])/a[1]
		lo, hi = max(lo, min(s0, s1)), min(hi, max(s0, s1))
	}
	return lo, hi > lo+.2
}

// Every body is drawn once, also where three lie over each other in a circle.
func TestPaintOrderKeepsAll(t *testing.T) {
	var in []standing
	bar := func(lo, hi pattern.Vec) {
		in = append(in, standing{body: pattern.Body{Faces: []pattern.Face{{Points: []pattern.Vec{lo, hi}}}}})
	}
	bar(pattern.Vec{}, pattern.Vec{X: 100, Y: 10, Z: 10})
	bar(pattern.Vec{X: 90, Y: -50, Z: 12}, pattern.Vec{X: 99, Y: 50, Z: 20})
	bar(pattern.Vec{X: 50, Y: -60, Z: -30}, pattern.Vec{X: 60, Y: -52, Z: 60})
	assert.Len(t, paintOrder(in, Iso(1, 0, 0).Toward), 3)
}

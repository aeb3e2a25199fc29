package yard

import "math"

// The heights of eyes, m: an adult's and a child's (from memory: standing adults, and children
// of six).
const (
	AdultEye = 1.6
	ChildEye = 1.1
)

// Field is how wide a walker looks, about the way that is walked.
const Field = 120 * math.Pi / 180

// Blocked is whether something stands between an eye and what is looked at: a wall whose
// top is above the line of sight where that passes it. What belongs to the thing itself
// does not count.
func Blocked(eye, at Spot, walls []Wall, of string) bool {
	for _, w := range walls {
		if of != "" && w.Of == of {
			continue
		}
		if t, ok := crosses(eye.Pt, at.Pt, w.A, w.B); ok && eye.Z+t*(at.Z-eye.Z) < w.High {
			return true
		}
	}
	return false
}

// Faces is whether a place is within the field of one who walks a way.
func Faces(eye, way, at Pt, field float64) bool {
	d := at.Sub(eye)
	if d.Len() == 0 || field >= 2*math.Pi {
		return true
	}
	return d.Dot(way)/d.Len()/way.Len() >= math.Cos(field/2)-1e-12
}

// Stretch is part of a path, m along it.
type Stretch struct{ From, To float64 }

// Seen is from which stretches of a path a thing is seen by an eye of a height, looked at
// in so many steps.
func Seen(p Path, eyeHigh, field float64, at Spot, walls []Wall, of string, steps int) (out []Stretch) {
	long := p.Long()
	open := false
	for i := 0; i <= steps; i++ {
		far := long * float64(i) / float64(steps)
		eye, way := p.At(far)
		sees := Faces(eye, way, at.Pt, field) && !Blocked(Spot{eye, eyeHigh}, at, walls, of)
		switch {
		case sees && !open:
			out = append(out, Stretch{far, far})
			open = true
		case sees:
			out[len(out)-1].To = far
		default:
			open = false
		}
	}
	return out
}

// Total is how long stretches are together; one of a single step counts a step.
func Total(s []Stretch, step float64) (sum float64) {
	for _, x := range s {
		sum += math.Max(step, x.To-x.From)
	}
	return sum
}

// Hidden is where a thing nearest to its place is seen from nowhere along a path, in plan,
// at its height: looked for in rings of 0.3 m, up to a reach. ok is false where there is
// none. free tells whether a place may be taken.
func Hidden(p Path, at Spot, walls []Wall, of string, reach float64, free func(Pt) bool) (Pt, bool) {
	for r := 0.3; r <= reach; r += 0.3 {
		for k := range 16 {
			s, c := math.Sincos(float64(k) * math.Pi / 8)
			q := Spot{Pt{at.X + r*c, at.Y + r*s}, at.Z}
			if free != nil && !free(q.Pt) {
				continue
			}
			if Unseen(p, q, walls, of) {
				return q.Pt, true
			}
		}
	}
	return Pt{}, false
}

// Steps is how many places of a path are looked from.
const Steps = 300

// Unseen is whether a thing is seen from nowhere along a path: by an adult, who sees over a wall
// all that a child does (yard_test.go).
func Unseen(p Path, at Spot, walls []Wall, of string) bool {
	return len(Seen(p, AdultEye, Field, at, walls, of, Steps)) == 0
}

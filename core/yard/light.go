package yard

import "math"

// Lamp throws light: so many lumens evenly into a beam about where it is aimed.
type Lamp struct {
	Spot
	Lumens float64
	Beam   float64 // the whole angle; 2 pi is all round
	Aim    float64 // on the plan, from right, clockwise
	Tilt   float64 // down from level
	Of     string
	Fill   bool // it lights the scene; else it is part of it
}

// Candela is a lamp's intensity within its beam: lumens over the solid angle of a cone,
// 2 pi (1 - cos(beam / 2)).
func Candela(lumens, beam float64) float64 {
	return lumens / (2 * math.Pi * (1 - math.Cos(math.Min(beam, 2*math.Pi)/2)))
}

// axis is where it is aimed, one long: x, y, z.
func (l Lamp) axis() (x, y, z float64) {
	s, c := math.Sincos(l.Aim)
	t, k := math.Sincos(l.Tilt)
	return c * k, s * k, -t
}

// reaches is the intensity that goes towards a place, and how far that is.
func (l Lamp) reaches(at Spot, walls []Wall) (candela, far float64) {
	dx, dy, dz := at.X-l.X, at.Y-l.Y, at.Z-l.Z
	far = math.Sqrt(dx*dx + dy*dy + dz*dz)
	if far < 1e-6 || l.Beam <= 0 {
		return 0, far
	}
	ax, ay, az := l.axis()
	if l.Beam < 2*math.Pi && (dx*ax+dy*ay+dz*az)/far < math.Cos(l.Beam/2)-1e-9 {
		return 0, far
	}
	if Blocked(l.Spot, at, walls, l.Of) {
		return 0, far
	}
	return Candela(l.Lumens, l.Beam), far
}

// nearest is the least distance that light is worked out for: closer than that a lamp is
// no point any more.
const nearest = 0.15

// Ground is how many lux fall on level ground: I cos(a) / d2, a from straight down.
func Ground(lamps []Lamp, at Pt, walls []Wall) (lux float64) {
	for _, l := range lamps {
		i, d := l.reaches(Spot{at, 0}, walls)
		if d = math.Max(d, nearest); i > 0 {
			lux += i * (l.Z / d) / (d * d)
		}
	}
	return lux
}

// Upright is how many lux fall on an upright face at a place that looks a way.
func Upright(lamps []Lamp, at Spot, looks Pt, walls []Wall) (lux float64) {
	for _, l := range lamps {
		lux += l.Onto(at, looks, walls).Lux
	}
	return lux
}

// Share is what one lamp gives an upright face: I cos(a) / d2.
type Share struct{ Candela, Cos, Far, Lux float64 }

// Onto is what a lamp gives an upright face at a place that looks a way; nothing where the
// face looks away from it, or something stands between.
func (l Lamp) Onto(at Spot, looks Pt, walls []Wall) (s Share) {
	i, d := l.reaches(at, walls)
	if d = math.Max(d, nearest); i == 0 {
		return s
	}
	if cos := l.Sub(at.Pt).Dot(looks) / looks.Len() / d; cos > 0 {
		s = Share{i, cos, d, i * cos / (d * d)}
	}
	return s
}

// Dark is the stretches of a path that are darker than so many lux.
func Dark(p Path, lamps []Lamp, walls []Wall, least float64, steps int) (out []Stretch) {
	long, open := p.Long(), false
	for i := 0; i <= steps; i++ {
		far := long * float64(i) / float64(steps)
		at, _ := p.At(far)
		switch dark := Ground(lamps, at, walls) < least; {
		case dark && !open:
			out = append(out, Stretch{far, far})
			open = true
		case dark:
			out[len(out)-1].To = far
		default:
			open = false
		}
	}
	return out
}

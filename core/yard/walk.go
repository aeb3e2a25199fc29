package yard

import "math"

// Walking speeds, m/s (from memory): by day, and in the dark.
const (
	Walk     = 1.2
	WalkDark = 0.6
)

// Then is how far along the path a guest is when something goes off that a sensor so far
// along it started, after a latency in s.
func Then(sensor, speed, latency float64) float64 { return sensor + speed*latency }

// Minute is what the eye just resolves, rad: one arc minute (20/20 acuity).
const Minute = math.Pi / 180 / 60

// Detail is the finest detail, m, worth making for eyes so far away.
func Detail(far float64) float64 { return 2 * far * math.Tan(Minute/2) }

// Letters is how high letters must be, m, to be read well from so far, and at the least:
// 1 inch for 10 ft, and for 30 ft (common practice, no source).
func Letters(far float64) (well, least float64) { return far / 120, far / 360 }

// Over is where a cord lies on a path, m along it: every place within the path's half width.
func Over(route []Pt, p Path) (out []Stretch) {
	const step = 0.1
	for i := 1; i < len(route); i++ {
		leg := route[i].Sub(route[i-1])
		k := int(math.Ceil(leg.Len() / step))
		for j := 0; j <= k; j++ {
			along, far := p.Near(route[i-1].Plus(leg.Times(float64(j) / math.Max(1, float64(k)))))
			if far > p.Wide/2 {
				continue
			}
			if n := len(out); n > 0 && along >= out[n-1].From-2*step && along <= out[n-1].To+2*step {
				out[n-1].From, out[n-1].To = math.Min(out[n-1].From, along), math.Max(out[n-1].To, along)
				continue
			}
			out = append(out, Stretch{along, along})
		}
	}
	return out
}

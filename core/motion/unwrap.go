package motion

import "math"

// An arm that a linkage moves is found as a direction, which begins anew at half a turn: a lid
// that opens to the left would seem to leap a whole turn as it passes the level. It is
// followed instead from one place to the next, by the smaller of the two ways.

// finest is the largest turn of the shaft, rad, over which an arm is followed at once.
const finest = math.Pi / 18

// onward is a place's angle told on from that of the place before it.
func (m *Mechanism) onward(before, p Place) float64 {
	if _, ok := m.Way.(FourBar); !ok {
		return p.Angle // the shaft's own: it is not found as a direction
	}
	return before.Angle + math.Remainder(p.Angle-before.Angle, 2*math.Pi)
}

// places are the n+1 places of the travel, and which way the arm goes. An error is *Jam.
func (m *Mechanism) places(n int) ([]Place, sense, error) {
	jam := func(at float64) error { return &Jam{at, m.From, m.To} }
	p, ok := m.Place(m.From)
	if !ok {
		return nil, sense{}, jam(m.From)
	}
	if _, ok := m.Place(m.To); !ok {
		return nil, sense{}, jam(m.To)
	}
	all := []Place{p}
	step := (m.To - m.From) / float64(n)
	between := max(1, int(math.Ceil(math.Abs(step)/finest)))
	far := 0.0
	for i := 1; i <= n; i++ {
		for k := 1; k <= between; k++ {
			q := m.From + step*(float64(i-1)+float64(k)/float64(between))
			next, ok := m.Place(q)
			if !ok {
				return nil, sense{}, jam(q)
			}
			next.Angle = m.onward(p, next)
			p = next
		}
		all = append(all, p)
		if d := p.Angle - all[0].Angle; math.Abs(d) > math.Abs(far) {
			far = d
		}
	}
	// an arm that comes back to where it began goes the way it has been farthest
	end := p.Angle - all[0].Angle
	s := sense{begin: all[0].Angle, all: math.Abs(end), way: math.Copysign(1, end)}
	if s.all < 1e-9 {
		s.all, s.way = 0, math.Copysign(1, far)
	}
	return all, s, nil
}

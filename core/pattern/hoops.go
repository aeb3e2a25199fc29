package pattern

import (
	"fmt"
	"math"
)

// Hoops is rings bent of a pipe or rod round a pole, from one end to the other at
// a pitch.
type Hoops struct {
	Pole, H, Pitch float64
	OD             float64 // of the pipe
}

// Lay cuts the rings; how many and how long is RingsAtPitch's.
func (h Hoops) Lay() (*Shape, error) {
	results, err := RingsAtPitch(h.H, h.Pitch, h.Pole, h.OD)
	if err != nil {
		return nil, err
	}
	n := int(results[0].Value)
	if err := copies(n); err != nil {
		return nil, err
	}
	s := &Shape{Results: results, Cuts: []Cut{{fmt.Sprintf("Ring round %s", inches(h.Pole)), results[1].Value, n}}}
	across := h.Pole + 2*h.OD
	for k := range min(n, 60) {
		s.Bodies = append(s.Bodies, ringBody("pipe", k, across, h.Pole, float64(k)*h.Pitch, h.OD)...)
	}
	s.Size = Vec{across, across, math.Max(h.OD, float64(n-1)*h.Pitch+h.OD)}
	return s, nil
}

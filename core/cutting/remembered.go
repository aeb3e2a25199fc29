package cutting

import (
	"encoding/binary"
	"fmt"
	"hash/maphash"
	"math"

	"zapbarn/core/memo"
	"zapbarn/core/nest"
	"zapbarn/core/pattern"
)

// layouts keeps what was laid last: most edits change one stock or none.
var layouts = memo.New[[2]uint64, nest.Layout](500_000, layoutWeight)

// layoutWeight is how many pieces a layout lays, and one for itself.
func layoutWeight(l nest.Layout) int64 {
	n := int64(1)
	for _, s := range l.Sheets {
		n += int64(len(s.Placed))
	}
	return n
}

// seeds of a run of the program: two sums of 64 bits, one of which might be had by chance
// once in centuries.
var seeds = [2]maphash.Seed{maphash.MakeSeed(), maphash.MakeSeed()}

// sum takes in what a layout stands on, quickly: outlines are long.
type sum struct {
	of  [2]maphash.Hash
	buf []byte
}

func newSum() *sum {
	s := &sum{buf: make([]byte, 0, 1<<12)}
	for i := range s.of {
		s.of[i].SetSeed(seeds[i])
	}
	return s
}

func (s *sum) flush() {
	for i := range s.of {
		s.of[i].Write(s.buf)
	}
	s.buf = s.buf[:0]
}

func (s *sum) num(v ...float64) {
	for _, x := range v {
		if len(s.buf)+8 > cap(s.buf) {
			s.flush()
		}
		s.buf = binary.LittleEndian.AppendUint64(s.buf, math.Float64bits(x))
	}
}

func (s *sum) text(t string) {
	s.num(float64(len(t)))
	s.flush()
	s.buf = append(s.buf, t...)
	s.flush()
}

func (s *sum) rings(list [][]pattern.Point) {
	s.num(float64(len(list)))
	for _, r := range list {
		s.num(float64(len(r)))
		for _, q := range r {
			s.num(q.X, q.Y)
		}
	}
}

func (s *sum) key() [2]uint64 {
	s.flush()
	return [2]uint64{s.of[0].Sum64(), s.of[1].Sum64()}
}

func remembered(parts []nest.Part, stocks []nest.Stock, o nest.Options) nest.Layout {
	s := newSum()
	s.num(o.Kerf, o.Margin, float64(o.Seed), float64(o.Tries), float64(len(parts)), float64(len(stocks)))
	for i, p := range parts {
		s.text(p.Shape)
		if i > 0 && p.Shape != "" && p.Shape == parts[i-1].Shape {
			continue // equal shapes are equal parts
		}
		turn := 0.0
		if p.Turn {
			turn = 1
		}
		s.num(p.W, p.H, p.Low, p.High, p.Round, p.Bore, turn)
		s.rings(p.Polys)
		s.rings(p.Holes)
	}
	for _, x := range stocks {
		s.text(x.ID)
		s.num(x.W, x.H, float64(x.Left))
	}
	s.text(fmt.Sprint(o.Fixed))
	return layouts.Get(s.key(), func() nest.Layout { return nest.Sheets(parts, stocks, o) })
}

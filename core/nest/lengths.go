package nest

import (
	"math"
	"sort"
	"strconv"
	"strings"
)

// Bar is one stock length with the pieces cut from it, longest first.
type Bar struct {
	Pieces []float64
	Left   float64 // offcut, the last kerf taken off
}

// Cutting is a list of bars, with how good it is known to be.
type Cutting struct {
	Bars    []Bar
	Bound   int  // no fewer bars can do
	Proven  bool // len(Bars) is the least possible
	TooLong []float64
}

// Lengths cuts the pieces from bars of one stock length with the fewest bars:
// first-fit decreasing, then exact search (bar by bar, longest piece first,
// only maximal fillings, remembered remainders) within a step limit that
// covers shop sizes of about 60 pieces. The bound is the larger of total
// length and of pieces over half a bar.
func Lengths(pieces []float64, stock, kerf float64) Cutting {
	var c Cutting
	room := stock + kerf
	sorted := append([]float64(nil), pieces...)
	sort.Sort(sort.Reverse(sort.Float64Slice(sorted)))
	for len(sorted) > 0 && sorted[0] > stock+1e-6 {
		c.TooLong = append(c.TooLong, sorted[0])
		sorted = sorted[1:]
	}
	if len(sorted) == 0 {
		c.Proven = true
		return c
	}
	total, big := 0.0, 0
	for _, p := range sorted {
		total += p + kerf
		if p+kerf > room/2+1e-9 {
			big++
		}
	}
	c.Bound = max(big, int(math.Ceil(total/room-1e-9)))
	best := firstFit(sorted, room, kerf)
	if len(best) > c.Bound {
		s := search{room: room, kerf: kerf, seen: map[string]bool{}, steps: 200_000}
		for _, p := range sorted {
			if n := len(s.size); n > 0 && s.size[n-1] == p {
				s.left[n-1]++
			} else {
				s.size, s.left = append(s.size, p), append(s.left, 1)
			}
		}
		for k := c.Bound; k < len(best); k++ {
			s.seen, s.bars = map[string]bool{}, nil
			if s.pack(k) {
				best = s.bars
				break
			}
			if s.steps <= 0 {
				break
			}
			c.Bound = k + 1 // k bars were searched through: not enough
		}
	}
	for _, b := range best {
		used := 0.0
		for _, p := range b {
			used += p + kerf
		}
		c.Bars = append(c.Bars, Bar{b, math.Max(0, room-used-kerf)})
	}
	c.Proven = len(best) == c.Bound
	return c
}

func firstFit(sorted []float64, room, kerf float64) [][]float64 {
	var bars [][]float64
	var left []float64
next:
	for _, p := range sorted {
		for i := range bars {
			if p+kerf <= left[i]+1e-6 {
				bars[i], left[i] = append(bars[i], p), left[i]-p-kerf
				continue next
			}
		}
		bars, left = append(bars, []float64{p}), append(left, room-p-kerf)
	}
	return bars
}

type search struct {
	size       []float64
	left       []int
	room, kerf float64
	seen       map[string]bool
	steps      int
	bars       [][]float64
}

// pack tries to put all that is left into k bars.
func (s *search) pack(k int) bool {
	first, rest := -1, 0.0
	for i, n := range s.left {
		if n > 0 && first < 0 {
			first = i
		}
		rest += float64(n) * (s.size[i] + s.kerf)
	}
	if first < 0 {
		return true
	}
	if k == 0 || rest > float64(k)*s.room+1e-6 || s.steps <= 0 {
		return false
	}
	var key strings.Builder
	for _, n := range s.left {
		key.WriteString(strconv.Itoa(n))
		key.WriteByte(',')
	}
	if s.seen[key.String()] {
		return false
	}
	s.left[first]--
	ok := s.bar(k, first, s.room-s.size[first]-s.kerf, []float64{s.size[first]})
	if !ok {
		s.left[first]++
		if s.steps > 0 {
			s.seen[key.String()] = true
		}
	}
	return ok
}

// bar fills one bar from size i on, then packs the rest.
func (s *search) bar(k, i int, room float64, bar []float64) bool {
	if s.steps--; s.steps <= 0 {
		return false
	}
	for i < len(s.size) && (s.left[i] == 0 || s.size[i]+s.kerf > room+1e-6) {
		i++
	}
	if i == len(s.size) {
		for j, n := range s.left { // only maximal fillings
			if n > 0 && s.size[j]+s.kerf <= room+1e-6 {
				return false
			}
		}
		s.bars = append(s.bars, append([]float64(nil), bar...))
		if s.pack(k - 1) {
			return true
		}
		s.bars = s.bars[:len(s.bars)-1]
		return false
	}
	n := min(s.left[i], int((room+1e-6)/(s.size[i]+s.kerf)))
	for take := n; take >= 0; take-- {
		s.left[i] -= take
		b := bar
		for range take {
			b = append(b, s.size[i])
		}
		if s.bar(k, i+1, room-float64(take)*(s.size[i]+s.kerf), b) {
			return true
		}
		s.left[i] += take
	}
	return false
}

package formats

import (
	"bytes"
	"context"
	"math"
	"sort"

	"zapbarn/core/measure"
	"zapbarn/core/pattern"
)

// MaxOutlineFile is the largest SVG or DXF read, in bytes.
const MaxOutlineFile = 4 << 20

// Rings reads the closed outlines of an SVG or a DXF, Y up. Units are the
// file's own: a plan stretches them to one known size. Curves are flattened to
// within a two-thousandth of the drawing. What reading may cost is bounded
// while it is read; it ends early when ctx does.
func Rings(ctx context.Context, data []byte) ([][]pattern.Point, error) {
	return rings(newBudget(ctx), data)
}

// rings is Rings within a budget.
func rings(b *budget, data []byte) ([][]pattern.Point, error) {
	data = bytes.TrimPrefix(data, []byte("\ufeff"))
	if len(data) > MaxOutlineFile {
		return nil, measure.Bad("file", "is %d MB; an outline is at most %d MB", len(data)>>20, MaxOutlineFile>>20)
	}
	var all [][]pattern.Point
	var err error
	head := bytes.ToLower(data[:min(len(data), 4096)])
	switch {
	case bytes.Contains(head, []byte("<svg")) || bytes.Contains(head, []byte("<?xml")):
		all, err = svgRings(b, data)
	case bytes.Contains(data, []byte("SECTION")):
		all, err = dxfRings(b, data)
	default:
		return nil, measure.Bad("file", "is neither an SVG nor a DXF as text; export the outline as one of these")
	}
	if err != nil {
		return nil, err
	}
	kept := all[:0]
	n := 0
	for _, r := range all {
		if len(r) > 2 && r[0] == r[len(r)-1] {
			r = r[:len(r)-1]
		}
		if len(r) > 2 && pattern.Area(r) > 0 {
			kept, n = append(kept, r), n+len(r)
		}
	}
	if len(kept) == 0 {
		return nil, measure.Bad("file", "has no closed outline; join the lines to a closed path and export again")
	}
	if n > pattern.MaxOutline {
		return nil, measure.Bad("file", "has %d corners; %d at most, so make the curves simpler", n, pattern.MaxOutline)
	}
	return kept, nil
}

// joined makes rings of lines that meet end to end, to a ten-thousandth of the
// drawing.
func joined(lines [][]pattern.Point) (rings [][]pattern.Point) {
	size := 0.0
	for _, l := range lines {
		for _, p := range l {
			size = math.Max(size, math.Max(math.Abs(p.X), math.Abs(p.Y)))
		}
	}
	snap := math.Max(size*1e-4, 1e-9)
	type key [2]int64
	keyOf := func(p pattern.Point) key {
		return key{int64(math.Round(p.X / snap)), int64(math.Round(p.Y / snap))}
	}
	ends := map[key][]int{}
	for i, l := range lines {
		ends[keyOf(l[0])] = append(ends[keyOf(l[0])], i)
		ends[keyOf(l[len(l)-1])] = append(ends[keyOf(l[len(l)-1])], i)
	}
	for _, list := range ends {
		sort.Ints(list)
	}
	used := make([]bool, len(lines))
	for i := range lines {
		if used[i] {
			continue
		}
		used[i] = true
		ring := append([]pattern.Point(nil), lines[i]...)
		start := keyOf(ring[0])
		for keyOf(ring[len(ring)-1]) != start {
			at, found := keyOf(ring[len(ring)-1]), false
			list := ends[at]
			for len(list) > 0 && used[list[0]] { // looked at once, not again by each line that ends here
				list = list[1:]
			}
			ends[at] = list
			if len(list) > 0 {
				k := list[0]
				used[k], found = true, true
				l := lines[k]
				if keyOf(l[0]) != at {
					for n := len(l) - 2; n >= 0; n-- {
						ring = append(ring, l[n])
					}
				} else {
					ring = append(ring, l[1:]...)
				}
			}
			if !found {
				ring = nil
				break
			}
		}
		if len(ring) > 3 {
			rings = append(rings, ring[:len(ring)-1])
		}
	}
	return rings
}

package draw

import (
	"fmt"
	"math"

	"zapbarn/core/check"
	"zapbarn/core/pattern"
	"zapbarn/core/plan"
	"zapbarn/core/work"
)

// BarnRows is how a display's props stand on ground lines, all to one scale.
type BarnRows struct {
	Scale float64
	Rows  [][]barnItem
}

type barnItem struct {
	Prop plan.Prop
	size pattern.Vec
	ok   bool
}

// slot is how wide a prop stands with its name, at a scale.
func (it barnItem) slot(scale float64) float64 {
	return math.Max(it.size.X*scale+22, math.Max(82, float64(len([]rune(it.Prop.Name)))*7.2+12))
}

const (
	barnWide, barnHigh = 986.0, 344.0
	barnGround         = 286.0
	barnRoom           = barnWide - TapeSize - 96
	// leastBarn is the scale, in units a mm, below which props are too small to
	// tell apart: more of them take a second ground line.
	leastBarn = 0.05
)

// RowsOf lays out the barn: one ground line as long as its props stay large
// enough to be told apart, else several at one scale.
func RowsOf(w *work.Work) BarnRows {
	tall, wide := 1753.0, 1.0
	var items []barnItem
	for _, p := range w.Plan.Props() {
		size, ok := check.Extent(w, p.ID)
		if !ok {
			size = pattern.Vec{X: 500, Z: p.Known.Or(900)}
		}
		items = append(items, barnItem{p, size, ok})
		_, top := reach(w, p.ID)
		tall, wide = math.Max(tall, math.Max(top, size.Z)), math.Max(wide, size.X)
	}
	scale := math.Min(244/tall, (barnRoom-22)/wide)
	need := func(scale float64) (sum float64) {
		for _, it := range items {
			sum += it.slot(scale)
		}
		return sum
	}
	one := scale
	for one > leastBarn && need(one) > barnRoom {
		one *= 0.98
	}
	if need(one) <= barnRoom {
		return BarnRows{one, [][]barnItem{items}}
	}
	scale = math.Min(scale, 2*leastBarn)
	b := BarnRows{Scale: scale}
	room := -1.0
	for _, it := range items {
		if slot := it.slot(scale); room < slot {
			b.Rows = append(b.Rows, nil)
			room = barnRoom
		}
		room -= it.slot(scale)
		b.Rows[len(b.Rows)-1] = append(b.Rows[len(b.Rows)-1], it)
	}
	return b
}

// Props are those that stand on a row.
func (b BarnRows) Props(row int) (out []plan.Prop) {
	for _, it := range b.Rows[row] {
		out = append(out, it.Prop)
	}
	return out
}

// Barn draws one row of props as elevations on a ground line.
func (b BarnRows) Barn(
	w *work.Work,
	row int,
	sel string,
	href func(string) string,
	states func(prop string) [4]string,
) string {
	c := New(barnWide, barnHigh, w.Plan.Metric())
	var items []barnItem
	if row < len(b.Rows) {
		items = b.Rows[row]
	}
	scale := b.Scale
	c.Tape(scale, TapeSize, barnGround, false)
	for y := barnGround; y > 30; y -= 304.8 * scale {
		c.Line("rule", TapeSize, y, c.W, y)
	}
	c.Line("ground", TapeSize, barnGround, c.W, barnGround)
	spare := barnRoom
	for _, it := range items {
		spare -= it.slot(scale)
	}
	spare = math.Max(0, spare) / math.Max(1, float64(len(items)))
	x := TapeSize + 84.0
	c.Person(TapeSize+42, barnGround, scale)
	for _, it := range items {
		wide := math.Max(it.size.X*scale, 10)
		slot := it.slot(scale) + spare
		mid := x + slot/2
		key := "prop:" + it.Prop.ID
		c.Pick(href(key), key, it.Prop.Name, key == sel)
		if it.ok {
			c.f(`<g transform="translate(%s %s)">%s</g>`, n(mid), n(barnGround), frontOf(w, it.Prop.ID, scale))
		} else {
			c.Rect("idea", mid-wide/2, barnGround-it.size.Z*scale, wide, it.size.Z*scale)
		}
		c.Rect("touch", mid-wide/2-8, barnGround-it.size.Z*scale-8, wide+16, it.size.Z*scale+62)
		c.Text("t lbl", "middle", mid, barnGround+22, it.Prop.Name)
		for i, s := range states(it.Prop.ID) {
			c.Rect("state st-"+s, mid-34+float64(i)*18, barnGround+32, 13, 13)
			if s == "snag" {
				c.Line("hookink", mid-34+float64(i)*18, barnGround+45, mid-21+float64(i)*18, barnGround+32)
			}
		}
		c.Done()
		x += slot
	}
	name := "All props to one scale"
	if len(b.Rows) > 1 {
		name = fmt.Sprintf("Props to one scale, row %d of %d", row+1, len(b.Rows))
	}
	return c.SVG("barn", name, "Front views of the props on one ground line beside an adult of 5 ft 9 in.")
}

// frontOf is a prop from the front with its middle over the origin.
func frontOf(w *work.Work, prop string, scale float64) string {
	return work.Derive(w, fmt.Sprintf("front of %s, %g", prop, scale), func(w *work.Work) string {
		c := New(0, 0, w.Plan.Metric())
		c.Prop(w, prop, frontOver(w, prop, scale, 0, 0), "", nil)
		return c.drawn()
	})
}

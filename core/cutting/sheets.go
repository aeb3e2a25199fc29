// Package cutting lays the parts of a display on sheets and its pipes on lengths:
// round what is cut already or laid by hand, offcuts first. It takes parts and
// stocks, never the plan.
package cutting

import (
	"fmt"
	"slices"
	"sort"

	"zapbarn/core/memo"
	"zapbarn/core/nest"
	"zapbarn/core/pattern"
	"zapbarn/core/stock"
)

// Part is one cut part, in so many copies as its panel says.
type Part struct {
	Ref   string // solid/panel
	Panel *pattern.Panel
	Stock *stock.Material
	Box   *Box // as BoxOf gives it
}

// Set is all that a cutting stands on; lengths in mm.
type Set struct {
	Kerf, Margin float64
	Parts        []Part           // in the plan's order, which tells which stock is laid first
	Offcuts      []Offcut         // on the shelf
	Layouts      []Layout         // kept, or laid by hand
	Bench        *memo.Bench      // where layouts are remembered; nil remembers none
	Plain        bool             // no search for the first layout
	At           func(ref string) // told before a stock is laid by whose part; may be nil
	Pace         func()           // told while a search goes on; may be nil
}

// Options are how sheets are cut.
func (set Set) Options() nest.Options {
	return nest.Options{Kerf: set.Kerf, Margin: set.Margin, Seed: 1, Pace: set.Pace}
}

// Piece is one copy of a part on a sheet.
type Piece struct {
	Ref  string
	Copy int
}

// Sheets is the layout on one stock.
type Sheets struct {
	Stock   stock.Material
	Layout  nest.Layout
	Pieces  []Piece // the index that the layout's Placed.Part uses
	Boxes   []nest.Part
	Locked  map[int]bool // pieces laid by hand
	Kept    bool         // the layout is one that was kept
	Dropped []Piece      // locked or cut pieces that no longer fit where they were
	Cut     int          // so many sheets, the first, are cut already
	stocks  []nest.Stock
	fixed   []nest.Fixed // of the locked; Part counts the loose pieces
	loose   []int        // the pieces not cut yet
	cut     []nest.Sheet
	own     []nest.Sheet // of parts exactly as large as their sheet, one each
	area    []float64    // of each piece, mm2
	shapes  []memo.Key   // of each piece: the sum of its box
	bench   *memo.Bench
}

// boxes are the loose pieces' boxes.
func (s *Sheets) boxes() []nest.Part {
	out := make([]nest.Part, len(s.loose))
	for i, k := range s.loose {
		out[i] = s.Boxes[k]
	}
	return out
}

// whole puts the cut sheets before a layout of the loose pieces.
func (s *Sheets) whole(l nest.Layout) nest.Layout {
	out := l
	out.Sheets = append([]nest.Sheet(nil), s.cut...)
	renamed := func(list []int) (all []int) {
		for _, i := range list {
			all = append(all, s.loose[i])
		}
		return all
	}
	for _, sh := range l.Sheets {
		c := sh
		c.Placed = append([]nest.Placed(nil), sh.Placed...)
		for i := range c.Placed {
			c.Placed[i].Part = s.loose[c.Placed[i].Part]
		}
		out.Sheets = append(out.Sheets, c)
	}
	out.Sheets = append(out.Sheets, s.own...)
	out.TooLarge, out.Missing = renamed(l.TooLarge), renamed(l.Missing)
	return out
}

// New counts the new sheets; the rest are offcuts.
func (s *Sheets) New() (n int) {
	for _, sh := range s.Layout.Sheets {
		if sh.Stock.ID == s.Stock.ID {
			n++
		}
	}
	return n
}

// Uncut counts the new sheets that are not cut yet.
func (s *Sheets) Uncut() (n int) {
	for _, sh := range s.Layout.Sheets[s.Cut:] {
		if sh.Stock.ID == s.Stock.ID {
			n++
		}
	}
	return n
}

// Number is which of its stock's sheets sheet i of the layout is, from 0.
func (s *Sheets) Number(i int) (n int) {
	for _, sh := range s.Layout.Sheets[:i] {
		if sh.Stock.ID == s.Layout.Sheets[i].Stock.ID {
			n++
		}
	}
	return n
}

// firstTries is how long the first layout is searched for, for up to so many
// parts: it must stand at once.
const firstTries, firstParts = 24, 60

// Sheets lays all parts of each stock together, stocks in the order of their
// first part.
func (set Set) Sheets() (all []*Sheets) {
	seen := map[string]*Sheets{}
	for _, part := range set.Parts {
		s := seen[part.Stock.ID]
		if s == nil {
			s = &Sheets{Stock: *part.Stock, bench: set.Bench, Locked: map[int]bool{}}
			seen[s.Stock.ID] = s
			all = append(all, s)
		}
		box := part.Box.part
		box.Shape = part.Ref
		for c := range part.Panel.Copies {
			s.Pieces = append(s.Pieces, Piece{part.Ref, c})
			s.Boxes = append(s.Boxes, box)
			s.area, s.shapes = append(s.area, part.Box.area), append(s.shapes, part.Box.sum)
		}
	}
	for _, s := range all {
		if set.At != nil && len(s.Pieces) > 0 {
			set.At(s.Pieces[0].Ref)
		}
		s.stocks = set.stocksOf(s.Stock)
		set.lay(s)
	}
	return all
}

// stocksOf are the offcuts of a stock, the smallest first, then new sheets.
func (set Set) stocksOf(m stock.Material) (out []nest.Stock) {
	for _, o := range set.Offcuts {
		if o.Stock == m.ID {
			out = append(out, nest.Stock{ID: offcutKey + o.ID, W: o.W.Value(), H: o.H.Value(), Left: 1})
		}
	}
	sort.SliceStable(out, func(i, j int) bool { return out[i].W*out[i].H < out[j].W*out[j].H })
	return append(out, nest.Stock{ID: m.ID, W: m.Sheet[0].Value(), H: m.Sheet[1].Value(), Left: -1})
}

// lay lays one stock: sheets that are cut stay as they are; the rest as it was
// kept while that still holds, else afresh round what is locked.
func (set Set) lay(s *Sheets) {
	o := set.Options()
	var pins []Pin
	for _, kept := range set.Layouts {
		if kept.ID == s.Stock.ID {
			pins = kept.Pins
		}
	}
	at := map[Piece]int{}
	for i, pc := range s.Pieces {
		at[pc] = i
	}
	s.cutSheets(pins, at, o)
	done := map[int]bool{}
	for _, sh := range s.cut {
		for _, q := range sh.Placed {
			done[q.Part] = true
		}
	}
	set.onFactoryEdges(s, done)
	loose := map[int]int{}
	for i := range s.Pieces {
		if !done[i] {
			loose[i] = len(s.loose)
			s.loose = append(s.loose, i)
		}
	}
	boxes := s.boxes()
	for _, q := range pins {
		if i, ok := at[Piece{q.Part, q.Copy}]; ok && !q.Cut && !done[i] {
			f := s.pinned(q, loose[i])
			o.Fixed = append(o.Fixed, f)
			if q.Locked {
				s.lock(i, f, boxes, o)
			}
		}
	}
	if len(boxes) == 0 {
		s.Layout = s.whole(nest.Layout{})
		return
	}
	if l, ok := nest.Kept(boxes, s.stocks, o); ok && len(o.Fixed) > 0 {
		s.Layout, s.Kept = s.whole(l), true
		return
	}
	o.Fixed = s.fixed
	if len(boxes) <= firstParts && !set.Plain {
		o.Tries = firstTries
	}
	s.Layout = s.whole(s.numbered(s.remembered(boxes, s.stocks, o)))
}

// pinned is where a piece lies that was kept, under its number.
func (s *Sheets) pinned(q Pin, part int) nest.Fixed {
	f := nest.Fixed{
		Stock:  s.Stock.ID,
		Sheet:  q.Sheet,
		Placed: nest.Placed{Part: part, X: q.X.Value(), Y: q.Y.Value(), Turned: q.Turned, Flip: q.Flip},
	}
	if q.Offcut != "" {
		f.Stock = offcutKey + q.Offcut
	}
	return f
}

// lock keeps piece i where it was laid by hand, if it still fits there.
func (s *Sheets) lock(i int, f nest.Fixed, boxes []nest.Part, o nest.Options) {
	if !s.room(boxes, f, o) {
		s.Dropped = append(s.Dropped, s.Pieces[i])
		return
	}
	s.fixed = append(s.fixed, f)
	s.Locked[i] = true
}

// numbered puts the sheets that hold locked pieces back where they were among
// the new sheets, so that no sheet changes its number when a piece is laid by
// hand.
func (s *Sheets) numbered(l nest.Layout) nest.Layout {
	wish := map[int]int{} // by the piece locked there
	for _, f := range s.fixed {
		if f.Stock == s.Stock.ID {
			wish[f.Part] = f.Sheet
		}
	}
	cut := 0
	for _, sh := range s.cut {
		if sh.Stock.ID == s.Stock.ID {
			cut++
		}
	}
	var first, free []nest.Sheet // offcuts, and new sheets that may stand anywhere
	at := map[int]nest.Sheet{}
	for _, sh := range l.Sheets {
		if sh.Stock.ID != s.Stock.ID {
			first = append(first, sh)
			continue
		}
		n := -1
		for _, q := range sh.Placed {
			if w, ok := wish[q.Part]; ok {
				n = max(0, w-cut)
			}
		}
		if _, taken := at[n]; n < 0 || taken {
			free = append(free, sh)
		} else {
			at[n] = sh
		}
	}
	out := first
	for n := 0; len(at)+len(free) > 0; n++ {
		sh, ok := at[n]
		switch {
		case ok:
			delete(at, n)
		case len(free) > 0:
			sh, free = free[0], free[1:]
		default:
			continue
		}
		out = append(out, sh)
	}
	l.Sheets = out
	return l
}

// cutSheets gathers the sheets that are cut, and takes the offcuts among them
// off the shelf.
func (s *Sheets) cutSheets(pins []Pin, at map[Piece]int, o nest.Options) {
	var order []nest.Fixed
	lies := map[string][]nest.Placed{}
	key := func(f nest.Fixed) string { return fmt.Sprint(f.Stock, " ", f.Sheet) }
	for _, q := range pins {
		i, ok := at[Piece{q.Part, q.Copy}]
		if !ok || !q.Cut {
			continue
		}
		f := s.pinned(q, i)
		for _, st := range s.stocks {
			if st.ID != f.Stock {
				continue
			}
			edge := o
			if _, on := factory(s.Boxes[i], st, o.Margin); on && !straight(s.Boxes[i], st, o.Margin) {
				edge.Margin = 0
			}
			if !nest.Fits(s.Boxes, lies[key(f)], f.Placed, st, edge) {
				s.Dropped = append(s.Dropped, s.Pieces[i])
				continue
			}
			if lies[key(f)] == nil {
				order = append(order, f)
			}
			lies[key(f)] = append(lies[key(f)], f.Placed)
		}
	}
	used := map[string]bool{}
	for _, f := range order {
		for _, st := range s.stocks {
			if st.ID == f.Stock {
				s.cut = append(s.cut, nest.Sheet{Stock: st, Placed: lies[key(f)]})
				used[st.ID] = st.Left >= 0
			}
		}
	}
	s.stocks = slices.DeleteFunc(s.stocks, func(st nest.Stock) bool { return used[st.ID] })
	s.Cut = len(s.cut)
}

// room reports whether a locked piece still fits where it was.
func (s *Sheets) room(boxes []nest.Part, f nest.Fixed, o nest.Options) bool {
	var on []nest.Placed
	for _, g := range s.fixed {
		if g.Part == f.Part {
			return false
		}
		if g.Stock == f.Stock && g.Sheet == f.Sheet {
			on = append(on, g.Placed)
		}
	}
	for _, st := range s.stocks {
		if st.ID == f.Stock {
			return (st.Left < 0 || f.Sheet < st.Left) && nest.Fits(boxes, on, f.Placed, st, o)
		}
	}
	return false
}

// Used is what the layout uses of its sheets and how large they are, mm2, and how
// many pieces it lays: what fits no sheet is neither cut nor bought.
func (s *Sheets) Used() (used, total float64, laid int) {
	for _, sh := range s.Layout.Sheets {
		total += sh.Stock.W * sh.Stock.H
		for _, q := range sh.Placed {
			used += s.area[q.Part]
			laid++
		}
	}
	return used, total, laid
}

// Whole counts the parts that are exactly as large as their sheet.
func (s *Sheets) Whole() int { return len(s.own) }

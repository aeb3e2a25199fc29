package plan

import (
	"crypto/sha256"
	"encoding/binary"
	"fmt"
	"math"
	"slices"
	"sort"
	"strings"

	"zapbarn/core/measure"
	"zapbarn/core/memo"
	"zapbarn/core/nest"
	"zapbarn/core/pattern"
	"zapbarn/core/source"
	"zapbarn/core/stock"
)

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

// Kerf is the saw's kerf in mm, as given or by default.
func (p *Plan) Kerf() float64 { return p.Display.Kerf.Or(measure.Inch / 8) }

// Margin is the strip kept off each sheet's edge, in mm.
func (p *Plan) Margin() float64 { return p.Display.Margin.Or(measure.Inch / 4) }

// sawFrom is the source of both defaults.
var sawFrom = source.FromTrade("1/8 in saw kerf, 1/4 in off bruised edges")

// offcutKey marks a stock that is an offcut of the shelf.
const offcutKey = "offcut:"

// Offcut is which offcut of the shelf a sheet is; nil when it is a new one.
func (p *Plan) Offcut(s nest.Stock) *Offcut {
	id, ok := strings.CutPrefix(s.ID, offcutKey)
	if !ok {
		return nil
	}
	return find(p.Offcuts, id, func(x *Offcut) string { return x.ID })
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

// Number is which of its stock's sheets sheet i of the layout is, from 0.
func (s *Sheets) Number(i int) (n int) {
	for _, sh := range s.Layout.Sheets[:i] {
		if sh.Stock.ID == s.Layout.Sheets[i].Stock.ID {
			n++
		}
	}
	return n
}

// Called is how sheet i of a layout is called.
func (w *Work) Called(s *Sheets, i int) string {
	sh := s.Layout.Sheets[i]
	if o := w.Plan.Offcut(sh.Stock); o != nil {
		name := "offcut " + w.Len(o.W.Value()) + " x " + w.Len(o.H.Value())
		if o.Label != "" {
			name += ", " + o.Label
		}
		return name
	}
	return fmt.Sprintf("sheet %d of %d", s.Number(i)+1, s.New())
}

// SheetsOf is the layout on a stock, or nil.
func (w *Work) SheetsOf(stockID string) *Sheets {
	for _, s := range w.Sheets {
		if s.Stock.ID == stockID {
			return s
		}
	}
	return nil
}

// Options are how sheets are cut.
func (w *Work) Options() nest.Options {
	return nest.Options{Kerf: w.Plan.Kerf(), Margin: w.Plan.Margin(), Seed: 1, Pace: w.Watch.Go}
}

// firstTries is how long the first layout is searched for, for up to so many
// parts: it must stand at once.
const firstTries, firstParts = 24, 60

// nest lays all parts of each stock together.
func (w *Work) nest() {
	seen := map[string]*Sheets{}
	for _, part := range w.Parts {
		m := w.Lib.Materials[part.Solid.Stock]
		s := seen[m.ID]
		if s == nil {
			s = &Sheets{Stock: m, Locked: map[int]bool{}}
			seen[m.ID] = s
			w.Sheets = append(w.Sheets, s)
		}
		var box nest.Part
		for c := range part.Panel.Copies {
			s.Pieces = append(s.Pieces, Piece{part.Ref, c})
			if c == 0 {
				box = nestPart(part.Panel, m)
				box.Shape = part.Ref
			}
			s.Boxes = append(s.Boxes, box)
		}
	}
	for _, s := range w.Sheets {
		w.Watch.At("solid", w.Part(s.Pieces[0].Ref).Solid.ID)
		s.stocks = w.Plan.stocksOf(s.Stock)
		w.laid(s)
		w.sheetResults(s)
	}
}

// stocksOf are the offcuts of a stock, the smallest first, then new sheets.
func (p *Plan) stocksOf(m stock.Material) (out []nest.Stock) {
	for _, o := range p.Offcuts {
		if o.Stock == m.ID {
			out = append(out, nest.Stock{ID: offcutKey + o.ID, W: o.W.Value(), H: o.H.Value(), Left: 1})
		}
	}
	sort.SliceStable(out, func(i, j int) bool { return out[i].W*out[i].H < out[j].W*out[j].H })
	return append(out, nest.Stock{ID: m.ID, W: m.Sheet[0].Value(), H: m.Sheet[1].Value(), Left: -1})
}

// laid lays one stock: sheets that are cut stay as they are; the rest as it was
// kept while that still holds, else afresh round what is locked.
func (w *Work) laid(s *Sheets) {
	o := w.Options()
	var pins []Pin
	if kept := find(w.Plan.Layouts, s.Stock.ID, func(x *Layout) string { return x.ID }); kept != nil {
		pins = kept.Pins
	}
	at := map[Piece]int{}
	for i, pc := range s.Pieces {
		at[pc] = i
	}
	place := func(q Pin, part int) nest.Fixed {
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
	s.cutSheets(pins, at, place, o)
	done := map[int]bool{}
	for _, sh := range s.cut {
		for _, q := range sh.Placed {
			done[q.Part] = true
		}
	}
	w.onFactoryEdges(s, done)
	loose := map[int]int{}
	for i := range s.Pieces {
		if !done[i] {
			loose[i] = len(s.loose)
			s.loose = append(s.loose, i)
		}
	}
	boxes := s.boxes()
	for _, q := range pins {
		i, ok := at[Piece{q.Part, q.Copy}]
		if !ok || q.Cut || done[i] {
			continue
		}
		f := place(q, loose[i])
		o.Fixed = append(o.Fixed, f)
		if q.Locked {
			if s.room(boxes, f, o) {
				s.fixed = append(s.fixed, f)
				s.Locked[i] = true
			} else {
				s.Dropped = append(s.Dropped, s.Pieces[i])
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
	if len(boxes) <= firstParts && !w.Plain {
		o.Tries = firstTries
	}
	s.Layout = s.whole(s.numbered(remembered(boxes, s.stocks, o)))
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
func (s *Sheets) cutSheets(pins []Pin, at map[Piece]int, place func(Pin, int) nest.Fixed, o nest.Options) {
	var order []nest.Fixed
	lies := map[string][]nest.Placed{}
	key := func(f nest.Fixed) string { return fmt.Sprint(f.Stock, " ", f.Sheet) }
	for _, q := range pins {
		i, ok := at[Piece{q.Part, q.Copy}]
		if !ok || !q.Cut {
			continue
		}
		f := place(q, i)
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

// layouts keeps what was laid last: most edits change one stock or none.
var layouts = memo.New[[32]byte, nest.Layout](500_000, layoutWeight)

// layoutWeight is how many pieces a layout lays, and one for itself.
func layoutWeight(l nest.Layout) int64 {
	n := int64(1)
	for _, s := range l.Sheets {
		n += int64(len(s.Placed))
	}
	return n
}

func remembered(parts []nest.Part, stocks []nest.Stock, o nest.Options) nest.Layout {
	h := sha256.New()
	var buf []byte
	num := func(v ...float64) {
		for _, x := range v {
			buf = binary.LittleEndian.AppendUint64(buf, math.Float64bits(x))
		}
	}
	num(o.Kerf, o.Margin, float64(o.Seed), float64(o.Tries), float64(len(parts)), float64(len(stocks)))
	last := ""
	for _, p := range parts {
		if buf = append(append(buf, p.Shape...), 0); p.Shape == last && last != "" {
			continue // equal shapes are equal parts
		}
		last = p.Shape
		turn := 0.0
		if p.Turn {
			turn = 1
		}
		num(p.W, p.H, p.Low, p.High, p.Round, p.Bore, turn, float64(len(p.Polys)), float64(len(p.Holes)))
		for _, rings := range [][][]pattern.Point{p.Polys, p.Holes} {
			for _, r := range rings {
				num(float64(len(r)))
				for _, q := range r {
					num(q.X, q.Y)
				}
			}
		}
	}
	for _, s := range stocks {
		buf = append(append(buf, s.ID...), 0)
		num(s.W, s.H, float64(s.Left))
	}
	buf = fmt.Appendf(buf, "%v", o.Fixed)
	h.Write(buf)
	return layouts.Get([32]byte(h.Sum(nil)), func() nest.Layout { return nest.Sheets(parts, stocks, o) })
}

// Search goes on looking for a better layout of a stock, round what is locked
// or cut.
type Search struct {
	of *Sheets
	*nest.Search
}

// Best is the best layout so far, cut sheets first.
func (s *Search) Best() nest.Layout { return s.of.whole(s.Search.Best()) }

// Search starts a search on a stock.
func (w *Work) Search(s *Sheets) *Search {
	o := w.Options()
	o.Fixed = s.fixed
	return &Search{s, nest.NewSearch(s.boxes(), s.stocks, o)}
}

// Keep is what a plan keeps of a layout of these sheets.
func (s *Sheets) Keep(l nest.Layout) Layout {
	out := Layout{ID: s.Stock.ID}
	count := map[string]int{}
	for i, sh := range l.Sheets {
		for _, q := range sh.Placed {
			pin := Pin{
				Part:   s.Pieces[q.Part].Ref,
				Copy:   s.Pieces[q.Part].Copy,
				Sheet:  count[sh.Stock.ID],
				X:      exactly(q.X),
				Y:      exactly(q.Y),
				Turned: q.Turned,
				Flip:   q.Flip,
				Locked: s.Locked[q.Part],
				Cut:    i < s.Cut,
			}
			if id, ok := strings.CutPrefix(sh.Stock.ID, offcutKey); ok {
				pin.Offcut, pin.Sheet = id, 0
			}
			out.Pins = append(out.Pins, pin)
		}
		count[sh.Stock.ID]++
	}
	return out
}

// stays are the pins of the locked and the cut, but for one piece.
func (s *Sheets) stays(but int) (out []Pin) {
	for _, pin := range s.Keep(s.Layout).Pins {
		if (pin.Locked || pin.Cut) && (but < 0 || pin.Part != s.Pieces[but].Ref || pin.Copy != s.Pieces[but].Copy) {
			out = append(out, pin)
		}
	}
	return out
}

// CutSheet is the edit that marks sheet i as cut: its parts stay on it, nothing
// more is laid there, and what is left goes on the shelf.
func (w *Work) CutSheet(s *Sheets, i int) (Edit, error) {
	if i < s.Cut || i >= len(s.Layout.Sheets) {
		return Edit{}, measure.Bad("sheet", "that sheet is cut already, or gone; load the page again")
	}
	sh := s.Layout.Sheets[i]
	next := s.Keep(s.Layout)
	id, number := "", s.Number(i)
	if o := w.Plan.Offcut(sh.Stock); o != nil {
		id, number = o.ID, 0
	}
	for k := range next.Pins {
		if q := &next.Pins[k]; q.Offcut == id && q.Sheet == number {
			q.Cut, q.Locked = true, false
		}
	}
	e := Edit{
		Label:   "cut " + s.Stock.Name + ", " + w.Called(s, i),
		Changes: []Change{w.Plan.Put("layout", next.ID, next)},
	}
	p := w.Plan.Clone()
	for _, r := range sh.Offcuts {
		o := Offcut{
			ID:    p.FreshID("offcut", s.Stock.Name),
			Stock: s.Stock.ID,
			W:     w.cutTo(r.W),
			H:     w.cutTo(r.H),
			Label: "from " + w.partBy[s.Pieces[sh.Placed[0].Part].Ref].Solid.Name,
		}
		e.Changes = append(e.Changes, p.Put("offcut", o.ID, o))
		p.Offcuts = append(p.Offcuts, o)
	}
	return e, nil
}

// cutTo is a length cut down to the next eighth of an inch or millimetre.
func (w *Work) cutTo(mm float64) measure.Length {
	step := measure.Inch / 8
	if w.Plan.Metric() {
		step = 1
	}
	l, err := measure.Parse[measure.LengthKind](measure.Tape(math.Floor(mm/step+1e-6)*step, w.Plan.Metric()))
	if err != nil {
		panic(err) // Tape writes what Parse reads
	}
	return l
}

// WithMore is how many new sheets the stock would take if they were so much
// longer and wider.
func (w *Work) WithMore(s *Sheets, mm float64) (n int) {
	o := w.Options()
	stocks := slices.Clone(s.stocks)
	for i := range stocks {
		if stocks[i].ID == s.Stock.ID {
			stocks[i].W, stocks[i].H = stocks[i].W+mm, stocks[i].H+mm
		}
	}
	if len(s.loose) <= firstParts {
		o.Tries = firstTries
	}
	for _, sh := range remembered(s.boxes(), stocks, o).Sheets {
		if sh.Stock.ID == s.Stock.ID {
			n++
		}
	}
	for _, sh := range s.cut {
		if sh.Stock.ID == s.Stock.ID {
			n++
		}
	}
	return n
}

// exactly is a place on a sheet to a ten-thousandth of a millimetre.
func exactly(mm float64) measure.Length {
	return measure.Of[measure.LengthKind](math.Round(mm*1e4) / 1e4)
}

// Move is the edit that lays one piece by hand: at the allowed place nearest to
// x, y of sheet i, clear of what is locked there. The rest is laid afresh.
func (w *Work) Move(s *Sheets, piece, sheet int, x, y float64, turned, flip bool) (Edit, error) {
	if piece < 0 || piece >= len(s.Pieces) || sheet < s.Cut || sheet >= len(s.Layout.Sheets) ||
		!slices.Contains(s.loose, piece) {
		return Edit{}, measure.Bad("piece", "that piece or sheet is cut already, or gone; load the page again")
	}
	sh := s.Layout.Sheets[sheet]
	var on []nest.Placed
	for _, q := range sh.Placed {
		if s.Locked[q.Part] && q.Part != piece {
			on = append(on, q)
		}
	}
	q, ok := nest.Snap(
		s.Boxes,
		on,
		nest.Placed{Part: piece, X: x, Y: y, Turned: turned, Flip: flip},
		sh.Stock,
		w.Options(),
	)
	name := w.Part(s.Pieces[piece].Ref).Name()
	if !ok {
		return Edit{}, measure.Bad("piece", "%s has no room there beside what is locked", name)
	}
	next := Layout{ID: s.Stock.ID, Pins: s.stays(piece)}
	pin := Pin{
		Part:   s.Pieces[piece].Ref,
		Copy:   s.Pieces[piece].Copy,
		X:      exactly(q.X),
		Y:      exactly(q.Y),
		Turned: q.Turned,
		Flip:   q.Flip,
		Locked: true,
	}
	if o := w.Plan.Offcut(sh.Stock); o != nil {
		pin.Offcut = o.ID
	} else {
		pin.Sheet = s.Number(sheet)
	}
	next.Pins = append(next.Pins, pin)
	return Edit{"lay " + name + " by hand", []Change{w.Plan.Put("layout", next.ID, next)}}, nil
}

// Loose is the edit that lets a locked piece be laid afresh; piece -1 lets all
// of the stock, and forgets a layout that was kept.
func (w *Work) Loose(s *Sheets, piece int) Edit {
	next := Layout{ID: s.Stock.ID}
	label := "lay " + s.Stock.Name + " afresh"
	one := piece >= 0 && piece < len(s.Pieces)
	if one {
		label = "unlock " + w.Part(s.Pieces[piece].Ref).Name()
	}
	for _, pin := range s.stays(piece) {
		if pin.Cut || one {
			next.Pins = append(next.Pins, pin)
		}
	}
	if next.Pins == nil {
		return Edit{label, []Change{w.Plan.Drop("layout", s.Stock.ID)}}
	}
	return Edit{label, []Change{w.Plan.Put("layout", next.ID, next)}}
}

// sheetResults keeps the numbers of a stock.
func (w *Work) sheetResults(s *Sheets) {
	used, total, laid := 0.0, 0.0, 0 // what fits no sheet is neither cut nor bought
	for _, sh := range s.Layout.Sheets {
		total += sh.Stock.W * sh.Stock.H
		for _, q := range sh.Placed {
			used += w.partBy[s.Pieces[q.Part].Ref].Panel.Area()
			laid++
		}
	}
	o := w.Options()
	n := s.New()
	key := "stock:" + s.Stock.ID
	how := "laid out with kerf and margin, fewest sheets found"
	if s.Kept {
		how = "laid out as it was kept"
	}
	numbers := fmt.Sprintf("%d parts, kerf %s, margin %s", laid, w.Len(o.Kerf), w.Len(o.Margin))
	if n := len(s.Pieces) - laid; n > 0 {
		numbers += fmt.Sprintf(", %d left out that fit no sheet", n)
	}
	if n := len(s.own); n > 0 {
		numbers += fmt.Sprintf(", %d on factory edges, with no margin", n)
	}
	if k := len(s.Layout.Sheets) - n; k > 0 {
		numbers += fmt.Sprintf(", %d offcuts first", k)
	}
	w.keep(key+":sheets", source.Result{Label: s.Stock.Name + ", sheets", Value: float64(n), Text: fmt.Sprint(n)}.
		With(how, numbers, fmt.Sprintf("%d of %s x %s", n, s.Stock.Sheet[0], s.Stock.Sheet[1]), sawFrom))
	if total > 0 {
		y := used / total
		w.keep(
			key+":yield",
			source.Result{Label: "Used", Value: 100 * y, Unit: "%", Text: measure.Decimal(100*y, 0) + " %"}.
				With(
					"yield = part area / sheet area",
					fmt.Sprintf("%.4f m2 / %.4f m2", used/1e6, total/1e6),
					measure.Decimal(100*y, 1)+" %",
					source.Exact("areas"),
				),
		)
		cost := float64(n) * s.Stock.Price
		w.keep(
			key+":cost",
			source.Result{Label: "Sheets cost", Value: cost, Unit: "$", Text: fmt.Sprintf("$%.2f", cost)}.
				With(
					"new sheets x price",
					fmt.Sprintf("%d x $%.2f", n, s.Stock.Price),
					fmt.Sprintf("$%.2f", cost),
					source.FromMemory(s.Stock.Name+" price"),
				),
		)
	}
}

func nestPart(p pattern.Panel, m stock.Material) nest.Part {
	lo, hi := p.Bounds()
	outline := func(pts []pattern.Point) []pattern.Point {
		out := make([]pattern.Point, len(pts))
		for i, q := range pts {
			out[i] = pattern.Point{X: q.X - lo.X, Y: q.Y - lo.Y}
		}
		return out
	}
	n := nest.Part{W: hi.X - lo.X, H: hi.Y - lo.Y, Turn: m.Grain == "" || p.Grain == "", Round: p.Round, Bore: p.Bore}
	n.Polys = append(n.Polys, outline(p.Outline))
	if p.Inside != nil {
		n.Polys = append(n.Polys, outline(p.Inside))
	}
	for _, h := range p.Holes {
		n.Holes = append(n.Holes, outline(h))
	}
	if p.Bore > 0 {
		n.Holes = append(n.Holes, outline(pattern.Circle(p.Round/2, p.Round/2, p.Bore*0.997)))
	}
	if p.Round == 0 && len(p.Outline) == 4 && p.Inside != nil && p.CutAngle > 0 {
		low, high := p.Outline[1].X-p.Outline[0].X, p.Outline[2].X-p.Outline[3].X
		// the inside face is smaller and shifted by a level bevel; the box
		// round both keeps the trapezoid's own slant, so widths stay true
		grow := (n.H/(p.Outline[2].Y-p.Outline[1].Y) - 1) * (low - high)
		if grow >= 0 {
			n.Low, n.High = low, high-grow
		} else {
			n.Low, n.High = low-grow, high
		}
		n.W = max(n.Low, n.High)
		if n.High <= 0 || n.Low <= 0 {
			n.Low, n.High = 0, 0
		}
	}
	return n
}

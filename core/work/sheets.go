package work

import (
	"fmt"
	"math"

	"zapbarn/core/cutting"
	"zapbarn/core/measure"
	"zapbarn/core/nest"
	"zapbarn/core/plan"
	"zapbarn/core/source"
	"zapbarn/core/stock"
)

// Cutting is all that the plan's cutting stands on.
func (w *Work) Cutting() cutting.Set {
	set := cutting.Set{
		Kerf:    w.Plan.Kerf(),
		Margin:  w.Plan.Margin(),
		Offcuts: w.Plan.Offcuts(),
		Layouts: w.Plan.Layouts(),
		Bench:   w.Lib.Bench(),
		Plain:   w.Plain,
		At:      func(ref string) { w.Watch.At("solid", w.Part(ref).Solid.ID) },
		Pace:    w.Watch.Go,
	}
	stocks := map[string]*stock.Material{}
	set.Parts = make([]cutting.Part, len(w.Parts()))
	for i, p := range w.Parts() {
		m := stocks[p.Solid.Stock]
		if m == nil {
			x := w.Lib.Materials[p.Solid.Stock]
			m = &x
			stocks[p.Solid.Stock] = m
		}
		set.Parts[i] = cutting.Part{Ref: p.Ref, Panel: &p.Panel, Stock: m, Box: p.box}
	}
	return set
}

// sawFrom is the source of both defaults.
var sawFrom = source.FromTrade("1/8 in saw kerf, 1/4 in off bruised edges")

// nest lays all parts of each stock together.
func (w *Work) nest() *nested {
	sheets := w.Cutting().Sheets()
	for _, s := range sheets {
		w.sheetResults(s)
	}
	return &nested{sheets, w.numbers}
}

// Offcut is which offcut of the shelf a sheet is; nil when it is a new one.
func (w *Work) Offcut(s nest.Stock) *plan.Offcut {
	return w.Plan.OffcutNamed(cutting.OffcutOf(s))
}

// Called is how sheet i of a layout is called.
func (w *Work) Called(s *cutting.Sheets, i int) string {
	sh := s.Layout.Sheets[i]
	if o := w.Offcut(sh.Stock); o != nil {
		name := "offcut " + w.Len(o.W.Value()) + " x " + w.Len(o.H.Value())
		if o.Label != "" {
			name += ", " + o.Label
		}
		return name
	}
	return fmt.Sprintf("sheet %d of %d", s.Number(i)+1, s.New())
}

// SheetsOf is the layout on a stock, or nil.
func (w *Work) SheetsOf(stockID string) *cutting.Sheets {
	for _, s := range w.Sheets() {
		if s.Stock.ID == stockID {
			return s
		}
	}
	return nil
}

// CutSheet is the edit that marks sheet i as cut: its parts stay on it, nothing
// more is laid there, and what is left goes on the shelf.
func (w *Work) CutSheet(s *cutting.Sheets, i int) (plan.Edit, error) {
	next, rest, err := s.CutAt(i)
	if err != nil {
		return plan.Edit{}, err
	}
	e := plan.Edit{
		Label:   "cut " + s.Stock.Name + ", " + w.Called(s, i),
		Changes: []plan.Change{w.Plan.Put("layout", next.ID, next)},
	}
	p := w.Plan.Clone()
	for _, r := range rest {
		o := plan.Offcut{
			ID:    p.FreshID("offcut", s.Stock.Name),
			Stock: s.Stock.ID,
			W:     w.cutTo(r.W),
			H:     w.cutTo(r.H),
			Label: "from " + w.laid().partBy[s.Pieces[s.Layout.Sheets[i].Placed[0].Part].Ref].Solid.Name,
		}
		e.Changes = append(e.Changes, p.Put("offcut", o.ID, o))
		p.Doc().Offcuts = append(p.Offcuts(), o)
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

// Move is the edit that lays one piece by hand, as near to x, y of a sheet as it
// may lie.
func (w *Work) Move(s *cutting.Sheets, piece, sheet int, x, y float64, turned, flip bool) (plan.Edit, error) {
	next, ok, err := w.Cutting().Move(s, piece, sheet, x, y, turned, flip)
	if err != nil {
		return plan.Edit{}, err
	}
	name := w.Part(s.Pieces[piece].Ref).Name()
	if !ok {
		return plan.Edit{}, measure.Bad("piece", "%s has no room there beside what is locked", name)
	}
	return w.kept("lay "+name+" by hand", next), nil
}

// Loose is the edit that lets a locked piece be laid afresh; piece -1 lets all
// of the stock, and forgets a layout that was kept.
func (w *Work) Loose(s *cutting.Sheets, piece int) plan.Edit {
	label := "lay " + s.Stock.Name + " afresh"
	if piece >= 0 && piece < len(s.Pieces) {
		label = "unlock " + w.Part(s.Pieces[piece].Ref).Name()
	}
	return w.kept(label, s.Loose(piece))
}

// kept is the edit that keeps a layout, or forgets it when it holds nothing.
func (w *Work) kept(label string, next cutting.Layout) plan.Edit {
	if next.Pins == nil {
		return plan.Edit{Label: label, Changes: []plan.Change{w.Plan.Drop("layout", next.ID)}}
	}
	return plan.Edit{Label: label, Changes: []plan.Change{w.Plan.Put("layout", next.ID, next)}}
}

// sheetResults keeps the numbers of a stock.
func (w *Work) sheetResults(s *cutting.Sheets) {
	used, total, laid := s.Used()
	n := s.New()
	of := func(what string) source.Key { return source.KeyOf("stock", s.Stock.ID, what) }
	how := "laid out with kerf and margin, fewest sheets found"
	if s.Kept {
		how = "laid out as it was kept"
	}
	numbers := fmt.Sprintf("%d parts, kerf %s, margin %s", laid, w.Len(w.Plan.Kerf()), w.Len(w.Plan.Margin()))
	if n := len(s.Pieces) - laid; n > 0 {
		numbers += fmt.Sprintf(", %d left out that fit no sheet", n)
	}
	if n := s.Whole(); n > 0 {
		numbers += fmt.Sprintf(", %d on factory edges, with no margin", n)
	}
	if k := len(s.Layout.Sheets) - n; k > 0 {
		numbers += fmt.Sprintf(", %d offcuts first", k)
	}
	w.keep(of("sheets"), source.Num(s.Stock.Name+", sheets", float64(n), "", fmt.Sprint(n)).
		With(how, numbers, fmt.Sprintf("%d of %s", n, w.Stocked(s.Stock)), sawFrom))
	if total > 0 {
		y := 100 * used / total
		w.keep(of("yield"), source.Num("Used", y, "%", measure.Decimal(y, 0)+" %").With(
			"yield = part area / sheet area",
			fmt.Sprintf("%.4f m2 / %.4f m2", used/1e6, total/1e6),
			measure.Decimal(y, 1)+" %",
			source.Exact("areas"),
		))
		w.stockCost(s.Stock, n, "Sheets cost", "new sheets x price")
	}
}

// stockCost keeps what so many sheets or lengths of a stock cost.
func (w *Work) stockCost(m stock.Material, n int, label, how string) {
	cost := float64(n) * m.Price
	dollars := fmt.Sprintf("$%.2f", cost)
	w.keep(source.KeyOf("stock", m.ID, "cost"), source.Num(label, cost, "$", dollars).With(
		how,
		fmt.Sprintf("%d x $%.2f", n, m.Price),
		dollars,
		source.FromMemory(m.Name+" price"),
	))
}

package formats

import (
	"archive/zip"
	"fmt"
	"io"
	"math"
	"strings"

	"zapbarn/core/measure"
	"zapbarn/core/pattern"
	"zapbarn/core/plan"
	"zapbarn/core/wiring"
	"zapbarn/core/work"
)

// harnessTables are a harness's lists, each with its heading row.
func harnessTables(w *work.Work, prop string) (names []string, tables [][][]any, err error) {
	rows := 0
	t := lists{w: w, h: w.Harness(prop), unit: "in", size: func(mm float64) any { return round(mm / measure.Inch) }}
	if w.Plan.Metric() {
		t.unit, t.size = "mm", func(mm float64) any { return round(mm) }
	}
	for _, x := range []struct {
		name string
		rows [][]any
	}{{"Wires", t.wires()}, {"Splices", t.splices()}, {"Connectors", t.plugs()}, {"Data", t.data()}, {"Pins", t.pins()},
		{"Holes", t.holes()}, {"Prove", t.prove(prop)}} {
		names, tables, rows = append(names, x.name), append(tables, x.rows), rows+len(x.rows)-1
	}
	if rows == 0 {
		return nil, nil, empty("prop", "%s has no lamps and no wires yet; set one in the Loom first",
			w.Plan.Prop(prop).Name)
	}
	return names, tables, nil
}

// lists are a harness on its way into tables.
type lists struct {
	w    *work.Work
	h    *work.Harness
	unit string
	size func(mm float64) any // in that unit
}

func (t lists) wires() [][]any {
	rows := [][]any{{"label", "what", "from", "to", "gauge", "cores", "path " + t.unit, "laid " + t.unit,
		"cut each " + t.unit, "cut each", "colours"}}
	for _, x := range t.h.Wires {
		rows = append(rows, []any{x.Label, x.Kind, x.From, x.To, x.Gauge.String(), x.Conductors, t.size(x.Path),
			t.size(x.Laid), t.size(x.Cut), measure.Run(x.Cut, t.w.Plan.Metric()), x.Rail})
	}
	return rows
}

func (t lists) splices() [][]any {
	rows := [][]any{{"splice", "where", "joins", "sleeves", "heat-shrink mm before"}}
	for _, x := range t.h.Splices {
		rows = append(rows, []any{x.Label, x.Where, strings.Join(x.Joins, " + "), x.Sleeves, x.Shrink})
	}
	return rows
}

func (t lists) plugs() [][]any {
	rows := [][]any{{"connector", "after", "before", "amps", "rated"}}
	for _, x := range t.h.Plugs {
		rows = append(rows, []any{x.Label, x.After, x.Before, round(x.Amps), x.Rating.String()})
	}
	return rows
}

func (t lists) data() [][]any {
	rows := [][]any{{"controller", "pin", "strip", "pixels", "data wire", "frames a second", "fit"}}
	for _, c := range t.h.Chains {
		for i, s := range c.Strips {
			fit := ""
			if i == 0 {
				fit = c.Parts()
			}
			rows = append(
				rows,
				[]any{c.Controller, c.Pin, s.Name, fmt.Sprintf("%d to %d", s.First, s.Last), s.Lead.String(),
					math.Floor(c.Rate), fit},
			)
		}
	}
	return rows
}

func (t lists) pins() [][]any {
	rows := [][]any{{"pin", "name", "works", "volts", "amps"}}
	for _, x := range t.h.Pins {
		var volts, amps any = round(x.Volts), round(x.Amps)
		if x.Volts == 0 && x.Amps == 0 { // a data pin or an input
			volts, amps = "", ""
		}
		rows = append(rows, []any{x.No, x.Name, x.Works, volts, amps})
	}
	return rows
}

func (t lists) holes() [][]any {
	rows := [][]any{{"into", "wires", "bundle " + t.unit, "plug " + t.unit, "hole " + t.unit, "there is one"}}
	for _, x := range t.h.Entries {
		rows = append(
			rows,
			[]any{t.w.Solid(x.Solid).Name, strings.Join(x.Wires, ", "), t.size(x.Bundle), t.size(x.Plug),
				t.size(x.Hole), map[bool]string{true: "yes", false: "no"}[x.Fits]},
		)
	}
	return rows
}

func (t lists) prove(prop string) [][]any {
	rows := [][]any{{"lamp", "expect", "current", "polarity", "volts read", "amps read", "ohms to ground", "proven"}}
	for _, d := range t.w.Plan.Devices() {
		if d.Prop == prop && d.Is(wiring.Load) {
			g := t.w.All().Readings[d.ID]
			rows = append(
				rows,
				[]any{d.Name, measure.Volts(g.Volts), measure.Amps(g.Amps), "", read(t.w, d.ID, "volts"),
					read(
						t.w,
						d.ID,
						"amps",
					), read(t.w, d.ID, "ohms"), map[bool]string{true: "yes", false: ""}[d.Proven]},
			)
		}
	}
	return rows
}

// read is the last reading of a device in volts, amps or ohms, as written; ""
// leaves room to write it on paper.
func read(w *work.Work, device, unit string) (last string) {
	for _, r := range w.Plan.Readings() {
		if r.Device != device || r.Far {
			continue
		}
		for u, text := range map[string]string{"volts": r.Volts.String(), "amps": r.Amps.String(),
			"ohms": r.Ohms.String()} {
			if u == unit && text != "" {
				last = text
			}
		}
	}
	return last
}

// HarnessZIP writes the lists as CSV files, one a list, in a zip.
func HarnessZIP(out io.Writer, w *work.Work, prop string) error {
	names, tables, err := harnessTables(w, prop)
	if err != nil {
		return err
	}
	z := zip.NewWriter(out)
	for i, t := range tables {
		if len(t) < 2 {
			continue
		}
		f, err := z.Create(plan.Slug(names[i]) + ".csv")
		if err != nil {
			return err
		}
		if err := writeCSV(f, t); err != nil {
			return err
		}
	}
	return z.Close()
}

// HarnessXLSX writes the lists as a workbook, a sheet each.
func HarnessXLSX(out io.Writer, w *work.Work, prop string) error {
	names, tables, err := harnessTables(w, prop)
	if err != nil {
		return err
	}
	return writeXLSX(out, names, tables)
}

// HarnessPDF prints the lists, the order of work and a label for both ends of
// every wire.
func HarnessPDF(out io.Writer, w *work.Work, prop string, paper Paper) error {
	p := w.Plan.Prop(prop)
	if p == nil {
		return measure.Bad("prop", "there is no prop %q; open one first", prop)
	}
	h := w.Harness(prop)
	if len(h.Wires) == 0 {
		return empty("prop",
			"%s has no runs to build yet; lead one in the Loom first, such as run 18awg 4 ft on S1", p.Name)
	}
	pdf := newPDF(paper, p.Name+", harness")
	harnessPages(pdf, w, p, h, paper)
	return pdf.Output(out)
}

// harnessPages are the lists, the order of work and the labels of a prop's harness.
func harnessPages(pdf *document, w *work.Work, p *plan.Prop, h *work.Harness, paper Paper) {
	pdf.SetAutoPageBreak(true, 14)
	pdf.SetMargins(14, 14, 14)
	tr := letters
	pdf.AddPage()
	pdf.SetFont(face, "B", 16)
	pdf.CellFormat(0, 9, tr(p.Name+", harness"), "", 1, "L", false, 0, "")
	pdf.SetFont(face, "", 9)
	caution := "Extra-low voltage only. Mains is plugs and cords; fixed wiring belongs to a licensed electrician and " +
		"the local code. Power off while you wire."
	pdf.MultiCell(0, 4.4, tr(caution), "", "L", false)
	head := func(s string) {
		if pdf.GetY() > paper.H-45 { // with its first rows
			pdf.AddPage()
		}
		pdf.Ln(3)
		pdf.SetFont(face, "B", 11)
		pdf.CellFormat(0, 7, tr(s), "", 1, "L", false, 0, "")
	}
	head("Order of work")
	pdf.SetFont(face, "", 9)
	for i, s := range h.Steps {
		pdf.MultiCell(0, 4.6, tr(fmt.Sprintf("%d. %s", i+1, s)), "", "L", false)
	}
	names, tables, _ := harnessTables(w, p.ID)
	for i, t := range tables {
		if len(t) > 1 {
			head(names[i])
			harnessTable(pdf, t, harnessWidths[i], paper)
		}
	}
	head("Labels for both ends, to be cut apart")
	pdf.SetFont(face, "", 8)
	n := 0
	for _, x := range h.Wires {
		for _, end := range []string{"from " + x.From, "to " + x.To} {
			pdf.CellFormat((paper.W-28)/4, 8, tr(x.Label+"  "+end), "1", 0, "C", false, 0, "")
			if n++; n%4 == 0 {
				pdf.Ln(-1)
			}
		}
	}
}

// harnessWidths are the columns of the harness's tables, in parts of the page; 0 leaves one
// out.
var harnessWidths = [][]float64{
	{18, 24, 30, 26, 18, 15, 0, 0, 0, 24, 48},
	{18, 52, 64, 16, 34},
	{18, 40, 70, 18, 18},
	{22, 10, 44, 24, 24, 24, 60},
	{12, 34, 92, 22, 22},
	{36, 62, 22, 20, 20, 24},
	{48, 22, 24, 18, 24, 24, 30, 18},
}

// harnessTable is a table across the page, its first row in bold.
func harnessTable(pdf *document, rows [][]any, widths []float64, paper Paper) {
	room := paper.W - 28
	sum := 0.0
	for _, x := range widths {
		sum += x
	}
	for k, r := range rows {
		pdf.SetFont(face, map[bool]string{true: "B", false: ""}[k == 0], 8)
		var cells []string
		var wide []float64
		for c, v := range r {
			if wd := widths[c] * room / sum; wd > 0 {
				cells, wide = append(cells, letters(fmt.Sprint(v))), append(wide, wd)
			}
		}
		lines, high := wrapped(pdf, cells, wide)
		if pdf.GetY()+high > paper.H-14 {
			pdf.AddPage()
		}
		tableRow(pdf, lines, wide, high)
		pdf.Line(14, pdf.GetY()-.6, 14+room, pdf.GetY()-.6)
	}
}

// Nail board: how wide it is, and how far its rows lie apart, in mm.
const (
	boardWide = 880.0 // a 36 in roll takes it
	boardEdge = 60.0
	boardRow  = 75.0
)

// FlatBoard is the nail board of a prop's harness at 1:1: every run at its true
// length, to and fro across the board, a ring for each nail, a tick and a name
// for each tap.
func FlatBoard(w *work.Work, prop string) (*Flat, error) {
	p := w.Plan.Prop(prop)
	if p == nil {
		return nil, measure.Bad("prop", "there is no prop %q; open one first", prop)
	}
	b := &nailBoard{Flat: &Flat{Title: p.Name + ", nail board", W: boardWide}, w: w}
	runs := 0
	for i := range w.Plan.Devices() {
		if d := &w.Plan.Devices()[i]; d.Prop == prop && d.Is(wiring.Wire) {
			runs++
			b.run(d)
		}
	}
	if runs == 0 {
		return nil, empty("prop",
			"%s has no runs to lay yet; lead one in the Loom first, such as run 18awg 4 ft on S1", p.Name)
	}
	f := b.Flat
	f.H = b.y + boardEdge
	for i := range f.Lines {
		for k := range f.Lines[i].Points {
			f.Lines[i].Points[k].Y = f.H - f.Lines[i].Points[k].Y
		}
	}
	for i := range f.Texts {
		f.Texts[i].At.Y = f.H - f.Texts[i].At.Y
	}
	return f, nil
}

// nailBoard is a board being drawn, down from the top to y; it is turned over at the end.
type nailBoard struct {
	*Flat
	w *work.Work
	y float64
}

// boardLine is how much of a run lies in one row, mm.
const boardLine = boardWide - 2*boardEdge

// boardAt is a place so far along a run whose first row is at top: to and fro.
func boardAt(top, s float64) pattern.Point {
	k := math.Floor(s / boardLine)
	if s > 0 && s == k*boardLine {
		k--
	}
	x := s - k*boardLine
	if int(k)%2 == 1 {
		x = boardLine - x
	}
	return pattern.Point{X: boardEdge + x, Y: top + k*boardRow}
}

func (f *nailBoard) nail(q pattern.Point) {
	f.Lines = append(f.Lines, Stroke{"mark", pattern.Circle(q.X, q.Y, 6), true})
}

// run lays a run, with its name and its taps.
func (f *nailBoard) run(d *plan.Device) {
	top, l := f.y+boardRow, d.Length.Value()
	path := []pattern.Point{boardAt(top, 0)}
	f.nail(path[0])
	for s := boardLine; s < l-1e-6; s += boardLine {
		a := boardAt(top, s)
		b := pattern.Point{X: a.X, Y: a.Y + boardRow}
		path = append(path, a, b)
		f.nail(a)
		f.nail(b)
	}
	end := boardAt(top, l)
	path = append(path, end)
	f.nail(end)
	f.Lines = append(f.Lines, Stroke{"cut", path, false})
	f.Texts = append(
		f.Texts,
		Label{
			pattern.Point{X: boardEdge + 180, Y: top - 28},
			9,
			fmt.Sprintf("%s, %s, %s, from %s, %s", d.ID, d.Gauge, d.Length, d.From, f.w.Rail(d.ID)),
		},
	)
	f.taps(d, top)
	f.y = top + math.Floor(math.Max(0, l-1e-6)/boardLine)*boardRow + 40
}

// taps are ticks where something leaves a run, with its names.
func (f *nailBoard) taps(d *plan.Device, top float64) {
	taps := map[float64][]string{}
	var order []float64
	if at := math.Round(d.FedAt.Value()); at > 0 {
		taps[at], order = []string{"fed from " + d.From}, []float64{at}
	}
	for k := range f.w.Plan.Devices() {
		c := &f.w.Plan.Devices()[k]
		if c.From != d.ID {
			continue
		}
		s := c.At.Value()
		if c.At.IsZero() {
			s = d.Length.Value()
		}
		s = math.Round(s)
		if taps[s] == nil {
			order = append(order, s)
		}
		taps[s] = append(taps[s], c.ID)
	}
	for _, s := range order {
		q := boardAt(top, s)
		f.Lines = append(
			f.Lines,
			Stroke{"score", []pattern.Point{{X: q.X, Y: q.Y - 10}, {X: q.X, Y: q.Y + 16}}, false},
		)
		f.Texts = append(f.Texts, Label{pattern.Point{X: q.X, Y: q.Y + 26}, 6, strings.Join(taps[s], ", ")})
	}
}

package formats

import (
	"io"
	"strings"

	"zapbarn/core/measure"
	"zapbarn/core/pattern"
	"zapbarn/core/plan"
	"zapbarn/core/stock"
	"zapbarn/core/work"
)

// cutRows is the cut list as a table, sizes in millimetres and as on a tape.
func cutRows(w *work.Work, prop string) [][]any {
	rows := [][]any{
		{
			"prop",
			"no",
			"part",
			"stock",
			"cut",
			"width mm",
			"height mm",
			"size",
			"thickness mm",
			"blade tilt deg",
			"cut angle deg",
			"mass each kg",
			"notes",
		},
	}
	for _, part := range w.Parts() {
		if prop == "" || part.Solid.Prop == prop {
			rows = append(rows, partRow(w, part))
		}
	}
	for i := range w.Plan.Solids() {
		s := &w.Plan.Solids()[i]
		if shape := w.Shapes()[s.ID]; shape != nil && (prop == "" || s.Prop == prop) {
			for _, c := range shape.Cuts {
				rows = append(rows, pipeRow(w, s, c))
			}
		}
	}
	return rows
}

// partRow is a part's line of the cut list.
func partRow(w *work.Work, part *work.Part) []any {
	lo, hi := part.Panel.Bounds()
	tilt := 0.0
	for _, e := range part.Panel.Edges {
		if e.Joint == "mitre" {
			tilt = e.Tilt
		}
	}
	return []any{
		w.Plan.Prop(part.Solid.Prop).Name,
		part.No,
		part.Name(),
		w.Lib.Materials[part.Solid.Stock].Name,
		part.Panel.Copies,
		round(hi.X - lo.X),
		round(hi.Y - lo.Y),
		w.Results().At("part", part.Ref, "size").Text,
		round(part.Panel.Thick),
		round(tilt),
		round(part.Panel.CutAngle),
		round(part.Mass),
		strings.Join(SawLines(part.Panel, w.Plan.Metric()), " "),
	}
}

// pipeRow is the line of a length of pipe.
func pipeRow(w *work.Work, s *plan.Solid, c pattern.Cut) []any {
	return []any{
		w.Plan.Prop(s.Prop).Name,
		"",
		s.Name,
		w.Lib.Materials[s.Stock].Name,
		c.Count,
		round(w.Lib.Materials[s.Stock].OD.Value()),
		round(c.Length),
		measure.Tape(c.Length, w.Plan.Metric()),
		"",
		"",
		"",
		"",
		"square ends",
	}
}

// CutListCSV writes the cut list of a prop, or of all when prop is "".
func CutListCSV(out io.Writer, w *work.Work, prop string) error {
	return writeCSV(out, cutRows(w, prop))
}

// CutListXLSX writes the cut list and the stock it takes as a workbook.
func CutListXLSX(out io.Writer, w *work.Work, prop string) error {
	stockRows := [][]any{{"stock", "pieces of stock", "used %", "cost"}}
	taken := func(m stock.Material, n int) {
		of := func(what string) float64 { return w.Results().At("stock", m.ID, what).Value }
		stockRows = append(stockRows, []any{m.Name, n, round(of("yield")), of("cost")})
	}
	for _, s := range w.Sheets() {
		taken(s.Stock, len(s.Layout.Sheets))
	}
	for _, b := range w.Bars() {
		taken(b.Stock, len(b.Cutting.Bars))
	}
	return writeXLSX(out, []string{"Cut list", "Stock"}, [][][]any{cutRows(w, prop), stockRows})
}

package check

import (
	"fmt"

	"zapbarn/core/cutting"
	"zapbarn/core/form"
	"zapbarn/core/measure"
	"zapbarn/core/nest"
	"zapbarn/core/plan"
	"zapbarn/core/stock"
	"zapbarn/core/work"
)

// manyParts is from how many parts of one solid on they are told as one.
const manyParts = 5

var _ = rule(
	"larger-than-sheet",
	Stop,
	"A part is larger than the sheet, or a length longer than the pipe, it is cut from.",
	func(w *work.Work, say func(Snag)) {
		for _, s := range w.Sheets() {
			largerThanSheet(w, s, say)
		}
		for _, b := range w.Bars() {
			for _, l := range b.Cutting.TooLong {
				longerThanPipe(w, b, l, say)
			}
		}
	},
)

// largerThanSheet tells of the parts that fit no sheet of a stock; of many of one solid once.
func largerThanSheet(w *work.Work, s *cutting.Sheets, say func(Snag)) {
	told := map[string]bool{}
	of := map[string]int{} // parts of each solid
	for _, i := range s.Layout.TooLarge {
		if ref := s.Pieces[i].Ref; !told[ref] {
			told[ref] = true
			of[w.Part(ref).Solid.ID]++
		}
	}
	clear(told)
	for _, i := range s.Layout.TooLarge {
		part := w.Part(s.Pieces[i].Ref)
		many := of[part.Solid.ID]
		if many < manyParts {
			many = 1
		}
		if told[part.Ref] || many > 1 && told[part.Solid.ID] {
			continue
		}
		told[part.Ref], told[part.Solid.ID] = true, true
		b := s.Boxes[i]
		snag := Snag{
			Level: Stop,
			Place: "bench",
			At:    []string{"part:" + part.Ref},
			Title: part.Name() + " does not fit its sheet",
			Why: fmt.Sprintf("It is %s x %s; %s comes as %s, of which %s all round is kept off.",
				w.Len(b.W), w.Len(b.H), s.Stock.Name, w.Stocked(s.Stock), w.Len(w.Plan.Margin())),
			Mends: append(largerSheets(w, part, s.Stock, b), inPieces(w, part)...),
		}
		if many > 1 { // a run of equal ones is told once
			snag.At = []string{"solid:" + part.Solid.ID, "part:" + part.Ref}
			snag.Title = fmt.Sprintf("%d parts of %s do not fit their sheet", many, part.Solid.Name)
			snag.Why = fmt.Sprintf("The largest of them: %s", measure.Uncapital(snag.Why))
		}
		say(snag)
	}
}

// largerSheets cut a part from a larger sheet of the same family and thickness.
func largerSheets(w *work.Work, part *work.Part, from stock.Material, b nest.Part) (mends []Mend) {
	for _, id := range stock.IDs(w.Lib.Materials) {
		m := w.Lib.Materials[id]
		big, small := m.Sheet[1].Value()-2*w.Plan.Margin(), m.Sheet[0].Value()-2*w.Plan.Margin()
		if m.Form == "sheet" && (m.Family == from.Family || m.Foam() && from.Foam()) && m.ID != from.ID &&
			max(b.W, b.H) <= big && min(b.W, b.H) <= small && m.Thick.Value() == from.Thick.Value() {
			next := *part.Solid
			next.Stock = m.ID
			mends = append(mends, put(w, "Cut from "+m.Name, "solid", next.ID, next))
		}
	}
	return mends
}

// inPieces makes a part of several: a disc over boards, anything else with a seam.
func inPieces(w *work.Work, part *work.Part) (mends []Mend) {
	sol := *part.Solid
	try := func(next plan.Solid, label string) {
		if _, err := next.Shape(w.Lib); err == nil {
			mends = append(mends, put(w, label, "solid", next.ID, next))
		}
	}
	if disc, ok := sol.Form.(form.Disc); ok && part.Panel.Round > 0 && disc.Copies < 2 && disc.Bore.IsZero() {
		try(plan.Solid{ID: sol.ID, Prop: sol.Prop, Name: sol.Name, Kind: "boards", Stock: sol.Stock,
			Form: form.Boards{W: disc.W}, X: sol.X, Y: sol.Y, Z: sol.Z}, "Lay it over boards")
	}
	if sol.Kind == "disc" || sol.Kind == "boards" || sol.Seam != "" || w.Plain {
		return mends
	}
	next := sol
	next.Seam = "half-lap"
	try(next, "Split it with a half-lap")
	next.Seam = "butt"
	try(next, "Split it with a braced butt seam")
	return mends
}

// longerThanPipe tells of a length that no pipe of a stock gives, by the first solid of that stock.
func longerThanPipe(w *work.Work, b *cutting.Bars, length float64, say func(Snag)) {
	for _, s := range w.Plan.Solids() {
		if s.Stock == b.Stock.ID {
			say(Snag{
				Level: Stop,
				Place: "bench",
				At:    []string{"solid:" + s.ID},
				Title: "A length is longer than the pipe",
				Why: fmt.Sprintf("%s is wanted; %s comes in %s. Join two with a coupling.",
					measure.Run(length, w.Plan.Metric()), b.Stock.Name, w.Stocked(b.Stock)),
			})
			return
		}
	}
}

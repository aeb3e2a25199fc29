package check

import (
	"fmt"

	"zapbarn/core/form"
	"zapbarn/core/measure"
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
					Why: fmt.Sprintf(
						"It is %s x %s; %s comes as %s, of which %s all round is kept off.",
						w.Len(b.W),
						w.Len(b.H),
						s.Stock.Name,
						w.Stocked(s.Stock),
						w.Len(w.Plan.Margin()),
					),
				}
				if many > 1 { // a run of equal ones is told once
					snag.At = []string{"solid:" + part.Solid.ID, "part:" + part.Ref}
					snag.Title = fmt.Sprintf("%d parts of %s do not fit their sheet", many, part.Solid.Name)
					snag.Why = fmt.Sprintf("The largest of them: %s", measure.Uncapital(snag.Why))
				}
				for _, id := range stock.IDs(w.Lib.Materials) { // same family and thickness, larger sheet
					m := w.Lib.Materials[id]
					big, small := m.Sheet[1].Value()-2*w.Plan.Margin(), m.Sheet[0].Value()-2*w.Plan.Margin()
					if m.Form == "sheet" && (m.Family == s.Stock.Family || m.Foam() && s.Stock.Foam()) &&
						m.ID != s.Stock.ID &&
						max(b.W, b.H) <= big &&
						min(b.W, b.H) <= small &&
						m.Thick.Value() == s.Stock.Thick.Value() {
						next := *part.Solid
						next.Stock = m.ID
						snag.Mends = append(snag.Mends, put(w, "Cut from "+m.Name, "solid", next.ID, next))
					}
				}
				sol := *part.Solid
				if disc, ok := sol.Form.(form.Disc); ok && part.Panel.Round > 0 && disc.Copies < 2 &&
					disc.Bore.IsZero() {
					next := plan.Solid{
						ID:    sol.ID,
						Prop:  sol.Prop,
						Name:  sol.Name,
						Kind:  "boards",
						Stock: sol.Stock,
						Form:  form.Boards{W: disc.W},
						X:     sol.X,
						Y:     sol.Y,
						Z:     sol.Z,
					}
					if _, err := next.Shape(w.Lib); err == nil {
						snag.Mends = append(snag.Mends, put(w, "Lay it over boards", "solid", next.ID, next))
					}
				}
				if sol.Kind != "disc" && sol.Kind != "boards" && sol.Seam == "" && !w.Plain {
					for _, seam := range [][2]string{{"half-lap", "Split it with a half-lap"}, {"butt", "Split it with a braced " +
						"butt seam"}} {
						next := sol
						next.Seam = seam[0]
						if _, err := next.Shape(w.Lib); err == nil {
							snag.Mends = append(snag.Mends, put(w, seam[1], "solid", next.ID, next))
						}
					}
				}
				say(snag)
			}
		}
		for _, b := range w.Bars() {
			for _, l := range b.Cutting.TooLong {
				for _, s := range w.Plan.Solids() {
					if s.Stock == b.Stock.ID {
						say(
							Snag{
								Level: Stop,
								Place: "bench",
								At:    []string{"solid:" + s.ID},
								Title: "A length is longer than the pipe",
								Why: fmt.Sprintf(
									"%s is wanted; %s comes in %s. Join two with a coupling.",
									measure.Run(l, w.Plan.Metric()),
									b.Stock.Name,
									w.Stocked(b.Stock),
								),
							},
						)
						break
					}
				}
			}
		}
	},
)

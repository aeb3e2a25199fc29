package check

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"zapbarn/core/plan"
	"zapbarn/core/stock"
	"zapbarn/core/stores"
	"zapbarn/core/work"
)

// family is what a stock is, without its thickness: xps of xps2.
func family(id string) string { return strings.TrimRight(id, "0123456789/") }

// siblings are the stocks of one family that lie on the shelf, whole sheets of them, the
// nearest in thickness first.
func siblings(w *work.Work, m stock.Material) (out []stock.Material) {
	for i := range w.Plan.Shelf() {
		id := strings.TrimPrefix(w.Plan.Shelf()[i].What, "material:")
		o, ok := w.Lib.Materials[id]
		if ok && id != m.ID && family(id) == family(m.ID) && o.Form == m.Form && w.Plan.Shelf()[i].Amount() >= 1 {
			out = append(out, o)
		}
	}
	off := func(o stock.Material) float64 { return math.Abs(math.Log(o.Thick.Value() / m.Thick.Value())) }
	slices.SortStableFunc(out, func(a, b stock.Material) int {
		switch {
		case off(a) < off(b):
			return -1
		case off(a) > off(b):
			return 1
		}
		return 0
	})
	return out
}

var _ = rule(
	"have-instead",
	Note,
	"A stock is to be bought while another thickness of it lies on the shelf.",
	func(w *work.Work, say func(Snag)) {
		if len(w.Plan.Shelf()) == 0 || w.Plain {
			return
		}
		for _, n := range stores.Stocks(w) {
			id := strings.TrimPrefix(n.What, "material:")
			if n.Packs == 0 || n.Unit != "sheets" {
				continue
			}
			m := w.Lib.Materials[id]
			var mends []Mend
			for _, o := range siblings(w, m) {
				e := instead(w, id, o)
				if len(e.Changes) > 0 && len(mends) < 2 {
					mends = append(mends, Mend{Label: e.Label, Edit: e, gives: bought})
				}
			}
			if len(mends) == 0 {
				continue
			}
			say(Snag{Level: Note, Place: "stores", At: []string{"display:" + w.Plan.Display().ID}, key: n.What,
				Title: m.Name + ": another thickness lies there",
				Why: fmt.Sprintf(
					"%d of it are to be bought, and another thickness lies on the shelf. Stacked parts take more of "+
						"the thin one and more glue; walls get thinner or thicker: look at the drawing.",
					n.Packs,
				),
				Mends: mends})
		}
	},
)

// bought is what is still to be bought.
func bought(w *work.Work) string { return "to buy " + stores.Money(w, stores.Of(w)).Text }

// instead is the edit that cuts from another thickness what is not cut yet.
func instead(w *work.Work, from string, to stock.Material) plan.Edit {
	e := plan.Edit{Label: "Cut it from " + to.Name + ", which lies there"}
	for i := range w.Plan.Solids() {
		s := w.Plan.Solids()[i]
		if s.Stock != from || w.StageOf(w.Plan.Prop(s.Prop)) >= plan.Cut {
			continue
		}
		s.Stock = to.ID
		e.Changes = append(e.Changes, w.Plan.Put("solid", s.ID, s))
	}
	return e
}

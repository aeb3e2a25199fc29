package check

import (
	"fmt"

	"zapbarn/core/measure"
	"zapbarn/core/order"
	"zapbarn/core/stores"
	"zapbarn/core/words"
	"zapbarn/core/work"
)

var _ = rule(
	"order-now",
	Mind,
	"Things are wanted before they can be here, were they ordered today.",
	func(w *work.Work, say func(Snag)) {
		if len(w.Plan.Shelf()) == 0 || w.Plain { // nobody keeps a shelf here; or a change is only being tried
			return
		}
		t := order.In(w)
		var late []*stores.Need
		for _, n := range stores.Of(w) {
			if n.Packs > 0 && n.First >= 0 && n.OrderBy < 0 {
				late = append(late, n)
			}
		}
		if len(late) == 0 {
			return
		}
		first := late[0]
		s := Snag{
			Level:  Mind,
			Place:  "stores",
			At:     []string{"display:" + w.Plan.Display().ID},
			weight: float64(len(late)),
			Title:  words.Count(len(late), "thing") + " wanted before they can be here",
			Why: fmt.Sprintf("First %s: wanted by %s, and takes %s to come. Order today, say what lies on the shelf, or do "+
				"something else first.", measure.Uncapital(first.Name), t.At(first.First).Format("Mon Jan 2"),
				measure.Span(float64(first.Lead)*86400)),
		}
		if len(late) == 1 {
			s.Title = measure.Capital(first.Name) + " is wanted before it can be here"
		}
		say(s)
	},
)

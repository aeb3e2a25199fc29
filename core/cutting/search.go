package cutting

import (
	"slices"

	"zapbarn/core/nest"
)

// Search goes on looking for a better layout of a stock, round what is locked
// or cut.
type Search struct {
	of *Sheets
	*nest.Search
}

// Best is the best layout so far, cut sheets first.
func (s *Search) Best() nest.Layout { return s.of.whole(s.Search.Best()) }

// Search starts a search on a stock.
func (set Set) Search(s *Sheets) *Search {
	o := set.Options()
	o.Fixed = s.fixed
	return &Search{s, nest.NewSearch(s.boxes(), s.stocks, o)}
}

// WithMore is how many new sheets the stock would take if they were so much
// longer and wider.
func (set Set) WithMore(s *Sheets, mm float64) (n int) {
	o := set.Options()
	stocks := slices.Clone(s.stocks)
	for i := range stocks {
		if stocks[i].ID == s.Stock.ID {
			stocks[i].W, stocks[i].H = stocks[i].W+mm, stocks[i].H+mm
		}
	}
	if len(s.loose) <= firstParts {
		o.Tries = firstTries
	}
	for _, sh := range s.remembered(s.boxes(), stocks, o).Sheets {
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

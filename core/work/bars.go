package work

import (
	"fmt"

	"zapbarn/core/cutting"
	"zapbarn/core/measure"
	"zapbarn/core/source"
)

// cutBars cuts the pipes.
func (w *Work) cutBars() *barred {
	var pipes []cutting.Pipe
	for i := range w.Plan.Solids() {
		s := &w.Plan.Solids()[i]
		if shape := w.Shapes()[s.ID]; shape != nil {
			for _, c := range shape.Cuts {
				pipes = append(pipes, cutting.Pipe{Stock: w.Lib.Materials[s.Stock], Length: c.Length, Count: c.Count})
			}
		}
	}
	bars := w.Cutting().Lengths(pipes)
	for _, b := range bars {
		w.barResults(b)
	}
	return &barred{bars, w.numbers}
}

// barResults keeps the numbers of a stock of pipe.
func (w *Work) barResults(b *cutting.Bars) {
	m, n := b.Stock, len(b.Cutting.Bars)
	known := fmt.Sprintf("at least %d needed; proven least", b.Cutting.Bound)
	if !b.Cutting.Proven {
		known = fmt.Sprintf("at least %d needed; fewer not ruled out", b.Cutting.Bound)
	}
	w.keep(
		source.KeyOf("stock", m.ID, "bars"),
		source.Result{Label: m.Name + ", lengths", Value: float64(n), Text: fmt.Sprint(n)}.
			With(
				"fewest lengths, exact search",
				fmt.Sprintf("%d pieces, kerf %s", b.Pieces, w.Len(w.Plan.Kerf())),
				fmt.Sprintf("%d of %s, %s", n, w.Stocked(m), known),
				sawFrom,
			),
	)
	if n > 0 {
		y := 100 * b.Yield()
		w.keep(source.KeyOf("stock", m.ID, "yield"), source.Num("Used", y, "%", measure.Decimal(y, 0)+" %").With(
			"pieces / stock length",
			fmt.Sprintf("%s / (%d x %s)", measure.Run(b.Total, w.Plan.Metric()), n, w.Stocked(m)),
			measure.Decimal(y, 1)+" %",
			source.Exact("sum"),
		))
		w.stockCost(m, n, "Lengths cost", "lengths x price")
	}
}

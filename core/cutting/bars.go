package cutting

import (
	"zapbarn/core/nest"
	"zapbarn/core/stock"
)

// Bars is the cutting of one stock of pipe; Total is what its pieces come to, mm.
type Bars struct {
	Stock   stock.Material
	Cutting nest.Cutting
	Pieces  int
	Total   float64
}

// Pipe is so many pieces of one length, mm, of a stock.
type Pipe struct {
	Stock  stock.Material
	Length float64
	Count  int
}

// Lengths cuts pipes from the fewest lengths, stocks in the order of their first
// piece.
func (set Set) Lengths(pipes []Pipe) (all []*Bars) {
	seen := map[string]*Bars{}
	of := map[string][]float64{}
	for _, p := range pipes {
		b := seen[p.Stock.ID]
		if b == nil {
			b = &Bars{Stock: p.Stock}
			seen[p.Stock.ID] = b
			all = append(all, b)
		}
		b.Pieces += p.Count
		for range p.Count {
			of[p.Stock.ID] = append(of[p.Stock.ID], p.Length)
			b.Total += p.Length
		}
	}
	for _, b := range all {
		if set.Pace != nil {
			set.Pace()
		}
		b.Cutting = nest.Lengths(of[b.Stock.ID], b.Stock.Length.Value(), set.Kerf)
	}
	return all
}

// Yield is which share of the lengths bought is used.
func (b *Bars) Yield() float64 {
	return b.Total / (float64(len(b.Cutting.Bars)) * b.Stock.Length.Value())
}

package stores

import (
	"math"
	"slices"
	"strings"

	"zapbarn/core/cutting"
	"zapbarn/core/order"
	"zapbarn/core/source"
	"zapbarn/core/work"
)

// bulk is what is to be had new of one stock: sheets or lengths.
type bulk struct {
	stock, name, unit string
	many              int
	price             float64            // of one
	of                map[string]float64 // how much of it each prop is cut from: mm2 of sheet, mm of pipe
}

// Stocks are the sheets and lengths that are to be bought, without the times at which they
// are wanted.
func Stocks(w *work.Work) []*Need {
	l := &list{Work: w, all: map[string]*Need{}}
	for _, x := range l.bulks() {
		l.all["material:"+x.stock] = l.bulk(x)
	}
	return l.priced()
}

// stocks are the sheets and lengths, wanted when the first prop of them is cut.
func (l *list) stocks() {
	for _, x := range l.bulks() {
		n := l.bulk(x)
		for prop := range x.of {
			if at, ok := l.start[l.o.Next("cut:"+prop)]; ok && (n.First < 0 || at < n.First) {
				n.First = at
			}
		}
		l.all[n.What] = n
	}
}

// bulk is a stock as it is needed.
func (l *list) bulk(x bulk) *Need {
	n := &Need{What: "material:" + x.stock, Name: x.name, Unit: x.unit, Use: float64(x.many),
		Spare: spare["material"], Lead: lead["material"], First: -1, Pack: 1, PackName: strings.TrimSuffix(x.unit, "s"),
		Price: x.price, By: map[string]float64{}, from: typical}
	all := 0.0
	for _, much := range x.of {
		all += much
	}
	for _, p := range l.Plan.Props() {
		if much, there := x.of[p.ID]; there {
			n.Props = append(n.Props, p.Name)
			n.By[p.ID] = n.Use * much / math.Max(1e-9, all)
		}
	}
	n.steps = []source.Step{{Formula: "parts not cut yet, laid out by themselves", Value: Amount(n.Use, x.unit),
		Sources: []source.Source{source.FromTrade("kerf and margin of the display")}}}
	return n
}

// bulks are the new sheets and lengths that the parts want which are not cut yet, laid
// out by themselves.
func (l *list) bulks() []bulk {
	return work.Derive(l.Work, "stocks not cut", uncut)
}

func uncut(w *work.Work) (out []bulk) {
	left := order.Uncut(w)
	set := w.Cutting()
	whole := map[string]bool{} // stocks of which nothing is cut yet: laid out already
	for _, p := range set.Parts {
		if all, known := whole[p.Stock.ID]; all || !known {
			whole[p.Stock.ID] = left[w.Part(p.Ref).Solid.Prop]
		}
	}
	parts := set.Parts[:0:0]
	var pipes []cutting.Pipe
	of := map[string]map[string]float64{} // by stock, then prop
	want := func(stock, prop string, much float64) {
		if of[stock] == nil {
			of[stock] = map[string]float64{}
		}
		of[stock][prop] += much
	}
	for _, p := range set.Parts {
		if part := w.Part(p.Ref); left[part.Solid.Prop] {
			if !whole[p.Stock.ID] {
				parts = append(parts, p)
			}
			want(p.Stock.ID, part.Solid.Prop, part.Area)
		}
	}
	for i := range w.Plan.Solids() {
		s := &w.Plan.Solids()[i]
		if shape := w.Shapes()[s.ID]; shape != nil && left[s.Prop] {
			for _, c := range shape.Cuts {
				pipes = append(pipes, cutting.Pipe{Stock: w.Lib.Materials[s.Stock], Length: c.Length, Count: c.Count})
				want(s.Stock, s.Prop, c.Length*float64(c.Count))
			}
		}
	}
	put := func(stock, name, unit string, many int, price float64) {
		if many > 0 {
			out = append(out, bulk{stock, name, unit, many, price, of[stock]})
		}
	}
	set.Parts = parts
	again := set.Sheets()
	for _, s := range w.Sheets() {
		if !whole[s.Stock.ID] {
			i := slices.IndexFunc(again, func(o *cutting.Sheets) bool { return o.Stock.ID == s.Stock.ID })
			if i < 0 {
				continue // all of it is cut
			}
			s = again[i]
		}
		put(s.Stock.ID, s.Stock.Name, "sheets", s.Uncut(), s.Stock.Price)
	}
	for _, b := range set.Lengths(pipes) {
		put(b.Stock.ID, b.Stock.Name, "lengths", len(b.Cutting.Bars), b.Stock.Price)
	}
	return out
}

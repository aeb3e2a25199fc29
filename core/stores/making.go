package stores

import (
	"fmt"

	"zapbarn/core/measure"
	"zapbarn/core/order"
	"zapbarn/core/source"
)

// making is what the forms declare that is bought for them: tubs, jars, mat and resin. It is
// wanted when the first of what is done at them is; a solid whose making is done wants nothing.
func (l *list) making() {
	for i := range l.Plan.Solids() {
		s := &l.Plan.Solids()[i]
		m, ok := order.MakingOf(l.Work, s)
		if !ok {
			continue
		}
		task := ""
		for _, j := range m.Jobs {
			if key := order.MakingKey(s, j); task == "" && l.left(key) {
				task = key
			}
		}
		for _, key := range []string{"mould:" + s.ID, "gel:" + s.ID, "lay:" + s.ID} { // a shell's, in its mould
			if task == "" && l.left(key) {
				task = key
			}
		}
		if task == "" {
			continue
		}
		for _, g := range m.Goods {
			if g.Use <= 0 {
				continue
			}
			n := l.need(g.What, g.Name, g.Unit, g.Use, s.Prop, task)
			n.Spare, n.Pack, n.PackName, n.Price, n.Lead = g.Spare, g.Pack, g.In, g.Price, g.Lead
			n.from = source.FromMemory("how much: " + g.How + "; packs and prices typical, the shop takes your own")
		}
	}
}

// magnets are the pairs that hold panes and lids, by what a pair pulls.
func (l *list) magnets() {
	for i := range l.Plan.Solids() {
		s := &l.Plan.Solids()[i]
		if s.Magnets == 0 {
			continue
		}
		for _, key := range []string{"close:" + s.ID, "cut:" + s.Prop, "install:" + s.Prop} {
			if !l.left(key) {
				continue
			}
			pull := s.Pull.Or(1)
			n := l.need(fmt.Sprintf("bought:magnets %s", measure.Kilograms(pull)), "Magnets, pairs that pull "+
				measure.Kilograms(pull), "pieces", float64(s.Magnets), s.Prop, key)
			n.Pack, n.PackName, n.Price, n.Lead = 10, "bag of 10 pairs", 8, 3
			break
		}
	}
}

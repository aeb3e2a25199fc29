package check

import (
	"fmt"

	"zapbarn/core/form"
	"zapbarn/core/measure"
	"zapbarn/core/pattern"
	"zapbarn/core/stock"
	"zapbarn/core/work"
)

// sagShare is the share of its span a rail may sag before it is seen: common
// practice, no source.
const sagShare = 1. / 200

// borne is how a frame's longest rail bears its load in a pipe: the shares of
// what it may bend and sag.
func borne(f form.Frame, m stock.Material) (bends, sags float64) {
	l := max(f.W.Value(), f.D.Value())
	stress, sag := pattern.Rail(m.OD.Value(), m.Bore(), l, f.Load.Value())
	return stress / pattern.PipeStress, sag / (l * sagShare)
}

var _ = rule(
	"frame-load",
	Stop,
	"A frame's rail carries more than its pipe bears, or sags so that it is seen.",
	func(w *work.Work, say func(Snag)) {
		for i := range w.Plan.Solids() {
			s := &w.Plan.Solids()[i]
			f, ok := s.Form.(form.Frame)
			m := w.Lib.Materials[s.Stock]
			if !ok || f.Load.IsZero() || w.Shapes()[s.ID] == nil {
				continue
			}
			bends, sags := borne(f, m)
			if bends <= 1 && sags <= 1 {
				continue
			}
			l := max(f.W.Value(), f.D.Value())
			snag := Snag{
				Level:  Mind,
				Place:  "bench",
				At:     []string{"solid:" + s.ID},
				weight: max(bends, sags),
				Title:  fmt.Sprintf("A rail of %s sags %s", s.Name, w.Len(sags*l*sagShare)),
				Why: fmt.Sprintf(
					"%s on the middle of %s of %s; more than 1 in 200 is seen.",
					f.Load,
					measure.Run(l, w.Plan.Metric()),
					m.Name,
				),
			}
			if bends > 1 {
				snag.Level = Stop
				snag.Title = fmt.Sprintf("A rail of %s bends for good", s.Name)
				snag.Why = fmt.Sprintf(
					"%s on the middle of %s of %s is %.1f times what aged pipe bears.",
					f.Load,
					measure.Run(l, w.Plan.Metric()),
					m.Name,
					bends,
				)
			}
			for _, id := range stock.IDs(w.Lib.Materials) {
				o := w.Lib.Materials[id]
				if b, g := borne(f, o); o.Form == "pipe" && o.OD.Value() > m.OD.Value() && b <= 1 && g <= 1 &&
					len(snag.Mends) == 0 {
					next := *s
					next.Stock = id
					if _, err := next.Shape(w.Lib); err == nil {
						snag.Mends = append(snag.Mends, put(w, "Make it of "+o.Name, "solid", s.ID, next))
					}
				}
			}
			say(snag)
		}
	},
)

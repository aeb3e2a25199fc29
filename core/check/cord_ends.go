package check

import (
	"fmt"
	"math"

	"zapbarn/core/measure"
	"zapbarn/core/source"
	"zapbarn/core/work"
	"zapbarn/core/yard"
)

// childReach is how far from the edge of the guests' way a child gets at a plug, m (from
// memory: an arm's length and a step over a rope).
const childReach = 0.9

// inBox and onHook are what the end of a cord can be done about.
const inBox, onHook = "in a box", "off the ground"

var _ = rule("cord-wet", Mind, "Outdoors a plug lies on the ground, where dew and rain run.",
	func(w *work.Work, say func(Snag)) {
		cords(w, func(c *work.Laid) {
			s := w.Yard().Of(c.Of.Prop)
			if !w.Plan.Display().Outdoors || s == nil || s.Of.Inside || c.Of.End != "" {
				return
			}
			box, hook := *c.Of, *c.Of
			box.End, hook.End = inBox, onHook
			say(Snag{Level: Mind, Place: "yard", At: []string{"cord:" + c.Of.ID},
				Title: "The end of " + measure.Uncapital(c.Of.Name) + " lies in the wet",
				Why: "It ends outdoors at " + s.Prop.Name + ", and nothing is said of how: grass is wet each night, rain or " +
					"not. Raise the plug, or put it into a box made for it; a protected outlet (GFCI, RCD) in any case." + licensed,
				From: []source.Source{
					source.FromTrade("plugs off the ground or in a box, behind a residual-current device"),
				},
				Mends: []Mend{put(w, "It goes into a box made for it", "cord", c.Of.ID, box),
					put(w, "It hangs off the ground", "cord", c.Of.ID, hook)}})
		})
	})

var _ = rule("cord-reach", Mind, "A plug is within a child's reach of where guests walk.",
	func(w *work.Work, say func(Snag)) {
		p := w.Yard().Path()
		if p == nil {
			return
		}
		cords(w, func(c *work.Laid) {
			if c.Of.End == inBox {
				return
			}
			near := math.Inf(1)
			for _, at := range []yard.Pt{c.Route[0], c.Route[len(c.Route)-1]} {
				_, far := p.Near(at)
				near = math.Min(near, far-p.Wide/2)
			}
			if near >= childReach {
				return
			}
			box := *c.Of
			box.End = inBox
			say(Snag{Level: Mind, Place: "yard", At: []string{"cord:" + c.Of.ID}, weight: childReach - near,
				Title: "A child reaches the plug of " + measure.Uncapital(c.Of.Name),
				Why: fmt.Sprintf(
					"An end of it is %s from where guests walk; a hand gets %s over a rope. A box that closes, or the "+
						"plug on the far side of the prop.",
					w.Len(math.Max(0, near)*1000),
					measure.Run(childReach*1000, w.Plan.Metric()),
				),
				From:  []source.Source{source.FromMemory("a child's arm and a step, 3 ft")},
				Mends: []Mend{put(w, "It goes into a box that closes", "cord", c.Of.ID, box)}})
		})
	})

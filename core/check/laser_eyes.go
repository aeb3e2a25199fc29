package check

import (
	"fmt"

	"zapbarn/core/source"
	"zapbarn/core/work"
)

// laserFrom is where the classes and what they mean are from.
var laserFrom = source.Std("IEC 60825-1: class 1 is safe, class 2 by the blink of an eye, 3R and above are not")

var _ = rule("laser-eyes", Stop, "A laser's beam may meet a guest's eye.", func(w *work.Work, say func(Snag)) {
	for _, d := range w.Plan.Devices() {
		l := w.Lib.Lamps[d.Product]
		if l.Laser == "" || l.Laser == "1" {
			continue
		}
		s := Snag{
			Level: Mind,
			Place: "loom",
			At:    []string{"device:" + d.ID},
			Title: d.Name + does(d.Name, " is", " are") + " a laser",
			From:  []source.Source{laserFrom},
			Why: fmt.Sprintf(
				"%s: aim it above every head and at nothing that mirrors; never at the street or the sky. Ask what the local "+
					"code says.",
				l.Name,
			),
		}
		if l.Laser != "2" {
			s.Level, s.Title, s.weight = Stop, d.Name+" is a laser too strong for guests", 9
			s.Why = fmt.Sprintf(
				"Class %s hurts an eye before it blinks. Use one of class 1 or 2, or leave it to a licensed show operator.",
				l.Laser,
			)
		}
		say(s)
	}
})

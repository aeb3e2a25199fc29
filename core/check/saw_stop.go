package check

import (
	"fmt"
	"math"

	"zapbarn/core/measure"
	"zapbarn/core/pattern"
	"zapbarn/core/work"
)

var _ = rule(
	"saw-stop",
	Mind,
	"A bevel lies near a stop of the saw: what calling it near enough costs in filler.",
	func(w *work.Work, say func(Snag)) {
		for _, part := range w.Parts() {
			for _, e := range part.Panel.Edges {
				if e.Joint != "mitre" {
					continue
				}
				stop := pattern.NearStop(e.Tilt)
				off := math.Abs(stop - e.Tilt)
				gap := pattern.NearStopGap(part.Panel.Thick, e.Tilt, stop)
				if math.Abs(gap) < 0.3 || off > 3 || stop == 0 { // less than a foam joint opens anyway
					break
				}
				side := "inside"
				if gap < 0 {
					side = "outside"
				}
				long := math.Hypot(
					part.Panel.Outline[2].X-part.Panel.Outline[1].X,
					part.Panel.Outline[2].Y-part.Panel.Outline[1].Y,
				)
				filler := math.Abs(gap) / 2 * part.Panel.Thick / math.Cos(stop*math.Pi/180) * long * float64(
					part.Panel.Copies,
				) / 1000
				say(
					Snag{
						Level: Mind,
						Place: "bench",
						At:    []string{"part:" + part.Ref},
						Title: fmt.Sprintf("Bevel %s, saw stop at %s", measure.Degrees(e.Tilt), measure.Degrees(stop)),
						Why: fmt.Sprintf(
							"Set exactly, or near enough opens %.1f mm at the %s of every seam: about %.0f ml of filler.",
							math.Abs(gap),
							side,
							filler,
						),
					},
				)
				break
			}
		}
	},
)

package demo

import (
	"time"

	"zapbarn/core/plan"
)

// nights are two evenings for the neighbours, before the opening, as they were logged: the
// second was noted on two phones that were out of reach, and merged.
func nights(p *plan.Plan, today time.Time) {
	first, second := today.AddDate(0, 0, -9).Format(time.DateOnly), today.AddDate(0, 0, -8).Format(time.DateOnly)
	p.Doc().NightBook = []plan.Night{
		{ID: "first", On: first, Opened: "18:30", Closed: "21:00", Guests: 34, Weather: "dry, calm",
			Note: "Neighbours only, half of the props."},
		{ID: "second", On: second, Opened: "18:30", Closed: "21:30", Guests: 51, Weather: "drizzle, gusts",
			Note: "Children stop at the jars.\nAlso noted: guests 57."},
	}
	p.Doc().Incidents = []plan.Incident{
		{ID: "arm", On: first, Prop: "keeper", What: "Arm stopped half way up", Minutes: 35, Part: "Pull arm",
			Cause: "screw worked loose", Mended: "thread lock", By: "Ola"},
		{ID: "beam", On: second, Prop: "gate", What: "Bell rang without end", Minutes: 12, Part: "Gate beam",
			Cause: "wet lens", Mended: "wiped, hood of tape", By: "Ben", Next: "A hood over the gate beam"},
		{
			ID:      "jar",
			On:      second,
			Prop:    "shelf",
			What:    "Two jars dark",
			Minutes: 20,
			Part:    "Wire nut",
			Cause:   "pulled by a guest",
			Cost:    3,
			By:      "Ben",
			Next:    "Lever connectors behind the shelf",
		},
	}
	p.Doc().Ticks = []plan.Ticked{
		{ID: "t1", On: second, Line: "open:guard:porch", By: "Ola", At: "17:40"},
		{ID: "t2", On: second, Line: "open:way:path", By: "Ben", At: "17:55"},
		{ID: "t3", On: second, Line: "close:off", By: "Ola", At: "21:40"},
	}
	p.Doc().Trials = []plan.Tried{
		{
			ID:       "s1",
			At:       "device:S1",
			What:     p.Device("S1").Name + ", polarity",
			Measured: "12.2 V",
			Passed:   true,
			By:       "Ola",
			On:       first,
		},
		{
			ID:       "mat",
			At:       "input:mat",
			What:     p.Input("mat").Name,
			Measured: "10 of 10",
			Passed:   true,
			By:       "Ben",
			On:       first,
		},
		{
			ID:       "dark",
			At:       "viewpoint:bend",
			What:     "Dark test from bend",
			Measured: "Skep fill glares",
			By:       "Mia",
			On:       second,
		},
	}
}

package demo

import (
	"time"

	"zapbarn/core/plan"
)

// helpers are who builds the Apiary and when, what is on its way, and what was done last: some
// of it dries now.
func helpers(p *plan.Plan, today time.Time) {
	day := func(n int) string { return today.AddDate(0, 0, n).Format(time.DateOnly) }
	at := func(ago time.Duration) string { return today.Add(-ago).Format(plan.Moment) }
	p.Doc().People = []plan.Person{
		{ID: "ola", Name: "Ola", Hours: "mon-fri 18-21:30, sat sun 10-18"},
		{ID: "ira", Name: "Ira", Hours: "tue thu 18:30-21, sat 10-17", Trades: "wiring, foam"},
		{
			ID:     "sam",
			Name:   "Sam",
			Hours:  "mon wed 18-21, sun 11-17",
			Trades: "paint, foam",
			Off:    day(6) + " " + day(7),
		},
	}
	p.Doc().Deliveries = []plan.Delivery{
		{
			ID:      "motor",
			Name:    "Gear motor for the sunflowers",
			For:     "device:sun-motor",
			Arrives: day(19),
			Faster:  day(9),
			Cost:    14,
		},
		{ID: "discs", Name: "Clear sheet for the comb wall", For: "solid:comb-back", Arrives: day(4)},
	}
	p.Doc().Shelf = []plan.Stocked{
		{ID: "s-latex", What: "coat:latex", Have: "0.9", Bin: "B2"},
		{ID: "s-masonry", What: "coat:masonry", Have: "3.5", Bin: "B2"},
		{ID: "s-flicker", What: "lamp:flicker12", Have: "12", Bin: "A1", Lead: "6"},
		{ID: "s-hot", What: "glue:hotlow", Have: "40", Bin: "C1"},
	}
	p.Doc().Jobs = []plan.Job{
		{ID: "skep-fit", Task: "fit:skep-rings", State: "done", At: at(50 * time.Hour), Took: d("20 min"), By: "Sam"},
		{ID: "skep-glue", Task: "glue:skep-rings", State: "done", At: at(26 * time.Hour), Took: d("6 h"), By: "Ola"},
		{
			ID:    "skep-fill",
			Task:  "fill:skep-rings",
			State: "done",
			At:    at(40 * time.Minute),
			Took:  d("4 h"),
			By:    "Ola",
		},
		{ID: "hat-fit", Task: "fit:keeper-hat", State: "done", At: at(3 * time.Hour), Took: d("10 min"), By: "Ira"},
		{ID: "boards-fit", Task: "fit:shelf-boards", State: "done", At: at(2 * time.Hour), By: "Ira"},
		{
			ID:    "boards-join",
			Task:  "join:shelf-boards-posts",
			State: "done",
			At:    at(90 * time.Minute),
			Took:  d("15 min"),
			By:    "Ira",
		},
		{ID: "van", Name: "Fetch the borrowed fogger", Hands: d("1 h"), From: day(3)},
	}
}

package check

import (
	"fmt"
	"strings"

	"zapbarn/core/bond"
	"zapbarn/core/calendar"
	"zapbarn/core/measure"
	"zapbarn/core/order"
	"zapbarn/core/plan"
	"zapbarn/core/words"
	"zapbarn/core/work"
)

var _ = rule(
	"late",
	Fix,
	"What is still to be done takes until after the opening.",
	func(w *work.Work, say func(Snag)) {
		t := order.In(w)
		late := t.Late()
		if late == 0 {
			return
		}
		hold := ""
		for i, x := range t.Row {
			if t.Critical(i) {
				hold = x.Name
			}
		}
		say(Snag{
			Level:  Fix,
			Place:  "calendar",
			At:     []string{"display:" + w.Plan.Display().ID},
			Title:  "It is done " + measure.Span(float64(late)*60) + " after the opening",
			weight: float64(late),
			Why: fmt.Sprintf(
				"%s left, the last (%s) is over %s. It opens %s at 17:00.",
				words.Count(len(t.Row), "task"),
				measure.Uncapital(hold),
				t.Say(t.End),
				t.At(t.Deadline).Format("Mon Jan 2"),
			),
			Mends: sooner(w, t),
		})
	},
)

// done is when all is done.
func done(w *work.Work) string {
	t := order.In(w)
	return t.Say(t.End)
}

// sooner are edits that win time: a faster delivery, a faster glue, a coat that is more
// than the product wants, the filling, where one of them holds all up.
func sooner(w *work.Work, t *order.Timetable) (out []Mend) {
	for i := range w.Plan.Deliveries() {
		d := w.Plan.Deliveries()[i]
		if d.In || d.Faster == "" {
			continue
		}
		label := fmt.Sprintf("Express for %s, $%d", measure.Uncapital(d.Name), d.Cost)
		d.Arrives, d.Faster, d.Cost = d.Faster, "", 0
		out = append(out, put(w, label, "delivery", d.ID, d))
	}
	for i, x := range t.Row {
		// what may slip within its evening still costs a day when it is there
		if !t.Slots[i].Placed() || t.Latest[i]-t.Slots[i].Start() >= calendar.Day || len(out) > 5 {
			continue
		}
		switch x.Kind {
		case "glue", "join":
			out = append(out, fasterGlue(w, x)...)
		case "coat":
			out = append(out, fewerCoats(w, x)...)
		case "fill":
			j := plan.Job{Task: x.Key, State: "left out", Why: "no time for it: the seams will show"}
			if x.Job != nil {
				j = *x.Job
				j.State, j.Why = "left out", "no time for it: the seams will show"
			} else {
				j.ID = w.FreshID("job", x.Key)
			}
			m := put(
				w,
				"Leave the seams of "+strings.TrimPrefix(x.Name, "Fill and sand the seams of ")+" unfilled",
				"job",
				j.ID,
				j,
			)
			m.Effect = "the seams will show"
			out = append(out, m)
		}
	}
	for i := range out {
		out[i].gives = done
	}
	return out
}

// fasterGlue puts another glue on the joint of a task that waits for it, where one holds
// as well and may be handled sooner.
func fasterGlue(w *work.Work, x *order.Task) []Mend {
	for _, about := range x.About {
		id, ok := strings.CutPrefix(about, "joint:")
		if !ok {
			continue
		}
		for k := range w.Plan.Joints() {
			j := w.Plan.Joints()[k]
			if j.ID != id {
				continue
			}
			c := w.JointCase(&j)
			for _, g := range w.Suggest(c) {
				with := c
				with.Glue, with.Age = g, 0
				if a := bond.Judge(with); a.Verdict <= w.Joints()[id].Verdict && a.Handling < w.Joints()[id].Handling/2 {
					j.Glue = g.ID
					return []Mend{put(w, x.Name+" with "+measure.Uncapital(g.Name), "joint", id, j)}
				}
			}
		}
	}
	return nil
}

// fewerCoats leaves a coat off a stack that has more of it than the product wants.
func fewerCoats(w *work.Work, x *order.Task) (out []Mend) {
	id, _ := strings.CutPrefix(x.About[0], "finish:")
	for i := range w.Plan.Finishes() {
		f := w.Plan.Finishes()[i]
		if f.ID != id {
			continue
		}
		for k, l := range f.Layers {
			c := w.Lib.Coats[l.Coat]
			if l.Coats <= max(1, c.Coats) || !strings.HasPrefix(x.Key, fmt.Sprintf("coat:%s:%d:", id, k+1)) {
				continue
			}
			next := f
			next.Layers = append([]plan.Layer(nil), f.Layers...)
			next.Layers[k].Coats--
			m := put(w, "One coat fewer of "+measure.Uncapital(c.Name)+" on "+w.Plan.Solid(f.Solid).Name, "finish", id, next)
			m.Effect = "thinner cover"
			out = append(out, m)
		}
	}
	return out
}

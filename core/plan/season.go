package plan

import (
	"encoding/json"
	"slices"

	"zapbarn/core/measure"
)

// NextSeason is the plan as the next season begins with it: the same props, wiring and yard,
// nothing logged, no dates, and what was to be better as tasks. The old plan stays.
func (p *Plan) NextSeason() *Plan {
	q := p.Clone()
	if r := []rune(q.Display().Name); len(r) > 60 {
		q.doc.Display.Name = string(r[:60])
	}
	q.doc.Display.Name += ", next season"
	q.doc.Display.ID = Slug(q.Display().Name)
	q.doc.Display.Opens = ""
	q.doc.Readings, q.doc.Trials, q.doc.NightBook, q.doc.Incidents, q.doc.Ticks = nil, nil, nil, nil, nil
	q.doc.Forecasts, q.doc.Deliveries, q.doc.Jobs, q.doc.Lots, q.doc.Waivers = nil, nil, nil, nil, nil
	for i := range q.People() {
		q.People()[i].Off = ""
	}
	for _, x := range p.Incidents() {
		if x.Next == "" || slices.ContainsFunc(q.Jobs(), func(j Job) bool { return j.Name == x.Next }) {
			continue
		}
		j := Job{
			Name:  x.Next,
			Prop:  x.Prop,
			Hands: measure.Must[measure.DurationKind]("1 h"),
			Why:   x.What + ", " + x.On,
		}
		if r := []rune(j.Name); len(r) > 80 {
			j.Name, j.Why = string(r[:77])+"...", x.Next+"; "+j.Why
		}
		j.ID = q.FreshID("job", x.Next)
		q.doc.Jobs = append(q.Jobs(), j)
	}
	return q
}

// Differs is one thing that two plans have differently.
type Differs struct {
	Kind, ID, Name string
	Is             string // added, gone or changed
}

// Compare lists what is different between an earlier plan and this one, of what is built:
// not the log, not what was noted on nights.
func (p *Plan) Compare(before *Plan) (out []Differs) {
	logged := []string{
		"display",
		"reading",
		"tried",
		"night",
		"incident",
		"ticked",
		"forecast",
		"job",
		"delivery",
		"lot",
		"waiver",
		"person",
		"stocked",
		"note",
		"photo",
	}
	for _, k := range kinds {
		if slices.Contains(logged, k.name) {
			continue
		}
		was := map[string]json.RawMessage{}
		for _, e := range k.all(before) {
			was[e.ID] = encode(e.Value)
		}
		for _, e := range k.all(p) {
			old, there := was[e.ID]
			delete(was, e.ID)
			switch now := encode(e.Value); {
			case !there:
				out = append(out, Differs{k.name, e.ID, p.Name(e.Value), "added"})
			case string(old) != string(now):
				out = append(out, Differs{k.name, e.ID, p.Name(e.Value), "changed"})
			}
		}
		for _, e := range k.all(before) {
			if _, gone := was[e.ID]; gone {
				out = append(out, Differs{k.name, e.ID, before.Name(e.Value), "gone"})
			}
		}
	}
	return out
}

package work

import (
	"fmt"

	"zapbarn/core/measure"
	"zapbarn/core/show"
	"zapbarn/core/source"
)

// EveningOf is what is asked of a night: how many groups, of how many people at most, how
// long they stay before a prop, and the seed they are drawn by.
type EveningOf struct {
	Groups, Size int
	Dwell        int // s
	Seed         int
}

// MostClosings is how many closings of inputs a night is played with at most; more take
// longer than anybody waits.
const MostClosings = 40_000

// Evening is one of guests played through the plan's show.
type Evening struct {
	show.Report
	Hours  float64         // that it is open
	Energy []source.Result // what each supply gave, Wh
	Fluid  []source.Result // what each fogger used, mL
}

// Evening plays one. ok is false where no guest works any input or the show is in
// error; an error says that it would be too long.
func (w *Work) Evening(q EveningOf) (r Evening, ok bool, err error) {
	_, r.Hours, _ = w.Plan.Season()
	n := show.Night{Length: int(r.Hours * 3.6e6), Groups: q.Groups, Size: q.Size, Speed: 1, Dwell: q.Dwell * 1000,
		Seed: uint64(q.Seed), Stops: w.stops()}
	if len(n.Stops) == 0 || w.ShowErr() != nil {
		return r, false, nil
	}
	if most := q.Groups * q.Size * len(n.Stops); most > MostClosings {
		return r, true, measure.Bad("groups", "%d groups of up to %d people at %d inputs close them up to %d times; "+
			"ask for %d groups at most, or for smaller ones", q.Groups, q.Size, len(n.Stops), most,
			max(1, MostClosings/q.Size/len(n.Stops)))
	}
	n.Loads, n.Volts = w.Loads(), map[string]float64{}
	for _, l := range n.Loads {
		n.Volts[l.Supply] = w.All().Readings[l.Supply].Volts
	}
	r.Report, _ = n.Run(w.Machine())
	for _, l := range n.Loads {
		if r.Wh[l.Supply] > 0.05 {
			r.Energy = append(r.Energy, w.spent(l, r.Report, r.Hours, n.Volts[l.Supply]))
		}
	}
	r.Fluid = w.fogged(r.Report)
	return r, true, nil
}

// stops are the inputs that guests work, along the path: where none is said, three metres
// behind the one before.
func (w *Work) stops() (out []show.Stop) {
	far := 0.0
	for i := range w.Plan.Inputs() {
		in := &w.Plan.Inputs()[i]
		if !in.ByGuests() {
			continue
		}
		if far += 3; !in.Far.IsZero() {
			far = in.Far.Value() / 1000
		}
		out = append(out, show.Stop{Input: in.ID, Far: far, Held: 400})
	}
	return out
}

// spent is what a supply gave in a night, with its working.
func (w *Work) spent(l show.Load, rep show.Report, hours, volts float64) source.Result {
	dec := func(v float64) string { return measure.Decimal(v, 2) }
	wh := rep.Wh[l.Supply]
	text := measure.Decimal(wh, 0) + " Wh"
	r := source.Num(w.Device(l.Supply).Name, wh, "Wh", text).With("what is always on: I t",
		dec(l.Rest)+" A × "+dec(hours)+" h", dec(l.Rest*hours)+" Ah", source.Exact("the wiring plan, solved"))
	for i := range w.Plan.Devices() {
		d := &w.Plan.Devices()[i]
		if a, s := l.Amps[d.ID], float64(rep.On[d.ID])/1000; a > 0 && s > 0 {
			r = r.With(d.Name+": I t", dec(a)+" A × "+dec(s)+" s / 3600", dec(a*s/3600)+" Ah",
				source.Exact("how long the night's run had it on"))
		}
	}
	return r.With("E = U Q", dec(volts)+" V × "+dec(rep.Ah[l.Supply])+" Ah", text, source.Exact(""))
}

// fogPerMinute is what a small fogger uses while it fogs, mL a minute.
const fogPerMinute = 2.5

// fogged is what each fogger used in a night, with its working.
func (w *Work) fogged(rep show.Report) (out []source.Result) {
	for i := range w.Plan.Devices() {
		d := &w.Plan.Devices()[i]
		if w.Lib.Lamps[d.Product].Makes != "fog" {
			continue
		}
		for up := d; up != nil; up = w.Device(up.From) {
			if !up.Driven {
				continue
			}
			s := float64(rep.On[up.ID]) / 1000
			text := measure.Decimal(s/60*fogPerMinute, 0) + " mL"
			out = append(out, source.Num(d.Name, s/60*fogPerMinute, "mL", text).With("V = rate × time it fogs",
				fmt.Sprintf("%s mL a minute × %s s / 60", measure.Decimal(fogPerMinute, 1), measure.Decimal(s, 0)),
				text,
				source.FromMemory("a small fogger's 2.5 mL a minute; measure yours once")),
			)
			break
		}
	}
	return out
}

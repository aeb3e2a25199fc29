package wiring

import "math"

// Profile is volts against distance along a run, from its feed.
func (r *Rig) Profile(st *State, run string) (at, volts []float64) {
	d := (*Device)(nil)
	for i := range r.devices {
		if r.devices[i].ID == run {
			d = &r.devices[i]
		}
	}
	if d == nil || !d.Is(Wire) {
		return nil, nil
	}
	sum := 0.0
	total := 0.0
	for _, e := range r.at(run).series {
		total += r.Net.Elements[e].R
	}
	for k, e := range r.at(run).series {
		el := r.Net.Elements[e]
		neg := r.Net.Elements[e+1] // its return is added right after it
		if k == 0 {
			at, volts = append(at, 0), append(volts, st.Solution.V[el.A]-st.Solution.V[neg.A])
		}
		sum += el.R
		at, volts = append(at, sum/total*d.Length.Value()), append(volts, st.Solution.V[el.B]-st.Solution.V[neg.B])
	}
	return at, volts
}

// Along is a point of a path from a supply: how far, its volts, and the device
// that begins there.
type Along struct {
	At, Volts float64
	Name      string
}

// PathTo is volts against distance all the way from a supply to a device: each
// run up to where the way leaves it, what fuses and contacts drop as steps, a
// lamp's lead, and a strip to its far end. A run is followed to its end. nil
// when nothing feeds it.
func (r *Rig) PathTo(st *State, id string) (out []Along) {
	var chain []*Device
	for d := r.device(id); d != nil && len(chain) <= len(r.devices); d = r.device(d.From) {
		chain = append([]*Device{d}, chain...)
	}
	if len(chain) == 0 || !chain[0].Is(Origin) {
		return nil
	}
	x := 0.0
	across := func(q [2]int) float64 { return st.Solution.V[q[0]] - st.Solution.V[q[1]] }
	for i, d := range chain {
		switch d.Kind {
		case "run":
			leaves, fed := d.Length.Value(), d.FedAt.Value()
			if i+1 < len(chain) {
				leaves = chain[i+1].At.Or(leaves)
			}
			at, v := r.Profile(st, d.ID)
			begin := len(out)
			for k := range at {
				if at[k] >= math.Min(fed, leaves)-1 && at[k] <= math.Max(fed, leaves)+1 {
					out = append(out, Along{At: x + math.Abs(at[k]-fed), Volts: v[k]})
				}
			}
			if leaves < fed { // it goes back along the run
				for a, b := begin, len(out)-1; a < b; a, b = a+1, b-1 {
					out[a], out[b] = out[b], out[a]
				}
			}
			if begin < len(out) {
				out[begin].Name = d.ID
			}
			x += math.Abs(leaves - fed)
		case "lamp":
			if l := r.at(d.ID).leads; len(l) > 0 {
				e := r.Net.Elements[l[0].pos]
				from, to := across([2]int{e.A, r.Net.Elements[l[0].neg].A}), across([2]int{e.B, r.Net.Elements[l[0].neg].B})
				out = append(out, Along{x, from, d.ID}, Along{At: x + d.Lead.Value() + d.Extension.Value(), Volts: to})
				x += d.Lead.Value() + d.Extension.Value()
			}
			if n := len(r.at(d.ID).load); r.at(d.ID).strip != [2]int{} {
				for k, e := range r.at(d.ID).load {
					out = append(
						out,
						Along{At: x + d.Length.Value()*float64(k+1)/float64(n), Volts: st.Solution.Across(r.Net.Elements[e])},
					)
				}
			}
		default:
			if q := r.at(d.ID).port; q != [2]int{} {
				out = append(out, Along{x, across(q), d.ID})
			}
		}
	}
	return out
}

// StripVolts is what each segment of a strip sees, from its start on.
func (r *Rig) StripVolts(st *State, id string) (out []float64) {
	if r.at(id).strip == [2]int{} {
		return nil
	}
	for _, e := range r.at(id).load {
		out = append(out, st.Solution.Across(r.Net.Elements[e]))
	}
	return out
}

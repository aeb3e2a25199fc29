package loom

import (
	"fmt"
	"html/template"
	"math"
	"strings"
	"time"

	"zapbarn/web/shell"

	"zapbarn/core/check"
	"zapbarn/core/circuit"
	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/wiring"
	"zapbarn/core/work"
	"zapbarn/web/draw"

	"github.com/gin-gonic/gin"
)

// Card is one test on the bench: what a lamp should do, and what it did.
type Card struct {
	Device   *plan.Device
	Href     string
	Expect   string
	Current  string
	Measured string
	Who      string // by whom, and when
	Verdict  string // pass, fail or ""
}

// Fault is the fault finder's panel.
type Fault struct {
	Supply   string
	Supplies []shell.Link
	Devices  []shell.Option
	Seen     []SeenRow
	Causes   []CauseRow
	Next     string // what to measure next, in words
	NextID   string
	Lights   int  // lamps nobody has looked at yet
	Two      bool // no single fault explains it
}

// farEnd marks the far end of a strip in the list of places to measure.
const farEnd = " far"

// SeenRow is a reading that was taken.
type SeenRow struct{ ID, Name, What, When string }

// CauseRow is a ranked cause.
type CauseRow struct {
	Say   string
	Share int
	Bar   template.HTML
}

func (s Room) proveWay() shell.Way {
	return shell.Way{
		ID:    "prove",
		Title: "Prove",
		Fill: shell.Showing(newView, func(_ *gin.Context, p *view, _ []check.Snag) error {
			p.cards(p.state())
			return nil
		}),
	}
}

// cards lists what to prove before closing: polarity, light, volts, current.
func (p *view) cards(st *wiring.State) {
	w := p.Work
	type last struct{ volts, amps, ohms *plan.Reading }
	latest := map[string]last{}
	for i := range w.Plan.Readings() {
		r := &w.Plan.Readings()[i]
		l := latest[r.Device]
		switch {
		case !r.Volts.IsZero() && !r.Far:
			l.volts = r
		case !r.Amps.IsZero():
			l.amps = r
		case !r.Ohms.IsZero():
			l.ohms = r
		}
		latest[r.Device] = l
	}
	for i := range w.Plan.Devices() {
		d := &w.Plan.Devices()[i]
		if d.Prop != p.Prop || !d.Is(wiring.Load|wiring.Origin) {
			continue
		}
		right := *d
		right.Reversed = false
		g := st.Readings[d.ID]
		c := Card{
			Device:  d,
			Href:    p.Href("loom", p.Prop, "device:"+d.ID, "harness"),
			Expect:  measure.Volts(math.Abs(g.Volts)),
			Current: measure.Amps(g.Amps),
		}
		if d.Reversed {
			c.Current = "none while reversed"
		}
		l := latest[d.ID]
		var said []string
		judge := func(r *plan.Reading, text string) {
			said, c.Who = append(said, text), strings.TrimSpace(r.By+" "+r.On)
			if !r.Proves(g) {
				c.Verdict = "fail"
			} else if c.Verdict == "" {
				c.Verdict = "pass"
			}
		}
		if r := l.volts; r != nil {
			judge(r, r.Volts.String())
		}
		if r := l.amps; r != nil {
			judge(r, r.Amps.String())
		}
		if r := l.ohms; r != nil {
			judge(r, r.Ohms.String()+" to ground")
		}
		c.Measured = strings.Join(said, ", ")
		p.Cards = append(p.Cards, c)
	}
}

func (s Room) faultWay() shell.Way {
	return shell.Way{
		ID:    "fault",
		Title: "Find a fault",
		Fill: shell.Showing(newView, func(_ *gin.Context, p *view, _ []check.Snag) error {
			p.fault()
			return nil
		}),
	}
}

// fault ranks the causes for one supply's wiring from the readings so far.
func (p *view) fault() {
	w := p.Work
	f := &Fault{Supply: p.faultSupply()}
	if p.Fault = f; f.Supply == "" {
		return
	}
	b := wiring.Suspects(w.Plan.Wiring(w.Lib), f.Supply)
	seen, done, looked := f.saw(w, b)
	for k, id := range b.Devices {
		d := w.Plan.Device(id)
		if b.Far[k] {
			f.Devices = append(f.Devices, shell.Option{Value: id + farEnd, Text: d.Name + ", far end", On: false})
			continue
		}
		f.Devices = append(f.Devices, shell.Option{Value: id, Text: d.Name, On: false})
		if d.Is(wiring.Load) && !looked[id] {
			f.Lights++
		}
	}
	causes := b.Rank(seen, circuit.HandMeter)
	if !circuit.Explained(causes, seen) {
		f.Two = true
		causes = b.RankTwo(seen, circuit.HandMeter)
	}
	if len(seen) > 0 {
		f.blame(causes)
	}
	if k := b.Next(causes, circuit.HandMeter, done); k >= 0 {
		f.measureNext(w, b.Devices[k], b.Far[k])
	}
	p.Draw = template.HTML(draw.Harness(w, w.All(), p.Prop, "device:"+f.NextID,
		func(key string) string { return p.Href("loom", p.Prop, key, "fault") }))
}

// faultSupply is the supply whose wiring is looked at: of what is picked, else the prop's first.
func (p *view) faultSupply() string {
	if kind, id, _ := strings.Cut(p.Sel, ":"); kind == "device" {
		if s := p.Work.Rig().Supply(id); s != "" {
			return s
		}
	}
	for _, d := range p.Work.Plan.Devices() {
		if d.Prop == p.Prop && d.Is(wiring.Origin) {
			return d.ID
		}
	}
	return ""
}

// saw takes the readings that say something of a bench's faults: what they come to, which
// places were measured, and what was looked at.
func (f *Fault) saw(
	w *work.Work,
	b *wiring.FaultBench,
) (seen []circuit.Seen, done map[int]bool, looked map[string]bool) {
	done, looked = map[int]bool{}, map[string]bool{}
	for _, r := range w.Plan.Readings() {
		if !r.Amps.IsZero() || !r.Ohms.IsZero() {
			continue // for the card
		}
		what := r.Volts.String()
		var s circuit.Seen
		ok := false
		if r.Light != "" {
			what = "seen " + r.Light
			s, ok = b.Light(r.Device, r.Light == "lit")
			looked[r.Device] = true
		} else {
			read := b.Volts
			if r.Far {
				read = b.VoltsFar
				what += " at its far end"
			}
			if s, ok = read(r.Device, r.Volts.Value()); ok {
				done[s.Probe] = true
			}
		}
		if ok {
			seen = append(seen, s)
			name := w.Plan.Device(r.Device).Name
			f.Seen = append(f.Seen, SeenRow{r.ID, name, what, strings.TrimSpace(r.By + " " + r.On)})
		}
	}
	return seen, done, looked
}

// blame lists what may be wrong, the likeliest first.
func (f *Fault) blame(causes []circuit.Cause) {
	for _, c := range causes {
		if share := int(math.Round(100 * c.Share)); share > 0 && len(f.Causes) < 8 {
			bar := fmt.Sprintf(`<svg class="bar" viewBox="0 0 100 10" preserveAspectRatio="none" aria-hidden="true">`+
				`<rect width="%d" height="10"/></svg>`, share)
			f.Causes = append(f.Causes, CauseRow{c.Say, share, template.HTML(bar)})
		}
	}
}

// measureNext is where the meter goes next.
func (f *Fault) measureNext(w *work.Work, id string, far bool) {
	d := w.Plan.Device(id)
	f.NextID = id
	f.Next = map[string]string{"lamp": "at the end of its lead, red on its plus", "run": "at its far end",
		"supply": "at its terminals", "fuse": "behind it", "switch": "behind it", "connector": "behind it",
		"converter": "at its output", "controller": "at its feed"}[d.Kind]
	value := id
	if far {
		f.Next, value = "at its far end, red on its plus", value+farEnd
	}
	f.Next = d.Name + ", " + f.Next
	for i := range f.Devices {
		f.Devices[i].On = f.Devices[i].Value == value
	}
}

// Reading stores what the meter or the eye said; "all" lamps not yet looked at
// are taken as lit.
func (s Room) Reading(c *gin.Context) {
	w, open := s.Open(c)
	if !open {
		return
	}
	var in observation
	if !s.Bind(c, &in) {
		return
	}
	who := shell.SayWho(c, "by")
	if len(who) > 40 {
		s.Refused(c, shell.Over{Err: "name: is longer than 40 letters"})
		return
	}
	e, refused := observed(in, w, who, s.Now().Format(time.DateOnly))
	switch {
	case refused.Err != "":
		s.Refused(c, refused)
	case len(e.Changes) == 0:
		s.Back(c)
	default:
		s.Apply(c, e, shell.Over{}, "")
	}
}

// observation is what was read or seen at a device.
type observation struct {
	Do     string `form:"do"`
	Device string `form:"device"`
	Supply string `form:"supply"`
	Volts  string `form:"volts"` // or amperes or ohms, as it says
}

// observed is the edit of what was read or seen, and why it is refused.
func observed(in observation, w *work.Work, who, today string) (e plan.Edit, refused shell.Over) {
	p := w.Plan
	add := func(r plan.Reading) {
		r.ID, r.On, r.By = freshReading(p, len(e.Changes)), today, who
		e.Changes = append(e.Changes, p.Put("reading", r.ID, r))
	}
	device := in.Device
	if do := in.Do; do == "dark" || do == "lit" || do == "prove" {
		device = strings.TrimSuffix(device, farEnd)
	}
	switch in.Do {
	case "who": // kept already
	case "all-lit":
		for _, id := range unlooked(w, in.Supply) {
			add(plan.Reading{Device: id, Light: "lit"})
		}
		e.Label = "the other lamps are seen lit"
	case "clear":
		for _, r := range p.Readings() {
			if w.Rig().Supply(r.Device) == in.Supply {
				e.Changes = append(e.Changes, p.Drop("reading", r.ID))
			}
		}
		e.Label = "clear the readings"
	case "dark", "lit":
		add(plan.Reading{Device: device, Light: in.Do})
		e.Label = device + " is seen " + in.Do
	case "prove":
		d := p.Device(device)
		if d == nil {
			return e, shell.Over{Err: "That lamp was taken away.", Code: 409}
		}
		next := *d
		next.Proven = true
		e = plan.Edit{Label: d.Name + " is proven", Changes: []plan.Change{p.Put("device", d.ID, next)}}
	default:
		r, err := metered(in.Volts)
		if err != nil {
			return e, shell.Over{Err: "volts: " + err.Error()}
		}
		r.Device, r.Far = strings.CutSuffix(device, farEnd)
		add(r)
		e.Label = device + " reads " + strings.TrimSpace(in.Volts)
	}
	return e, refused
}

// metered reads what a meter shows: volts, or amperes or ohms when it says so.
func metered(text string) (r plan.Reading, err error) {
	t := strings.ToLower(strings.TrimSpace(text))
	switch {
	case strings.HasSuffix(t, "ohm") || strings.HasSuffix(t, "ohms"):
		r.Ohms, err = measure.Parse[measure.OhmKind](strings.TrimSuffix(strings.TrimSpace(text), "s"))
	case strings.HasSuffix(t, "a"):
		r.Amps, err = measure.Parse[measure.AmpKind](text)
	default:
		r.Volts, err = measure.Parse[measure.VoltKind](text)
	}
	return r, err
}

// ProveFrom says by which limits a card passes.
func (p *view) ProveFrom() string { return plan.ProveFrom.String() }

// freshReading is an ID that no reading has, with so many new ones before it.
func freshReading(p *plan.Plan, more int) string {
	for n := len(p.Readings()) + more + 1; ; n++ {
		id := fmt.Sprintf("r%d", n)
		if v, _ := p.Get("reading", id); v == nil {
			return id
		}
	}
}

// unlooked are the lamps of a supply of which nobody said whether they light.
func unlooked(w *work.Work, supply string) (out []string) {
	looked := map[string]bool{}
	for _, r := range w.Plan.Readings() {
		looked[r.Device] = looked[r.Device] || r.Light != ""
	}
	for _, d := range w.Plan.Devices() {
		if d.Is(wiring.Load) && w.Rig().Supply(d.ID) == supply && !looked[d.ID] {
			out = append(out, d.ID)
		}
	}
	return out
}

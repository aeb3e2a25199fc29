package draw

import (
	"fmt"
	"math"
	"sort"
	"strconv"

	"zapbarn/core/circuit"
	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/stock"
	"zapbarn/core/wiring"
	"zapbarn/core/work"
)

// harness lays a prop's wiring on the board: a lane for each run, lengths to
// one scale, lamps above and below where they tap off.
type harness struct {
	c     *Canvas
	w     *work.Work
	st    *wiring.State
	sel   string
	href  func(string) string
	kids  map[string][]*plan.Device
	scale float64 // px per mm of run
	lane  float64 // y of the next free lane
	far   float64
}

// Harness draws the wiring of a prop in a state.
func Harness(w *work.Work, st *wiring.State, prop, sel string, href func(string) string) string {
	const wide = 986.0
	h := &harness{
		c:    New(wide, 0, w.Plan.Metric()),
		w:    w,
		st:   st,
		sel:  sel,
		href: href,
		kids: map[string][]*plan.Device{},
	}
	roots, longest := h.tree(prop)
	h.scale = h.room(prop, longest) / longest
	h.lane = 20
	for _, d := range roots {
		h.root(d)
	}
	c := h.c
	c.H = math.Max(h.lane+6, 300)
	c.W = math.Max(wide, h.far+60)
	body := c.b.String()
	c.b.Reset()
	c.Rect("plywood", 0, 0, c.W, c.H)
	c.b.WriteString(body)
	if len(roots) == 0 {
		c.Text("t lbl", "middle", c.W/2, 140, "Nothing wired yet")
		c.Text(
			"t",
			"middle",
			c.W/2,
			162,
			"Type in the quick line: supply 12v 5a, then fuse 3a, then 24 jars flicker12 on F1 22awg 35 ft",
		)
	}
	lit, dark := 0, 0
	for _, d := range w.Plan.Devices() {
		if d.Is(wiring.Load) && d.Prop == prop {
			if s := st.Readings[d.ID].State; s == "lit" || s == "dim" {
				lit++
			} else {
				dark++
			}
		}
	}
	return c.SVG(
		"board",
		w.Plan.Prop(prop).Name+", wiring",
		fmt.Sprintf("%d lamps lit, %d not; runs to one scale.", lit, dark),
	)
}

// tree finds what feeds what in a prop: what is fed from outside it or from nothing, and
// how long the longest way along its runs is, mm.
func (h *harness) tree(prop string) (roots []*plan.Device, longest float64) {
	longest = 1
	for i := range h.w.Plan.Devices() {
		d := &h.w.Plan.Devices()[i]
		if d.Prop != prop {
			continue
		}
		up := h.w.Device(d.From)
		if up == nil || up.Prop != prop {
			roots = append(roots, d)
		} else {
			h.kids[d.From] = append(h.kids[d.From], d)
		}
		path := 0.0
		for k := d; k != nil; k = h.w.Device(k.From) {
			if k.Is(wiring.Wire) {
				path += k.Length.Value()
			}
		}
		longest = math.Max(longest, path)
	}
	for id := range h.kids {
		sort.SliceStable(h.kids[id], func(i, j int) bool {
			a, b := h.kids[id][i], h.kids[id][j]
			return a.At.Or(math.Inf(1)) < b.At.Or(math.Inf(1))
		})
	}
	return roots, longest
}

// room is how wide the longest way is drawn.
func (h *harness) room(prop string, longest float64) float64 {
	for i := range h.w.Plan.Devices() { // a strip at a run's end is a band of its own
		d := &h.w.Plan.Devices()[i]
		up := h.w.Device(d.From)
		if k := h.w.Lib.Lamps[d.Product].Kind; d.Prop == prop && (k == "strip" || k == "pixels") &&
			(up == nil || !up.Is(wiring.Wire) || d.At.IsZero()) {
			return 320
		}
	}
	if longest > 4000 {
		return 660 // its label stands below
	}
	return 560
}

func (h *harness) pick(d *plan.Device, say string) {
	if say != "" {
		say = d.Name + ", " + say
	}
	h.c.Pick(h.href("device:"+d.ID), "device:"+d.ID, say, "device:"+d.ID == h.sel)
}

// root places a supply, or a device with no feed, at the left edge.
func (h *harness) root(d *plan.Device) {
	y := h.lane + 84
	if !d.Is(wiring.Origin) {
		h.chain(d, 30, y)
		return
	}
	g := h.st.Readings[d.ID]
	v, a := wiring.SupplyOf(d, h.w.Lib)
	c := h.c
	if run := h.firstRun(d); run != nil {
		h.slides(run, run.FedAt.Value())
	}
	h.pick(d, "")
	c.move = ""
	c.Rect("box", 24, y-58, 132, 116)
	c.Text("t head", "start", 35, y-36, d.Name)
	c.Text("t", "start", 35, y-18, fmt.Sprintf("%s %s", measure.Volts(v), measure.Amps(a)))
	c.Rect("trough", 35, y-8, 110, 15)
	if h.st.Hidden {
		c.Text("t soft", "start", 35, y+25, "press to measure")
		c.Done()
		h.children(d, 156, y)
		h.lane = math.Max(h.lane, y+70)
		return
	}
	c.Rect("live fill-"+g.State, 35, y-8, math.Min(1, math.Max(0, g.Lit))*110, 15)
	c.Line("limit", 35+110*circuit.LoadLimit, y-13, 35+110*circuit.LoadLimit, y+12)
	c.Text("t", "start", 35, y+25, fmt.Sprintf("%s  %.0f %%", measure.Amps(math.Abs(g.Amps)), math.Abs(100*g.Lit)))
	c.Text(
		"t "+map[string]string{"ok": "soft", "heavy": "mark", "overloaded": "mark"}[g.State],
		"start",
		35,
		y+43,
		map[string]string{"ok": "80 % line kept", "heavy": "past the 80 % line", "overloaded": "OVERLOADED"}[g.State],
	)
	c.Done()
	h.children(d, 156, y)
	h.lane = math.Max(h.lane, y+70)
}

// firstRun is the run a supply feeds, through its fuse and switch, when it
// feeds only one.
func (h *harness) firstRun(d *plan.Device) *plan.Device {
	for n := 0; n < 10; n++ {
		k := h.kids[d.ID]
		if len(k) != 1 {
			return nil
		}
		if d = k[0]; d.Is(wiring.Wire) {
			return d
		}
	}
	return nil
}

// slides makes the next pick slide along a run: a lamp on it, or its feed.
func (h *harness) slides(run *plan.Device, at float64) { h.slidesAs(run, run.ID, at) }

func (h *harness) slidesAs(run *plan.Device, id string, at float64) {
	if h.href == nil || h.st.Hidden || run.Length.Value() <= 0 {
		return
	}
	l := math.Max(run.Length.Value()*h.scale, 60)
	h.c.move = fmt.Sprintf(
		` data-slide="%s" data-at="%s" data-per="%s" data-long="%s"`,
		esc(id),
		n(at),
		strconv.FormatFloat(run.Length.Value()/l, 'f', 4, 64),
		n(run.Length.Value()),
	)
}

// children places what a device feeds: the first goes on in its lane, others
// get lanes below.
func (h *harness) children(d *plan.Device, x, y float64) {
	first := true
	for _, k := range h.kids[d.ID] {
		if first {
			h.chain(k, x, y)
			first = false
			continue
		}
		h.branch(d, k, x, y)
	}
}

// goOn continues a lane behind what was drawn up to x, which reaches so far
// below y.
func (h *harness) goOn(d *plan.Device, x, y, below float64) {
	h.far, h.lane = math.Max(h.far, x), math.Max(h.lane, y+below)
	h.children(d, x, y)
}

// branch drops from (x, y) into a new lane.
func (h *harness) branch(_, k *plan.Device, x, y float64) {
	lane := math.Max(h.lane, y+60) + 66
	h.wire(h.rail(k), XY{x + 6, y}, XY{x + 6, lane}, XY{x + 26, lane})
	h.c.f(`<circle class="splice" cx="%s" cy="%s" r="4"/>`, n(x+6), n(y))
	h.lane = lane
	h.chain(k, x+26, lane)
}

// rail is the line pattern of the supply that feeds a device.
func (h *harness) rail(d *plan.Device) string {
	s := h.w.Device(h.w.Rig().Supply(d.ID))
	if s == nil {
		return "rail r-none"
	}
	switch v, _ := wiring.SupplyOf(s, h.w.Lib); {
	case v <= 6:
		return "rail r-5"
	case v > 20:
		return "rail r-24"
	}
	return "rail r-12"
}

// wire draws a line in its rail's pattern: 12 V solid with a light core.
func (h *harness) wire(rail string, p ...XY) {
	h.c.Open(rail, p)
	if rail == "rail r-12" || rail == "rail r-12 lead" {
		h.c.Open("core", p)
	}
}

// chain draws one device from (x, y) to the right and goes on.
func (h *harness) chain(d *plan.Device, x, y float64) {
	rail := h.rail(d)
	switch {
	case d.Is(wiring.Fuse):
		h.wire(rail, XY{x, y}, XY{x + 22, y})
		h.fuse(d, x, y)
		h.goOn(d, x+68, y, 30)
	case d.Is(wiring.Switch):
		h.wire(rail, XY{x, y}, XY{x + 20, y})
		h.contact(d, x, y)
		h.goOn(d, x+74, y, 36)
	case d.Is(wiring.Connector):
		h.wire(rail, XY{x, y}, XY{x + 20, y})
		h.plug(d, x, y)
		h.goOn(d, x+58, y, 30)
	case d.Is(wiring.Controller):
		h.wire(rail, XY{x, y}, XY{x + 20, y})
		h.board(d, x, y)
		h.goOn(d, x+108, y, 30)
	case d.Is(wiring.Converter):
		in := "rail r-12"
		if up := h.w.Device(d.From); up != nil {
			in = h.rail(up)
		}
		h.wire(in, XY{x, y}, XY{x + 22, y})
		h.converter(d, x, y)
		h.goOn(d, x+96, y, 42)
	case d.Is(wiring.Wire):
		h.run(d, x, y, rail)
	case d.Is(wiring.Load):
		if h.band(d) {
			h.strip(d, x, y, rail)
			return
		}
		h.wire(rail, XY{x, y}, XY{x + 36, y})
		h.lamp(d, x+54, y-13, x+54, y, true)
		h.far = math.Max(h.far, x+90)
		h.lane = math.Max(h.lane, y+40)
	case d.Is(wiring.Origin):
		h.root(d)
	}
}

func (h *harness) fuse(d *plan.Device, x, y float64) {
	h.pick(d, "")
	h.c.f(
		`<rect class="box" x="%s" y="%s" width="46" height="24" rx="12"/><path class="wave" d="M%s %sq7 -9 14 0t14 0"/>`,
		n(x+22),
		n(y-12),
		n(x+31),
		n(y),
	)
	h.c.Text("t lbl", "middle", x+45, y-18, h.w.Flag(d.ID)+"  "+d.Rating.String())
	h.c.Done()
}

// contact is a switch, open or closed.
func (h *harness) contact(d *plan.Device, x, y float64) {
	c, closed := h.c, h.st.Readings[d.ID].Volts > 0.5
	h.pick(d, "")
	c.Rect("box", x+20, y-15, 54, 30)
	c.f(
		`<circle class="pin" cx="%s" cy="%s" r="3"/><circle class="pin" cx="%s" cy="%s" r="3"/>`,
		n(x+31),
		n(y+2),
		n(x+63),
		n(y+2),
	)
	if closed {
		c.Line("blade", x+31, y+2, x+63, y+2)
	} else {
		c.Line("blade", x+31, y+2, x+58, y-11)
	}
	c.Text("t lbl", "middle", x+47, y-21, h.w.Flag(d.ID))
	c.Text("t", "middle", x+47, y+30, map[bool]string{true: "on", false: "off"}[closed])
	c.Done()
}

func (h *harness) plug(d *plan.Device, x, y float64) {
	c := h.c
	h.pick(d, "")
	c.Rect("box", x+20, y-11, 18, 22)
	c.Rect("box", x+38, y-8, 20, 16)
	c.Line("wave", x+31, y-4, x+47, y-4)
	c.Line("wave", x+31, y+4, x+47, y+4)
	c.Text("t lbl", "middle", x+39, y-17, h.w.Flag(d.ID))
	c.Done()
}

// board is a controller with its pins.
func (h *harness) board(d *plan.Device, x, y float64) {
	c := h.c
	h.pick(d, "")
	c.Rect("box", x+20, y-19, 88, 38)
	for k := range 5 {
		c.Rect("pin", x+30+float64(k)*16, y-23, 6, 5)
	}
	c.Text("t lbl", "middle", x+64, y-1, h.w.Flag(d.ID))
	text := measure.Volts(d.Logic.Or(wiring.ControllerLogic)) + " pins"
	if h.st.Readings[d.ID].State == "starved" {
		text = "STARVED"
	}
	c.Text("t", "middle", x+64, y+14, text)
	c.Done()
}

func (h *harness) converter(d *plan.Device, x, y float64) {
	c, g := h.c, h.st.Readings[d.ID]
	v, a := wiring.SupplyOf(d, h.w.Lib)
	h.pick(d, "")
	c.Rect("box", x+22, y-20, 74, 40)
	c.Open("wave", []XY{{x + 30, y - 8}, {x + 52, y - 8}, {x + 52, y + 10}, {x + 88, y + 10}})
	c.Text("t lbl", "middle", x+59, y-26, h.w.Flag(d.ID)+"  "+measure.Volts(v))
	text := measure.Amps(g.Amps) + " of " + measure.Amps(a)
	if g.State == "starved" {
		text = "STARVED"
	} else if h.st.Hidden {
		text = ""
	}
	c.Text("t", "middle", x+59, y+35, text)
	c.Done()
}

// run draws a run with its taps.
func (h *harness) run(d *plan.Device, x, y float64, rail string) {
	c, g := h.c, h.st.Readings[d.ID]
	r := &runPen{harness: h, d: d, x: x, y: y, l: math.Max(d.Length.Value()*h.scale, 60), rail: rail}
	h.pick(
		d,
		fmt.Sprintf("%s, %s, %s", d.Gauge, measure.Run(d.Length.Value(), h.w.Plan.Metric()), measure.Amps(g.Amps)),
	)
	h.wire(rail, XY{x, y}, XY{x + r.l, y})
	c.Rect("touch", x, y-8, r.l, 16)
	c.Done()
	label, hot := r.heat()
	r.ends()
	lamps := r.taps()
	below := r.named(label, hot, lamps)
	rest := r.hang()
	h.ruler(d, x, y, r.l)
	h.far = math.Max(h.far, x+r.l)
	if lamps > 0 {
		h.lane = math.Max(h.lane, math.Max(y+126, below+22))
	} else {
		h.lane = math.Max(h.lane, math.Max(y+44, below+22))
	}
	straight := true
	for _, k := range rest {
		kx := r.px(k.At)
		if straight && r.atEnd(kx) {
			h.chain(k, kx, y)
			straight = false
			continue
		}
		h.branch(d, k, kx-6, y)
	}
}

// runPen draws a run with what hangs on it.
type runPen struct {
	*harness
	d       *plan.Device
	x, y, l float64
	rail    string
	goesOn  bool // something goes on at its end
}

// px is where a place of it is.
func (r *runPen) px(at measure.Length) float64 {
	return r.x + at.Or(r.d.Length.Value())/r.d.Length.Value()*r.l
}

func (r *runPen) atEnd(px float64) bool { return math.Abs(px-(r.x+r.l)) < 1 }

// heat draws that it carries too much, or nearly; it returns the label, which says so.
func (r *runPen) heat() (label string, hot bool) {
	d, g, carry := r.d, r.st.Readings[r.d.ID], stock.Ampacity(r.d.Gauge.Value())
	hot = g.Amps > carry
	label = fmt.Sprintf("%s  %s  %s", r.w.Flag(d.ID), d.Gauge, measure.Run(d.Length.Value(), r.w.Plan.Metric()))
	if !r.st.Hidden {
		label += fmt.Sprintf(", %s of %s", measure.Amps(g.Amps), measure.Amps(carry))
	}
	if hot { // by shape and word, not by colour alone
		label += ", TOO MUCH"
		var zig []XY
		for k := 0.0; k <= r.l; k += 8 {
			zig = append(zig, XY{r.x + k, r.y + 5 + 4*math.Mod(k/8, 2)})
		}
		r.c.Open("hot", zig)
	} else if g.Amps > nearLimit*carry && !r.st.Hidden {
		label += ", near its limit"
		for k := 6.0; k < r.l; k += 12 { // heat rises off it
			x, y := r.x+k, r.y
			r.c.Open("warm", []XY{{x, y - 5}, {x + 3, y - 8}, {x, y - 11}, {x + 3, y - 14}})
		}
	}
	return label, hot
}

// ends draws where it is fed, when that is not its start, and where its far end leads.
func (r *runPen) ends() {
	d, x, y, l := r.d, r.x, r.y, r.l
	if at := d.FedAt.Value(); at > 0 {
		fx := x + at/d.Length.Value()*l
		r.wire(r.rail+" faint", XY{x, y}, XY{x, y + 22}, XY{fx, y + 22}, XY{fx, y})
		r.feed(d, fx, y)
		r.c.Text("t", "end", fx-8, y+36, "fed at "+d.FedAt.String())
	} else if up := r.w.Device(d.From); len(r.kids[d.ID]) > 2 && up != nil && up.Is(wiring.Wire) {
		r.feed(d, x, y)
	}
	if d.To != "" {
		r.c.Open("rail "+r.rail[5:]+" faint", []XY{{x + l, y}, {x + l + 16, y}, {x + l + 16, y + 26}})
		r.c.Text("t", "middle", x+l, y+42, "far end to "+r.w.Flag(d.To))
	}
}

// taps counts the lamps that hang on it, and sees whether something goes on at its end.
func (r *runPen) taps() (lamps int) {
	for _, k := range r.kids[r.d.ID] {
		end := r.atEnd(r.px(k.At))
		if k.Is(wiring.Load) && !(r.band(k) && end) {
			lamps++
		} else {
			r.goesOn = r.goesOn || end
		}
	}
	return lamps
}

// named writes its label, clear of lamps; it returns where the label is.
func (r *runPen) named(label string, hot bool, lamps int) (below float64) {
	c, d := r.c, r.d
	below = r.y
	if lamps > 6 || lamps > 1 && 7*float64(len(label)) > r.l || lamps > 0 && r.goesOn {
		below = r.y + 98
	}
	if 7*float64(len(label)) <= r.l {
		c.Text(map[bool]string{true: "t bad", false: "t lbl"}[hot], "start", r.x+8, below+20, label)
		return below
	}
	// one thing a line
	lines := []string{
		fmt.Sprintf("%s  %s", r.w.Flag(d.ID), d.Gauge),
		measure.Run(d.Length.Value(), r.w.Plan.Metric()),
	}
	if !r.st.Hidden {
		amps := measure.Amps(r.st.Readings[d.ID].Amps)
		lines = append(lines, map[bool]string{true: "TOO MUCH, ", false: ""}[hot]+amps)
	}
	for i, t := range lines {
		c.Text(
			map[bool]string{true: "t bad", false: "t"}[hot && i == 2],
			"middle",
			r.x+r.l/2,
			below+18+15*float64(i),
			t,
		)
	}
	return below + 30
}

// hang draws the lamps, above and below by turns; it returns what else hangs there.
func (r *runPen) hang() (rest []*plan.Device) {
	next := true
	used := map[bool]map[int]int{true: {}, false: {}} // lamps on each side of a place
	for _, k := range r.kids[r.d.ID] {
		kx := r.px(k.At)
		end := r.atEnd(kx)
		if !k.Is(wiring.Load) || r.band(k) && end {
			rest = append(rest, k)
			continue
		}
		up := next && !(r.goesOn && end)         // what goes on begins above
		lx := kx + 40*float64(used[up][int(kx)]) // several at one place fan out
		if r.goesOn && end {                     // and at its end back along the run, clear of what goes on
			lx = kx - 40*float64(used[up][int(kx)]+1)
		}
		used[up][int(kx)]++
		ky := r.y - 62
		if !up {
			ky = r.y + 44
		}
		r.c.Line(r.harness.rail(k)+" lead", kx, r.y, lx, ky+map[bool]float64{true: 22, false: 0}[up])
		r.c.f(`<circle class="splice" cx="%s" cy="%s" r="4.5"/>`, n(kx), n(r.y))
		r.slidesAs(r.d, k.ID, k.At.Or(r.d.Length.Value()))
		r.lamp(k, lx, ky, lx, ky, up)
		r.c.move = ""
		next = !up
		r.far = math.Max(r.far, lx)
	}
	return rest
}

// nearLimit is the share of what a wire may carry from which it is drawn warm.
const nearLimit = 0.8

// ruler marks along a run where another per cent of the supply's volts is lost,
// in red from the drop budget on.
func (h *harness) ruler(d *plan.Device, x, y, l float64) {
	s := h.w.Device(h.w.Rig().Supply(d.ID))
	if h.st.Hidden || s == nil || d.Length.Value() <= 0 {
		return
	}
	rated, _ := wiring.SupplyOf(s, h.w.Lib)
	at, v := h.w.Rig().Profile(h.st, d.ID)
	last := -100.0
	for i := 1; i < len(at); i++ {
		a, b := 100*(rated-v[i-1])/rated, 100*(rated-v[i])/rated
		for pc := math.Floor(math.Min(a, b)) + 1; pc <= math.Max(a, b) && pc <= 40; pc++ {
			tx := x + (at[i-1]+(pc-a)/(b-a)*(at[i]-at[i-1]))/d.Length.Value()*l
			class, text := "droptick", "t soft"
			if pc >= 100*circuit.DropBudget {
				class, text = "droptick past3", "t bad"
			}
			h.c.Line(class, tx, y-3, tx, y-12)
			if math.Abs(tx-last) > 34 && tx < x+l-8 {
				h.c.Text(text+" halo", "start", tx+3, y-8, fmt.Sprintf("-%.0f %%", pc))
				h.c.Text(text, "start", tx+3, y-8, fmt.Sprintf("-%.0f %%", pc))
				last = tx
			}
		}
	}
}

// band reports whether a lamp is a strip, drawn as one.
func (h *harness) band(d *plan.Device) bool {
	k := h.w.Lib.Lamps[d.Product].Kind
	return d.Is(wiring.Load) && (k == "strip" || k == "pixels")
}

// strip draws a strip as a band of its cells, its feeds where they are joined,
// what it sees at its start, its worst and its end, and where its data comes from.
func (h *harness) strip(d *plan.Device, x, y float64, rail string) {
	c, g := h.c, h.st.Readings[d.ID]
	bx, by := x+66, y-12
	feeds, _ := wiring.ParseFeeds(d.Feeds)
	px := func(f float64) float64 { return bx + f*stripWide }
	h.wire(rail, XY{x, y}, XY{x + 20, y})
	for i, f := range feeds { // each feed's own pair, below the strip
		if f == 0 {
			h.wire(rail+" lead", XY{x + 20, y}, XY{bx, y})
			continue
		}
		fy := by + stripHigh + 14 + 9*float64(i)
		h.wire(rail+" lead", XY{x + 20, y}, XY{x + 20, fy}, XY{px(f), fy}, XY{px(f), by + stripHigh})
	}
	text := fmt.Sprintf("%.2f", g.Volts)
	if g.State != "lit" {
		text = g.State
	}
	h.pick(d, text)
	if g.State == "lit" || g.State == "dim" {
		c.f(`<rect class="glow g-%s" x="%s" y="%s" width="%s" height="%s" rx="16"/>`, g.State, n(bx-8), n(by-8),
			n(stripWide+16), n(stripHigh+16))
	}
	c.f(
		`<rect class="lampbox l-%s" x="%s" y="%s" width="%s" height="%s" rx="2"/>`,
		g.State,
		n(bx),
		n(by),
		n(stripWide),
		n(stripHigh),
	)
	cells := min(wiring.Segments(d, h.w.Lib), 36)
	for i := range cells {
		c.f(
			`<rect class="cell" x="%s" y="%s" width="4" height="10"/>`,
			n(px((float64(i)+.5)/float64(cells))-2),
			n(by+7),
		)
	}
	for _, f := range feeds {
		c.f(`<circle class="splice" cx="%s" cy="%s" r="5"/>`, n(px(f)), n(by+stripHigh))
	}
	if len(h.st.Readings) > 0 && !h.st.Hidden && h.st.Solution != nil && h.st.Solution == h.w.All().Solution {
		h.stripVolts(d, by, px)
	} else {
		c.f(`<text class="t" text-anchor="middle" x="%s" y="%s" data-volts="%s">%s</text>`, n(px(0)+14), n(by-12), esc(d.ID),
			esc(text))
	}
	c.Rect("touch", bx, by-6, stripWide, stripHigh+12)
	c.Done()
	ty := by + stripHigh + 20 + 9*float64(len(feeds))
	h.stripNames(d, bx, ty)
	h.far = math.Max(h.far, bx+stripWide+20)
	h.lane = math.Max(h.lane, ty+32)
}

const stripWide, stripHigh = 330.0, 24.0

// stripVolts are what a strip sees at its ends, and at its worst where that lies between.
func (h *harness) stripVolts(d *plan.Device, by float64, px func(float64) float64) {
	v := h.w.Rig().StripVolts(h.st, d.ID)
	worst := 0
	for i := range v {
		if v[i] < v[worst] {
			worst = i
		}
	}
	marks := []int{0, len(v) - 1}
	if at := float64(worst) / float64(len(v)); at > .14 && at < .86 {
		marks = append(marks, worst)
	}
	for _, i := range marks {
		class := "t"
		if h.st.Readings[d.ID].State != "lit" {
			class = "t bad"
		}
		ax := px((float64(i) + .5) / float64(len(v)))
		h.c.Line("tick", ax, by-2, ax, by-8)
		h.c.f(
			`<text class="%s" text-anchor="middle" x="%s" y="%s"%s>%.2f</text>`,
			class,
			n(ax),
			n(by-12),
			map[bool]string{true: fmt.Sprintf(` data-volts="%s"`, esc(d.ID)), false: ""}[i == 0],
			v[i],
		)
	}
}

// stripNames are a strip's name, how many pixels it has, and where its data comes from.
func (h *harness) stripNames(d *plan.Device, bx, ty float64) {
	c, pixels := h.c, h.w.Lib.Lamps[d.Product].Kind == "pixels"
	label := fmt.Sprintf("%s  %s", d.Name, d.Length)
	if pixels {
		label += fmt.Sprintf(", %d pixels", wiring.Segments(d, h.w.Lib))
		if d.Bright > 0 {
			label += fmt.Sprintf(" held to %d %%", d.Bright)
		}
	}
	c.Text("t lbl", "start", bx+8, ty+6, label)
	if from := h.w.Device(d.Data); from != nil { // the data and which way it runs
		say := "data from " + h.w.Flag(from.ID)
		if from.Is(wiring.Controller) {
			say += fmt.Sprintf(" pin %d", max(1, d.Pin))
		}
		c.Text("t", "start", bx+8, ty+23, say)
		c.f(`<path class="arrowline" d="M%s %sh%sm-9 -6l9 6l-9 6"/>`, n(bx+190), n(ty+19), n(stripWide-190))
	} else if pixels {
		c.Text("t bad", "start", bx+8, ty+23, "no data yet")
	}
}

// feed is the grip at the place where a run is fed.
func (h *harness) feed(d *plan.Device, x, y float64) {
	if h.slides(d, d.FedAt.Value()); h.c.move == "" {
		return
	}
	h.c.f(
		`<a class="pick" href="%s" aria-label="%s"%s>`,
		esc(h.href("device:"+d.ID)),
		esc(d.Name+" is fed here; it slides along the run"),
		h.c.move,
	)
	h.c.f(`<path class="lampbox feedgrip" d="M%s %sl8 8l-8 8l-8 -8z"/>`, n(x), n(y-8))
	h.c.Rect("touch", x-12, y-12, 24, 24)
	h.c.Done()
	h.c.move = ""
}

// moving are the bodies of loads that are no lamps, drawn round their middle: a
// motor's round case with its shaft, a servo's box with its horn, a coil, a
// screen, a loudspeaker.
var moving = map[string]string{
	"motor":     "m-11 0a11 11 0 1 0 22 0a11 11 0 1 0 -22 0m22 0h7m0 -4v8",
	"servo":     "m-13 -7h26v14h-26zm17 0v-6m-5 0h10",
	"coil":      "m-13 -8h26v16h-26zm3 16l5 -16m0 16l5 -16m0 16l5 -16",
	"power":     "m-14 -10h28v18h-28zm9 18v4m10 -4v4m-14 0h18",
	"sensor":    "m-10 8v-10a10 10 0 0 1 20 0v10zm4 -10a6 6 0 0 1 12 0",
	"amplifier": "m-12 -5h8l10 -7v24l-10 -7h-8zm22 0q5 5 0 10",
}

// stateWord says a load's state in words that fit it.
func stateWord(kind, state string) string {
	w := map[string]map[string]string{
		"motor": {"dim": "slow", "dark": "stands", "reversed": "backwards"}, "servo": {"dim": "slow", "dark": "stands"},
		"coil": {"dim": "weak", "dark": "off"}, "power": {"dim": "low", "dark": "off"},
		"amplifier": {"dim": "low", "dark": "off"}, "sensor": {"dim": "low", "dark": "blind"},
	}[kind][state]
	if w == "" {
		return state
	}
	return w
}

// lamp draws a lamp as a jar, a strip or a bulb, its state by shape and text.
func (h *harness) lamp(d *plan.Device, x, y, _, _ float64, above bool) {
	c, g := h.c, h.st.Readings[d.ID]
	l := h.w.Lib.Lamps[d.Product]
	text, class, off := fmt.Sprintf("%.2f", g.Volts), "t", 0.0
	if g.State != "lit" {
		text, class, off = stateWord(l.Kind, g.State), "t bad", 15
	} else if h.st.Hidden {
		text = "lit"
	}
	h.pick(d, text)
	if _, works := moving[l.Kind]; !works && (g.State == "lit" || g.State == "dim") {
		c.f(`<circle class="glow g-%s" cx="%s" cy="%s" r="19"/>`, g.State, n(x), n(y+11))
	}
	switch l.Kind {
	case "strip", "pixels":
		c.f(`<rect class="lampbox l-%s" x="%s" y="%s" width="34" height="16" rx="2"/>`, g.State, n(x-17), n(y+3))
		for i := range 4 {
			c.f(`<rect class="cell" x="%s" y="%s" width="5" height="6"/>`, n(x-14+float64(i)*8), n(y+8))
		}
	case "motor", "servo", "coil", "power", "amplifier", "sensor":
		c.f(`<path class="lampbox w-%s" d="M%s %s%s"/>`, g.State, n(x), n(y+12), moving[l.Kind])
	default:
		c.f(
			`<path class="lampbox l-%s" d="M%s %sh12v4l4 4v13q0 3 -3 3h-14q-3 0 -3 -3v-13l4 -4z"/>`,
			g.State,
			n(x-6),
			n(y),
		)
	}
	switch g.State {
	case "reversed", "dark", "unfed":
		c.f(`<path class="cross" d="M%s %sl8 8m0 -8l-8 8"/>`, n(x-4), n(y+11))
	case "over":
		c.f(`<path class="cross" d="M%s %sv7m0 3v1.5"/>`, n(x), n(y+9))
	default:
		if _, works := moving[l.Kind]; works {
			break
		}
		c.f(`<path class="flame" d="M%s %sq4 5 0 8q-4 -3 0 -8z"/>`, n(x), n(y+10))
	}
	ty := y - 5 - off
	if !above {
		ty = y + 38 + off
	}
	c.f(
		`<text class="%s" text-anchor="middle" x="%s" y="%s" data-volts="%s">%s</text>`,
		class,
		n(x),
		n(ty),
		esc(d.ID),
		esc(text),
	)
	c.Rect("touch", x-14, y-16, 28, 56)
	c.Done()
}

// Profile draws volts all the way from the supply to a device, with the budget
// lines and where each device on the way begins.
func Profile(w *work.Work, st *wiring.State, id string) string {
	d := w.Device(id)
	way := w.Rig().PathTo(st, id)
	s := w.Device(w.Rig().Supply(id))
	if d == nil || s == nil || len(way) < 2 || way[len(way)-1].At <= 0 {
		return ""
	}
	rated, _ := wiring.SupplyOf(s, w.Lib)
	if s.Is(wiring.Converter) { // judged by its own volts, so the way begins at it
		for i, p := range way {
			if p.Name == s.ID {
				way = way[i:]
				break
			}
		}
	}
	start, long := way[0].At, way[len(way)-1].At-way[0].At
	if long <= 0 {
		return ""
	}
	c := New(986, 150, w.Plan.Metric())
	p := profile{c: c, x0: 64, x1: 960, y0: 26, y1: 108, start: start, long: long,
		low: rated * (1 - 1.3*circuit.DropBudget), high: rated}
	for _, q := range way {
		p.low, p.high = math.Min(p.low, q.Volts), math.Max(p.high, q.Volts)
	}
	p.low = math.Floor(p.low*20) / 20
	c.Text("t lbl", "start", 20, 16, "Volts from "+s.ID+" to "+d.Name)
	c.Rect("panel", p.x0, p.y0, p.x1-p.x0, p.y1-p.y0)
	p.limits(rated)
	p.way(way)
	c.Text("t", "end", p.x0-6, p.y0+6, measure.Volts(p.high))
	c.Text("t", "end", p.x0-6, p.y1+2, measure.Volts(p.low))
	for i := 0; i <= 6; i++ {
		k := float64(i) / 6
		c.Text("t", "middle", p.x0+k*(p.x1-p.x0), p.y1+18, measure.Run(k*long, c.Metric))
	}
	return c.SVG(
		"volts",
		"Volts from "+s.Name+" to "+d.Name,
		fmt.Sprintf(
			"From %s at the supply to %s at its end.",
			measure.Volts(way[0].Volts),
			measure.Volts(way[len(way)-1].Volts),
		),
	)
}

// profile is a drawing of volts along a way: its frame, and what that stands for.
type profile struct {
	c              *Canvas
	x0, x1, y0, y1 float64
	start, long    float64 // mm
	low, high      float64 // V
}

func (p profile) x(at float64) float64 { return p.x0 + (at-p.start)/p.long*(p.x1-p.x0) }
func (p profile) y(v float64) float64  { return p.y0 + (p.high-v)/(p.high-p.low)*(p.y1-p.y0) }

// limits are the lines that volts should not fall below.
func (p profile) limits(rated float64) {
	c, budget, hard := p.c, rated*(1-circuit.DropBudget), rated*(1-circuit.DropLimit)
	c.Rect("past", p.x0, p.y(budget), p.x1-p.x0, p.y1-p.y(budget))
	c.Line("budget", p.x0, p.y(budget), p.x1, p.y(budget))
	three := "3 % line " + measure.Volts(budget)
	if hard > p.low {
		c.Line("budget", p.x0, p.y(hard), p.x1, p.y(hard))
	}
	switch {
	case hard <= p.low:
		c.Text("t", "end", p.x1-6, p.y(budget)-4, three)
	case p.y(hard)-p.y(budget) > 16 && p.y(budget)-p.y0 > 14:
		c.Text("t", "end", p.x1-6, p.y(budget)-4, three)
		c.Text("t", "end", p.x1-6, p.y(hard)-4, "10 % limit")
	default: // too near each other: both under them, side by side
		c.Text("t", "end", p.x1-6, p.y(hard)+13, three+", 10 % limit "+measure.Volts(hard))
	}
}

// way is the line of the volts, and where each device begins.
func (p profile) way(way []wiring.Along) {
	var ps []XY
	for _, q := range way {
		ps = append(ps, XY{p.x(q.At), p.y(q.Volts)})
	}
	p.c.Open("profile", ps)
	last := -100.0
	for i, q := range way {
		if i == 0 || q.At-way[i-1].At > p.long/200 || q.Name != "" {
			p.c.f(`<circle class="bead" cx="%s" cy="%s" r="3"/>`, n(ps[i].X), n(ps[i].Y))
		}
		if q.Name != "" && i > 0 && ps[i].X > p.x0+26 && ps[i].X < p.x1-60 && ps[i].X-last > 34 {
			p.c.Line("tick", ps[i].X, p.y1-5, ps[i].X, p.y1)
			p.c.Text("t soft", "start", ps[i].X+3, p.y1-5, q.Name)
			last = ps[i].X
		}
	}
}

package draw

import (
	"fmt"
	"math"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/source"
	"zapbarn/core/wiring"
	"zapbarn/core/work"
)

// Power draws where the display's power comes from: each mains outlet as a
// trough filled by what is plugged in, with the line that a night's load must
// stay under; each battery as hours against the night.
func Power(w *work.Work, sel string, href func(string) string) string {
	c := &powerPen{New(986, 0, w.Plan.Metric()), w, sel, href}
	y := 34.0
	for i := range w.Plan.Outlets() {
		y = c.outlet(&w.Plan.Outlets()[i], y)
	}
	y = c.unplugged(w, y, powerFrom, sel, href)
	for i := range w.Plan.Devices() {
		if d := &w.Plan.Devices()[i]; d.Is(wiring.Origin) && d.Cell != "" {
			c.battery(d, y)
			y += 70
		}
	}
	if y == 34 {
		c.Text("t soft", "middle", 493, 90,
			"No outlet and no battery yet. Type outlet porch 15a 120v guarded, or battery 4 aa, in the quick line.")
		y = 150
	}
	c.H = y
	return c.SVG(
		"power",
		"Where the power comes from",
		fmt.Sprintf("%d outlets and the batteries, with their loads.", len(w.Plan.Outlets())),
	)
}

// powerPen draws outlets and batteries with their loads as bars, from powerFrom on.
type powerPen struct {
	*Canvas
	w    *work.Work
	sel  string
	href func(string) string
}

const powerFrom, powerWide = 240.0, 530.0

func (c *powerPen) pick(key, says string) { c.Pick(c.href(key), key, says, key == c.sel) }

// outlet draws an outlet, and what hangs on it side by side; it returns where the next begins.
func (c *powerPen) outlet(o *plan.Outlet, y float64) float64 {
	loads := c.w.OnOutlet(o.ID)
	limit, total := c.w.OutletLimit(o), 0.0
	for _, l := range loads {
		total += l.Watts / o.Volts.Value()
	}
	full := math.Max(o.Breaker.Value(), total)
	wide := func(l work.MainsLoad) float64 { return l.Watts / o.Volts.Value() / full * powerWide }
	c.f(`<rect class="outletzone" data-outlet="%s" x="24" y="%s" width="%s" height="76"/>`, esc(o.ID), n(y-18),
		n(powerFrom+powerWide-24))
	c.socket(o, y)
	c.Rect("trough", powerFrom, y, powerWide, 40)
	x := powerFrom
	for _, l := range loads {
		key, lw := l.Kind+":"+l.ID, wide(l)
		c.load(key, o.ID)
		c.pick(key, l.Name+", "+measure.Watts(l.Watts))
		class := "box fillload"
		if l.Heater {
			class = "box fillheat"
		}
		c.Rect(class, x, y, math.Max(lw, 3), 40)
		if lw > float64(len(l.Name))*7 {
			c.Text("t", "middle", x+lw/2, y+25, l.Name)
		}
		c.Done()
		c.move = ""
		x += math.Max(lw, 3)
	}
	at := powerFrom + limit/full*powerWide
	c.Line("limit", at, y-6, at, y+46)
	c.Text("t", "end", at-4, y-6, "a night's limit "+measure.Amps(limit))
	c.Text("t lbl", "start", powerFrom+powerWide+16, y+16, c.w.Results().At("outlet", o.ID, "amps").Text)
	c.Text("t soft", "start", powerFrom+powerWide+16, y+34, c.w.Results().At("outlet", o.ID, "energy").Text+" a night")
	y += 58
	for _, l := range loads { // those too narrow for their names
		if key := l.Kind + ":" + l.ID; wide(l) <= float64(len(l.Name))*7 {
			c.load(key, o.ID)
			c.pick(key, "")
			c.Rect("touch", powerFrom, y-9, 330, 18)
			c.Text("t", "start", powerFrom+8, y+6, l.Name+", "+measure.Watts(l.Watts))
			c.Done()
			c.move = ""
			y += 18
		}
	}
	if r, ok := c.w.Results().Get(source.KeyOf("outlet", o.ID, "cord")); ok {
		c.Text("t soft", "start", powerFrom+8, y+6, fmt.Sprintf("through %s of %s cord, %s lost", o.Cord, o.Gauge, r.Text))
		y += 18
	}
	return y + 34
}

// socket is an outlet itself.
func (c *powerPen) socket(o *plan.Outlet, y float64) {
	c.pick("outlet:"+o.ID, "")
	c.Rect("touch", 24, y-18, 176, 70)
	c.Rect("box", 30, y, 34, 40)
	for _, s := range []float64{41, 51} { // the two slots and the earth
		c.Line("wave", s, y+9, s, y+20)
	}
	c.f(`<circle class="wave" cx="46" cy="%s" r="3"/>`, n(y+29))
	c.Text("t lbl", "start", 74, y+12, o.Name)
	c.Text("t soft", "start", 74, y+28, fmt.Sprintf("%s, %s breaker", o.Volts, o.Breaker))
	guard := "no ground-fault protection"
	if o.Guard {
		guard = "ground-fault protected"
	}
	c.Text("t soft", "start", 74, y+44, guard)
	c.Done()
}

// battery draws how long a battery lasts against a night.
func (c *powerPen) battery(d *plan.Device, y float64) {
	_, hours, _ := c.w.Plan.Season()
	c.pick("device:"+d.ID, "")
	c.Rect("touch", 24, y-14, 176, 56)
	c.Rect("box", 30, y+4, 44, 22)
	c.Rect("box", 74, y+11, 5, 8)
	c.Text("t lbl", "start", 88, y+12, d.Name)
	c.Text("t soft", "start", 88, y+28, fmt.Sprintf("%d x %s", max(1, d.Cells)*max(1, d.Sets), d.Cell))
	c.Done()
	r, ok := c.w.Results().Get(source.KeyOf("device", d.ID, "hours"))
	if !ok {
		c.Text("t bad", "start", powerFrom, y+20, "cannot give that for any time worth telling")
		return
	}
	full := math.Max(hours*1.5, math.Min(r.Value, hours*6))
	night := powerFrom + hours/full*powerWide
	c.Rect("trough", powerFrom, y, powerWide, 30)
	c.Rect("box fillload", powerFrom, y, math.Min(1, r.Value/full)*powerWide, 30)
	c.Line("limit", night, y-6, night, y+36)
	c.Text("t", "start", night+5, y-4, fmt.Sprintf("a night, %g h", hours))
	c.Text("t lbl", "start", powerFrom+powerWide+16, y+12, r.Text+" a set")
	c.Text("t soft", "start", powerFrom+powerWide+16, y+28, c.w.Results().At("device", d.ID, "season").Text)
}

// load says of what is picked next that it can be dragged to another outlet.
func (c *Canvas) load(key, outlet string) {
	c.move = fmt.Sprintf(` data-load="%s" data-from="%s"`, esc(key), esc(outlet))
}

// unplugged lists the supplies that are plugged in nowhere, to be dragged to an outlet.
func (c *Canvas) unplugged(w *work.Work, y, x float64, sel string, href func(string) string) float64 {
	first := true
	for i := range w.Plan.Devices() {
		d := &w.Plan.Devices()[i]
		if !d.Is(wiring.Origin) || d.Cell != "" || d.Outlet != "" || len(w.Plan.Outlets()) == 0 {
			continue
		}
		if first {
			c.Text("t lbl", "start", 30, y+6, "Plugged in nowhere")
			first = false
		}
		key := "device:" + d.ID
		c.load(key, "")
		c.Pick(href(key), key, "", key == sel)
		c.Rect("touch", x, y-9, 330, 20)
		c.Text("t", "start", x+8, y+6, d.Name+": drag it to an outlet")
		c.Done()
		c.move = ""
		y += 24
	}
	if !first {
		y += 16
	}
	return y
}

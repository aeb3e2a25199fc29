package web

import (
	"fmt"
	"slices"
	"strings"

	"zapbarn/core/plan"
	"zapbarn/core/shorthand"
	"zapbarn/core/stock"
	"zapbarn/core/wiring"
	"zapbarn/core/work"

	"github.com/gin-gonic/gin"
)

// feeder is what a new device hangs on when none is said: the selected device
// where it can feed, or the last one of the open prop that can, a lamp's own
// feeder where a lamp is selected; "" when nothing feeds yet.
func (p *Page) feeder() string {
	can := func(d *plan.Device) bool { return d != nil && !d.Is(wiring.Load) }
	if _, id, ok := strings.Cut(p.Sel, "device:"); ok {
		d := p.Work.Device(id)
		if d != nil && !can(d) {
			d = p.Work.Device(d.From)
		}
		if can(d) {
			return d.ID
		}
	}
	last := ""
	for i := range p.Plan.Devices() {
		if d := &p.Plan.Devices()[i]; d.Prop == p.Prop && can(d) {
			last = d.ID
		}
	}
	return last
}

// Wires is the palette of the Loom: what is pressed hangs on the selected device.
func (p *Page) Wires() []Add {
	long, short := "12 ft", "1m"
	if p.Plan.Metric() {
		long = "3500 mm"
	}
	out := []Add{
		{"supply", "supply 12v 5a", "M4 7H26V21H4ZM8 21V24M22 21V24", "M10 14H14M12 12V16M17 14H21"},
		{"cells", "battery 8 aa", "M4 9H11V22H4ZM6 6H9V9H6ZM15 9H22V22H15ZM17 6H20V9H17Z", "M4 13H11M15 13H22"},
	}
	on := p.feeder()
	if on == "" {
		return out
	}
	return append(
		out,
		Add{"fuse", "fuse 3a on " + on, "M3 10H27V17H3Z", "M8 10V17M22 10V17M8 13.500H22"},
		Add{
			"switch",
			"switch on " + on,
			"M4 18a2 2 0 1 0 4 0a2 2 0 1 0 -4 0M22 18a2 2 0 1 0 4 0a2 2 0 1 0 -4 0",
			"M8 17L22 8",
		},
		Add{
			"driven",
			"driven switch on " + on,
			"M4 20a2 2 0 1 0 4 0a2 2 0 1 0 -4 0M22 20a2 2 0 1 0 4 0a2 2 0 1 0 -4 0",
			"M8 19L22 11M15 4V13M12 4H18",
		},
		Add{"run", "run 18awg " + long + " on " + on, "", "M2 11H28M2 16H28"},
		Add{"plug", "connector 5a on " + on, "M4 9H13V18H4ZM17 9H26V18H17Z", "M13 12H17M13 15H17"},
		Add{"step-down", "converter 5v 3a on " + on, "M4 7H26V20H4Z", "M8 11H13M18 16H23M13 11L18 16"},
		Add{"lamp", "lamp puck12 on " + on, "M11 24H19V20Q24 16 24 11a9 9 0 0 0 -18 0Q6 16 11 20Z", "M11 21H19"},
		Add{"strip", "strip " + short + " strip12 on " + on, "M2 9H28V17H2Z", "M6 11V15M11 11V15M16 11V15M21 11V15"},
		Add{
			"pixels",
			"pixels " + short + " 60/m 5v on " + on,
			"M2 9H28V17H2Z",
			"M5 11H9V15H5ZM13 11H17V15H13ZM21 11H25V15H21Z",
		},
		Add{"motor", "lamp motor12 on " + on, "M3 13a9 9 0 1 0 18 0a9 9 0 1 0 -18 0", "M21 13H27M27 9V17"},
		Add{"servo", "lamp servo5 on " + on, "M3 10H20V21H3Z", "M15 10V5H25"},
		Add{"coil", "lamp solenoid12 on " + on, "M4 8H22V20H4Z", "M8 20L12 8M13 20L17 8M22 14H28"},
		Add{"sensor", "lamp pir5 on " + on, "M6 21V12a9 9 0 0 1 18 0V21Z", "M10 12a5 5 0 0 1 10 0"},
		Add{"sound", "lamp amp12 on " + on, "M5 10H10L17 5V22L10 17H5Z", "M21 10q3 3.500 0 7M24 8q5 5.500 0 11"},
		Add{
			"brain",
			"controller 3.3v on " + on,
			"M8 5H22V22H8Z",
			"M4 9H8M4 13.500H8M4 18H8M22 9H26M22 13.500H26M22 18H26",
		},
	)
}

// Shows is the palette of the Rehearsal: an input and the scene it works.
func (p *Page) Shows() []Add {
	scene := "glow"
	for _, s := range p.Plan.Scenes() {
		if s.Prop == p.Prop {
			scene = s.Name
		}
	}
	return []Add{
		{"button", "button toggles " + scene, "M5 17H25V23H5ZM9 17V13a6 6 0 0 1 12 0V17Z", ""},
		{"mat", "mat runs " + scene, "M2 18L8 9H28L22 18Z", "M9 15L12 11M15 15L18 11M2 18V21H22"},
		{"beam", "beam runs " + scene, "M3 8H9V20H3ZM21 8H27V20H21Z", "M10 14H20"},
	}
}

// Mechanisms is the palette of what a motor moves: by the picked motor, or the first of
// the prop that moves nothing yet.
func (p *Page) Mechanisms() []Add {
	by := ""
	for i := range p.Plan.Devices() {
		d := &p.Plan.Devices()[i]
		moves := slices.ContainsFunc(p.Plan.Mechanisms(), func(m plan.Mechanism) bool { return m.Motor == d.ID })
		if d.Prop == p.Prop && d.Is(wiring.Load) && p.Work.Lib.Lamps[d.Product].Torque > 0 && !moves {
			by = " motor " + d.ID
			break
		}
	}
	return []Add{
		{"lid", "mechanism lid Lid" + by, "M4 21H26M5 21L24 8", "M16 21L20 16L15 14"},
		{"slide", "mechanism slide Riser" + by, "M9 21V10H21V21", "M11 10V5M15 10V3M19 10V5"},
		{"servo", "mechanism servo Jaw" + by, "M3 12H16V22H3Z", "M13 12L26 5"},
		{"winch", "mechanism winch Ghost" + by, "M6 8a4 4 0 1 0 8 0a4 4 0 1 0 -8 0M19 18H27V24H19Z", "M14 8H23V18"},
		{"turntable", "mechanism turntable Beacon" + by, "M3 15a12 6 0 1 0 24 0a12 6 0 1 0 -24 0", "M15 15L24 12"},
	}
}

// Parts are what two parts of a joint may be: every part of the open prop, and
// its solids whole.
func (p *Page) JoinParts() []Option { return partsOf(p.Work, p.Prop) }

// partsOf are a prop's solids, each followed by its parts.
func partsOf(w *work.Work, prop string) (out []Option) {
	for i := range w.Plan.Solids() {
		s := &w.Plan.Solids()[i]
		if s.Prop != prop {
			continue
		}
		out = append(out, Option{Value: s.ID, Text: s.Name + ", whole"})
		for _, part := range w.Parts() {
			if part.Solid.ID == s.ID {
				out = append(out, Option{Value: part.Ref, Text: part.Name()})
			}
		}
	}
	return out
}

// PropSolids are the solids of the open prop.
func (p *Page) PropSolids() (out []Option) {
	for _, s := range p.Plan.Solids() {
		if s.Prop == p.Prop {
			out = append(out, Option{Value: s.ID, Text: s.Name})
		}
	}
	return out
}

// GlueChoices and CoatChoices are what the shop has.
func (p *Page) GlueChoices() (out []Option) {
	for _, id := range stock.IDs(p.Work.Lib.Glues) {
		out = append(out, Option{Value: id, Text: p.Work.Lib.Glues[id].Name, On: id == "pu"}) // good for most foam
	}
	return out
}

// CoatChoices are the coats of the shop.
func (p *Page) CoatChoices() (out []Option) {
	for _, id := range stock.IDs(p.Work.Lib.Coats) {
		out = append(out, Option{Value: id, Text: p.Work.Lib.Coats[id].Name})
	}
	return out
}

// join makes a joint or a coat of what was chosen from lists: the phrase that says
// the same is read as if it had been typed.
func (s *Server) join(c *gin.Context) {
	line := ""
	switch a, b := c.PostForm("a"), c.PostForm("b"); {
	case c.PostForm("coat") != "":
		line = fmt.Sprintf("coat %s %s", c.PostForm("solid"), c.PostForm("coat"))
	case a == b && !strings.Contains(a, "/"):
		line = fmt.Sprintf("glue %s with %s", a, c.PostForm("glue"))
	default:
		line = fmt.Sprintf("glue %s to %s with %s", a, b, c.PostForm("glue"))
	}
	prop, r := c.PostForm("prop"), &shorthand.Reading{}
	_, err := s.store.Edit(c.Request.Context(), c.Param("plan"), editor(c), func(p *plan.Plan) (plan.Edit, error) {
		read, err := shorthand.Read(p, s.lib, prop, line)
		if err != nil {
			return plan.Edit{}, err
		}
		r = read
		return r.Edit, nil
	})
	if r.Select == "" && err != nil {
		s.refused(c, over{err: err.Error()})
		return
	}
	s.applied(c, err, over{}, "")
}

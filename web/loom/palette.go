package loom

import (
	"strings"

	"zapbarn/web/shell"

	"zapbarn/core/plan"
	"zapbarn/core/wiring"
)

// feeder is what a new device hangs on when none is said: the selected device
// where it can feed, or the last one of the open prop that can, a lamp's own
// feeder where a lamp is selected; "" when nothing feeds yet.
func (p *view) feeder() string {
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
func (p *view) Wires() []shell.Add {
	long, short := "12 ft", "1m"
	if p.Plan.Metric() {
		long = "3500 mm"
	}
	out := []shell.Add{
		shell.Press("supply", "supply 12v 5a", "M4 7H26V21H4ZM8 21V24M22 21V24", "M10 14H14M12 12V16M17 14H21"),
		shell.Press("cells", "battery 8 aa", "M4 9H11V22H4ZM6 6H9V9H6ZM15 9H22V22H15ZM17 6H20V9H17Z", "M4 13H11M15 13H22"),
	}
	on := p.feeder()
	if on == "" {
		return out
	}
	return append(
		out,
		shell.Press("fuse", "fuse 3a on "+on, "M3 10H27V17H3Z", "M8 10V17M22 10V17M8 13.500H22"),
		shell.Press("switch", "switch on "+on,
			"M4 18a2 2 0 1 0 4 0a2 2 0 1 0 -4 0M22 18a2 2 0 1 0 4 0a2 2 0 1 0 -4 0", "M8 17L22 8"),
		shell.Press("driven", "driven switch on "+on,
			"M4 20a2 2 0 1 0 4 0a2 2 0 1 0 -4 0M22 20a2 2 0 1 0 4 0a2 2 0 1 0 -4 0", "M8 19L22 11M15 4V13M12 4H18"),
		shell.Press("run", "run 18awg "+long+" on "+on, "", "M2 11H28M2 16H28"),
		shell.Press("plug", "connector 5a on "+on, "M4 9H13V18H4ZM17 9H26V18H17Z", "M13 12H17M13 15H17"),
		shell.Press("step-down", "converter 5v 3a on "+on, "M4 7H26V20H4Z", "M8 11H13M18 16H23M13 11L18 16"),
		shell.Press("lamp", "lamp puck12 on "+on, "M11 24H19V20Q24 16 24 11a9 9 0 0 0 -18 0Q6 16 11 20Z", "M11 21H19"),
		shell.Press("strip", "strip "+short+" strip12 on "+on, "M2 9H28V17H2Z", "M6 11V15M11 11V15M16 11V15M21 11V15"),
		shell.Press("pixels", "pixels "+short+" 60/m 5v on "+on, "M2 9H28V17H2Z",
			"M5 11H9V15H5ZM13 11H17V15H13ZM21 11H25V15H21Z"),
		shell.Press("motor", "lamp motor12 on "+on, "M3 13a9 9 0 1 0 18 0a9 9 0 1 0 -18 0", "M21 13H27M27 9V17"),
		shell.Press("servo", "lamp servo5 on "+on, "M3 10H20V21H3Z", "M15 10V5H25"),
		shell.Press("coil", "lamp solenoid12 on "+on, "M4 8H22V20H4Z", "M8 20L12 8M13 20L17 8M22 14H28"),
		shell.Press("sensor", "lamp pir5 on "+on, "M6 21V12a9 9 0 0 1 18 0V21Z", "M10 12a5 5 0 0 1 10 0"),
		shell.Press("sound", "lamp amp12 on "+on, "M5 10H10L17 5V22L10 17H5Z", "M21 10q3 3.500 0 7M24 8q5 5.500 0 11"),
		shell.Press("brain", "controller 3.3v on "+on, "M8 5H22V22H8Z",
			"M4 9H8M4 13.500H8M4 18H8M22 9H26M22 13.500H26M22 18H26"),
	)
}

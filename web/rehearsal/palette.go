package rehearsal

import (
	"slices"

	"zapbarn/web/shell"

	"zapbarn/core/plan"
	"zapbarn/core/wiring"
)

// Shows is the palette of the Rehearsal: an input and the scene it works.
func (p *view) Shows() []shell.Add {
	scene := "glow"
	for _, s := range p.Plan.Scenes() {
		if s.Prop == p.Prop {
			scene = s.Name
		}
	}
	return []shell.Add{
		shell.Press("button", "button toggles "+scene, "M5 17H25V23H5ZM9 17V13a6 6 0 0 1 12 0V17Z", ""),
		shell.Press("mat", "mat runs "+scene, "M2 18L8 9H28L22 18Z", "M9 15L12 11M15 15L18 11M2 18V21H22"),
		shell.Press("beam", "beam runs "+scene, "M3 8H9V20H3ZM21 8H27V20H21Z", "M10 14H20"),
	}
}

// Mechanisms is the palette of what a motor moves: by the picked motor, or the first of
// the prop that moves nothing yet.
func (p *view) Mechanisms() []shell.Add {
	by := ""
	for i := range p.Plan.Devices() {
		d := &p.Plan.Devices()[i]
		moves := slices.ContainsFunc(p.Plan.Mechanisms(), func(m plan.Mechanism) bool { return m.Motor == d.ID })
		if d.Prop == p.Prop && d.Is(wiring.Load) && p.Work.Lib.Lamps[d.Product].Torque > 0 && !moves {
			by = " motor " + d.ID
			break
		}
	}
	return []shell.Add{
		shell.Press("lid", "mechanism lid Lid"+by, "M4 21H26M5 21L24 8", "M16 21L20 16L15 14"),
		shell.Press("slide", "mechanism slide Riser"+by, "M9 21V10H21V21", "M11 10V5M15 10V3M19 10V5"),
		shell.Press("servo", "mechanism servo Jaw"+by, "M3 12H16V22H3Z", "M13 12L26 5"),
		shell.Press("winch", "mechanism winch Ghost"+by, "M6 8a4 4 0 1 0 8 0a4 4 0 1 0 -8 0M19 18H27V24H19Z",
			"M14 8H23V18"),
		shell.Press("turntable", "mechanism turntable Beacon"+by, "M3 15a12 6 0 1 0 24 0a12 6 0 1 0 -24 0", "M15 15L24 12"),
	}
}

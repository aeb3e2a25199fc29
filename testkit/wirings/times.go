package wirings

import (
	"fmt"
	"strings"

	"zapbarn/core/plan"
)

// Times is a plan with all its props, parts, joints, coats and wiring so many
// times: what a benchmark of a larger display works on.
func Times(p *plan.Plan, times int) *plan.Plan {
	out := p.Clone()
	for n := 1; n < times; n++ {
		ref := func(s string) string {
			if s == "" || strings.HasPrefix(s, "=") {
				return s
			}
			return fmt.Sprintf("x%d-%s", n, s)
		}
		for _, x := range p.Props() {
			x.ID = ref(x.ID)
			out.Doc().Props = append(out.Props(), x)
		}
		for _, x := range p.Solids() {
			x.ID, x.Prop = ref(x.ID), ref(x.Prop)
			out.Doc().Solids = append(out.Solids(), x)
		}
		for _, x := range p.Joints() {
			x.ID, x.Prop, x.A, x.B = ref(x.ID), ref(x.Prop), ref(x.A), ref(x.B)
			out.Doc().Joints = append(out.Joints(), x)
		}
		for _, x := range p.Finishes() {
			x.ID, x.Solid = ref(x.ID), ref(x.Solid)
			out.Doc().Finishes = append(out.Finishes(), x)
		}
		for _, x := range p.Devices() {
			x.ID, x.Prop, x.From, x.To, x.In, x.Data = ref(x.ID), ref(x.Prop), ref(x.From), ref(x.To), ref(x.In), ref(
				x.Data,
			)
			out.Doc().Devices = append(out.Devices(), x)
		}
	}
	return out
}

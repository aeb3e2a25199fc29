package work

import "zapbarn/core/plan"

// StageOf is how far a prop has come: as its builder says, or as what is done to
// it shows. One that lacks sizes is an idea; one whose every sheet is cut, is cut;
// what comes after is said by hand.
func (w *Work) StageOf(p *plan.Prop) plan.Stage {
	if p.Stage != "" {
		return plan.StageNamed(p.Stage)
	}
	return Derive(w, "stages of props", (*Work).stagesShown)[p.ID]
}

// stagesShown is how far each prop has come by what is done to it.
func (w *Work) stagesShown() map[string]plan.Stage {
	lacking, pieces, cut := map[string]bool{}, map[string]int{}, map[string]int{}
	out := map[string]plan.Stage{}
	for i := range w.Plan.Solids() {
		s := &w.Plan.Solids()[i]
		out[s.Prop] = plan.Drawn
		lacking[s.Prop] = lacking[s.Prop] || w.Shapes()[s.ID] == nil
	}
	for _, s := range w.Sheets() {
		for i, sh := range s.Layout.Sheets {
			for _, q := range sh.Placed {
				prop := w.Part(s.Pieces[q.Part].Ref).Solid.Prop
				if pieces[prop]++; i < s.Cut {
					cut[prop]++
				}
			}
		}
	}
	for prop := range out {
		switch {
		case lacking[prop]:
			out[prop] = plan.Idea
		case pieces[prop] > 0 && cut[prop] == pieces[prop]:
			out[prop] = plan.Cut
		}
	}
	return out
}

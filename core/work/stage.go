package work

import "zapbarn/core/plan"

// StageOf is how far a prop has come: as its builder says, or as what is done to
// it shows. One that lacks sizes is an idea; one whose every sheet is cut, is cut;
// what comes after is said by hand.
func (w *Work) StageOf(p *plan.Prop) plan.Stage {
	if p.Stage != "" {
		return plan.StageNamed(p.Stage)
	}
	some := false
	for i := range w.Plan.Solids {
		if s := &w.Plan.Solids[i]; s.Prop == p.ID {
			if some = true; w.Shapes[s.ID] == nil {
				return plan.Idea
			}
		}
	}
	if !some {
		return plan.Idea
	}
	pieces, cut := 0, 0
	for _, s := range w.Sheets {
		for i, sh := range s.Layout.Sheets {
			for _, q := range sh.Placed {
				if w.Part(s.Pieces[q.Part].Ref).Solid.Prop == p.ID {
					if pieces++; i < s.Cut {
						cut++
					}
				}
			}
		}
	}
	if pieces > 0 && cut == pieces {
		return plan.Cut
	}
	return plan.Drawn
}

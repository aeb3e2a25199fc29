package shell

import (
	"encoding/json"

	"zapbarn/core/plan"
)

// Reach asks where a phone opens the display, for the codes on labels; nil where it is known.
type Reach struct{ Was, Value, Error string }

func reachOf(p *plan.Plan, o Over) *Reach {
	if p.Display().Reach != "" {
		return nil
	}
	was, err := json.Marshal(&p.Doc().Display)
	if err != nil {
		return nil // a display is always written
	}
	return &Reach{string(was), o.Values["reach"], o.errors["reach"]}
}

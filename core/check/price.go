package check

import (
	"encoding/json"
	"fmt"
	"math"

	"zapbarn/core/plan"
	"zapbarn/core/wiring"
	"zapbarn/core/work"
)

// price adds to a mend's effect what it costs in copper and in money.
func (m *Mend) price(w *work.Work) {
	var grams, money float64
	bill := func(raw json.RawMessage, sign float64) {
		var d plan.Device
		if raw != nil && json.Unmarshal(raw, &d) == nil {
			b := wiring.BillOf(&d, w.Lib)
			grams, money = grams+sign*b.Copper, money+sign*b.Money
		}
	}
	for _, c := range m.Edit.Changes {
		if c.Kind == "device" {
			bill(c.Before, -1)
			bill(c.After, 1)
		}
	}
	add := func(text string) {
		if m.Effect != "" {
			m.Effect += "; "
		}
		m.Effect += text
	}
	if math.Abs(grams) >= .5 {
		add(fmt.Sprintf("copper %+.0f g", grams))
	}
	switch {
	case money >= .05:
		add(fmt.Sprintf("costs $%.2f", money))
	case money <= -.05:
		add(fmt.Sprintf("saves $%.2f", -money))
	}
}

package check

import (
	"slices"
	"strings"

	"zapbarn/core/plan"
)

// Trades are the kinds of work a snag can belong to, in the order of the work. Common
// practice, no source.
var Trades = []string{"foam", "glue", "paint", "wiring", "controller", "motion", "setting out", "planning"}

// calledToo are other words for them, as people write what they do.
var calledToo = map[string]string{
	"cutting": "foam", "carving": "foam", "carpentry": "foam", "building": "foam", "plastic": "foam", "pvc": "foam",
	"gluing": "glue", "adhesives": "glue", "assembly": "glue",
	"painting": "paint", "coating": "paint", "coats": "paint", "finish": "paint", "finishing": "paint",
	"electrics": "wiring", "electrical": "wiring", "electronics": "wiring", "lighting": "wiring", "soldering": "wiring",
	"programming": "controller", "code": "controller", "show": "controller", "sound": "controller",
	"mechanics": "motion", "motors": "motion", "animatronics": "motion",
	"yard": "setting out", "rigging": "setting out", "set-up": "setting out",
	"buying": "planning", "stores": "planning",
}

// TradeOf is whose work a snag is: its rule's trade.
func TradeOf(s Snag) string {
	why, _ := WhyOf(s.Code)
	return why.Trade
}

// Does is whether a person does a trade: one that is named among theirs, or in other
// words; who names none does all.
func Does(who *plan.Person, trade string) bool {
	list := who.List()
	return len(list) == 0 || slices.ContainsFunc(list, func(t string) bool {
		return t == trade || calledToo[t] == trade
	})
}

// For narrows snags to a prop, a place, a trade and a person: empty is any. Nobody is
// a person, too: what no one's trade covers.
type For struct{ Prop, Place, Trade, Person string }

// Nobody asks for what no person of the crew does.
const Nobody = "-" // no ID is so

// Of is whether a snag is among them.
func (f For) Of(p *plan.Plan, s Snag) bool {
	return (f.Prop == "" || s.Prop == f.Prop) && (f.Place == "" || s.Place == f.Place) &&
		(f.Trade == "" || TradeOf(s) == f.Trade) && f.does(p, TradeOf(s))
}

func (f For) does(p *plan.Plan, trade string) bool {
	if f.Person == "" {
		return true
	}
	for i := range p.People() {
		if x := &p.People()[i]; Does(x, trade) && (f.Person == Nobody || strings.EqualFold(x.ID, f.Person)) {
			return f.Person != Nobody
		}
	}
	return f.Person == Nobody
}

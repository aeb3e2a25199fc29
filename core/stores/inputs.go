package stores

// contacts are what is bought for an input of each kind, and what one costs: typical, from
// memory; the shelf takes what one has.
var contacts = map[string]struct {
	name  string
	price float64
}{
	"button": {"Push button", 3},
	"mat":    {"Mat switch", 25},
	"beam":   {"Beam sensor, a pair", 20},
	"motion": {"Motion sensor", 8},
	"switch": {"Switch", 3},
	"remote": {"Remote with its receiver", 15},
	"sound":  {"Sound sensor", 6},
	"knob":   {"Twist knob with press", 3},
}

// limitSwitch is what is bought where a mechanism works the switch.
const limitSwitch, limitPrice = "Limit switch", 4.0

// inputs are the contacts and sensors of the props that are not wired yet.
func (l *list) inputs() {
	for i := range l.Plan.Inputs() {
		x := &l.Plan.Inputs()[i]
		task := "wire:" + x.Prop
		if !x.Wired() || !l.left(task) {
			continue
		}
		c := contacts[x.Kind]
		what := "input:" + x.Kind
		if x.Mover != "" {
			what, c.name, c.price = "input:limit", limitSwitch, limitPrice
		}
		l.need(what, c.name, "pieces", 1, x.Prop, task).Price = c.price
	}
}

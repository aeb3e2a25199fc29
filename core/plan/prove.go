package plan

import (
	"math"

	"zapbarn/core/source"
	"zapbarn/core/wiring"
)

// How far a reading on the bench may lie from what is expected.
const (
	provesVolts = 0.03 // share, and
	provesVolt  = 0.05 // V on top
	provesAmps  = 0.15 // share, and
	provesAmp   = 0.002
	leakOhms    = 1e6 // least from a plus to ground with the power off: less says that something touches
)

// ProveFrom is the source of these limits.
var ProveFrom = source.FromTrade(
	"on the bench: volts within 3 % and 0.05 V, current within 15 % and 2 mA, 1 Mohm or more from plus to ground with " +
		"the power off",
)

// Proves reports whether a reading in volts, amperes or ohms is as it should be
// at a device that works as g says. Light is not judged here.
func (r *Reading) Proves(g wiring.Operating) bool {
	switch {
	case !r.Amps.IsZero():
		return math.Abs(r.Amps.Value()-math.Abs(g.Amps)) <= provesAmps*math.Abs(g.Amps)+provesAmp
	case !r.Ohms.IsZero():
		return r.Ohms.Value() >= leakOhms
	}
	return math.Abs(r.Volts.Value()-math.Abs(g.Volts)) <= provesVolts*math.Abs(g.Volts)+provesVolt
}

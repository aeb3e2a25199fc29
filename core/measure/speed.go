package measure

type speedKind struct{}

// speedUnits are in metres a second: a mile an hour is 0.44704 exactly, a knot 1852 / 3600.
var speedUnits = map[string]float64{"m/s": 1, "mph": 0.44704, "km/h": 1 / 3.6, "kmh": 1 / 3.6, "kph": 1 / 3.6,
	"kn": 1852.0 / 3600, "knots": 1852.0 / 3600, "ft/s": 0.3048}

func (speedKind) read(s string) (float64, error) {
	return scaled(s, speedUnits, "m/s", "a speed such as 28 mph, 12 m/s or 40 km/h")
}

func (speedKind) write(v float64) string { return Decimal(v, 1) + " m/s" }

// SpeedKind names the dimension for generic calls.
type SpeedKind = speedKind

// Speed is metres a second.
type Speed = Written[speedKind]

// SpeedText writes a speed as the plan's people say it: miles an hour, or metres a second.
func SpeedText(v float64, metric bool) string {
	if metric {
		return Decimal(v, 1) + " m/s"
	}
	return Decimal(v/0.44704, 0) + " mph"
}

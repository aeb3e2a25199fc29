package measure

type torqueKind struct{}

// torqueUnits are in newton metres: a kilogram-force is 9.80665 N exactly, a pound-force
// 4.4482216152605 N exactly (from the pound and standard gravity).
var torqueUnits = map[string]float64{
	"n m": 1, "nm": 1, "n·m": 1,
	"kgf cm": 0.0980665, "kg cm": 0.0980665, "kg-cm": 0.0980665, "kgcm": 0.0980665, "kgf·cm": 0.0980665,
	"lbf ft": 1.3558179483314004, "lb ft": 1.3558179483314004, "ft lb": 1.3558179483314004,
	"lbf in": 0.1129848290276167, "lb in": 0.1129848290276167, "in lb": 0.1129848290276167,
	"oz in": 0.00706155181422604,
}

func (torqueKind) read(s string) (float64, error) {
	return scaled(s, torqueUnits, "n m", "a torque such as 1.5 N m, 12 kgf cm or 8 lbf in")
}

func (torqueKind) write(v float64) string { return NewtonMetres(v) }

// NewtonMetres writes a torque.
func NewtonMetres(v float64) string {
	if v < 1 && v > -1 {
		return Decimal(v, 3) + " N m"
	}
	return Decimal(v, 2) + " N m"
}

package measure

type massKind struct{}

// massUnits are in kilograms; a pound is 0.45359237 kg exactly (international
// yard and pound agreement, 1959).
var massUnits = map[string]float64{"kg": 1, "g": 1e-3, "lb": 0.45359237, "lbs": 0.45359237, "oz": 0.45359237 / 16}

func (massKind) read(s string) (float64, error) {
	return scaled(s, massUnits, "kg", "a weight such as 450 g, 1.2 kg, 3 lb or 12 oz")
}

func (massKind) write(v float64) string { return Kilograms(v) }

// Kilograms writes kilograms as g below one, or kg.
func Kilograms(kg float64) string {
	if kg < 1 && kg > -1 {
		return Decimal(kg*1000, 0) + " g"
	}
	return Decimal(kg, 2) + " kg"
}

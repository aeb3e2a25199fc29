package measure

import (
	"math"
	"strconv"
	"strings"
)

type (
	voltKind    struct{}
	ampKind     struct{}
	ohmKind     struct{}
	wattKind    struct{}
	gaugeKind   struct{}
	celsiusKind struct{}
)

var (
	voltUnits = map[string]float64{"v": 1, "volt": 1, "volts": 1, "mV": 1e-3, "mv": 1e-3, "kV": 1e3}
	ampUnits  = map[string]float64{
		"a":    1,
		"amp":  1,
		"amps": 1,
		"mA":   1e-3,
		"ma":   1e-3,
		"µA":   1e-6,
		"uA":   1e-6,
		"ua":   1e-6,
	}
	ohmUnits = map[string]float64{
		"ohm":     1,
		"ohms":    1,
		"\u03a9":  1,
		"\u2126":  1,
		"r":       1,
		"R":       1,
		"k":       1e3,
		"kohm":    1e3,
		"k\u03a9": 1e3,
		"mohm":    1e-3,
		"m\u03a9": 1e-3,
		"M":       1e6,
		"Mohm":    1e6,
		"M\u03a9": 1e6,
	}
	wattUnits = map[string]float64{"w": 1, "watt": 1, "watts": 1, "mW": 1e-3, "mw": 1e-3, "kW": 1e3, "kw": 1e3}
)

func (voltKind) read(s string) (float64, error) {
	return scaled(s, voltUnits, "v", "volts such as 12 V, 5v or 3.3")
}
func (ampKind) read(s string) (float64, error) {
	return scaled(s, ampUnits, "a", "a current such as 350 mA, 20ma or 5 A")
}
func (ohmKind) read(s string) (float64, error) {
	t := strings.TrimSpace(s)
	if i := strings.IndexAny(t, "kKRM"); i > 0 && i < len(t)-1 { // 4k7, 2R2
		if _, err := strconv.Atoi(t[i+1:]); err == nil {
			t = t[:i] + "." + t[i+1:] + strings.ToLower(t[i:i+1])
			if s[i] == 'M' {
				t = t[:len(t)-1] + "M"
			}
		}
	}
	v, err := scaled(t, ohmUnits, "ohm", "a resistance such as 470, 4k7, 2.2 ohm or 10k")
	if e, ok := err.(*Error); ok {
		e.Text = s
	}
	return v, err
}
func (wattKind) read(s string) (float64, error) {
	return scaled(s, wattUnits, "w", "a power such as 60 W or 250 mW")
}

func (voltKind) write(v float64) string { return Volts(v) }
func (ampKind) write(v float64) string  { return Amps(v) }
func (ohmKind) write(v float64) string  { return Ohms(v) }
func (wattKind) write(v float64) string { return Watts(v) }

// Volts, Amps, Ohms and Watts write a value with the prefix a meter shows.
func Volts(v float64) string { return Decimal(v, 2) + " V" }

// Amps writes amperes as A, or mA below one ampere.
func Amps(a float64) string {
	if math.Abs(a) < 1e-6 {
		return "0 mA" // below what a meter shows
	}
	if math.Abs(a) < 0.9995 {
		return significant(a*1000, 3) + " mA"
	}
	return Decimal(a, 2) + " A"
}

// Ohms writes ohms with the prefix m, k or M where it helps.
func Ohms(r float64) string {
	switch a := math.Abs(r); {
	case a == 0:
		return "0 ohm"
	case a < 1:
		return significant(r*1000, 4) + " mohm"
	case a < 1000:
		return significant(r, 4) + " ohm"
	case a < 1e6:
		return significant(r/1000, 4) + " k"
	}
	return significant(r/1e6, 4) + " M"
}

// Watts writes watts, or mW below a quarter.
func Watts(w float64) string {
	if math.Abs(w) < 0.1 {
		return significant(w*1000, 3) + " mW"
	}
	return significant(w, 3) + " W"
}

// AWGDiameter is the bare diameter in mm of a solid round wire of American
// wire gauge n: d = 0.127 * 92^((36-n)/39). Source: ASTM B258.
func AWGDiameter(n int) float64 { return 0.127 * math.Pow(92, float64(36-n)/39) }

// AWGArea is the copper area in square mm of gauge n.
func AWGArea(n int) float64 {
	if n >= 0 && n < len(gaugeAreas) {
		return gaugeAreas[n]
	}
	return areaOf(n)
}

// gaugeAreas are the areas of gauges 0 to 40, which are asked for again and again.
var gaugeAreas = func() (out [41]float64) {
	for n := range out {
		out[n] = areaOf(n)
	}
	return out
}()

func areaOf(n int) float64 { d := AWGDiameter(n); return math.Pi / 4 * d * d }

const gaugeWant = "a wire size such as 18 AWG, 22awg or 0.75 mm2"

func (gaugeKind) read(s string) (float64, error) {
	t := strings.ToLower(strings.ReplaceAll(strings.TrimSpace(s), " ", ""))
	t = strings.TrimPrefix(t, "#")
	for _, u := range []string{"mm2", "mm²", "sqmm"} {
		if strings.HasSuffix(t, u) {
			v, rest, ok := number(strings.TrimSuffix(t, u))
			if !ok || rest != "" || v <= 0 || v > 200 {
				return 0, &Error{s, gaugeWant}
			}
			return v, nil
		}
	}
	t = strings.TrimSuffix(strings.TrimSuffix(strings.TrimPrefix(t, "awg"), "awg"), "ga")
	n, err := strconv.Atoi(t)
	if err != nil || n < 0 || n > 40 {
		return 0, &Error{s, gaugeWant}
	}
	return AWGArea(n), nil
}

func (gaugeKind) write(mm2 float64) string {
	if mm2 > 0 {
		n := 36 - 39*math.Log(math.Sqrt(mm2*4/math.Pi)/0.127)/math.Log(92)
		if r := math.Round(n); math.Abs(n-r) < 1e-6 {
			return Decimal(r, 0) + " AWG"
		}
	}
	return Decimal(mm2, 3) + " mm2"
}

func (celsiusKind) read(s string) (float64, error) {
	want := "a temperature such as 58 F, 20 C or -5 C"
	t := strings.TrimSpace(strings.NewReplacer("°", "", "º", "").Replace(s))
	if u := strings.ToUpper(t); strings.HasSuffix(u, "F") {
		v, err := scaled(t[:len(t)-1], map[string]float64{"": 1}, "", want)
		return (v - 32) / 1.8, err
	}
	v, err := scaled(t, map[string]float64{"c": 1}, "c", want)
	if err == nil && v < -273.15 {
		err = &Error{s, want}
	}
	return v, err
}
func (celsiusKind) write(c float64) string { return Decimal(c, 1) + " C" }

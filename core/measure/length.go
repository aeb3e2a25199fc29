package measure

import (
	"math"
	"strconv"
	"strings"
)

// Units of length in millimetres. 1 in = 25.4 mm exactly (international inch).
const (
	Inch = 25.4
	Foot = 304.8
)

type lengthKind struct{}

const lengthWant = `a length such as 22 1/2", 4'6", 3/4 in, 600 mm or 1.2 m`

var lengthUnits = map[string]float64{
	"in": Inch, "inch": Inch, "inches": Inch, `"`: Inch, "”": Inch, "″": Inch, "''": Inch,
	"ft": Foot, "foot": Foot, "feet": Foot, "'": Foot, "’": Foot, "′": Foot,
	"yd": 3 * Foot, "mm": 1, "cm": 10, "m": 1000, "mil": Inch / 1000,
}

// ParseLengthIn reads a length; a number with no unit is taken in bare
// ("in" or "mm").
func ParseLengthIn(text, bare string) (Length, error) {
	w, err := Parse[lengthKind](text)
	if err != nil || bare == "in" || bare == "" || !isBare(w.text) {
		return w, err
	}
	return Parse[lengthKind](w.text + " " + bare)
}

// isBare reports whether a length that can be read has no unit.
func isBare(text string) bool {
	_, rest, ok := number(strings.TrimLeft(strings.TrimSpace(text), "-− "))
	return ok && strings.TrimSpace(rest) == ""
}

// Unit is a length whose text says its unit: one that has none means a bare unit, in or mm.
func Unit(w Length, bare string) Length {
	if w.text == "" || !isBare(w.text) {
		return w
	}
	u, err := Parse[lengthKind](w.text + " " + bare)
	if err != nil {
		return w // it was read before
	}
	return u
}

func (lengthKind) read(text string) (float64, error) {
	bad := &Error{text, lengthWant}
	s := strings.TrimSpace(text)
	sign := 1.0
	if strings.HasPrefix(s, "-") || strings.HasPrefix(s, "−") {
		sign, s = -1, strings.TrimSpace(strings.TrimLeft(s, "-−"))
	}
	total, last := 0.0, math.Inf(1)
	for first := true; first || s != ""; first = false {
		v, rest, ok := number(s)
		if !ok {
			return 0, bad
		}
		rest = strings.TrimLeft(rest, " ")
		f, n := unitAt(rest)
		if n == 0 {
			if rest != "" {
				return 0, bad
			}
			switch last { // 4' 6 is four foot six; 1 m 20 is 1.20 m
			case Foot, math.Inf(1):
				f = Inch
			case 1000:
				f = 10
			default:
				return 0, bad
			}
		}
		if f >= last { // units must shrink: 4'6", not 6"4'
			return 0, bad
		}
		total, last = total+v*f, f
		s = strings.TrimLeft(rest[n:], " ,-")
		if s == "" && strings.HasSuffix(rest, "-") {
			return 0, bad
		}
	}
	return sign * total, nil
}

// unitAt finds the longest unit of length at the head of s.
func unitAt(s string) (factor float64, n int) {
	low := strings.ToLower(s)
	for u, f := range lengthUnits {
		if len(u) <= n || !strings.HasPrefix(low, u) {
			continue
		}
		if c := u[0]; c >= 'a' && c <= 'z' { // a word unit must end there
			if rest := low[len(u):]; rest != "" && rest[0] >= 'a' && rest[0] <= 'z' {
				continue
			}
		}
		factor, n = f, len(u)
	}
	return factor, n
}

func (lengthKind) write(v float64) string { return Inches(v) }

// Inches writes mm as inches to the nearest 1/16, as a shop would: 22 1/2".
// Sizes that are no sixteenth (within 0.01 mm of a 1/64) keep two decimals.
func Inches(mm float64) string {
	sign := ""
	if mm < 0 {
		sign, mm = "-", -mm
	}
	in := mm / Inch
	n := math.Round(in * 64)
	if math.Abs(n/64*Inch-mm) > 0.01 {
		return sign + Decimal(in, 2) + `"`
	}
	whole, num, den := int64(n)/64, int64(n)%64, int64(64)
	for num > 0 && num%2 == 0 {
		num, den = num/2, den/2
	}
	switch {
	case num == 0:
		return sign + strconv.FormatInt(whole, 10) + `"`
	case whole == 0:
		return sign + strconv.FormatInt(num, 10) + "/" + strconv.FormatInt(den, 10) + `"`
	}
	return sign + strconv.FormatInt(whole, 10) + " " + strconv.FormatInt(num, 10) + "/" + strconv.FormatInt(
		den,
		10,
	) + `"`
}

// Tape writes mm as it would be read off a tape: inches rounded to 1/16, or
// whole tenths of a millimetre.
func Tape(mm float64, metric bool) string {
	if metric {
		return Decimal(mm, 1) + " mm"
	}
	return Inches(math.Round(mm/Inch*16) / 16 * Inch)
}

// TapeUp writes a length as read off a tape, never less than it is: to the next sixteenth, or to
// the next tenth of a millimetre.
func TapeUp(mm float64, metric bool) string {
	if metric {
		return Tape(math.Ceil(mm*10-1e-6)/10, true)
	}
	return Tape(math.Ceil(mm/Inch*16-1e-6)/16*Inch, false)
}

// Run writes a wire's length: feet and inches, or metres.
func Run(mm float64, metric bool) string {
	if metric {
		return Decimal(mm/1000, 2) + " m"
	}
	in := math.Round(mm / Inch)
	if math.Abs(in) < 24 {
		return Tape(mm, false)
	}
	return Decimal(math.Trunc(in/12), 0) + "' " + Decimal(math.Abs(math.Mod(in, 12)), 0) + `"`
}

// OnTape is mm as a length a tape shows, in inches or millimetres; zero for what is
// too small for one.
func OnTape(mm float64, metric bool) Length {
	if math.Abs(mm) < 0.01 {
		return Length{}
	}
	l, err := Parse[lengthKind](Tape(mm, metric))
	if err != nil {
		return Length{}
	}
	return l
}

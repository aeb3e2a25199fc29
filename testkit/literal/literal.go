// Package literal reads a printed working as a person with a pocket calculator
// would: numbers with their units, the four operations, powers, roots and the
// angles' functions in degrees. It knows nothing of how the number was reached.
package literal

import (
	"math"
	"regexp"
	"strconv"
	"strings"
)

// Quantity is a number with its dimensions: length in mm, current, volts, mass
// in kg, time in hours, money.
type Quantity struct {
	V float64
	D [6]int
}

func dim(v float64, d ...int) Quantity {
	q := Quantity{V: v}
	copy(q.D[:], d)
	return q
}

var units = map[string]Quantity{
	"mm": dim(
		1,
		1,
	), "cm": dim(10, 1), "m": dim(1000, 1), "in": dim(25.4, 1), "ft": dim(304.8, 1), `"`: dim(25.4, 1), "'": dim(304.8, 1),
	"mm2": dim(1, 2), "m2": dim(1e6, 2), "cm3": dim(1000, 3), "m3": dim(1e9, 3), "L": dim(1e6, 3), "mL": dim(1000, 3),
	"sq": dim(92903.04, 2),
	"A":  dim(1, 0, 1), "mA": dim(1e-3, 0, 1), "uA": dim(1e-6, 0, 1), "V": dim(1, 0, 0, 1), "mV": dim(1e-3, 0, 0, 1),
	"ohm": dim(1, 0, -1, 1), "mohm": dim(1e-3, 0, -1, 1), "k": dim(1e3, 0, -1, 1), "kohm": dim(1e3, 0, -1, 1),
	"Mohm": dim(1e6, 0, -1, 1),
	"W": dim(
		1,
		0,
		1,
		1,
	), "mW": dim(1e-3, 0, 1, 1), "kW": dim(1e3, 0, 1, 1), "kWh": dim(1e3, 0, 1, 1, 0, 1), "Wh": dim(1, 0, 1, 1, 0, 1),
	"mAh": dim(1e-3, 0, 1, 0, 0, 1),
	"kg":  dim(1, 0, 0, 0, 1), "g": dim(1e-3, 0, 0, 0, 1), "h": dim(1, 0, 0, 0, 0, 1), "min": dim(1./60, 0, 0, 0, 0, 1),
	"days": dim(24, 0, 0, 0, 0, 1),
	"s":    dim(1./3600, 0, 0, 0, 0, 1), "d": dim(24, 0, 0, 0, 0, 1), "ms": dim(1./3.6e6, 0, 0, 0, 0, 1),
	"%": dim(.01), "°": dim(1), "deg": dim(1), "hPa": dim(1),
}

type reader struct {
	s  string
	ok bool
}

// Eval reads an expression; it is false when the text is none.
func Eval(text string) (Quantity, bool) {
	r := &reader{strings.NewReplacer("×", " x ", "·", " x ").Replace(text), true}
	q := r.sum()
	r.blank()
	return q, r.ok && r.s == ""
}

// First reads the quantity a text begins with.
func First(text string) (Quantity, bool) {
	text = strings.TrimPrefix(text, "x ")
	r := &reader{text, true}
	q := r.value()
	return q, r.ok
}

func (r *reader) blank() { r.s = strings.TrimLeft(r.s, " ") }

func (r *reader) take(prefix string) bool {
	r.blank()
	if strings.HasPrefix(r.s, prefix) {
		r.s = r.s[len(prefix):]
		return true
	}
	return false
}

func (r *reader) sum() Quantity {
	q := r.product()
	for r.ok {
		switch {
		case r.take("+ "):
			p := r.product()
			r.same(q, p)
			q.V += p.V
		case r.take("- "):
			p := r.product()
			r.same(q, p)
			q.V -= p.V
		default:
			return q
		}
	}
	return q
}

func (r *reader) same(a, b Quantity) {
	if a.D != b.D && a.D != [6]int{} && b.D != [6]int{} {
		r.ok = false
	}
}

func (r *reader) product() Quantity {
	q := r.power()
	for r.ok {
		switch {
		case r.take("x "), r.take("* "):
			q = times(q, r.power(), 1)
		case r.take("/ "), r.take("/"):
			q = times(q, r.power(), -1)
		case function.MatchString(strings.TrimLeft(r.s, " ")):
			q = times(q, r.power(), 1) // 2 sin 30
		default:
			return q
		}
	}
	return q
}

func times(a, b Quantity, sign int) Quantity {
	for i := range a.D {
		a.D[i] += sign * b.D[i]
	}
	if sign > 0 {
		a.V *= b.V
	} else {
		a.V /= b.V
	}
	return a
}

func (r *reader) power() Quantity {
	q := r.atom()
	if r.take("^") {
		p := r.atom()
		for i := range q.D {
			q.D[i] *= int(p.V)
		}
		q.V = math.Pow(q.V, p.V)
	}
	return q
}

var function = regexp.MustCompile(`^(sqrt|sin|cos|tan|asin|atan|acos|ceil|floor|pi)\b`)

func (r *reader) atom() Quantity {
	r.blank()
	if r.take("(") {
		q := r.sum()
		r.ok = r.ok && r.take(")")
		return q
	}
	if r.take("-") {
		q := r.atom()
		q.V = -q.V
		return q
	}
	if f := function.FindString(r.s); f != "" {
		r.s = r.s[len(f):]
		if f == "pi" {
			return dim(math.Pi)
		}
		q := r.atom()
		rad := q.V * math.Pi / 180
		switch f {
		case "sqrt":
			for i := range q.D {
				q.D[i] /= 2
			}
			q.V = math.Sqrt(q.V)
			return q
		case "sin":
			return dim(math.Sin(rad))
		case "cos":
			return dim(math.Cos(rad))
		case "tan":
			return dim(math.Tan(rad))
		case "asin":
			return dim(math.Asin(q.V) * 180 / math.Pi)
		case "acos":
			return dim(math.Acos(q.V) * 180 / math.Pi)
		case "atan":
			return dim(math.Atan(q.V) * 180 / math.Pi)
		case "ceil":
			return dim(math.Ceil(q.V - 1e-9))
		case "floor":
			return dim(math.Floor(q.V + 1e-9))
		}
	}
	return r.value()
}

var (
	number = regexp.MustCompile(`^(\d+ \d+/\d+|\d+/\d+(?:["' ]|$)|\d*\.?\d+(?:e[+-]?\d+)?)`)
	unit   = regexp.MustCompile(`^ ?(mohm/m|kg/m3|mL/m2|[A-Za-z]+[23]?|%|°|"|')`)
)

// value is a number with its unit, or several as in 4' 6" and 2 h 5 min.
func (r *reader) value() Quantity {
	r.blank()
	r.take("$")
	q := Quantity{}
	for first := true; ; first = false {
		m := number.FindString(r.s)
		if m == "" {
			r.ok = r.ok && !first
			return q
		}
		v := 0.0
		text := strings.TrimRight(m, `"' `)
		if whole, frac, ok := strings.Cut(text, " "); ok {
			a, _ := strconv.ParseFloat(whole, 64)
			v = a + fraction(frac)
		} else if strings.Contains(text, "/") {
			v = fraction(text)
		} else {
			v, _ = strconv.ParseFloat(text, 64)
		}
		rest := r.s[len(text):]
		u, known := Quantity{V: 1}, false
		if g := unit.FindStringSubmatch(rest); g != nil && g[1] != "x" {
			switch g[1] {
			case "mohm/m":
				u, known = dim(1e-6, -1, -1, 1), true
			case "kg/m3":
				u, known = dim(1e-9, -3, 0, 0, 1), true
			case "mL/m2":
				u, known = dim(1e-3, 1), true
			default:
				u, known = units[g[1]]
			}
			if known {
				rest = rest[len(g[0]):]
				if g[1] == "sq" {
					rest = strings.TrimPrefix(rest, " ft")
				}
			} else {
				u = Quantity{V: 1}
			}
		}
		one := times(dim(v), u, 1)
		if !first && one.D != q.D {
			return q
		}
		q.V, q.D = q.V+one.V, one.D
		r.s = rest
		next := strings.TrimLeft(r.s, " ")
		compound := known && (u.V == 304.8 || u.D == [6]int{0, 0, 0, 0, 1} && u.V >= 1./60) && number.MatchString(next)
		if !compound {
			return q
		}
		r.s = next
	}
}

func fraction(s string) float64 {
	a, b, _ := strings.Cut(s, "/")
	x, _ := strconv.ParseFloat(a, 64)
	y, _ := strconv.ParseFloat(b, 64)
	return x / y
}

// Agree reports whether a working comes to what it says, to the places both are
// printed with: within two parts in a hundred, or half of the last place.
func Agree(got, said Quantity, text string) bool {
	if got.D != said.D && got.D != [6]int{} && said.D != [6]int{} {
		return false
	}
	a, b := got.V, said.V
	if got.D == [6]int{} && said.D != [6]int{} { // a bare number is in the unit of the answer
		for _, u := range units {
			if u.D == said.D && math.Abs(a*u.V-b) <= tolerance(b, text) {
				return true
			}
		}
	}
	return math.Abs(a-b) <= tolerance(b, text)
}

func tolerance(v float64, text string) float64 {
	t := .006*math.Abs(v) + 1e-9
	m := number.FindString(strings.TrimLeft(text, "x $-"))
	if strings.Contains(text, `"`) || strings.Contains(text, "'") {
		t = math.Max(t, 25.4/32+.01)
		if strings.Contains(text, "'") {
			t = math.Max(t, 13)
		}
		return t
	}
	if x, err := strconv.ParseFloat(m, 64); err == nil && x != 0 {
		place := 1.0
		if i := strings.IndexByte(m, '.'); i >= 0 {
			place = math.Pow(10, -float64(len(m)-i-1))
		}
		t = math.Max(t, .6*place*math.Abs(v)/x)
	}
	if strings.Contains(text, "min") || strings.Contains(text, " h") {
		t = math.Max(t, .6/60)
	}
	return t
}

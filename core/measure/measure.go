// Package measure reads and writes quantities as builders write them:
// 4'6", 3/4, 22 1/2 in, 1.2m, 350mA, 18awg, 1h30, 10k. It decides what a
// spelling means, and keeps the spelling, so that a plan shows and saves each
// quantity in the words it was entered with.
package measure

import (
	"fmt"
	"math"
	"strconv"
	"strings"
	"unicode"
	"unicode/utf8"
)

// Error says which text could not be read and what would be accepted.
type Error struct {
	Text, Want string
}

func (e *Error) Error() string {
	if strings.TrimSpace(e.Text) == "" {
		return "is empty; write " + e.Want
	}
	return fmt.Sprintf("%q is not understood; write %s", clip(e.Text), e.Want)
}

// Capital is a text with its first letter large, in any language.
func Capital(s string) string {
	r, n := utf8.DecodeRuneInString(s)
	if n == 0 || r == utf8.RuneError {
		return s
	}
	return string(unicode.ToUpper(r)) + s[n:]
}

// Uncapital writes a word's first letter small, but for one in capitals.
func Uncapital(s string) string {
	r, n := utf8.DecodeRuneInString(s)
	next, _ := utf8.DecodeRuneInString(s[n:])
	if n == 0 || r == utf8.RuneError || unicode.IsUpper(next) {
		return s
	}
	return string(unicode.ToLower(r)) + s[n:]
}

func clip(s string) string {
	if r := []rune(s); len(r) > 40 {
		return string(r[:40]) + "…"
	}
	return s
}

// Kind is any dimension, for generic calls of other packages.
type Kind = kind

// kind is what one dimension knows: how to read and write its base unit.
type kind interface {
	read(text string) (float64, error)
	write(v float64) string
}

// Written is a quantity together with the text it was written as. The zero
// value is "not given". Two are equal when written alike.
type Written[K kind] struct {
	v    float64
	text string
}

// The quantities, with the unit Value returns.
type (
	Length     = Written[lengthKind]  // millimetres
	Angle      = Written[angleKind]   // degrees
	Voltage    = Written[voltKind]    // volts
	Current    = Written[ampKind]     // amperes
	Resistance = Written[ohmKind]     // ohms
	Power      = Written[wattKind]    // watts
	Duration   = Written[secondKind]  // seconds
	Gauge      = Written[gaugeKind]   // copper area in square millimetres
	Celsius    = Written[celsiusKind] // degrees Celsius
	Mass       = Written[massKind]    // kilograms
	Torque     = Written[torqueKind]  // newton metres
)

// Parse reads a quantity. The text is kept, trimmed.
func Parse[K kind](text string) (Written[K], error) {
	var k K
	text = strings.TrimSpace(text)
	if len(text) > 60 {
		return Written[K]{}, &Error{text, "something shorter, such as " + k.write(1)}
	}
	v, err := k.read(text)
	if err != nil {
		return Written[K]{}, err
	}
	if math.IsNaN(v) || math.IsInf(v, 0) || math.Abs(v) > 1e9 {
		return Written[K]{}, &Error{text, "a size that can be built"}
	}
	return Written[K]{v, text}, nil
}

// Of makes a quantity from a value in its base unit, spelled the usual way.
func Of[K kind](v float64) Written[K] {
	var k K
	return Written[K]{v, k.write(v)}
}

// Must is Parse for constants in code and tests; it panics on bad text.
func Must[K kind](text string) Written[K] {
	w, err := Parse[K](text)
	if err != nil {
		panic(err)
	}
	return w
}

// Len is Must for lengths, the commonest.
func Len(text string) Length { return Must[lengthKind](text) }

// Value is the quantity in its base unit; 0 when not given.
func (w Written[K]) Value() float64 { return w.v }

// String is the text as written.
func (w Written[K]) String() string { return w.text }

// IsZero reports whether nothing was given.
func (w Written[K]) IsZero() bool { return w.text == "" }

// Or is the value, or d when nothing was given.
func (w Written[K]) Or(d float64) float64 {
	if w.text == "" {
		return d
	}
	return w.v
}

// MarshalText and UnmarshalText keep the text, so JSON round trips exactly.
func (w Written[K]) MarshalText() ([]byte, error) { return []byte(w.text), nil }

// UnmarshalText reads the text; an empty text is "not given".
func (w *Written[K]) UnmarshalText(b []byte) error {
	if len(strings.TrimSpace(string(b))) == 0 {
		*w = Written[K]{}
		return nil
	}
	p, err := Parse[K](string(b))
	if err == nil {
		*w = p
	}
	return err
}

// number reads a plain, fractional or mixed number at the head of s: 22, 22.5,
// .5, 3/4, 22 1/2, 22-1/2, 1½. It returns what is left of s.
func number(s string) (v float64, rest string, ok bool) {
	s = strings.TrimLeft(s, " ")
	digits := func(s string) int {
		n, dot := 0, false
		for n < len(s) && (s[n] >= '0' && s[n] <= '9' || s[n] == '.' && !dot) {
			dot = dot || s[n] == '.'
			n++
		}
		if n == 1 && dot {
			return 0
		}
		return n
	}
	n := digits(s)
	if n == 0 {
		if f, r, yes := glyph(s); yes {
			return f, r, true
		}
		return 0, s, false
	}
	v, err := strconv.ParseFloat(s[:n], 64)
	if err != nil {
		return 0, s, false
	}
	whole := !strings.Contains(s[:n], ".")
	rest = s[n:]
	if !whole {
		return v, rest, true
	}
	if f, r, yes := glyph(strings.TrimLeft(rest, " ")); yes {
		return v + f, r, true
	}
	if strings.HasPrefix(rest, "/") { // 3/4
		if d := digits(rest[1:]); d > 0 {
			if den, err := strconv.ParseFloat(rest[1:1+d], 64); err == nil && den > 0 {
				return v / den, rest[1+d:], true
			}
		}
		return 0, s, false
	}
	// 22 1/2 or 22-1/2
	if strings.HasPrefix(rest, " ") || strings.HasPrefix(rest, "-") {
		tail := strings.TrimLeft(rest[1:], " ")
		if d := digits(tail); d > 0 && !strings.Contains(tail[:d], ".") && strings.HasPrefix(tail[d:], "/") {
			if f, r, yes := number(tail); yes {
				return v + f, r, true
			}
		}
	}
	return v, rest, true
}

func glyph(s string) (float64, string, bool) {
	for g, f := range map[string]float64{"½": .5, "¼": .25, "¾": .75, "⅛": .125, "⅜": .375, "⅝": .625, "⅞": .875,
		"⅓": 1. / 3, "⅔": 2. / 3} {
		if strings.HasPrefix(s, g) {
			return f, s[len(g):], true
		}
	}
	return 0, s, false
}

// scaled reads "number unit" with one of the units; bare is the unit meant
// when none is written ("" refuses bare numbers).
func scaled(text string, units map[string]float64, bare, want string) (float64, error) {
	s := strings.TrimSpace(text)
	sign := 1.0
	if strings.HasPrefix(s, "-") || strings.HasPrefix(s, "−") {
		sign, s = -1, strings.TrimLeft(s, "-−")
	}
	v, rest, ok := number(s)
	unit := strings.TrimSpace(rest)
	if !ok {
		return 0, &Error{text, want}
	}
	if unit == "" {
		unit = bare
	}
	f, known := units[unit]
	if !known {
		f, known = units[strings.ToLower(unit)]
	}
	if !known {
		return 0, &Error{text, want}
	}
	return sign * v * f, nil
}

// Decimal writes v with at most places decimals and no trailing zeros.
func Decimal(v float64, places int) string {
	s := strconv.FormatFloat(v, 'f', places, 64)
	if strings.Contains(s, ".") {
		s = strings.TrimRight(strings.TrimRight(s, "0"), ".")
	}
	if s == "-0" {
		s = "0"
	}
	return s
}

// significant writes v with about n significant digits.
func significant(v float64, n int) string {
	if v == 0 {
		return "0"
	}
	places := n - 1 - int(math.Floor(math.Log10(math.Abs(v))))
	return Decimal(v, min(max(places, 0), 9))
}

// FieldError says which field of a form, file or command is wrong, why, and
// what would be accepted.
type FieldError struct {
	Field, Why string
}

func (e *FieldError) Error() string { return e.Field + ": " + e.Why }

// Bad makes a FieldError.
func Bad(field, format string, args ...any) error {
	return &FieldError{field, fmt.Sprintf(format, args...)}
}

// The dimensions by name, for generic calls: Parse[LengthKind](text).
type (
	LengthKind   = lengthKind
	VoltKind     = voltKind
	WattKind     = wattKind
	AmpKind      = ampKind
	OhmKind      = ohmKind
	AngleKind    = angleKind
	GaugeKind    = gaugeKind
	DurationKind = secondKind
	CelsiusKind  = celsiusKind
	MassKind     = massKind
	TorqueKind   = torqueKind
)

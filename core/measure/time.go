package measure

import (
	"math"
	"strings"
)

type (
	secondKind struct{}
	angleKind  struct{}
)

var secondUnits = map[string]float64{
	"ms": 1e-3, "s": 1, "sec": 1, "secs": 1, "second": 1, "seconds": 1, "m": 60, "min": 60, "mins": 60, "minute": 60,
	"minutes": 60,
	"h":       3600, "hr": 3600, "hrs": 3600, "hour": 3600, "hours": 3600, "d": 86400, "day": 86400, "days": 86400,
	"week": 7 * 86400, "weeks": 7 * 86400, "month": 30 * 86400, "months": 30 * 86400, "year": 365 * 86400,
	"years": 365 * 86400,
}

func (secondKind) read(text string) (float64, error) {
	bad := &Error{text, "a time such as 0.9 s, 350ms, 5 min, 1h30 or 2 days"}
	s := strings.ToLower(strings.TrimSpace(text))
	total, last := 0.0, math.Inf(1)
	for first := true; first || s != ""; first = false {
		v, rest, ok := number(s)
		if !ok {
			return 0, bad
		}
		rest = strings.TrimLeft(rest, " ")
		n := 0
		for n < len(rest) && rest[n] >= 'a' && rest[n] <= 'z' {
			n++
		}
		f, known := secondUnits[rest[:n]]
		if n == 0 {
			if rest != "" {
				return 0, bad
			}
			switch last { // 1h30 is an hour and thirty minutes
			case math.Inf(1):
				f = 1
			case 3600:
				f = 60
			case 60:
				f = 1
			default:
				return 0, bad
			}
			known = true
		}
		if !known || f >= last {
			return 0, bad
		}
		total, last = total+v*f, f
		s = strings.TrimSpace(rest[n:])
	}
	return total, nil
}

func (secondKind) write(s float64) string { return Span(s) }

// Span writes seconds as a builder says them: 350 ms, 0.9 s, 5 min, 2 h 10,
// 2 days.
func Span(s float64) string {
	switch a := math.Abs(s); {
	case a == 0:
		return "0 s"
	case a < 0.1:
		return Decimal(s*1000, 1) + " ms"
	case a < 100:
		return Decimal(s, 2) + " s"
	case a < 3600:
		return Decimal(s/60, 1) + " min"
	case a < 48*3600:
		h, m := math.Floor(s/3600), math.Round(math.Mod(s, 3600)/60)
		if m == 60 {
			h, m = h+1, 0
		}
		if m == 0 {
			return Decimal(h, 0) + " h"
		}
		return Decimal(h, 0) + " h " + Decimal(m, 0) + " min"
	}
	if math.Abs(s) >= 10*86400 {
		return Decimal(s/86400, 0) + " days"
	}
	return Decimal(s/86400, 1) + " days"
}

func (angleKind) read(s string) (float64, error) {
	return scaled(
		s,
		map[string]float64{"°": 1, "deg": 1, "degree": 1, "degrees": 1, "d": 1},
		"°",
		"an angle such as 45, 33.9° or 60 deg",
	)
}
func (angleKind) write(d float64) string { return Degrees(d) }

// Degrees writes an angle to a tenth, the finest a saw can be set to.
func Degrees(d float64) string { return Decimal(d, 1) + "°" }

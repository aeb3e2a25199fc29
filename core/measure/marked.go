package measure

import (
	"errors"
	"fmt"
	"regexp"
	"strconv"
	"strings"
)

// What is worked out for no plan in particular, such as a pattern, does not know
// in which units it will be read. It marks its lengths and areas, and who shows
// them writes them in the reader's units.

// Marked is a length in mm to be written later, to the last fraction.
func Marked(mm float64) string { return mark('i', mm) }

// MarkedTape is one to be written as read off a tape.
func MarkedTape(mm float64) string { return mark('t', mm) }

// MarkedUp is one to be written as read off a tape, never less than it is: what must fit.
func MarkedUp(mm float64) string { return mark('u', mm) }

// MarkedRun is one to be written as a run of wire or pipe.
func MarkedRun(mm float64) string { return mark('r', mm) }

// MarkedArea is an area in m2 to be written later.
func MarkedArea(m2 float64) string { return mark('a', m2) }

func mark(how byte, v float64) string {
	return "⟦" + string(how) + strconv.FormatFloat(v, 'g', 12, 64) + "⟧"
}

var marks = regexp.MustCompile(`⟦([itrau])([^⟧]*)⟧`)

// InUnits writes the marked lengths and areas of a text.
func InUnits(text string, metric bool) string {
	if !strings.Contains(text, "⟦") {
		return text
	}
	return marks.ReplaceAllStringFunc(text, func(m string) string {
		g := marks.FindStringSubmatch(m)
		v, err := strconv.ParseFloat(g[2], 64)
		if err != nil {
			return g[2]
		}
		switch {
		case g[1] == "a" && metric:
			return Decimal(v, 3) + " m2"
		case g[1] == "a":
			return Decimal(v/0.09290304, 2) + " sq ft"
		case g[1] == "r":
			return Run(v, metric)
		case g[1] == "t":
			return Tape(v, metric)
		case g[1] == "u":
			return TapeUp(v, metric)
		case metric:
			return Decimal(v, 1) + " mm"
		}
		return Inches(v)
	})
}

// ErrorIn writes the marked lengths of an error.
func ErrorIn(err error, metric bool) error {
	if err == nil {
		return nil
	}
	var f *FieldError
	if errors.As(err, &f) {
		if err == error(f) {
			return &FieldError{f.Field, InUnits(f.Why, metric)}
		}
		f.Why = InUnits(f.Why, metric)
		return err
	}
	if text := err.Error(); marks.MatchString(text) {
		return fmt.Errorf("%s", InUnits(text, metric))
	}
	return err
}

// Package source says where a value comes from and how a result was reached.
//
// Every constant of the trade carries a Source; every computed number carries
// its Working: the formula in symbols, the same with numbers, and the sources
// of the constants it used. Builders trust what they can check.
package source

import (
	"strings"

	"zapbarn/core/measure"
)

// Kind tells how far a value can be trusted.
type Kind string

// The kinds of source, best first.
const (
	Standard Kind = "std"    // a published standard or handbook
	Trade    Kind = "trade"  // common practice, no source
	Memory   Kind = "memory" // typical value from memory; editable
	User     Kind = "user"   // entered by the builder
	Geometry Kind = "exact"  // follows from geometry or definition alone
)

// Source is where one value or rule is from.
type Source struct {
	Kind Kind   `json:"kind"`
	Text string `json:"text"`
}

// String gives the source as it is printed beside a value.
func (s Source) String() string {
	switch s.Kind {
	case Standard:
		return s.Text
	case Trade:
		return strings.TrimSuffix("common practice, no source; "+s.Text, "; ")
	case Memory:
		return strings.TrimSuffix("from memory, typical, editable; "+s.Text, "; ")
	case User:
		return strings.TrimSuffix("entered by you; "+s.Text, "; ")
	}
	return s.Text
}

// Std, FromTrade, FromMemory, Exact and Entered make a Source of that kind.
func Std(text string) Source        { return Source{Standard, text} }
func FromTrade(text string) Source  { return Source{Trade, text} }
func FromMemory(text string) Source { return Source{Memory, text} }
func Exact(text string) Source      { return Source{Geometry, text} }
func Entered(text string) Source    { return Source{User, text} }

// Step is one line of a working.
type Step struct {
	Formula string   `json:"formula"`           // in symbols: R = rho L / A
	Numbers string   `json:"numbers"`           // the same with numbers
	Value   string   `json:"value"`             // what it comes to, with its unit
	Sources []Source `json:"sources,omitempty"` // of the constants used
}

// Result is a computed number with its working.
type Result struct {
	Key   Key     `json:"key"`   // stable name, unique in its plan
	Label string  `json:"label"` // what it is, in the trade's words
	Value float64 `json:"value"` // in Unit
	Unit  string  `json:"unit"`
	Text  string  `json:"text"` // as shown
	Steps []Step  `json:"steps"`
}

// Num is a result without its working yet.
func Num(label string, value float64, unit, text string) Result {
	return Result{Label: label, Value: value, Unit: unit, Text: text}
}

// With returns r with one more step of working.
func (r Result) With(formula, numbers, value string, from ...Source) Result {
	r.Steps = append(r.Steps[:len(r.Steps):len(r.Steps)], Step{formula, numbers, value, from})
	return r
}

// InUnits is the result with the lengths and areas it marks written in inches or
// in millimetres.
func (r Result) InUnits(metric bool) Result {
	r.Label, r.Text = measure.InUnits(r.Label, metric), measure.InUnits(r.Text, metric)
	steps := make([]Step, len(r.Steps))
	for i, s := range r.Steps {
		s.Formula, s.Numbers, s.Value = measure.InUnits(s.Formula, metric), measure.InUnits(
			s.Numbers,
			metric,
		), measure.InUnits(s.Value, metric)
		steps[i] = s
	}
	r.Steps = steps
	return r
}

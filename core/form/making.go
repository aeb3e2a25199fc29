package form

import (
	"zapbarn/core/pattern"
)

// Making is what a form declares of how it comes to be, beside the sheets and lengths that its
// parts are cut from: what is bought for it, and what is done before it can be worked on.
type Making struct {
	Goods []Good
	Jobs  []Job
	Have  string // why nothing is bought for it, such as "found or on the shelf"; "" where something is
}

// Good is a thing that is bought for a form.
type Good struct {
	What  string  // table:id, what the shelf names it by
	Name  string  // on the list
	Unit  string  // L, kg, m2, pieces
	Use   float64 // how much of it
	Spare float64 // share that is added
	Pack  float64 // how much a pack holds; 0 is one of the unit
	In    string  // what a pack is called; "" for the unit itself
	Price float64 // of a pack, $; 0 is not known
	Lead  int     // days until it comes
	How   string  // how much came about
}

// Job is a thing to do at a form before it can be fitted, glued, coated or wired.
type Job struct {
	ID       string // among the form's own
	Name     string // what is done, with %s for the solid's name
	Tool     string
	Takes    []Takes
	Wait     float64 // minutes after, at 21 C and 50 %
	Carrier  string  // what dries out of it: water, or "" where air changes nothing
	Whole    bool    // begun and finished in one go
	Steps    []string
	Cautions []string
}

// Takes is a part of a job's time: so many of a thing at so many minutes each (typical, from
// memory; what is logged corrects it).
type Takes struct {
	What    string
	N, Each float64
}

// Maker is a form that is not, or not only, cut of sheets and lengths.
type Maker interface {
	// Make is what it takes; the shape is it laid. It never errs: what is not known yet is left out.
	Make(on On, s *pattern.Shape) Making
}

// MadeOf is what a form declares; false for one that is only cut of its stock.
func MadeOf(f Form, on On, s *pattern.Shape) (Making, bool) {
	m, ok := f.(Maker)
	if !ok || s == nil {
		return Making{}, false
	}
	return m.Make(on, s), true
}

// figure is a number of a shape's results; 0 where it has none of that name.
func figure(s *pattern.Shape, what string) float64 {
	for _, r := range s.Results {
		if r.Key.What == what {
			return r.Value
		}
	}
	return 0
}

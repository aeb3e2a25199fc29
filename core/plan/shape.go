package plan

import (
	"crypto/sha256"
	"sync"

	"zapbarn/core/form"
	"zapbarn/core/measure"
	"zapbarn/core/memo"
	"zapbarn/core/pattern"
	"zapbarn/core/stock"
)

// Missing says which sizes a solid still lacks: no mistake, only half known.
type Missing = form.Missing

// lay lays the solid out.
func (s *Solid) lay(lib *stock.Library) (*pattern.Shape, error) {
	if s.Form == nil {
		return nil, measure.OneOf("kind", s.Kind, form.Names()...)
	}
	m := lib.Materials[s.Stock]
	var openings []pattern.Opening
	for _, o := range s.Openings {
		path, _ := o.corners() // checked with the rest; one that cannot be read is refused by Pierce
		openings = append(
			openings,
			pattern.Opening{
				Name: o.Name,
				Face: o.Face,
				Kind: o.Kind,
				Path: path,
				Text: o.Text,
				Deep: o.Deep.Value(),
				W:    o.W.Value(),
				H:    o.H.Value(),
				X:    o.X.Value(),
				Y:    o.Y.Value(),
			},
		)
	}
	shape, err := form.Lay(s.Form, form.On{Stock: m})
	if err == nil {
		err = shape.Pierce(openings)
	}
	if err == nil && s.Seam != "" && m.Form == "sheet" { // else left from when it was of sheet
		err = shape.Split(s.Seamed(m))
	}
	if err != nil {
		return nil, err
	}
	return shape, nil
}

// Seamed is the seam of the solid's large parts on a sheet of its stock, with
// half an inch kept off each edge.
func (s *Solid) Seamed(m stock.Material) pattern.Seam {
	return pattern.Seam{
		Kind:  s.Seam,
		At:    s.SeamAt.Value(),
		Lap:   s.Lap.Or(2 * measure.Inch),
		W:     m.Sheet[0].Value() - measure.Inch,
		H:     m.Sheet[1].Value() - measure.Inch,
		Grain: m.Grain != "",
	}
}

// weight is about how many points were laid out.
func (k laid) weight() int64 {
	n := int64(50)
	if k.shape != nil {
		for _, b := range k.shape.Bodies {
			for _, f := range b.Faces {
				n += int64(len(f.Points))
			}
		}
		for _, p := range k.shape.Panels {
			n += int64(len(p.Outline))
		}
	}
	return n
}

type laid struct {
	shape *pattern.Shape
	err   error
	necks func() []Narrow
	of    *sync.Map // what others worked out of the shape, by their own keys
}

// Narrow is a part with its narrow places.
type Narrow struct {
	Panel pattern.Panel
	Necks []pattern.Neck
}

// Necks are the narrow places of the solid's parts, against what its stock bears.
func (s *Solid) Necks(lib *stock.Library) []Narrow { return s.known(lib).necks() }

// Of is what make works out of the solid's shape and stock and of the key alone, once for
// all solids of that shape: it is shared, and must not be changed.
func (s *Solid) Of(lib *stock.Library, key any, make func() any) any {
	of := s.known(lib).of
	if v, ok := of.Load(key); ok {
		return v
	}
	v, _ := of.LoadOrStore(key, make())
	return v
}

// Shape lays the solid out. The error is *Missing when a size is not given
// yet, or a *measure.FieldError naming the field that cannot be. Callers must
// not change the shape: it is shared.
func (s *Solid) Shape(lib *stock.Library) (*pattern.Shape, error) {
	k := s.known(lib)
	return k.shape, k.err
}

func (s *Solid) known(lib *stock.Library) laid {
	// where it stands and what it is called do not shape it
	key := shapeKey{form: s.Form, of: lib.Materials[s.Stock], seam: s.Seam, seamAt: s.SeamAt, lap: s.Lap}
	if s.Form == nil {
		key.kind = s.Kind
	}
	if len(s.Openings) > 0 {
		key.openings = sha256.Sum256(encode(s.Openings))
	}
	work := func() (k laid) {
		k.of = &sync.Map{}
		k.shape, k.err = s.lay(lib)
		safe := lib.Materials[s.Stock].Neck.Value()
		k.necks = sync.OnceValue(func() (out []Narrow) {
			if k.shape != nil {
				for _, p := range k.shape.Panels {
					out = append(out, Narrow{p, p.Necks(safe)})
				}
			}
			return out
		})
		return k
	}
	// a plan is worked out again at each edit, and most of its solids are as they were
	return memo.At[shapeKey](lib.Bench(), "shapes", 4_000_000, laid.weight).Get(key, work)
}

// shapeKey is all that shapes a solid. Every form is a struct of plain values,
// which compare.
type shapeKey struct {
	kind        string // of one that has no form
	form        form.Form
	of          stock.Material
	seam        string
	seamAt, lap measure.Length
	openings    [32]byte
}

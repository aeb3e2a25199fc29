package plan

import (
	"crypto/sha256"
	"strings"
	"sync"

	"zapbarn/core/measure"
	"zapbarn/core/memo"
	"zapbarn/core/nest"
	"zapbarn/core/pattern"
	"zapbarn/core/stock"
)

// Missing says which sizes a solid still lacks: no mistake, only half known.
type Missing struct{ Fields []string }

func (m *Missing) Error() string { return "still needs " + strings.Join(m.Fields, ", ") }

// need lists the fields not given, from name, length pairs.
func need(pairs ...any) error {
	var m Missing
	for i := 0; i < len(pairs); i += 2 {
		if pairs[i+1].(measure.Length).IsZero() {
			m.Fields = append(m.Fields, pairs[i].(string))
		}
	}
	if m.Fields != nil {
		return &m
	}
	return nil
}

// fieldNames maps the words of package pattern to the solid's own fields.
var fieldNames = map[string]map[string]string{
	"box":     {"width": "w", "depth": "d", "height": "h", "thickness": "stock"},
	"tower":   {"height": "h", "bottom": "low", "top": "high", "thickness": "stock"},
	"disc":    {"diameter": "w", "thickness": "stock"},
	"rings":   {"height": "h", "bottom": "low", "top": "high", "thickness": "stock"},
	"panel":   {"width": "w", "height": "h", "thickness": "stock"},
	"gores":   {"width": "w", "height": "h", "thickness": "stock", "allowance": "allow"},
	"slices":  {"width": "w", "height": "h", "thickness": "stock"},
	"cone":    {"height": "h", "bottom": "low", "top": "high", "thickness": "stock", "allowance": "allow"},
	"wrap":    {"diameter": "w", "height": "h", "thickness": "stock", "allowance": "allow", "kerf": "skin"},
	"boards":  {"diameter": "w", "thickness": "stock", "board": "stock"},
	"outline": {"width": "w", "height": "h", "thickness": "stock"},
	"mesh":    {"height": "h", "width": "h", "depth": "h", "thickness": "stock"},
}

// lay lays the solid out.
func (s *Solid) lay(lib *stock.Library) (*pattern.Shape, error) {
	m := lib.Materials[s.Stock]
	t := m.Thick.Value()
	var openings []pattern.Opening
	for _, o := range s.Openings {
		openings = append(openings, pattern.Opening{Name: o.Name, Face: o.Face, Kind: o.Kind, W: o.W.Value(), H: o.H.Value(), X: o.X.Value(), Y: o.Y.Value()})
	}
	var lacking error
	var spec interface {
		Lay() (*pattern.Shape, error)
	}
	switch s.Kind {
	case "box":
		lacking = need("w", s.W, "d", s.D, "h", s.H)
		joint := s.Joint
		if joint == "" {
			joint = "butt"
		}
		spec = pattern.Box{W: s.W.Value(), D: s.D.Value(), H: s.H.Value(), T: t, Joint: joint, Bottom: s.Bottom, Lid: s.Lid, Overhang: s.Overhang.Value(), Openings: openings}
	case "tower":
		lacking = need("h", s.H, "low", s.Low, "high", s.High)
		spec = pattern.Tower{N: s.Sides, H: s.H.Value(), Bottom: s.Low.Value(), Top: s.High.Value(), T: t}
	case "disc":
		lacking = need("w", s.W)
		spec = pattern.Disc{D: s.W.Value(), Bore: s.Bore.Value(), T: t, Copies: max(1, s.Copies), Upright: s.Upright, Pitch: s.Pitch.Value()}
	case "rings":
		lacking = need("h", s.H, "low", s.Low, "high", s.High, "wall", s.Wall)
		spec = pattern.Rings{Bottom: s.Low.Value(), Top: s.High.Value(), H: s.H.Value(), Wall: s.Wall.Value(), T: t}
	case "pipe":
		cuts, err := Cuts(s.Lengths)
		if err != nil {
			return nil, err
		}
		if len(cuts) == 0 {
			lacking = &Missing{[]string{"lengths"}}
		}
		spec = pattern.Pipes{Cuts: cuts, OD: m.OD.Value(), Row: s.Sides, Bore: m.Bore()}
	case "panel":
		lacking = need("w", s.W, "h", s.H)
		spec = pattern.Flat{W: s.W.Value(), H: s.H.Value(), T: t, Copies: max(1, s.Copies), Lying: s.Lying, Pitch: s.Pitch.Value(), Openings: openings}
	case "gores", "slices":
		name := s.Profile
		if name == "" {
			name = "sphere"
		}
		points := strings.Contains(name, ",")
		if !points {
			lacking = need("w", s.W, "h", s.H)
		}
		if lacking != nil {
			break
		}
		unit := measure.Inch
		if head, ok := strings.CutSuffix(strings.TrimSpace(name), "mm"); points && ok {
			name, unit = head, 1
		}
		p, err := pattern.NewProfile(strings.TrimSuffix(strings.TrimSpace(name), "in"), s.W.Value(), s.H.Value(), unit)
		if err != nil {
			return nil, renamed(s.Kind, err)
		}
		if s.Kind == "gores" {
			spec = pattern.Gores{Profile: p, N: s.Sides, T: t, Crease: s.Crease, Allow: s.Allow.Value()}
		} else {
			spec = pattern.Slices{Profile: p, T: t, Wall: s.Wall.Value(), Allow: s.Allow.Value(), Dowels: s.Dowels, Dowel: s.Dowel.Or(measure.Inch / 2)}
		}
	case "cone":
		lacking = need("h", s.H, "low", s.Low)
		spec = pattern.Cone{Bottom: s.Low.Value(), Top: s.High.Value(), H: s.H.Value(), T: t, Overlap: s.Allow.Value()}
	case "wrap":
		lacking = need("w", s.W, "h", s.H)
		w := pattern.Wrap{D: s.W.Value(), H: s.H.Value(), T: t, Overlap: s.Allow.Value()}
		if !s.Skin.IsZero() {
			w.Kerf, w.Skin = measure.Inch/8, s.Skin.Value()
		}
		spec = w
	case "boards":
		lacking = need("w", s.W)
		spec = pattern.Boards{D: s.W.Value(), T: t, Board: m.Sheet[0].Value(), Offset: s.Offset.Value(), Brace: s.Brace.Or(6 * measure.Inch)}
	case "outline":
		if s.W.IsZero() && s.H.IsZero() {
			lacking = &Missing{[]string{"w or h"}}
			break
		}
		rings, err := pattern.ReadRings(s.Path)
		if err != nil {
			return nil, err
		}
		spec = pattern.Outline{Rings: rings, W: s.W.Value(), H: s.H.Value(), T: t, Copies: max(1, s.Copies), Pair: s.Pair, Lying: s.Lying, Pitch: s.Pitch.Value(), Around: s.Bore.Value()}
	case "mesh":
		if lacking = need("h", s.H); lacking != nil {
			break
		}
		mesh, err := pattern.Unpack(s.Mesh)
		if err != nil {
			return nil, err
		}
		spec = pattern.MeshSlices{Mesh: mesh, H: s.H.Value(), T: t, Wall: s.Wall.Value(), Allow: s.Allow.Value(), Dowels: s.Dowels, Dowel: s.Dowel.Or(measure.Inch / 2)}
	default:
		return nil, oneOf("kind", s.Kind, SolidKinds...)
	}
	if lacking != nil {
		return nil, lacking
	}
	shape, err := spec.Lay()
	if err == nil && s.Seam != "" {
		err = shape.Split(s.Seamed(m))
	}
	return shape, renamed(s.Kind, err)
}

// Seamed is the seam of the solid's large parts on a sheet of its stock, with
// half an inch kept off each edge.
func (s *Solid) Seamed(m stock.Material) pattern.Seam {
	return pattern.Seam{Kind: s.Seam, At: s.SeamAt.Value(), Lap: s.Lap.Or(2 * measure.Inch), W: m.Sheet[0].Value() - measure.Inch, H: m.Sheet[1].Value() - measure.Inch, Grain: m.Grain != ""}
}

// shapes keeps what was laid out last, by the solid's own fields: a plan is
// worked out again at each edit, and most of its solids stand as they were.
var shapes = memo.New[[32]byte, laid](4_000_000, func(k laid) int64 {
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
})

type laid struct {
	shape *pattern.Shape
	err   error
	necks func() []Narrow
}

// Narrow is a part with its narrow places.
type Narrow struct {
	Panel pattern.Panel
	Necks []pattern.Neck
}

// Necks are the narrow places of a solid's parts, against what its stock bears.
func (w *Work) Necks(s *Solid) []Narrow {
	return s.known(w.Lib).necks()
}

// Shape lays the solid out. The error is *Missing when a size is not given
// yet, or a *measure.FieldError naming the field that cannot be. Callers must
// not change the shape: it is shared.
func (s *Solid) Shape(lib *stock.Library) (*pattern.Shape, error) {
	k := s.known(lib)
	return k.shape, k.err
}

func (s *Solid) known(lib *stock.Library) laid {
	c := *s // where it stands and what it is called do not shape it
	c.ID, c.Prop, c.Name, c.X, c.Y, c.Z, c.Sealed, c.Lit = "", "", "", measure.Length{}, measure.Length{}, measure.Length{}, false, false
	work := func() (k laid) {
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
	if lib != stock.Shop {
		return work()
	}
	return shapes.Get(sha256.Sum256(encode(c)), work)
}

// renamed gives an error of package pattern the solid's own field name.
func renamed(kind string, err error) error {
	if f, ok := err.(*measure.FieldError); ok {
		if name := fieldNames[kind][f.Field]; name != "" {
			return &measure.FieldError{Field: name, Why: f.Why}
		}
	}
	return err
}

// Cuts reads a pipe list as written: 6@44in 4@60in, or 44 in x 6.
func Cuts(text string) ([]pattern.Cut, error) {
	var out []pattern.Cut
	bad := func() error {
		return measure.Bad("lengths", "%q is not understood; write such as 6@44in 4@60in", text)
	}
	for _, w := range strings.Fields(strings.ReplaceAll(text, ",", " ")) {
		count, l, ok := strings.Cut(w, "@")
		if !ok {
			return nil, bad()
		}
		n := 0
		for _, r := range count {
			if r < '0' || r > '9' || n > 10_000 {
				return nil, bad()
			}
			n = n*10 + int(r-'0')
		}
		length, err := measure.Parse[measure.LengthKind](strings.ReplaceAll(l, "_", " "))
		if err != nil {
			return nil, bad()
		}
		out = append(out, pattern.Cut{Name: l, Length: length.Value(), Count: n})
	}
	return out, nil
}

// Part is one cut part with its number in its prop.
type Part struct {
	Ref    string // solid/panel
	Solid  *Solid
	Panel  pattern.Panel
	No, Of int     // number among the prop's parts
	Mass   float64 // kg, one copy
}

// Name is what the part is called on sheets and lists.
func (p *Part) Name() string { return p.Solid.Name + ", " + strings.ToLower(p.Panel.Name) }

// Face is what the drawn face of a part is called, and where its upper edge
// points: a part that lies flat shows its top.
func (p *Part) Face() (face, up string) {
	if p.Panel.Slant != 0 {
		return "OUTSIDE", "up, turned " + measure.Degrees(p.Panel.Slant)
	}
	switch k := p.Solid.Kind; {
	case k == "slices", k == "mesh", k == "rings", k == "boards", p.Solid.Lying, k == "disc" && !p.Solid.Upright:
		return "TOP", "back"
	}
	return "OUTSIDE", "up"
}

// Bars is the cutting of one pipe stock.
type Bars struct {
	Stock   stock.Material
	Cutting nest.Cutting
	Total   float64
}

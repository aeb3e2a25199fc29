package form

import (
	"fmt"
	"regexp"
	"strconv"
	"strings"

	"zapbarn/core/measure"
	"zapbarn/core/pattern"
	"zapbarn/core/words"
)

// Gores is a round body sewn up of equal leaves.
type Gores struct {
	W       measure.Length `json:"w,omitzero" label:"Widest" grip:"across"`
	H       measure.Length `json:"h,omitzero" label:"Height" grip:"up"`
	Sides   int            `json:"sides,omitempty" label:"Gores"`
	Profile string         `json:"profile,omitempty" max:"4000" label:"Profile"` // a name, or radius,height points
	Crease  bool           `json:"crease,omitempty" label:"Creased ribs"`        // bevelled at 45
	Allow   measure.Length `json:"allow,omitzero" label:"Seam allowance" scale:"no"`
}

var _ = register(
	Kind{
		Name:    "gores",
		Title:   "Gores",
		Form:    "sheet",
		Stock:   "eva10",
		Piles:   true,
		Splits:  true,
		Blank:   Gores{Sides: 8, Profile: "sphere"},
		Read:    readGores,
		Example: "gores 36 in x 30 in n8 eva10 egg",
		Press: Press{
			9,
			"ball",
			"gores 18 in x 18 in n8 eva5 sphere",
			"gores 450 x 450 n8 eva5 sphere",
			"M15 2a11 11 0 1 0 .1 0Z",
			"M15 2q-9 11 0 22M15 2q9 11 0 22M15 2V24",
		},
	},
)

// profiled reads a profile: its name with the sizes, or its points.
func profiled(text string, w, h measure.Length) (pattern.Profile, error) {
	name := strings.TrimSpace(text)
	if name == "" {
		name = "sphere"
	}
	points := strings.Contains(name, ",")
	if !points {
		if err := need("w", w, "h", h); err != nil {
			return nil, err
		}
	}
	unit := measure.Inch
	if head, ok := strings.CutSuffix(name, "mm"); points && ok {
		name, unit = head, 1
	}
	p, err := pattern.NewProfile(strings.TrimSuffix(strings.TrimSpace(name), "in"), w.Value(), h.Value(), unit)
	return p, named(err, "width", "w", "height", "h")
}

// Lay lays out one gore of each.
func (g Gores) Lay(on On) (*pattern.Shape, error) {
	p, err := profiled(g.Profile, g.W, g.H)
	if err != nil {
		return nil, err
	}
	return laid(
		pattern.Gores{Profile: p, N: g.Sides, T: on.Thick(), Crease: g.Crease, Allow: g.Allow.Value()},
		"width",
		"w",
		"height",
		"h",
		"allowance",
		"allow",
	)
}

// Order joins in pairs.
func (g Gores) Order(p Parts) []string {
	return []string{
		fmt.Sprintf("Join the %d gores in pairs from the middle tick to both ends.", p.N),
		"Pairs to quarters, quarters to halves.",
		"The two halves last, the closing seam where nobody looks.",
	}
}

// Bends is round its widest place.
func (g Gores) Bends(t float64) (radius, bends float64, ok bool) {
	return g.W.Value()/2 - t, t, !g.W.IsZero()
}

func (g Gores) stretched(_ func(measure.Length) measure.Length, f float64) Form {
	g.Profile = scaledPoints(g.Profile, f)
	return g
}

// scaledPoints stretches the points of a drawn profile, its unit kept; a name
// stays.
func scaledPoints(text string, f float64) string {
	if !strings.Contains(text, ",") {
		return text
	}
	whole, unit := text, ""
	for _, u := range []string{"mm", "in"} {
		if head, ok := strings.CutSuffix(strings.TrimSpace(text), u); ok {
			text, unit = head, u
		}
	}
	var out []string
	for _, w := range strings.Fields(text) {
		var x, y float64
		if _, err := fmt.Sscanf(w, "%g,%g", &x, &y); err != nil {
			return whole
		}
		out = append(out, measure.Decimal(x*f, 2)+","+measure.Decimal(y*f, 2))
	}
	return strings.TrimSpace(strings.Join(out, " ") + " " + unit)
}

var goreCount = regexp.MustCompile(`^n(\d{1,3})$`)

// profileWord takes a profile's name out of the words.
func profileWord(w *words.Words, def string) string {
	return w.OneOf(def, pattern.ProfileNames()...)
}

func readGores(w *words.Words) (Form, string, error) {
	g := Gores{Sides: 8, Crease: w.Take("crease"), Profile: profileWord(w, "sphere")}
	n := w.Known("", goreCount.MatchString)
	if n != "" {
		g.Sides, _ = strconv.Atoi(n[1:])
	}
	var err error
	if g.Sides, err = w.Count(g.Sides, "gores", "leaves"); err != nil {
		return nil, "", err
	}
	if g.Sides < 3 {
		return nil, "", fmt.Errorf("%d gores close no shape; write n3 or more", g.Sides)
	}
	dims := w.Sizes()
	if err := w.None(); err != nil {
		return nil, "", err
	}
	if len(dims) == 1 { // as high as it is wide
		dims = append(dims, dims[0])
	}
	if len(dims) != 2 {
		return nil, "", fmt.Errorf("gores take the widest place x the height, %d sizes read", len(dims))
	}
	g.W, g.H = dims[0], dims[1]
	return g, fmt.Sprintf("%d gores, %s, %s across, %s tall", g.Sides, g.Profile, w.Say(g.W), w.Say(g.H)), nil
}

package shorthand

import (
	"fmt"
	"math"
	"regexp"
	"slices"
	"sort"
	"strconv"
	"strings"

	"zapbarn/core/form"
	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/stock"
	"zapbarn/core/wiring"
)

// Help is one thing that can be said, in the plan's units, of the plan's own things.
type Help struct {
	Line string
	Says string // what it would do, or why it cannot be done yet
	Good bool   // it would be understood now
}

// HelpGroup is what can be said of one subject, and the places it belongs to.
type HelpGroup struct {
	Title  string
	Places []string
	Lines  []Help
}

// subject is what some verbs are about.
type subject struct {
	title  string
	places []string
	verbs  []string
}

var subjects = []subject{
	{"Solids", []string{"bench", "barn"}, nil}, // every form's
	{"Openings and panes", []string{"bench"},
		[]string{"hole", "slot", "window", "door", "letters", "shape", "pocket", "groove", "pane"}},
	{"Joints and coats", []string{"bench"}, []string{"glue", "coat", "opened"}},
	{"Sheets and sizes", []string{"bench"}, []string{"offcut", "scale"}},
	{"Power", []string{"loom"}, []string{"supply", "battery", "converter", "fuse", "switch", "outlet", "plug"}},
	{"Wires and lamps", []string{"loom"}, []string{"run", "lamp", "strip", "pixels", "jars...", "feed", "connector",
		"controller", "data", "gauges", "path"}},
	{
		"Show",
		[]string{"rehearsal"},
		[]string{
			"button",
			"mat",
			"beam", "motion", "remote",
			"when",
			"every",
			"always",
			"cue",
			"driven",
			"mechanism",
			"merge",
			"perform",
		},
	},
	{"Order of work", []string{"calendar"}, []string{"person", "delivery", "task"}},
	{"Yard", []string{"yard"}, []string{"stand", "align", "walk", "screen", "wall", "fence", "hedge", "light", "cord",
		"view", "wind", "outlet"}},
	{"The shop", []string{"barn"}, []string{"shop", "price"}},
	{"Anything", []string{"barn", "bench", "loom", "rehearsal", "calendar", "walkdown", "yard"},
		[]string{"prop", "rename", "copy", "mirror", "row", "circle", "pickets", "remove", "note"}},
}

func (s subject) names() []string {
	if s.verbs != nil {
		return s.verbs
	}
	var out []string
	for _, name := range form.Names() {
		if _, ok := verbs[name]; ok {
			out = append(out, name)
		}
	}
	sort.Strings(out)
	return out
}

// HelpFor lists what can be said while a prop is open, subject by subject: each example
// is tried on the plan, with the plan's own things in it.
func HelpFor(p *plan.Plan, lib *stock.Library, prop string) (out []HelpGroup) {
	own := ownNames(p, lib, prop)
	for _, s := range subjects {
		g := HelpGroup{Title: s.title, Places: s.places}
		for _, name := range s.names() {
			for k, line := range (&Error{Example: verbs[name].example}).Tries() {
				line = InUnits(line, p.Metric())
				if s.verbs != nil {
					line = own.mentions(strings.Replace(line, "left arm", "box", 1))
				}
				if h := calledBy(p, lib, prop, helpOf(p, lib, prop, line)); k == 0 || h.Good {
					g.Lines = append(g.Lines, h)
				}
			}
		}
		out = append(out, g)
	}
	return out
}

// calledBy is a line with its devices' names where it has their IDs, if it is understood so.
func calledBy(p *plan.Plan, lib *stock.Library, prop string, h Help) Help {
	if !h.Good {
		return h
	}
	names := func(line string) string {
		return ownWord.ReplaceAllStringFunc(line, func(w string) string {
			if d := p.Device(w); d != nil && plainName.MatchString(d.Name) {
				return d.Name
			}
			return w
		})
	}
	line := names(h.Line)
	if line == h.Line {
		return h
	}
	if named := helpOf(p, lib, prop, line); named.Good && named.Says == names(h.Says) {
		return named
	}
	return h
}

func helpOf(p *plan.Plan, lib *stock.Library, prop, line string) Help {
	r, err := Read(p, lib, prop, line)
	if err == nil {
		return Help{line, r.Text, true}
	}
	if e, ok := err.(*Error); ok {
		return Help{Line: line, Says: e.Why}
	}
	return Help{Line: line, Says: err.Error()}
}

// owned are a plan's own names for those the examples use.
type owned map[string]string

var ownWord = regexp.MustCompile(`\b[A-Za-z]\w*\b`)

func (o owned) mentions(line string) string {
	first := true
	return ownWord.ReplaceAllStringFunc(line, func(w string) string {
		if first { // the verb stays
			first = false
			return w
		}
		if to := o[w]; to != "" {
			return to
		}
		return w
	})
}

// ownNames are the things of a prop that an example may speak of.
func ownNames(p *plan.Plan, lib *stock.Library, prop string) owned {
	o := owned{}
	set := func(word, name string) {
		if o[word] == "" {
			o[word] = name
		}
	}
	for i := range p.Solids() {
		s := &p.Solids()[i]
		shape, err := s.Shape(p.Shop(lib))
		if s.Prop != prop || err != nil || len(shape.Panels) == 0 || o["box"] != "" {
			continue
		}
		set("box", NameFor(p, s))
		set("tower", NameFor(p, s))
		if len(shape.Lines) > 0 && shape.Lines[0].A != shape.Lines[0].B {
			o["front"], o["left"] = shape.Lines[0].A, shape.Lines[0].B
		}
		if n := len(shape.Panels) - 1; o["back"] == "" {
			set("front", shape.Panels[0].ID)
			o["back"] = shape.Panels[n].ID
		}
	}
	short := map[string]string{
		"supply":     "S1",
		"fuse":       "F1",
		"run":        "W1",
		"lamp":       "L1",
		"controller": "U1",
		"switch":     "K1",
	}
	fed := false // a strip is what the examples' lamp is, where there is one
	for i := range p.Devices() {
		if d := &p.Devices()[i]; d.Prop == prop {
			if w := short[d.Kind]; w != "" {
				set(w, d.ID)
			}
			if k := p.Shop(lib).Lamps[d.Product].Kind; d.Is(wiring.Load) && (k == "strip" || k == "pixels") && !fed {
				o["L1"], fed = d.ID, true
			}
			o["K2"] = d.ID
		}
	}
	for i := range p.Scenes() {
		if p.Scenes()[i].Prop == prop {
			set("glow", p.Scenes()[i].Name)
		}
	}
	for i := range p.Outlets() {
		set("porch", p.Outlets()[i].ID)
	}
	if x := p.Prop(prop); x != nil {
		set("skep", x.Name)
	}
	return o
}

// exampleLength is a length in an example: a number, perhaps with a fraction behind it, and its unit.
var exampleLength = regexp.MustCompile(`(^|[ @])(\d+/\d+|\d+(?:\.\d+)?(?: \d+/\d+)?)(?: ?(in|ft)\b)?`)

// container is what an opening is in: the in before it is no inch.
var container = regexp.MustCompile(`^ (?:box|tower|glow)`)

// sizeAfter and sizeBefore are the words that a bare number of an example is a length after,
// or before.
var sizeAfter = []string{
	"every", "along", "x", "to", "up", "wall", "deep", "radius", "pitch", "overlap", "skin", "bore", "show", "wide",
	"tall", "by", "height", "offcut", "strip",
}
var sizeBefore = []string{"x", "tall", "wide", "deep", "rise", "high", "to"}

// countWords are the words of which a number says how many there are.
var countWords = []string{"levels", "sides", "teeth", "spokes", "plies", "aa"}

// InUnits is an example with its lengths in millimetres where the plan is metric: to
// 5 mm, as one measures. Counts, volts, gauges and points of a drawing stay.
func InUnits(line string, metric bool) string {
	if !metric {
		return line
	}
	out, at := "", 0
	for _, m := range exampleLength.FindAllStringSubmatchIndex(line, -1) {
		num, u, end := line[m[4]:m[5]], "", m[1]
		if m[6] >= 0 && !container.MatchString(line[m[7]:]) {
			u = line[m[6]:m[7]]
		} else if m[6] >= 0 {
			end = m[5]
		}
		prev, next := wordBefore(line[:m[4]]), wordAfter(line[end:])
		if end < len(line) && line[end] != ' ' && (u == "" || line[end] != ',') {
			continue // more of the word follows: 12v, 60/m
		}
		if u == "" &&
			(slices.Contains(countWords, next) || !slices.Contains(sizeAfter, prev) && !slices.Contains(sizeBefore, next)) {
			continue
		}
		v, err := measure.ParseLengthIn(num+" "+orInch(u), "in")
		if err != nil {
			continue
		}
		step := 5.0
		if v.Value() < 30 {
			step = 1
		}
		text := strconv.FormatFloat(math.Round(v.Value()/step)*step, 'f', -1, 64)
		if u != "" {
			text = fmt.Sprintf("%s mm", text)
			if line[m[4]-1] == '@' {
				text = strings.ReplaceAll(text, " ", "")
			}
		}
		out += line[at:m[4]] + text
		at = end
	}
	return out + line[at:]
}

func orInch(unit string) string {
	if unit == "" {
		return "in"
	}
	return unit
}

func wordBefore(s string) string {
	f := strings.Fields(s)
	if len(f) == 0 {
		return ""
	}
	return f[len(f)-1]
}

func wordAfter(s string) string {
	f := strings.Fields(s)
	if len(f) == 0 {
		return ""
	}
	return f[0]
}

// Example is a line of a verb in the plan's units, of the plan's own things, as it would be
// understood; its plain example where none would be yet.
func Example(p *plan.Plan, lib *stock.Library, prop, verb string) string {
	own := ownNames(p, lib, prop)
	first := ""
	tries := (&Error{Example: verbs[verb].example}).Tries()
	if verb == "glue" { // a solid's own seams, where no two parts of it meet
		tries = append(tries, "glue box with pu")
	}
	for _, line := range tries {
		line = InUnits(line, p.Metric())
		if _, solid := form.Of(verb); !solid {
			line = own.mentions(line)
		}
		if first == "" || verb == "glue" {
			first = line
		}
		if h := helpOf(p, lib, prop, line); h.Good {
			return calledBy(p, lib, prop, h).Line
		}
	}
	return first
}

package hearing

import (
	"fmt"
	"slices"
	"strings"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/stock"
	"zapbarn/core/wiring"
)

// line is a line being understood.
type line struct {
	p       *plan.Plan
	lib     *stock.Library
	prop    string
	words   []*word
	assumed []string
}

// frame is one sort of thing that is said: it takes the words it knows and puts the line as the
// quick line has it; "" where the line is none of its own.
type frame func(l *line) string

// frames are tried in order: what is told by its verb before what is told by a noun.
var frames = []frame{painting, supplying, leds, driving, triggering, plugging, piping, arching, modelling, buying,
	cutting}

// has takes any of some words; "" where none is there.
func (l *line) has(any ...string) string {
	for _, w := range l.words {
		if w.used || w.num != "" {
			continue
		}
		for _, a := range any {
			if w.text == a || w.text == a+"s" || w.text == a+"es" {
				w.used = true
				return a
			}
		}
	}
	return ""
}

// phrase takes some words that stand together.
func (l *line) phrase(any ...string) string {
	for _, a := range any {
		parts := strings.Fields(a)
		for i := 0; i+len(parts) <= len(l.words); i++ {
			all := true
			for k, x := range parts {
				w := l.words[i+k]
				all = all && !w.used && (w.text == x || k == len(parts)-1 && w.text == x+"s")
			}
			if all {
				for k := range parts {
					l.words[i+k].used = true
				}
				return a
			}
		}
	}
	return ""
}

// of takes a number of a unit.
func (l *line) of(unit string) string {
	for _, w := range l.words {
		if !w.used && w.num != "" && w.unit == unit {
			w.used = true
			return w.num
		}
	}
	return ""
}

// count takes a bare whole number at the line's beginning; "" where it begins with none.
func (l *line) count() string {
	for _, w := range l.words {
		if fillers[w.text] {
			continue
		}
		if w.num != "" && w.unit == "" && !strings.ContainsAny(w.num, "./ ") && !w.used && !l.crossed(w) {
			w.used = true
			return w.num
		}
		return ""
	}
	return ""
}

// crossed is whether a number is one of sizes that are parted by x.
func (l *line) crossed(w *word) bool {
	i := slices.Index(l.words, w)
	return i+1 < len(l.words) && (l.words[i+1].text == "x" || l.words[i+1].text == "by") ||
		i > 0 && (l.words[i-1].text == "x" || l.words[i-1].text == "by")
}

// sides are the sizes that a word behind says: 36 in wide.
var sides = map[string]string{"wide": "w", "across": "w", "long": "w", "deep": "d", "tall": "h", "high": "h",
	"height": "h",
	"width":  "w", "depth": "d", "rise": "r"}

// sizes takes the sizes: by what is said of them, else in their order as they are parted by x.
func (l *line) sizes() (by map[string]string, list []string) {
	by = map[string]string{}
	for i, w := range l.words {
		if w.used || w.num == "" || i+1 >= len(l.words) || !length(w.unit) {
			continue
		}
		if side := sides[l.words[i+1].text]; side != "" && by[side] == "" {
			by[side], w.used, l.words[i+1].used = w.size(), true, true
		}
	}
	last := -1
	for i, w := range l.words {
		switch {
		case !w.used && w.num != "" && length(w.unit) && (l.crossed(w) || last >= 0 && last == i-1):
			w.used, last = true, i
			list = append(list, w.size())
		case !w.used && (w.text == "x" || w.text == "by") && last >= 0:
			w.used, last = true, i
		}
	}
	if len(list) > 0 { // 4 x 8 ft: the unit of the last is that of all
		if _, unit, ok := strings.Cut(list[len(list)-1], " "); ok && !strings.Contains(unit, "/") {
			for i, x := range list {
				if !strings.ContainsAny(x, "fimc") {
					list[i] = x + " " + unit
				}
			}
		}
	}
	return by, list
}

func length(unit string) bool {
	return unit == "" || unit == "in" || unit == "ft" || unit == "mm" || unit == "cm" || unit == "m"
}

// families are what sheets are called, by the family of the stock.
var families = [][2]string{
	{"pink foam board", "xps"}, {"pink foam", "xps"}, {"blue foam", "xps"}, {"insulation foam", "xps"},
	{"insulation board", "xps"}, {"foam board", "xps"}, {"rigid foam", "xps"}, {"white foam", "eps"}, {"beadboard", "eps"},
	{"polystyrene", "eps"}, {"eva foam", "eva"}, {"floor mat foam", "eva"}, {"craft foam", "eva"}, {"plywood", "wood"},
	{"ply", "wood"}, {"luan", "wood"}, {"acrylic", "acrylic"}, {"plexi", "acrylic"}, {"coroplast", "pp"},
	{"corrugated plastic", "pp"}, {"xps", "xps"}, {"eps", "eps"}, {"eva", "eva"}, {"foam", "xps"}}

// sheet takes the stock that is said: its thickness and what it is called. It is "" where none is,
// and an error of the shop's where it has none so thick.
func (l *line) sheet() (id string, thick string) {
	for _, w := range l.words { // by its own short name
		if m, ok := l.lib.Materials[w.text]; ok && m.Form == "sheet" && !w.used {
			w.used = true
			return m.ID, ""
		}
	}
	for _, f := range families {
		parts := strings.Fields(f[0])
		if l.phrase(f[0]) == "" {
			continue
		}
		at := 0 // the thickness stands before it
		for i, w := range l.words {
			if w.used && w.text == parts[0] {
				at = i
			}
		}
		for i := at - 1; i >= 0 && i >= at-2; i-- {
			w := l.words[i]
			if w.used || w.num == "" || !length(w.unit) || l.crossed(w) { // 24 x 36 in foam: none is said
				continue
			}
			w.used = true
			if w.unit == "" {
				w.unit = map[bool]string{true: "mm", false: "in"}[l.p.Metric()]
			}
			got, err := measure.Parse[measure.LengthKind](w.size())
			if err != nil {
				return "", w.size()
			}
			for _, id := range stock.IDs(l.lib.Materials) {
				m := l.lib.Materials[id]
				if m.Family == f[1] && m.Form == "sheet" && abs(m.Thick.Value()-got.Value()) < .6 {
					return id, ""
				}
			}
			return "", w.size() + " " + f[0]
		}
		usual := map[string]string{"xps": "xps1", "eps": "eps1", "eva": "eva5", "wood": "ply1/4", "acrylic": "acrylic3",
			"pp": "coro4"}
		l.assumed = append(l.assumed, l.lib.Materials[usual[f[1]]].Name)
		return usual[f[1]], ""
	}
	return "", ""
}

func abs(x float64) float64 {
	if x < 0 {
		return -x
	}
	return x
}

// bodies are what is cut of sheets, by the form they are made as.
var bodies = map[string][]string{
	"box": {"toe pincher coffin", "coffin", "casket", "chest", "crate", "trunk", "pedestal", "plinth", "altar", "bookcase",
		"cabinet", "column", "pillar", "merlon", "cage", "well", "box", "post"},
	"panel": {"tombstone", "gravestone", "headstone", "base board", "panel", "sign", "slab", "shelf", "board", "plank",
		"slat", "picket", "fence", "wall"},
}

// cutting is a body of sheet: 24 tombstones 24 x 36 2 in foam.
func cutting(l *line) string {
	kind, noun := "", ""
	for _, k := range []string{"box", "panel"} {
		if noun = l.phrase(bodies[k]...); noun != "" {
			kind = k
			break
		}
	}
	if noun == "" {
		return ""
	}
	n := ""
	if kind == "panel" { // a box is made one at a time: how many is left over, and said so
		n = l.count()
	}
	id, none := l.sheet()
	by, list := l.sizes()
	if none != "" {
		return ""
	}
	var dims []string
	switch {
	case kind == "box" && by["w"] != "" && by["d"] != "" && by["h"] != "":
		dims = []string{by["w"], by["d"], by["h"]}
	case kind == "panel" && by["w"] != "" && by["h"] != "":
		dims = []string{by["w"], by["h"]}
	case len(by) == 0 && kind == "box" && len(list) == 3, len(by) == 0 && kind == "panel" && len(list) == 2:
		dims = list
	default:
		return ""
	}
	if id == "" {
		if id = "xps1"; kind == "panel" && (noun == "shelf" || noun == "base board") {
			id = "ply1/2"
		}
		l.assumed = append(l.assumed, l.lib.Materials[id].Name)
	}
	out := kind + " " + strings.Join(dims, " x ") + " " + id
	if n != "" && n != "1" {
		out += " x" + n
	}
	if noun == kind {
		return out
	}
	return out + " called " + measure.Capital(noun)
}

// arching is an arched roof: archway 8 ft wide 4 ft rise 24 deep 1/8 plywood.
func arching(l *line) string {
	if l.has("archway", "arch") == "" {
		return ""
	}
	id, _ := l.sheet()
	by, _ := l.sizes()
	if id == "" || by["w"] == "" || by["r"] == "" || by["d"] == "" {
		return ""
	}
	return fmt.Sprintf("arch %s wide %s rise %s deep %s", by["w"], by["r"], by["d"], id)
}

// piping is pipe to length, with its size said before or behind what it is: pipe 9@8ft 1 1/2 pvc.
func piping(l *line) string {
	if l.has("pipe") == "" {
		return ""
	}
	var cuts []string
	for _, w := range l.words {
		if strings.Contains(w.text, "@") {
			cuts, w.used = append(cuts, w.text), true
		}
	}
	l.has("pvc")
	for _, w := range l.words {
		if w.used || w.num == "" || w.unit != "" && w.unit != "in" {
			continue
		}
		for _, id := range stock.IDs(l.lib.Materials) {
			if m := l.lib.Materials[id]; m.Form == "pipe" && m.Nominal == w.num && len(cuts) > 0 {
				w.used = true
				return "pipe " + strings.Join(cuts, " ") + " " + id
			}
		}
	}
	return ""
}

// boughts are things that come as they are, by what the quick line calls them.
var boughts = [][2]string{{"jar", "jar"}, {"bottle", "bottle"}, {"jug", "bottle"}, {"skull", "skull"},
	{"mannequin", "mannequin"}, {"tote", "tote"}, {"bucket", "tote"}}

// buying is a thing that comes as it is: 12 jars 4 in wide 6 in tall glass $1.75 each.
func buying(l *line) string {
	of := ""
	for _, x := range boughts {
		if l.has(x[0]) != "" {
			of = x[1]
			break
		}
	}
	if of == "" {
		return ""
	}
	n := l.count()
	price := ""
	for _, w := range l.words {
		if !w.used && priced.MatchString(w.text) {
			price, w.used = w.text, true
		}
	}
	have := l.has("found", "borrowed")
	made := map[string]string{"jar": "pet", "bottle": "pet", "skull": "hips", "mannequin": "hips", "tote": "pe"}[of]
	if l.has("glass") != "" {
		made = "glass"
	} else if l.has("plastic", "clear") == "" {
		l.assumed = append(l.assumed, l.lib.Materials[made].Name)
	}
	by, list := l.sizes()
	switch {
	case by["w"] != "" && by["h"] != "":
		list = []string{by["w"], by["h"]}
		if by["d"] != "" {
			list = []string{by["w"], by["d"], by["h"]}
		}
	case len(by) > 0 || len(list) < 1:
		return ""
	}
	out := "bought " + of + " " + strings.Join(list, " x ") + " " + made
	if n != "" {
		out += " x" + n
	}
	called := measure.Capital(of)
	if n != "" && n != "1" {
		called += "s"
	}
	return strings.Join(strings.Fields(strings.Join([]string{out, price, have, "called", called}, " ")), " ")
}

// modelling is a body that is built up: clay skull 6 x 7 x 8 over wire.
func modelling(l *line) string {
	id := map[string]string{"foam clay": "lightclay", "clay": "lightclay", "papier mache": "mache", "paper mache": "mache",
		"mache": "mache", "expanding foam": "foamcan", "spray foam": "foamcan"}[l.phrase("foam clay", "clay", "papier mache",
		"paper mache", "mache", "expanding foam", "spray foam")]
	if id == "" {
		return ""
	}
	skin := ""
	if l.has("over") != "" {
		l.has("wire", "mesh", "armature", "foil", "chicken")
		l.has("wire", "mesh", "armature")
		skin = " skin 3/8 in"
		l.assumed = append(l.assumed, "3/8 in thick over its armature")
	}
	by, list := l.sizes()
	if by["w"] != "" && by["d"] != "" && by["h"] != "" {
		list = []string{by["w"], by["d"], by["h"]}
	}
	if len(list) != 3 {
		return ""
	}
	name := ""
	for _, w := range l.words { // what is left of words is what it is called
		if !w.used && w.num == "" && !fillers[w.text] && name == "" {
			name, w.used = w.text, true
		}
	}
	out := "modelled " + strings.Join(list, " x ") + skin + " " + id
	if name != "" {
		out += " called " + measure.Capital(name)
	}
	return out
}

// coats are what coats are called.
var coats = [][2]string{{"masonry sealer", "masonry"}, {"rubber sealer", "flexseal"}, {"latex paint", "latex"},
	{"latex", "latex"}, {"exterior paint", "latex"}, {"house paint", "latex"}, {"craft paint", "acrylic"},
	{"acrylic paint", "acrylic"}, {"silver primer", "silver"}, {"spray paint", "enamel"}, {"enamel", "enamel"},
	{"dark wash", "wash"}, {"wash", "wash"}, {"glaze", "glaze"}, {"clear coat", "clear"}, {"varnish", "clear"},
	{"wood glue", "pvaseal"}, {"pva", "pvaseal"}, {"paint", "latex"}}

// painting is a coat: paint the skull with two coats of bone latex.
func painting(l *line) string {
	if l.has("paint", "coat", "seal", "varnish", "sealed", "painted", "coated") == "" {
		return ""
	}
	on := l.solid()
	if on == "" {
		return ""
	}
	n := ""
	for i, w := range l.words { // two coats
		if i+1 < len(l.words) && w.num != "" && w.unit == "" && strings.HasPrefix(l.words[i+1].text, "coat") && !w.used {
			n, w.used, l.words[i+1].used = " "+w.num, true, true
		}
	}
	for _, c := range coats {
		if l.phrase(c[0]) != "" {
			return "coat " + on + " " + c[1] + n
		}
	}
	l.assumed = append(l.assumed, l.lib.Coats["latex"].Name)
	return "coat " + on + " latex" + n
}

// solid takes the name of a solid that is there.
func (l *line) solid() string {
	best, most := "", 0
	for i := range l.p.Solids() {
		s := &l.p.Solids()[i]
		if l.prop != "" && s.Prop != l.prop {
			continue
		}
		said := strings.Fields(strings.ToLower(s.Name))
		if at := l.at(said); at >= 0 && len(said) > most {
			best, most = s.ID, len(said)
		}
	}
	if best == "" {
		return ""
	}
	s := l.p.Solid(best)
	l.phrase(strings.ToLower(s.Name))
	return s.Name
}

// at is where some words stand together, not used yet; -1 where they do not.
func (l *line) at(said []string) int {
	for i := 0; i+len(said) <= len(l.words); i++ {
		all := true
		for k, x := range said {
			w := l.words[i+k]
			all = all && !w.used && (w.text == x || w.text == x+"s")
		}
		if all {
			return i
		}
	}
	return -1
}

// supplies are what a supply is called.
var supplies = map[string]bool{"supply": true, "psu": true, "adapter": true, "transformer": true, "brick": true}

// supplying is a supply by its volts and amperes, in any order.
func supplying(l *line) string {
	l.has("power", "switching")
	if l.has("supply", "psu", "adapter", "transformer", "brick") == "" {
		return ""
	}
	v, a := l.of("v"), l.of("a")
	if v == "" || a == "" {
		return ""
	}
	return "supply " + v + "v " + a + "a"
}

// feeder is the one supply that a load of the open prop can hang on; "" where there is none, or
// more than one.
func (l *line) feeder() string {
	out := ""
	for i := range l.p.Devices() {
		d := &l.p.Devices()[i]
		if d.Is(wiring.Origin) && (l.prop == "" || d.Prop == l.prop) {
			if out != "" {
				return ""
			}
			out = d.ID
		}
	}
	if out != "" {
		l.assumed = append(l.assumed, "fed by "+out)
	}
	return out
}

// onto is what a load hangs on: what is named behind on, else the only supply.
func (l *line) onto() string {
	for i, w := range l.words {
		if w.used || w.text != "on" && w.text != "from" || i+1 >= len(l.words) {
			continue
		}
		if d := l.p.Device(strings.ToUpper(l.words[i+1].text)); d != nil {
			w.used, l.words[i+1].used = true, true
			return d.ID
		}
	}
	return l.feeder()
}

// leds are bare LEDs by their count and colour: 6 green leds.
func leds(l *line) string {
	if l.has("led", "leds") == "" {
		return ""
	}
	n, colour := l.count(), l.has("red", "green", "white", "amber", "blue")
	on := l.onto()
	if n == "" || on == "" {
		return ""
	}
	return strings.Join(strings.Fields(fmt.Sprintf("%s %s leds on %s", n, colour, on)), " ")
}

// loads are what loads are called, by the lamp of the shop.
var loads = [][2]string{{"wiper motor", "wiper12"}, {"windshield wiper motor", "wiper12"}, {"gear motor", "gear12"},
	{"rotisserie motor", "motor12"}, {"solenoid", "solenoid12"}, {"maglock", "lock12"}, {"magnetic lock", "lock12"},
	{"water pump", "pump12"}, {"pump", "pump12"}, {"fan", "fan12"}, {"amplifier", "amp12"}, {"puck light", "puck12"},
	{"puck", "puck12"}, {"servo", "servo5"}, {"pir", "pir5"}}

// driving is a load of the shop by what it is called, hung on the only supply: wiper motor 12v.
func driving(l *line) string {
	for _, x := range loads {
		if l.phrase(x[0]) == "" {
			continue
		}
		lamp := l.lib.Lamps[x[1]]
		if v := l.of("v"); v != "" && v != measure.Decimal(lamp.Volts, 1) {
			return "" // of other volts: another one
		}
		if n := l.count(); n != "" && n != "1" {
			return ""
		}
		on := l.onto()
		if on == "" {
			return ""
		}
		return "lamp " + lamp.ID + " on " + on
	}
	return ""
}

// inputs are what starts a show.
var inputs = [][2]string{{"step mat", "mat"}, {"pressure mat", "mat"}, {"mat", "mat"}, {"push button", "button"},
	{"button", "button"}, {"motion sensor", "motion"}, {"pir sensor", "motion"}, {"pir", "motion"}, {"break beam", "beam"},
	{"beam", "beam"}, {"remote button", "remote"}, {"remote", "remote"}}

// plugs are what is plugged into the mains, by what the quick line calls it.
var plugs = [][2]string{{"fog machine", "fogger"}, {"smoke machine", "fogger"}, {"fogger", "fogger"},
	{"compressor", "compressor"}, {"projector", "projector"}, {"space heater", "heater"}, {"flood light", "flood"},
	{"crock pot", "pot"}, {"bubble machine", "bubbles"}}

// plugging is a thing of the mains by its watts, on the only outlet: fog machine 400 watts.
func plugging(l *line) string {
	for _, x := range plugs {
		if l.phrase(x[0]) == "" {
			continue
		}
		w := l.of("w")
		if w == "" || l.count() != "" || len(l.p.Outlets()) != 1 {
			return ""
		}
		o := l.p.Outlets()[0]
		if at := l.at(strings.Fields(strings.ToLower(o.Name))); at >= 0 {
			l.phrase(strings.ToLower(o.Name))
			l.has("into", "on", "at")
			l.has("outlet")
		} else {
			l.assumed = append(l.assumed, "plugged into "+o.Name)
		}
		heats := ""
		if x[1] == "fogger" || x[1] == "heater" || x[1] == "pot" {
			heats = " heater"
		}
		return "plug " + x[1] + " " + w + "w" + heats + " into " + o.Name
	}
	return ""
}

// timed is a channel that an input works for so long, and what rest follows: mat fires K1 for 6 s
// then rests 20 s.
func (l *line) timed(in string) string {
	for i := range l.p.Devices() {
		d := &l.p.Devices()[i]
		if !d.Driven {
			continue
		}
		for _, name := range []string{strings.ToLower(d.Name), strings.ToLower(d.ID)} {
			if l.at(strings.Fields(name)) < 0 {
				continue
			}
			long := l.of("s")
			if long == "" {
				return ""
			}
			l.phrase(name)
			l.has("for")
			out := "when " + in + ": " + d.ID + " " + long + " s"
			if l.has("rest") != "" {
				rest := l.of("s")
				if rest == "" {
					return ""
				}
				l.has("then")
				out += "; rest " + rest + " s"
			}
			return out
		}
	}
	return ""
}

// triggering is what starts a scene: a step mat starts the glow.
func triggering(l *line) string {
	in := ""
	for _, x := range inputs {
		if l.phrase(x[0]) != "" {
			in = x[1]
			break
		}
	}
	if in == "" || l.has("trigger", "fire", "start", "run", "play", "set off") == "" {
		return ""
	}
	if as := l.timed(in); as != "" {
		return as
	}
	for i := range l.p.Scenes() {
		if at := l.at(strings.Fields(strings.ToLower(l.p.Scenes()[i].Name))); at >= 0 {
			l.phrase(strings.ToLower(l.p.Scenes()[i].Name))
			return in + " runs " + l.p.Scenes()[i].Name
		}
	}
	name := ""
	for _, w := range l.words {
		if !w.used && w.num == "" && !fillers[w.text] && name == "" && w.text != "for" {
			name, w.used = w.text, true
		}
	}
	if name == "" {
		return ""
	}
	return in + " runs " + name
}

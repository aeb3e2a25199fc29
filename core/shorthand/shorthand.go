// Package shorthand reads the quick line: short phrases a builder types, such
// as "box 22 x 18 x 26 1/2 xps1 rabbet" or "24 jars flicker 20ma on S1 22awg
// 35ft". It decides what a phrase means and answers with the edit it would
// make and the same in plain words, before anything is done.
package shorthand

import (
	"fmt"
	"math"
	"regexp"
	"sort"
	"strconv"
	"strings"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/stock"
)

// Reading is what a phrase was understood as.
type Reading struct {
	Text   string    // in plain words
	Edit   plan.Edit // what it would do
	Select string    // the element it makes or changes: kind:id
}

// reader is one phrase being read.
type reader struct {
	p     *plan.Plan
	lib   *stock.Library
	prop  string
	words []string
	aside bool // the line ends in beside: a new solid stands on its own
}

type verb struct {
	example string
	read    func(*reader) (*Reading, error)
}

var verbs map[string]verb

func init() {
	verbs = map[string]verb{
		"prop":       {"prop weathervane 30 in tall", (*reader).prop_},
		"box":        {"box 22 x 18 x 26 1/2 xps1 rabbet lid bottom (or: box 10 x 10 x 10 xps1 beside)", (*reader).box},
		"tower":      {"tower 6 sides 48 tall 20 to 9 xps1", (*reader).tower},
		"disc":       {"disc 36 in xps1 x2", (*reader).disc},
		"rings":      {"rings 24 to 12 30 tall wall 3 xps2", (*reader).rings},
		"pipe":       {"pipe 6@44in 4@60in 1.5", (*reader).pipe},
		"gores":      {"gores 36 in x 30 in n8 eva10 egg", (*reader).gores},
		"slices":     {"slices 46 x 54 dome wall 3 xps2", (*reader).slices},
		"cone":       {"cone 24 to 4 18 tall eva5", (*reader).cone},
		"wrap":       {"wrap 12 in x 30 in eva5", (*reader).wrapped},
		"boards":     {"boards 8 ft xps1", (*reader).boards},
		"outline":    {"outline 40 in tall ply1/4 pair 0,0 10,8 12,20 0,40", (*reader).outline},
		"offcut":     {"offcut xps1 18 x 30 in", (*reader).offcut},
		"scale":      {"scale to 10 ft tall (or: scale x 1.5)", (*reader).scale},
		"panel":      {"panel 36 x 10 ply1/4 x3", (*reader).panel},
		"glue":       {"glue box/front to box/left with pu", (*reader).glue},
		"coat":       {"coat box masonry, latex 2", (*reader).coat},
		"supply":     {"supply 12v 5a", (*reader).supply},
		"converter":  {"converter 5v 3a on W1", (*reader).converter},
		"battery":    {"battery 4 aa", (*reader).battery},
		"outlet":     {"outlet porch 15a 120v guarded 14awg 50 ft", (*reader).outlet},
		"plug":       {"plug fogger 400w heater into porch (or: plug S1 into porch)", (*reader).plug},
		"fuse":       {"fuse 3a on S1", (*reader).fuse},
		"switch":     {"switch on F1 (or: driven switch on F1)", (*reader).switch_},
		"driven":     {"driven switch on F1", (*reader).switch_},
		"run":        {"run 18awg 12ft on F1", (*reader).run},
		"lamp":       {"lamp puck12 on W1 at 5 ft", (*reader).lamp},
		"strip":      {"strip 2m strip12 on F1", (*reader).lamp},
		"pixels":     {"pixels 1m 60/m 5v on F1", (*reader).lamp},
		"feed":       {"feed L1 at 0% 50%", (*reader).feeds},
		"controller": {"controller 3.3v on W1", (*reader).controller},
		"connector":  {"connector 3a on W1 at 2 ft", (*reader).connector},
		"data":       {"data L1 from U1 pin 1 6 ft", (*reader).data},
		"gauges":     {"gauges 3%", (*reader).gauges},
		"path":       {"path W1 0,0,4 20,0,4 20,0,40", (*reader).path},
		"button":     {"button toggles glow", (*reader).trigger},
		"mat":        {"mat runs glow", (*reader).trigger},
		"beam":       {"beam runs glow", (*reader).trigger},
		"cue":        {"cue K1 0 s for 5 s in glow", (*reader).cue},
		"opened":     {"opened pva 2025-03-01", (*reader).opened},
		"jars...":    {"24 jars flicker12 20ma on S1 22awg 35 ft", (*reader).many},
	}
}

// Examples lists what can be typed, in order.
func Examples() []string {
	var out []string
	for _, v := range verbs {
		out = append(out, v.example)
	}
	sort.Strings(out)
	return out
}

// Error says what was not understood and gives an example that would be.
type Error struct{ Why, Example string }

func (e *Error) Error() string { return e.Why + "; try: " + e.Example }

// Read reads a phrase typed while a prop is open ("" when none is).
func Read(p *plan.Plan, lib *stock.Library, prop, text string) (*Reading, error) {
	text = strings.TrimSpace(text)
	if len(text) > 300 {
		return nil, &Error{"that is longer than 300 letters", verbs["box"].example}
	}
	r := &reader{p: p, lib: lib, prop: prop, words: strings.Fields(strings.ReplaceAll(text, ",", " , "))}
	if n := len(r.words) - 1; n > 0 && strings.EqualFold(r.words[n], "beside") {
		r.words, r.aside = r.words[:n], true
	}
	if len(r.words) == 0 {
		return nil, &Error{"nothing typed yet", verbs["box"].example}
	}
	name := strings.ToLower(r.words[0])
	v, ok := verbs[name]
	if _, err := strconv.Atoi(name); err == nil {
		v, ok = verbs["jars..."], true
	}
	if !ok {
		return nil, &Error{fmt.Sprintf("%q is no word the quick line knows", r.words[0]), nearest(name)}
	}
	if name != "prop" && name != "opened" && name != "cue" && name != "offcut" && name != "outlet" && name != "plug" && r.prop == "" {
		if len(p.Props) != 1 {
			return nil, &Error{"open a prop first", verbs["prop"].example}
		}
		r.prop = p.Props[0].ID
	}
	got, err := v.read(r)
	if err != nil {
		if _, own := err.(*Error); !own {
			err = &Error{err.Error(), v.example}
		}
		return nil, err
	}
	if _, err := p.Apply(got.Edit); err != nil {
		return nil, &Error{err.Error(), v.example}
	}
	got.Edit.Label = got.Text
	return got, nil
}

// nearest is the example whose verb starts most alike.
func nearest(word string) string {
	best, score := verbs["box"].example, 0
	for _, ex := range Examples() {
		n := 0
		for n < len(word) && n < len(ex) && word[n] == ex[n] {
			n++
		}
		if n > score {
			best, score = ex, n
		}
	}
	return best
}

// twoLengths is feet, then inches that would make a foot or more: two sizes, one
// after the other, such as 4 ft 20 in.
var twoLengths = regexp.MustCompile(`(?i)(ft|feet|foot|')\s+(1[2-9]|[2-9]\d|\d{3,})(\D|$)`)

// sizes reads the dimensions out of words, joined by x or to, and returns the
// words that are none. "26 1/2" stays one dimension.
func (r *reader) sizes(words []string) (dims []measure.Length, rest []string, err error) {
	for i := 0; i < len(words); i++ {
		w := words[i]
		if strings.EqualFold(w, "x") || strings.EqualFold(w, "to") || strings.EqualFold(w, "by") {
			continue
		}
		if c := w[0]; (c < '0' || c > '9') && c != '.' || regexp.MustCompile(`^\d+[x×]$`).MatchString(w) {
			rest = append(rest, w)
			continue
		}
		best, used := measure.Length{}, 0
		for n := 1; n <= 4 && i+n <= len(words); n++ {
			joined := strings.Join(words[i:i+n], " ")
			if n > 1 && twoLengths.MatchString(joined) {
				break
			}
			if l, e := measure.ParseLengthIn(joined, r.bare()); e == nil {
				best, used = l, n
			}
		}
		if used == 0 {
			rest = append(rest, w)
			continue
		}
		dims, i = append(dims, best), i+used-1
	}
	return dims, rest, nil
}

func (r *reader) bare() string {
	if r.p.Metric() {
		return "mm"
	}
	return "in"
}

// stockIn takes the material out of the words.
func (r *reader) stockIn(words []string, def string) (string, []string) {
	for i, w := range words {
		if _, ok := r.lib.Materials[strings.ToLower(w)]; ok {
			return strings.ToLower(w), append(append([]string(nil), words[:i]...), words[i+1:]...)
		}
	}
	return def, words
}

// take removes a flag word.
func take(words []string, flag string) (bool, []string) {
	for i, w := range words {
		if strings.EqualFold(w, flag) {
			return true, append(append([]string(nil), words[:i]...), words[i+1:]...)
		}
	}
	return false, words
}

var copyWord = regexp.MustCompile(`^[x×](\d+)$`)

func takeCopies(words []string) (int, []string) {
	for i, w := range words {
		if m := copyWord.FindStringSubmatch(strings.ToLower(w)); m != nil {
			n, _ := strconv.Atoi(m[1])
			return n, append(append([]string(nil), words[:i]...), words[i+1:]...)
		}
	}
	return 1, words
}

func wantNone(rest []string) error {
	if len(rest) > 0 {
		return fmt.Errorf("%q is not understood", strings.Join(rest, " "))
	}
	return nil
}

func (r *reader) put(text, kind, id string, v any, more ...plan.Change) (*Reading, error) {
	return &Reading{Text: text, Edit: plan.Edit{Changes: append([]plan.Change{r.p.Put(kind, id, v)}, more...)}, Select: kind + ":" + id}, nil
}

func (r *reader) solid(s plan.Solid, text string) (*Reading, error) {
	n := 0
	for _, o := range r.p.Solids {
		if o.Prop == r.prop && o.Kind == s.Kind {
			n++
		}
	}
	s.Name = measure.Capital(s.Kind)
	if n > 0 {
		s.Name = fmt.Sprintf("%s %d", s.Name, n+1)
	}
	s.Prop, s.ID = r.prop, r.p.FreshID("solid", r.prop+"-"+s.Name)
	if up := r.top(&s); up.IsZero() || r.aside {
		s.X = r.beside(&s)
	} else {
		s.Z = up
		text += ", on the pile, " + w(r, up) + " up"
	}
	return r.put(text+", "+r.lib.Materials[s.Stock].Name, "solid", s.ID, s)
}

// piles are the kinds that stand on one another: a base, a body, a cap.
var piles = map[string]bool{"box": true, "tower": true, "disc": true, "rings": true, "slices": true, "gores": true, "cone": true, "wrap": true, "mesh": true}

// top is how high the prop's pile reaches, on which a new solid of a kind that
// piles stands unless it is told to stand beside.
func (r *reader) top(s *plan.Solid) measure.Length {
	top, stands := 0.0, false
	for i := range r.p.Solids {
		o := &r.p.Solids[i]
		if o.Prop != r.prop || !piles[s.Kind] || !piles[o.Kind] || o.Upright || o.X.Value() != 0 || o.Y.Value() != 0 {
			continue
		}
		if shape, err := o.Shape(r.lib); err == nil {
			top, stands = math.Max(top, o.Z.Value()+shape.Size.Z), stands || o.Z.Value() == 0
		}
	}
	if s.Upright || !stands { // nothing is piled on what hangs
		return measure.Length{}
	}
	z, err := measure.Parse[measure.LengthKind](measure.Tape(top, r.p.Metric()))
	if err != nil {
		return measure.Length{}
	}
	return z
}

// beside is where a new solid stands so that it does not stand in another of
// its prop: to the right of all, a hand's width off.
func (r *reader) beside(s *plan.Solid) measure.Length {
	own, err := s.Shape(r.lib)
	if err != nil {
		return measure.Length{}
	}
	right, some := 0.0, false
	for i := range r.p.Solids {
		o := &r.p.Solids[i]
		if shape, err := o.Shape(r.lib); o.Prop == r.prop && err == nil {
			edge := o.X.Value() + shape.Size.X/2
			if !some || edge > right {
				right, some = edge, true
			}
		}
	}
	if !some {
		return measure.Length{}
	}
	x, err := measure.Parse[measure.LengthKind](measure.Tape(right+4*measure.Inch+own.Size.X/2, r.p.Metric()))
	if err != nil {
		return measure.Length{}
	}
	return x
}

func (r *reader) prop_() (*Reading, error) {
	_, words := take(r.words[1:], "tall")
	var name []string
	for len(words) > 0 && (words[0][0] < '0' || words[0][0] > '9') {
		name, words = append(name, words[0]), words[1:]
	}
	dims, rest, _ := r.sizes(words)
	if err := wantNone(rest); err != nil {
		return nil, err
	}
	if len(name) == 0 {
		return nil, &Error{"give it a name", verbs["prop"].example}
	}
	p := plan.Prop{Name: strings.Join(name, " "), Of: "height"}
	for _, q := range r.p.Props {
		if strings.EqualFold(q.Name, p.Name) {
			return nil, fmt.Errorf("there is a prop “%s” already; give this one another name", q.Name)
		}
	}
	p.ID = r.p.FreshID("prop", p.Name)
	text := fmt.Sprintf("new prop “%s”", p.Name)
	if len(dims) > 0 {
		p.Known = dims[0]
		text += ", " + p.Known.String() + " tall"
	}
	return r.put(text, "prop", p.ID, p)
}

func (r *reader) box() (*Reading, error) {
	s := plan.Solid{Kind: "box", Joint: "butt"}
	words := r.words[1:]
	s.Stock, words = r.stockIn(words, "xps1")
	for _, j := range []string{"butt", "mitre", "rabbet"} {
		if yes, w := take(words, j); yes {
			s.Joint, words = j, w
		}
	}
	s.Bottom, words = take(words, "bottom")
	s.Lid, words = take(words, "lid")
	dims, rest, _ := r.sizes(words)
	if err := wantNone(rest); err != nil {
		return nil, err
	}
	if len(dims) != 3 {
		return nil, fmt.Errorf("a box takes width x depth x height, %d sizes read", len(dims))
	}
	s.W, s.D, s.H = dims[0], dims[1], dims[2]
	text := fmt.Sprintf("box, %s wide, %s deep, %s tall, %s corners", w(r, s.W), w(r, s.D), w(r, s.H), s.Joint)
	if s.Lid {
		text += ", lid"
	}
	if s.Bottom {
		text += ", bottom"
	}
	return r.solid(s, text)
}

// w writes a length the display's way.
func w(r *reader, l measure.Length) string { return measure.Tape(l.Value(), r.p.Metric()) }

func (r *reader) tower() (*Reading, error) {
	s := plan.Solid{Kind: "tower", Sides: 4}
	words := r.words[1:]
	s.Stock, words = r.stockIn(words, "xps1")
	for i, x := range words {
		if strings.EqualFold(x, "sides") && i > 0 {
			n, err := strconv.Atoi(words[i-1])
			if err != nil || n < 3 {
				return nil, fmt.Errorf("%q sides make no tower; write 3 or more", words[i-1])
			}
			s.Sides = n
			words = append(append([]string(nil), words[:i-1]...), words[i+1:]...)
			break
		}
	}
	var height measure.Length
	words, height = r.before(words, "tall")
	dims, rest, _ := r.sizes(words)
	if err := wantNone(rest); err != nil {
		return nil, err
	}
	if height.IsZero() && len(dims) == 3 { // the height comes first, as in the calculator
		height, dims = dims[0], dims[1:]
	}
	if height.IsZero() || len(dims) != 2 {
		return nil, fmt.Errorf("a tower takes a height, said with tall, and two sizes across")
	}
	s.H, s.Low, s.High = height, dims[0], dims[1]
	return r.solid(s, fmt.Sprintf("tower of %d sides, %s tall, %s across at the bottom, %s at the top", s.Sides, w(r, s.H), w(r, s.Low), w(r, s.High)))
}

// before takes the length that stands before a word, and the word.
func (r *reader) before(words []string, mark string) ([]string, measure.Length) {
	for i, x := range words {
		if strings.EqualFold(x, mark) {
			for n := min(3, i); n >= 1; n-- {
				if l, err := measure.ParseLengthIn(strings.Join(words[i-n:i], " "), r.bare()); err == nil {
					return append(append([]string(nil), words[:i-n]...), words[i+1:]...), l
				}
			}
		}
	}
	return words, measure.Length{}
}

// after takes the length that stands after a word, and the word.
func (r *reader) after(words []string, mark string) ([]string, measure.Length) {
	for i, x := range words {
		if strings.EqualFold(x, mark) {
			for n := min(3, len(words)-i-1); n >= 1; n-- {
				if l, err := measure.ParseLengthIn(strings.Join(words[i+1:i+1+n], " "), r.bare()); err == nil {
					return append(append([]string(nil), words[:i]...), words[i+1+n:]...), l
				}
			}
		}
	}
	return words, measure.Length{}
}

func (r *reader) disc() (*Reading, error) {
	s := plan.Solid{Kind: "disc"}
	words := r.words[1:]
	s.Stock, words = r.stockIn(words, "xps1")
	s.Copies, words = takeCopies(words)
	words, s.Bore = r.after(words, "bore")
	dims, rest, _ := r.sizes(words)
	if err := wantNone(rest); err != nil {
		return nil, err
	}
	if len(dims) != 1 {
		return nil, fmt.Errorf("a disc takes one diameter")
	}
	s.W = dims[0]
	return r.solid(s, fmt.Sprintf("%d disc, %s across", s.Copies, w(r, s.W)))
}

func (r *reader) rings() (*Reading, error) {
	s := plan.Solid{Kind: "rings"}
	words := r.words[1:]
	s.Stock, words = r.stockIn(words, "xps2")
	words, s.H = r.before(words, "tall")
	words, s.Wall = r.after(words, "wall")
	dims, rest, _ := r.sizes(words)
	if err := wantNone(rest); err != nil {
		return nil, err
	}
	if len(dims) == 1 {
		dims = append(dims, dims[0])
	}
	if s.H.IsZero() || s.Wall.IsZero() || len(dims) != 2 {
		return nil, fmt.Errorf("rings take one or two diameters, a height and a wall")
	}
	s.Low, s.High = dims[0], dims[1]
	return r.solid(s, fmt.Sprintf("ring stack, %s across at the bottom, %s at the top, %s tall, wall %s", w(r, s.Low), w(r, s.High), w(r, s.H), w(r, s.Wall)))
}

func (r *reader) pipe() (*Reading, error) {
	s := plan.Solid{Kind: "pipe", Stock: "pvc1"}
	var list []string
	for _, x := range r.words[1:] {
		switch {
		case strings.Contains(x, "@"):
			list = append(list, x)
		case r.lib.Materials["pvc"+x].Form == "pipe":
			s.Stock = "pvc" + x
		case r.lib.Materials[x].Form == "pipe":
			s.Stock = x
		default:
			return nil, wantNone([]string{x})
		}
	}
	s.Lengths = strings.Join(list, " ")
	cuts, err := plan.Cuts(s.Lengths)
	if err != nil {
		return nil, err
	}
	n := 0
	for _, c := range cuts {
		n += c.Count
	}
	if n == 0 {
		return nil, fmt.Errorf("a pipe list takes count@length")
	}
	return r.solid(s, fmt.Sprintf("%d pieces of pipe: %s", n, s.Lengths))
}

func (r *reader) panel() (*Reading, error) {
	s := plan.Solid{Kind: "panel"}
	words := r.words[1:]
	s.Stock, words = r.stockIn(words, "ply1/4")
	s.Copies, words = takeCopies(words)
	s.Lying, words = take(words, "lying")
	dims, rest, _ := r.sizes(words)
	if err := wantNone(rest); err != nil {
		return nil, err
	}
	if len(dims) != 2 {
		return nil, fmt.Errorf("a panel takes width x height")
	}
	s.W, s.H = dims[0], dims[1]
	return r.solid(s, fmt.Sprintf("%d panel, %s x %s", s.Copies, w(r, s.W), w(r, s.H)))
}

func (r *reader) glue() (*Reading, error) {
	var parts []string
	j := plan.Joint{Prop: r.prop, Glue: "pu"}
	for _, x := range r.words[1:] {
		low := strings.ToLower(x)
		switch {
		case low == "to" || low == "with" || low == "and":
		case r.lib.Glues[low].ID != "":
			j.Glue = low
		default:
			ref := r.part(x)
			if err := r.partThere(ref); err != nil {
				return nil, err
			}
			parts = append(parts, ref)
		}
	}
	if len(parts) != 2 {
		return nil, fmt.Errorf("a joint takes two parts and a glue, %d parts read", len(parts))
	}
	j.A, j.B = parts[0], parts[1]
	j.ID = r.p.FreshID("joint", j.A+" "+j.B)
	return r.put(fmt.Sprintf("glue %s to %s with %s", j.A, j.B, r.lib.Glues[j.Glue].Name), "joint", j.ID, j)
}

// partThere refuses a part that its solid does not have.
func (r *reader) partThere(ref string) error {
	id, panel, ok := strings.Cut(ref, "/")
	if !ok || strings.HasPrefix(ref, "=") {
		return nil
	}
	s := r.p.Solid(id)
	if s == nil {
		return fmt.Errorf("there is no solid %q", id)
	}
	shape, err := s.Shape(r.lib)
	if err != nil {
		return nil // it has no parts yet; its sizes come later
	}
	var have []string
	for _, p := range shape.Panels {
		if p.ID == panel || strings.HasPrefix(p.ID, panel+"-") {
			return nil
		}
		have = append(have, p.ID)
	}
	if len(have) == 0 {
		return fmt.Errorf("%s has no flat parts; glue it whole, as %s", s.Name, s.ID)
	}
	return fmt.Errorf("%s has no part %q; it has %s", s.Name, panel, strings.Join(have, ", "))
}

// part completes a part's name: front is the open prop's only solid's front.
func (r *reader) part(name string) string {
	if strings.Contains(name, "/") || strings.HasPrefix(name, "=") {
		return name
	}
	if s := r.solidNamed(name); s != nil {
		return s.ID
	}
	if m := r.lib.Materials[name]; m.ID != "" {
		return "=" + name
	}
	for _, s := range r.p.Solids {
		if s.Prop == r.prop {
			return s.ID + "/" + strings.ToLower(name)
		}
	}
	return name
}

func (r *reader) solidNamed(name string) *plan.Solid {
	for i := range r.p.Solids {
		if s := &r.p.Solids[i]; s.Prop == r.prop && (strings.EqualFold(s.ID, name) || strings.EqualFold(s.Name, name)) {
			return s
		}
	}
	return r.p.Solid(name)
}

func (r *reader) coat() (*Reading, error) {
	if len(r.words) < 3 {
		return nil, fmt.Errorf("name the part and its coats")
	}
	s := r.solidNamed(r.words[1])
	if s == nil {
		return nil, fmt.Errorf("there is no solid %q in this prop", r.words[1])
	}
	f, verb := plan.Finish{ID: s.ID, Solid: s.ID}, "coat "
	words := r.words[2:]
	again := strings.EqualFold(words[0], "afresh") // in place of the stack that is there
	if again {
		words = words[1:]
	}
	for i := range r.p.Finishes { // one stack a solid: more coats go on top
		if old := &r.p.Finishes[i]; old.Solid == s.ID {
			if f.ID = old.ID; again {
				verb = "coat afresh, in place of what is there, "
			} else if len(old.Layers) > 0 {
				f.Layers, verb = append([]plan.Layer(nil), old.Layers...), "coat on top of what is there, "
			}
		}
	}
	before := len(f.Layers)
	var said []string
	for _, x := range words {
		if x == "," {
			continue
		}
		if n, err := strconv.Atoi(x); err == nil && len(f.Layers) > before {
			f.Layers[len(f.Layers)-1].Coats = n
			continue
		}
		c, ok := r.lib.Coats[strings.ToLower(x)]
		if !ok {
			return nil, fmt.Errorf("the shop has no coat %q; it has %s", x, strings.Join(stock.IDs(r.lib.Coats), ", "))
		}
		f.Layers = append(f.Layers, plan.Layer{Coat: c.ID, Coats: max(1, c.Coats)})
	}
	for _, l := range f.Layers {
		said = append(said, fmt.Sprintf("%s x%d", r.lib.Coats[l.Coat].Name, l.Coats))
	}
	return r.put(verb+s.Name+": "+strings.Join(said, ", then "), "finish", f.ID, f)
}

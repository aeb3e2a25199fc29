// Package shorthand reads the quick line: short phrases a builder types, such
// as "box 22 x 18 x 26 1/2 xps1 rabbet" or "24 jars flicker 20ma on S1 22awg
// 35ft". It decides what a phrase means and answers with the edit it would
// make and the same in plain words, before anything is done.
package shorthand

import (
	"errors"
	"fmt"
	"maps"
	"regexp"
	"slices"
	"sort"
	"strconv"
	"strings"

	"zapbarn/core/form"
	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/stock"
	"zapbarn/core/words"
)

// Reading is what a phrase was understood as.
type Reading struct {
	Text   string    // in plain words
	Edit   plan.Edit // what it would do
	Select string    // the element it makes or changes: kind:id
}

// reader is one phrase being read.
type reader struct {
	p      *plan.Plan
	lib    *stock.Library
	prop   string
	words  []string
	called string // the word its verb was said by, when it was another than the verb
	aside  bool   // the line ends in beside: a new solid stands on its own
	name   string // that a new solid is called by
}

type verb struct {
	example string
	read    func(*reader) (*Reading, error)
}

var verbs map[string]verb

// anywhere are the verbs that need no prop to be open.
var anywhere = map[string]bool{
	"prop":  true,
	"stand": true, "wall": true, "screen": true, "fence": true, "hedge": true, "walk": true, "light": true,
	"cord": true, "view": true, "wind": true, "align": true,
	"opened": true,
	"person": true, "delivery": true, "task": true,
	"cue":    true,
	"offcut": true,
	"outlet": true,
	"plug":   true,
	"shop":   true,
	"price":  true,
	"remove": true,
	"rename": true, "note": true,
	"copy": true,
}

// aliases are other words for a verb, as the palette and people have them.
var aliases = map[string][]string{
	"ball":       {"gores"},
	"hive":       {"slices"},
	"tube":       {"wrap"},
	"gear":       {"wheel"},
	"hopper":     {"pyramid"},
	"silhouette": {"outline"},
	"cloth":      {"skin"},
	"clay":       {"modelled"},
	"shell":      {"laminate"},
	"bands":      {"trim"},
	"jar": {
		"bought",
		"jar",
	},
	"bottle":    {"bought", "bottle"},
	"skull":     {"bought", "skull"},
	"mannequin": {"bought", "mannequin"},
	"tote":      {"bought", "tote"},
	"delete":    {"remove"},
	"put":       {"stand"},
	"fabric":    {"skin"},
}

func init() { // not in the variable itself: reading looks it up
	verbs = map[string]verb{}
	for _, some := range []map[string]verb{sayThings(), sayWires(), sayShow(), sayPlaces()} {
		maps.Copy(verbs, some)
	}
	for _, name := range form.Names() {
		if k, _ := form.Of(name); k.Read != nil {
			verbs[name] = verb{k.Example, (*reader).form}
		}
	}
}

// sayThings are the verbs of what a prop is made of, and of the shop.
func sayThings() map[string]verb {
	return map[string]verb{
		"prop":    {"prop weathervane 30 in tall", (*reader).newProp},
		"offcut":  {"offcut xps1 18 x 30 in", (*reader).offcut},
		"scale":   {"scale to 10 ft tall (or: scale x 1.5)", (*reader).scale},
		"glue":    {"glue box/front to box/left with pu", (*reader).glue},
		"coat":    {"coat box masonry, latex 2", (*reader).coat},
		"hole":    {"hole 2 in in box/front up 3 in", (*reader).opening},
		"slot":    {"slot 8 x 1 5/8 in box front up 3 in called entrance", (*reader).opening},
		"window":  {"window 10 x 8 in tower face 2", (*reader).opening},
		"door":    {"door 8 x 6 in box back", (*reader).opening},
		"letters": {"letters 3 in in box front says BEWARE", (*reader).opening},
		"pocket":  {"pocket 4 x 2 deep 1/2 in box back", (*reader).opening},
		"groove":  {"groove 18 x 1/4 deep 3/8 in box left up 20 in", (*reader).opening},
		"shape":   {"shape 6 x 8 in box front corners 0,0 4,0 2,3", (*reader).opening},
		"pane":    {"pane acrylic3 in box Entrance overlap 1/2 magnets 4", (*reader).pane},
		"remove":  {"remove K2", (*reader).remove},
		"rename":  {"rename box to chest", (*reader).rename},
		"copy":    {"copy prop skep as small skep (or: copy box as second box)", (*reader).copy},
		"mirror":  {"mirror left arm as right arm", (*reader).copy},
		"row":     {"row box x6 every 30 in", (*reader).array},
		"circle":  {"circle box x8 10 ft", (*reader).array},
		"pickets": {"pickets box x4 along 16 ft", (*reader).array},
		"shop":    {"shop material cork3 like eva5 thick 3 mm sheet 24 x 36 in price 18", (*reader).shop},
		"price":   {"price xps1 32", (*reader).price},
		"note":    {"note box: sand the lid", (*reader).note},
		"opened":  {"opened pva 2025-03-01", (*reader).opened},
	}
}

// sayWires are the verbs of the wiring.
func sayWires() map[string]verb {
	return map[string]verb{
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
		"jars...":    {"24 jars flicker12 20ma on S1 22awg 35 ft", (*reader).many},
	}
}

// sayShow are the verbs of what it does.
func sayShow() map[string]verb {
	return map[string]verb{
		"button":    {"button toggles glow", (*reader).trigger},
		"mat":       {"mat runs glow", (*reader).trigger},
		"beam":      {"beam runs glow", (*reader).trigger},
		"when":      {"when mat, if ready, run glow: K1 5 s; rest 12 s", (*reader).when},
		"every":     {"every 10 min, if ready, run glow: K1 5 s", (*reader).when},
		"always":    {"always K1 never longer than 8 s", (*reader).when},
		"mechanism": {"mechanism lid Cover 2 lb motor L9", (*reader).mechanism},
		"merge":     {"merge Rise with Hum wins as Both", (*reader).merge},
		"perform":   {"perform jaw by Laugh in Talk", (*reader).perform},
		"motion":    {"motion runs glow", (*reader).trigger},
		"remote":    {"remote runs glow", (*reader).trigger},
		"cue":       {"cue K1 0 s for 5 s in glow", (*reader).cue},
	}
}

// sayPlaces are the verbs of where it stands, and of who builds it when.
func sayPlaces() map[string]verb {
	return map[string]verb{
		"person":   {"person Ola mon-fri 18-21:30, sat sun 10-18", (*reader).person},
		"delivery": {"delivery gear motor for box 2026-10-03", (*reader).delivery},
		"task":     {"task fetch the fogger 1 h", (*reader).task},
		"align":    {"align skep, gate in a row", (*reader).align},
		"stand":    {"stand skep at 20 ft, 6 ft turned 30", (*reader).stand},
		"wall":     {"wall house 9 ft high from 0 ft, 0 ft to 40 ft, 0 ft", (*reader).wall},
		"screen":   {"screen reed 6 ft high from 8 ft, 14 ft to 16 ft, 14 ft", (*reader).wall},
		"fence":    {"fence 4 ft high from 0 ft, 40 ft to 60 ft, 40 ft", (*reader).wall},
		"hedge":    {"hedge 5 ft high from 0 ft, 0 ft to 0 ft, 30 ft", (*reader).wall},
		"walk":     {"walk path 4 ft wide 3 ft, 26 ft ; 14 ft, 19 ft ; 40 ft, 19 ft", (*reader).walk},
		"light":    {"light fill 100 lm at 12 ft, 10 ft up 1 ft", (*reader).light},
		"cord":     {"cord porch to skep 50 ft", (*reader).cord},
		"view":     {"view gate at 3 ft, 26 ft looking -30", (*reader).view},
		"wind":     {"wind 2026-10-31 22 mph gusts 31 mph air 9 C 80 %", (*reader).wind},
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

// Error says what was not understood and gives an example that would be. Offers are the
// line itself, set right, where that is known: one, or one for each it could mean.
type Error struct {
	Why, Example string
	Offers       []string
}

func (e *Error) Error() string {
	if len(e.Offers) > 0 {
		return e.Why + "; did you mean: " + strings.Join(e.Offers, ", or ")
	}
	return e.Why + "; try: " + e.Example
}

// Tries are the lines to go on with: those offered, or the examples.
func (e *Error) Tries() []string {
	if len(e.Offers) > 0 {
		return e.Offers
	}
	return strings.Split(strings.TrimSuffix(strings.Replace(e.Example, " (or: ", "\n", 1), ")"), "\n")
}

// repeated are the verbs that a count behind them repeats: lamp puck12 on W1 x3.
var repeated = map[string]bool{
	"lamp":      true,
	"strip":     true,
	"pixels":    true,
	"fuse":      true,
	"switch":    true,
	"driven":    true,
	"run":       true,
	"connector": true,
	"converter": true,
	"supply":    true,
}

var repeat = regexp.MustCompile(`^[x×](\d{1,3})$`)

// mostRepeats is how often one line may be done.
const mostRepeats = 100

// measured are the verbs whose numbers may have their unit behind a space.
var measured = map[string]bool{
	"supply": true, "converter": true, "fuse": true, "run": true, "lamp": true, "strip": true, "pixels": true,
	"outlet": true, "plug": true, "connector": true, "controller": true, "battery": true,
}

// again reads a phrase that is to be done several times; nil when it is not.
func again(p *plan.Plan, lib *stock.Library, prop, text string) (*Reading, *plan.Plan, error) {
	words := strings.Fields(text)
	if len(words) < 2 || !repeated[strings.ToLower(words[0])] {
		return nil, nil, nil
	}
	m := repeat.FindStringSubmatch(strings.ToLower(words[len(words)-1]))
	if m == nil {
		return nil, nil, nil
	}
	n, err := strconv.Atoi(m[1])
	if err != nil || n < 1 || n > mostRepeats {
		return nil, nil, &Error{
			Why:     fmt.Sprintf("%s times is too often; write x1 to x%d", m[1], mostRepeats),
			Example: verbs[strings.ToLower(words[0])].example,
		}

	}
	line := strings.Join(words[:len(words)-1], " ")
	out := &Reading{}
	for range n {
		r, q, err := read(p, lib, prop, line)
		if err != nil {
			return nil, nil, err
		}
		p = q
		out.Text, out.Select = fmt.Sprintf("%d times: %s", n, r.Text), r.Select
		out.Edit.Changes = append(out.Edit.Changes, r.Edit.Changes...)
	}
	out.Edit.Label = out.Text
	return out, p, nil
}

// Read reads a phrase typed while a prop is open ("" when none is).
func Read(p *plan.Plan, lib *stock.Library, prop, text string) (*Reading, error) {
	r, _, err := read(p, lib, prop, text)
	return r, err
}

// read is Read with the plan as the phrase leaves it; what is refused is said in the
// plan's units, with what may have been meant.
func read(p *plan.Plan, lib *stock.Library, prop, text string) (*Reading, *plan.Plan, error) {
	r, q, err := plainRead(p, lib, prop, text)
	e, own := err.(*Error)
	if !own {
		return r, q, err
	}
	if where := onlyName(p, prop, text); where != nil {
		return nil, nil, where
	}
	if list := splitLine(text); len(list) > 0 && len(text) <= 300 {
		as := list
		if lines := plainly(list, p.Shop(lib)); len(lines) > 0 {
			list = lines[len(lines)-1]
		}
		if offer(p, lib, prop, list, e); len(e.Offers) == 0 && number.MatchString(as[0]) {
			offer(p, lib, prop, as, e) // so many lamps
		}
		keepReadable(p, lib, prop, list, e)
	}
	e.Why = measure.InUnits(e.Why, p.Metric())
	return r, q, err
}

func splitLine(text string) []string { return strings.Fields(strings.ReplaceAll(text, ",", " , ")) }

// plainRead is the phrase as it stands, else as what it may plainly have meant.
func plainRead(p *plan.Plan, lib *stock.Library, prop, text string) (*Reading, *plan.Plan, error) {
	r, q, err := understood(p, lib, prop, text)
	list := splitLine(text)
	if err == nil {
		if size := astray(r, list, p.Metric(), false); size != "" {
			verb := strings.ToLower(list[0])
			if to := aliases[verb]; to != nil {
				verb = to[0]
			}
			err = &Error{Why: "“" + size + "” is not where this line would have it", Example: verbs[verb].example}
		}
	}
	if err == nil || len(list) == 0 || len(text) > 300 {
		return r, q, err
	}
	lines := plainly(list, p.Shop(lib))
	last := list
	if len(lines) > 0 {
		last = lines[len(lines)-1]
	}
	for k, line := range append(lines, labelled(last)...) {
		ordered := k >= len(lines) // its sizes are no longer by their words
		again, then, other := understood(p, lib, prop, strings.Join(line, " "))
		if other == nil && astray(again, last, p.Metric(), ordered) == "" {
			return again, then, nil
		}
		if e, own := err.(*Error); own && other != nil && !ordered && outer(e.Why, list) { // what is wrong beside
			err = other
		}
	}
	return r, q, err
}

// outer is true of a refusal of the words a line was said in, not of what it says.
func outer(why string, list []string) bool {
	if strings.Contains(why, "is no word the quick line knows") {
		return true
	}
	if strings.Contains(why, "the shop has no") {
		return false
	}
	if number.MatchString(list[0]) && len(list) > 1 && singular(strings.ToLower(list[1])) != "jar" {
		return true // it was read as so many lamps
	}
	return strings.Contains(why, "is not understood") && slices.ContainsFunc(list, func(w string) bool {
		return joined.MatchString(w) && strings.Contains(why, w)
	})
}

// offer sets a misspelt name of the shop right.
func offer(p *plan.Plan, lib *stock.Library, prop string, list []string, e *Error) {
	verb := strings.ToLower(list[0])
	if to := aliases[verb]; to != nil {
		verb = to[0]
	}
	line := meantStock(verb, list, p.Shop(lib))
	if line == "" {
		return
	}
	_, _, still := plainRead(p, lib, prop, line)
	var unsure *Error // which of several it is can be said next
	if still == nil {
		e.Offers = []string{line}
	} else if errors.As(still, &unsure) && len(unsure.Offers) > 0 {
		e.Offers = unsure.Offers
	}
}

// keepReadable keeps the offers that are understood, with each size where the line had it.
// Where none is, what stands in the way of the first is said as well.
func keepReadable(p *plan.Plan, lib *stock.Library, prop string, list []string, e *Error) {
	var first *Error
	kept := slices.DeleteFunc(slices.Clone(e.Offers), func(line string) bool {
		r, _, err := plainRead(p, lib, prop, line)
		if err == nil {
			return astray(r, list, p.Metric(), false) != ""
		}
		wrong, own := err.(*Error)
		if own && first == nil {
			first = wrong
		}
		return !own || len(wrong.Offers) == 0 // that is another word that could be several
	})
	if len(kept) == 0 && first != nil && first.Why != e.Why {
		e.Why, e.Example = e.Why+"; and "+first.Why, first.Example
	}
	e.Offers = kept
}

func understood(p *plan.Plan, lib *stock.Library, prop, text string) (*Reading, *plan.Plan, error) {
	text = strings.TrimSpace(text)
	if len(text) > 300 {
		return nil, nil, &Error{Why: "that is longer than 300 letters", Example: verbs["box"].example}
	}
	if r, q, err := again(p, lib, prop, text); r != nil || err != nil {
		return r, q, err
	}
	if p.Prop(prop) == nil { // it went while the line was typed
		prop = ""
	}
	r := begun(p, lib, prop, text)
	if len(r.words) == 0 {
		return nil, nil, &Error{Why: "nothing typed yet", Example: verbs["box"].example}
	}
	const example = "box height 30 (or: box wider by 2 in, cap on body)"
	own, meant, err := r.known() // a thing's own name comes before a verb: box height 30
	if own != nil && err == nil {
		return applied(p, own, "box height 30")
	}
	if meant && err != nil {
		return nil, nil, &Error{Why: err.Error(), Example: example}
	}
	name, v, ok := r.verb()
	if !ok && err != nil {
		return nil, nil, &Error{Why: err.Error(), Example: example}
	}
	if !ok {
		return nil, nil, &Error{
			Why:     fmt.Sprintf("%q is no word the quick line knows", r.words[0]),
			Example: nearest(name),
		}
	}
	if !anywhere[name] && r.prop == "" {
		if len(p.Props()) != 1 {
			return nil, nil, &Error{Why: "open a prop first", Example: verbs["prop"].example}
		}
		r.prop = p.Props()[0].ID
	}
	got, err := r.tried(name, v)
	if err != nil {
		return nil, nil, err
	}
	return applied(p, got, v.example)
}

// begun is a line taken apart into its words.
func begun(p *plan.Plan, lib *stock.Library, prop, text string) *reader {
	r := &reader{p: p, lib: p.Shop(lib), prop: prop, words: strings.Fields(strings.ReplaceAll(text, ",", " , "))}
	if len(r.words) > 0 && measured[strings.ToLower(r.words[0])] {
		r.words = joinUnits(r.words)
	}
	for i := 1; i < len(r.words); i++ { // at the end, or before its name
		if strings.EqualFold(r.words[i], "beside") &&
			(i+1 == len(r.words) || strings.EqualFold(r.words[i+1], "called")) {
			r.words, r.aside = slices.Delete(r.words, i, i+1), true
			break
		}
	}
	return r
}

// verb is what the line begins with, or what that is another word for.
func (r *reader) verb() (name string, v verb, ok bool) {
	name = strings.ToLower(r.words[0])
	v, ok = verbs[name]
	if _, err := strconv.Atoi(name); err == nil {
		v, ok = verbs["jars..."], true
	}
	if to := aliases[name]; !ok && to != nil {
		r.words = append(append([]string(nil), to...), r.words[1:]...)
		r.called, name = name, to[0]
		v, ok = verbs[name]
	}
	return name, v, ok
}

// tried reads the line by its verb.
func (r *reader) tried(name string, v verb) (*Reading, error) {
	got, err := r.attempt(name, v)
	if err != nil {
		return r.naming(name, v, err)
	}
	return got, nil
}

// attempt reads the line by its verb; the shop's names are found by a part of them.
func (r *reader) attempt(name string, v verb) (*Reading, error) {
	got, err := v.read(r)
	for range 3 {
		if err == nil {
			return got, nil
		}
		line, unsure := byName(name, r.words, r.lib)
		if unsure != nil {
			err = unsure
		}
		if line == nil {
			break
		}
		r.words = line
		got, err = v.read(r)
	}
	if err == nil {
		return got, nil
	}
	if _, own := err.(*Error); own {
		return nil, err
	}
	wrong := &Error{Why: err.Error(), Example: v.example}
	if several, ok := errors.AsType[*unsure](err); ok {
		wrong.Offers = several.lines()
	}
	return nil, wrong
}

// applied is what was read with the plan after it; what the plan refuses is told with an
// example.
func applied(p *plan.Plan, r *Reading, example string) (*Reading, *plan.Plan, error) {
	q, err := p.Apply(r.Edit)
	if err != nil {
		return nil, nil, &Error{Why: err.Error(), Example: example}
	}
	r.Edit.Label = r.Text
	return r, q, nil
}

// nearest is the example of the verb, or of the other word for one, that takes
// the fewest letters changed to be typed.
func nearest(word string) string {
	best, least := verbs["box"].example, 1000
	names := make([]string, 0, len(verbs)+len(aliases))
	for n := range verbs {
		names = append(names, n)
	}
	for n := range aliases {
		names = append(names, n)
	}
	sort.Strings(names)
	for _, n := range names {
		verb := n
		if to := aliases[n]; to != nil {
			verb = to[0]
		}
		if d := apart(word, n); d < least {
			best, least = verbs[verb].example, d
		}
	}
	return best
}

// apart is how many letters must be put in, taken out or changed to make one
// word of another, those at the head counted twice.
func apart(a, b string) int {
	prev := make([]int, len(b)+1)
	for j := range prev {
		prev[j] = 2 * j
	}
	for i := 1; i <= len(a); i++ {
		now := make([]int, len(b)+1)
		now[0] = 2 * i
		for j := 1; j <= len(b); j++ {
			cost := 2
			if a[i-1] == b[j-1] {
				cost = 0
			} else if i == 1 && j == 1 {
				cost = 4
			}
			now[j] = min(prev[j]+2, now[j-1]+2, prev[j-1]+cost)
		}
		prev = now
	}
	return prev[len(b)]
}

// phrase is part of the line, to be taken apart.
func (r *reader) phrase(list []string) *words.Words {
	return &words.Words{List: list, Metric: r.p.Metric()}
}

// sizes reads the dimensions out of words; rest are those that are none.
func (r *reader) sizes(list []string) (dims []measure.Length, rest []string) {
	w := r.phrase(list)
	return w.Sizes(), w.List
}

func (r *reader) bare() string {
	if r.p.Metric() {
		return "mm"
	}
	return "in"
}

// stockIn takes the material out of the words.
func (r *reader) stockIn(w *words.Words, def string) string {
	return w.Known(def, func(x string) bool { return r.lib.Materials[x].ID != "" })
}

// take removes a flag word.
func take(list []string, flag string) (bool, []string) {
	w := words.Words{List: list}
	return w.Take(flag), w.List
}

func wantNone(rest []string) error { return (&words.Words{List: rest}).None() }

func (r *reader) put(text, kind, id string, v any, more ...plan.Change) (*Reading, error) {
	return &Reading{
		Text:   text,
		Edit:   plan.Edit{Changes: append([]plan.Change{r.p.Put(kind, id, v)}, more...)},
		Select: kind + ":" + id,
	}, nil
}

// form reads a new solid of any form: its stock is taken out here, the rest is
// the form's own phrase.
func (r *reader) form() (*Reading, error) {
	k, _ := form.Of(strings.ToLower(r.words[0]))
	list, named, ok := parted(r.words[1:], "called")
	if ok {
		r.name = strings.Join(named, " ")
	}
	w := r.phrase(list)
	stock := r.stockIn(w, "")
	if stock == "" && k.Nick != "" {
		if x := w.Known("", func(x string) bool { return r.lib.Materials[k.Nick+x].ID != "" }); x != "" {
			stock = k.Nick + x
		}
	}
	if stock == "" {
		stock = k.Stock
	}
	f, text, err := k.Read(w)
	if err != nil {
		return nil, err
	}
	return r.solid(plan.Solid{Kind: k.Name, Stock: stock, Form: f}, text)
}

func (r *reader) solid(s plan.Solid, text string) (*Reading, error) {
	called := s.Kind
	if r.called != "" {
		called = r.called
	}
	s.Name = measure.Capital(called)
	if r.name != "" {
		called, s.Name = r.name, r.name
	}
	for n := 2; r.solidNamed(s.Name) != nil && r.solidNamed(s.Name).Prop == r.prop; n++ {
		s.Name = fmt.Sprintf("%s %d", measure.Capital(called), n)
	}
	s.Prop, s.ID = r.prop, r.p.FreshID("solid", r.prop+"-"+s.Name)
	if up, under := r.top(&s); up.IsZero() || r.aside {
		s.X = r.beside(&s)
	} else {
		s.Z, s.By, s.How = up, under, "on"
		text += ", on the pile, " + w(r, up) + " up"
	}
	return r.put(text+", "+r.lib.Materials[s.Stock].Name, "solid", s.ID, s)
}

// top is how high the prop's pile reaches, and by which solid: a new one of a kind
// that piles stands on that unless it is told to stand beside.
func (r *reader) top(s *plan.Solid) (up measure.Length, under string) {
	top, stands := 0.0, false
	for i := range r.p.Solids() {
		o := &r.p.Solids()[i]
		if o.Prop != r.prop || !form.Piles(s.Kind, s.Form) || !form.Piles(o.Kind, o.Form) || o.X.Value() != 0 ||
			o.Y.Value() != 0 {
			continue
		}
		if shape, err := o.Shape(r.lib); err == nil {
			if stands = stands || o.Z.Value() == 0; o.Z.Value()+shape.Size.Z > top {
				top, under = o.Z.Value()+shape.Size.Z, o.ID
			}
		}
	}
	if !stands { // nothing is piled on what hangs
		return measure.Length{}, ""
	}
	return measure.OnTape(top, r.p.Metric()), under
}

// beside is where a new solid stands so that it does not stand in another of
// its prop: to the right of all, a hand's width off.
func (r *reader) beside(s *plan.Solid) measure.Length {
	own, err := s.Shape(r.lib)
	if err != nil {
		return measure.Length{}
	}
	right, some := 0.0, false
	for i := range r.p.Solids() {
		o := &r.p.Solids()[i]
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
	return measure.OnTape(right+4*measure.Inch+own.Size.X/2, r.p.Metric())
}

func (r *reader) newProp() (*Reading, error) {
	_, words := take(r.words[1:], "tall")
	var name []string
	for len(words) > 0 && (words[0][0] < '0' || words[0][0] > '9') {
		name, words = append(name, words[0]), words[1:]
	}
	dims, rest := r.sizes(words)
	if err := wantNone(rest); err != nil {
		return nil, err
	}
	if len(name) == 0 {
		return nil, &Error{Why: "give it a name", Example: verbs["prop"].example}
	}
	p := plan.Prop{Name: strings.Join(name, " "), Of: "height"}
	for _, q := range r.p.Props() {
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

// w writes a length the display's way.
func w(r *reader, l measure.Length) string { return measure.Tape(l.Value(), r.p.Metric()) }

// glue joins two parts, or closes every seam of one solid: glue box with pu.
func (r *reader) glue() (*Reading, error) {
	glue := "pu"
	var parts []string
	var name []string
	end := func() error {
		if len(name) == 0 {
			return nil
		}
		ref := r.part(strings.Join(name, " "))
		name = nil
		if err := r.partThere(ref); err != nil {
			return err
		}
		parts = append(parts, ref)
		return nil
	}
	for _, x := range r.words[1:] {
		switch low := strings.ToLower(x); {
		case low == "to" || low == "with" || low == "and":
			if err := end(); err != nil {
				return nil, err
			}
		case r.lib.Glues[low].ID != "":
			glue = low
		case low == "glue" && glue != "": // hot glue
		case len(name) > 0 && (strings.Contains(strings.Join(name, " "), "/") ||
			r.solidNamed(strings.Join(name, " ")) != nil && r.solidNamed(strings.Join(name, " ")+" "+x) == nil):
			if err := end(); err != nil { // the next part begins, with no word between
				return nil, err
			}
			name = []string{x}
		default:
			name = append(name, x)
		}
	}
	if err := end(); err != nil {
		return nil, err
	}
	if len(parts) == 1 && !strings.Contains(parts[0], "/") && !strings.HasPrefix(parts[0], "=") {
		return r.seams(parts[0], glue)
	}
	if len(parts) != 2 {
		return nil, fmt.Errorf("a joint takes two parts and a glue, %d parts read", len(parts))
	}
	j := plan.Joint{Prop: r.prop, A: parts[0], B: parts[1], Glue: glue}
	j.ID = r.p.FreshID("joint", j.A+" "+j.B)
	return r.put(fmt.Sprintf("glue %s to %s with %s", j.A, j.B, r.lib.Glues[j.Glue].Name), "joint", j.ID, j)
}

// seams glues every seam that a solid's own form has and that is not glued yet.
func (r *reader) seams(id, glue string) (*Reading, error) {
	s := r.p.Solid(id)
	shape, err := s.Shape(r.lib)
	if err != nil {
		return nil, fmt.Errorf("%s: %w", s.Name, err)
	}
	done := map[string]bool{}
	for _, j := range r.p.Joints() {
		done[j.A+" "+j.B], done[j.B+" "+j.A] = true, true
	}
	out := &Reading{Select: "solid:" + id}
	q := r.p.Clone()
	length := 0.0
	for _, l := range shape.Lines {
		j := plan.Joint{Prop: s.Prop, A: id + "/" + l.A, B: id + "/" + l.B, Glue: glue}
		if l.A == "" { // layer on layer
			j.A, j.B = id, id
		}
		if done[j.A+" "+j.B] {
			continue
		}
		j.ID = q.FreshID("joint", j.A+" "+j.B)
		q.Doc().Joints = append(q.Joints(), j)
		out.Edit.Changes = append(out.Edit.Changes, r.p.Put("joint", j.ID, j))
		length += l.Length
	}
	if len(out.Edit.Changes) == 0 {
		return nil, fmt.Errorf("%s has no seam of its own left to glue; name two parts", s.Name)
	}
	out.Text = fmt.Sprintf(
		"glue every seam of %s with %s, %s in all",
		s.Name,
		r.lib.Glues[glue].Name,
		measure.Run(length, r.p.Metric()),
	)
	return out, nil
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
	if strings.HasPrefix(name, "=") {
		return name
	}
	if solid, panel, ok := strings.Cut(name, "/"); ok {
		if s := r.solidNamed(solid); s != nil {
			return s.ID + "/" + strings.ToLower(panel)
		}
		return name
	}
	if s := r.solidNamed(name); s != nil {
		return s.ID
	}
	if m := r.lib.Materials[name]; m.ID != "" {
		return "=" + name
	}
	for _, s := range r.p.Solids() {
		if s.Prop == r.prop {
			return s.ID + "/" + strings.ToLower(name)
		}
	}
	return name
}

func (r *reader) solidNamed(name string) *plan.Solid {
	for i := range r.p.Solids() {
		if s := &r.p.Solids()[i]; s.Prop == r.prop && (strings.EqualFold(s.ID, name) || sameName(s.Name, name)) {
			return s
		}
	}
	return r.p.Solid(name)
}

func (r *reader) coat() (*Reading, error) {
	if len(r.words) < 3 {
		return nil, fmt.Errorf("name the part and its coats")
	}
	t, words, ok := r.named(r.words[1:])
	s, solid := t.value.(*plan.Solid)
	if !ok || !solid || s.Prop != r.prop && !strings.EqualFold(r.words[1], s.ID) {
		return nil, fmt.Errorf("there is no solid %q in this prop", r.words[1])
	}
	if len(words) == 0 {
		return nil, fmt.Errorf("name its coats, such as masonry, latex 2")
	}
	f, verb := plan.Finish{ID: s.ID, Solid: s.ID}, "coat "
	again := strings.EqualFold(words[0], "afresh") // in place of the stack that is there
	if again {
		words = words[1:]
	}
	for i := range r.p.Finishes() { // one stack a solid: more coats go on top
		if old := &r.p.Finishes()[i]; old.Solid == s.ID {
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
			return nil, fmt.Errorf(
				"the shop has no coat %q; it has %s",
				x,
				strings.Join(stock.IDs(r.lib.Coats), ", "),
			)
		}
		f.Layers = append(f.Layers, plan.Layer{Coat: c.ID, Coats: max(1, c.Coats)})
	}
	for _, l := range f.Layers {
		said = append(said, fmt.Sprintf("%s x%d", r.lib.Coats[l.Coat].Name, l.Coats))
	}
	return r.put(verb+s.Name+": "+strings.Join(said, ", then "), "finish", f.ID, f)
}

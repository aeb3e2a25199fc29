package shorthand

import (
	"cmp"
	"fmt"
	"slices"
	"strconv"
	"strings"
	"unicode"

	"zapbarn/core/circuit"
	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/stock"
	"zapbarn/core/wiring"
)

// wire is what the words of a wiring phrase said.
type wire struct {
	volts   measure.Voltage
	amps    measure.Current
	gauge   measure.Gauge
	length  measure.Length
	at      measure.Length
	on      string
	product string
	in      string  // the solid it is built into
	dense   float64 // LEDs a metre
	poly    bool
}

// wiring sorts words into electrical fields; what is none is returned.
func (r *reader) wiring(words []string) (f wire, rest []string, err error) {
	line := r.phrase(words)
	f.at, words = line.After("at"), line.List
	for i := 0; i < len(words); {
		used, err := r.wired(&f, words, i)
		if err != nil {
			return f, nil, err
		}
		if used == 0 {
			rest = append(rest, words[i])
		}
		i += max(1, used)
	}
	return f, rest, nil
}

// wired reads what a word says of a wire, and how many words that took; 0 for nothing.
func (r *reader) wired(f *wire, words []string, i int) (used int, err error) {
	x := strings.ToLower(words[i])
	two := x
	if i+1 < len(words) {
		two += " " + strings.ToLower(words[i+1])
	}
	switch {
	case x == "on" || x == "from":
		if i+1 == len(words) {
			return 0, fmt.Errorf("on what? name a supply, fuse, switch or run")
		}
		d, n := r.deviceAt(words[i+1:])
		if d == nil {
			return 0, fmt.Errorf("there is no device %q", words[i+1])
		}
		f.on = d.ID
		return 1 + n, nil
	case strings.HasSuffix(x, "awg") || strings.HasSuffix(x, "mm2"):
		f.gauge, err = measure.Parse[measure.GaugeKind](x)
	case strings.HasSuffix(x, "/m"):
		if f.dense, err = strconv.ParseFloat(strings.TrimSuffix(x, "/m"), 64); err != nil {
			err = fmt.Errorf("%q is no number of LEDs a metre; write such as 60/m", x)
		}
	case x == "poly":
		f.poly = true
	case x == "in" && (i == 0 || !bareNumber(words[i-1])):
		t, left, _ := r.named(words[i+1:])
		if s, solid := t.value.(*plan.Solid); !solid || s.Prop != r.prop {
			return 0, nil
		}
		f.in = t.id
		return len(words) - len(left) - i, nil
	case r.lib.Lamps[x].ID != "" || r.lib.Supplies[x].ID != "":
		f.product = x
	case electric(x, &f.volts, &f.amps):
	case strings.HasSuffix(two, " awg") || strings.HasSuffix(two, " v") || strings.HasSuffix(two, " a") ||
		strings.HasSuffix(two, " ma"):
		joined := strings.ReplaceAll(two, " ", "")
		if g, e := measure.Parse[measure.GaugeKind](joined); e == nil && strings.HasSuffix(joined, "awg") {
			f.gauge = g
		} else if !electric(joined, &f.volts, &f.amps) {
			return 0, nil
		}
		return 2, nil
	default:
		return r.long(f, words[i:min(i+3, len(words))]), nil
	}
	return 1, err
}

// long reads one length, as far as it reads, of up to three words.
func (r *reader) long(f *wire, words []string) (used int) {
	dims, left := r.sizes(words)
	used = len(words) - len(left)
	digits := func(c rune) bool { return c < '0' || c > '9' }
	if len(dims) == 0 || words[0][0] < '0' || words[0][0] > '9' ||
		strings.IndexFunc(strings.Join(words[:used], ""), digits) < 0 {
		return 0
	}
	for n := used; n >= 1; n-- {
		if l, e := measure.ParseLengthIn(strings.Join(words[:n], " "), r.bare()); e == nil {
			f.length = l
			return n
		}
	}
	return 1
}

// bareNumber is true of a number such as 12 or 1/2, behind which in is inches.
func bareNumber(w string) bool { return strings.Trim(w, "0123456789./") == "" }

func electric(x string, v *measure.Voltage, a *measure.Current) bool {
	if strings.HasSuffix(x, "v") {
		if got, err := measure.Parse[measure.VoltKind](x); err == nil {
			*v = got
			return true
		}
	}
	if strings.HasSuffix(x, "a") {
		if got, err := measure.Parse[measure.AmpKind](x); err == nil {
			*a = got
			return true
		}
	}
	return false
}

func (r *reader) device(name string) *plan.Device {
	for i := range r.p.Devices() {
		if d := &r.p.Devices()[i]; strings.EqualFold(d.ID, name) || sameName(d.Name, name) && d.Prop == r.prop {
			return d
		}
	}
	return nil
}

// deviceAt is the device that words begin with, the longest name first, and how many of them
// that is.
func (r *reader) deviceAt(words []string) (*plan.Device, int) {
	for n := min(len(words), 8); n > 0; n-- {
		if d := r.device(strings.Join(words[:n], " ")); d != nil {
			return d, n
		}
	}
	return nil, 0
}

func (r *reader) supply() (*Reading, error) {
	f, rest, err := r.wiring(r.words[1:])
	if err != nil {
		return nil, err
	}
	if err := wantNone(rest); err != nil {
		return nil, err
	}
	d := plan.Device{
		ID:      r.p.FreshName("S"),
		Prop:    r.prop,
		Kind:    "supply",
		In:      f.in,
		Product: f.product,
		Volts:   f.volts,
		Amps:    f.amps,
	}
	d.Name = "Supply " + d.ID
	for id, s := range r.lib.Supplies { // one of the list, when it is
		if f.product == "" && s.Volts == f.volts.Value() && s.Amps == f.amps.Value() {
			d.Product = id
		}
	}
	v, a := wiring.SupplyOf(&d, r.lib)
	return r.put(fmt.Sprintf("supply %s, %s %s", d.ID, measure.Volts(v), measure.Amps(a)), "device", d.ID, d)
}

// feed is what a new device hangs on: as said, or the prop's latest feeder.
func (r *reader) feed(f wire) string {
	if f.on != "" {
		return f.on
	}
	last := ""
	for _, d := range r.p.Devices() {
		if d.Prop == r.prop && !d.Is(wiring.Load) {
			last = d.ID
		}
	}
	return last
}

func (r *reader) simple(kind, prefix string, fill func(*plan.Device, wire) string) (*Reading, error) {
	f, rest, err := r.wiring(r.words[1:])
	if err == nil {
		_, rest = take(rest, "switch")
		if err = wantNone(rest); len(rest) > 1 && strings.EqualFold(rest[0], "in") {
			err = r.what(rest[1:])
		}
	}
	if err != nil {
		return nil, err
	}
	d := plan.Device{ID: r.p.FreshName(prefix), Prop: r.prop, Kind: kind, From: r.feed(f), At: f.at, In: f.in}
	if d.From == "" {
		return nil, &Error{Why: "nothing to feed it from yet", Example: verbs["supply"].example}
	}
	d.Name = measure.Capital(kind) + " " + d.ID
	text := fill(&d, f)
	where := " on " + d.From
	if !d.At.IsZero() {
		where += " at " + d.At.String()
	}
	if s := r.p.Solid(d.In); s != nil {
		where += ", in " + s.Name
	}
	return r.put(text+where, "device", d.ID, d)
}

func (r *reader) fuse() (*Reading, error) {
	return r.simple("fuse", "F", func(d *plan.Device, f wire) string {
		d.Rating, d.Poly = f.amps, f.poly
		if d.Poly {
			return fmt.Sprintf("fuse %s, %s, resets itself", d.ID, d.Rating)
		}
		return fmt.Sprintf("fuse %s, %s", d.ID, d.Rating)
	})
}

func (r *reader) switch_() (*Reading, error) {
	driven := strings.EqualFold(r.words[0], "driven")
	prefix := "SW"
	if driven {
		prefix = "K"
	}
	return r.simple("switch", prefix, func(d *plan.Device, f wire) string {
		d.Driven, d.Rating = driven, f.amps
		if driven {
			return "switch " + d.ID + ", driven by scenes"
		}
		return "hand switch " + d.ID
	})
}

func (r *reader) run() (*Reading, error) {
	return r.simple("run", "W", func(d *plan.Device, f wire) string {
		d.Gauge, d.Length = f.gauge, f.length
		if d.Gauge.IsZero() {
			d.Gauge = measure.Must[measure.GaugeKind]("18 AWG")
		}
		return fmt.Sprintf("run %s, %s, %s one way", d.ID, d.Gauge, d.Length)
	})
}

func (r *reader) lamp() (*Reading, error) {
	word := strings.ToLower(r.words[0])
	none := ""
	got, err := r.simple("lamp", "L", func(d *plan.Device, f wire) string {
		d.Product, d.Length, d.Amps = f.product, f.length, f.amps
		switch {
		case d.Product != "":
		case word == "lamp":
			d.Product = "puck12"
		default:
			if d.Product = stripOf(r.lib, f.dense, f.volts.Or(0), word == "pixels"); d.Product == "" {
				none = fmt.Sprintf("the shop has no %s of %g/m for %s", word, f.dense, f.volts)
			}
		}
		l := r.lib.Lamps[d.Product]
		if none == "" && l.ID == "" {
			none = fmt.Sprintf("%q is no lamp of the shop", d.Product)
		}
		d.Name = r.p.FreeName("device", l.Name)
		r.resist(d)
		if !d.Length.IsZero() {
			return fmt.Sprintf("lamp %s, %s, %s", d.ID, l.Name, d.Length)
		}
		return fmt.Sprintf("lamp %s, %s", d.ID, l.Name)
	})
	if none != "" {
		return nil, fmt.Errorf("%s", none)
	}
	return got, err
}

// resist gives a bare LED its resistor for the supply it hangs on.
func (r *reader) resist(d *plan.Device) {
	l := r.lib.Lamps[d.Product]
	if l.Kind != "led" {
		return
	}
	d.Row = max(1, d.Row)
	for up := r.p.Device(d.From); up != nil; up = r.p.Device(up.From) {
		if up.Is(wiring.Origin) {
			v, _ := wiring.SupplyOf(up, r.lib)
			if ohms, _, _, err := circuit.LEDResistor(v, l.Vf, d.Row, l.Amps); err == nil {
				d.Resistor = measure.Of[measure.OhmKind](ohms)
			}
		}
	}
}

// many is a run with evenly spaced lamps: 24 jars flicker12 20ma on S1 22awg 35 ft.
func (r *reader) many() (*Reading, error) {
	n, _ := strconv.Atoi(r.words[0])
	if n < 1 || n > 500 {
		return nil, fmt.Errorf("%d lamps; write 1 to 500", n)
	}
	f, rest, err := r.wiring(r.words[1:])
	if err != nil {
		return nil, err
	}
	name, err := r.lampNamed(&f, rest)
	if err != nil {
		return nil, err
	}
	if r.lib.Lamps[f.product].Kind == "led" {
		return r.groups(n, f, name)
	}
	if r.lib.Lamps[f.product].Kind == "pixels" {
		return r.pixelString(n, f)
	}
	if f.length.IsZero() {
		return nil, fmt.Errorf("say how long the run is, such as 35 ft")
	}
	run, err := r.runTo(f)
	if err != nil {
		return nil, err
	}
	changes := append([]plan.Change{r.p.Put("device", run.ID, run)}, r.along(n, run, f, name)...)
	text := fmt.Sprintf(
		"%d lamps, %s, even spacing, on %s through %s, %s %s",
		n,
		r.lib.Lamps[f.product].Name,
		run.From,
		run.ID,
		run.Gauge,
		run.Length,
	)
	return &Reading{Text: text, Edit: plan.Edit{Changes: changes}, Select: "device:" + run.ID}, nil
}

// runTo is a run as the words of a phrase have it, to what they are about.
func (r *reader) runTo(f wire) (plan.Device, error) {
	run := plan.Device{
		ID:     r.p.FreshName("W"),
		Prop:   r.prop,
		Kind:   "run",
		From:   r.feed(f),
		Gauge:  f.gauge,
		Length: f.length,
	}
	if run.From == "" {
		return run, &Error{Why: "nothing to feed it from yet", Example: verbs["supply"].example}
	}
	if run.Gauge.IsZero() {
		run.Gauge = measure.Must[measure.GaugeKind]("22 AWG")
	}
	run.Name = "Run " + run.ID
	return run, nil
}

// pixelString is one string of so many pixels, at the end of a run where one is said: 50
// pixels on F1 18awg 4 ft.
func (r *reader) pixelString(n int, f wire) (*Reading, error) {
	l := r.lib.Lamps[f.product]
	d := plan.Device{
		ID:      r.p.FreshName("L"),
		Prop:    r.prop,
		Kind:    "lamp",
		In:      f.in,
		Name:    r.p.FreeName("device", l.Name),
		From:    r.feed(f),
		Product: f.product,
		Amps:    f.amps,
		Length:  wiring.LengthOf(n, l, r.p.Metric()),
	}
	if d.From == "" {
		return nil, &Error{Why: "nothing to feed it from yet", Example: verbs["supply"].example}
	}
	text := fmt.Sprintf("a string of %d, %s, on %s", n, l.Name, d.From)
	var changes []plan.Change
	if !f.length.IsZero() {
		run, err := r.runTo(f)
		if err != nil {
			return nil, err
		}
		d.From = run.ID
		changes = append(changes, r.p.Put("device", run.ID, run))
		text += fmt.Sprintf(" through %s, %s %s", run.ID, run.Gauge, run.Length)
	}
	return &Reading{
		Text:   text,
		Edit:   plan.Edit{Changes: append(changes, r.p.Put("device", d.ID, d))},
		Select: "device:" + d.ID,
	}, nil
}

// along are so many lamps of a name, evenly along a run.
func (r *reader) along(n int, run plan.Device, f wire, name string) (changes []plan.Change) {
	title := measure.Capital(name)
	for i := range n {
		id := r.p.FreshID("device", fmt.Sprintf("%s-%s-%d", r.prop, name, i+1))
		changes = append(changes, r.p.Put("device", id, plan.Device{
			ID:      id,
			Prop:    r.prop,
			Kind:    "lamp",
			In:      f.in,
			Name:    fmt.Sprintf("%s %d", title, i+1),
			From:    run.ID,
			Product: f.product,
			Amps:    f.amps,
			At:      measure.Of[measure.LengthKind](f.length.Value() * float64(i+1) / float64(n)),
		}))
	}
	return changes
}

// lampNamed is what lamps are called by the words left over; one that begins a lamp of the
// shop's says which, the flicker lamp where none does.
func (r *reader) lampNamed(f *wire, rest []string) (string, error) {
	name, as, colour := "", "lamp", ""
	rest, said, named := parted(rest, "called")
	for _, x := range rest {
		x = strings.ToLower(x)
		if strings.ContainsFunc(x, unicode.IsDigit) { // no name, but what the shop does not have
			return "", fmt.Errorf("the shop has no lamp %q", x)
		}
		word, found := strings.TrimSuffix(x, "s"), false
		if r.coloured(word) { // 4 red leds: which of them, not what they are called
			colour = word
			continue
		}
		for _, id := range stock.IDs(r.lib.Lamps) { // 6 pucks
			if f.product != "" || !strings.HasPrefix(id, word) {
				continue
			}
			f.product, found = id, true
		}
		if as = word; !found {
			name = word
		}
	}
	if f.product == "" {
		if !lampWords[name] && !named {
			if name == "" {
				name = strings.Join(r.words, " ")
			}
			return "", fmt.Errorf("%q is no lamp of the shop; say which lamp, such as %s", name, "6 puck12 on S1 20 ft")
		}
		f.product = "flicker12"
	}
	if err := r.inColour(f, colour); err != nil {
		return "", err
	}
	if named {
		name = strings.Join(said, " ")
	}
	return cmp.Or(name, as), nil
}

// lampWords are what lamps are called that no name of the shop begins with: a candle is a lamp that
// flickers, a zombie none.
var lampWords = map[string]bool{"lamp": true, "light": true, "candle": true, "jar": true, "eye": true, "cell": true,
	"bulb": true, "glow": true, "lantern": true, "ember": true, "flame": true, "tealight": true, "bee": true}

// coloured is whether a word is the colour of some lamp of the shop.
func (r *reader) coloured(word string) bool {
	for _, l := range r.lib.Lamps {
		if slices.Contains(strings.Fields(l.Colour), word) {
			return true
		}
	}
	return false
}

// inColour takes, of lamps that differ in nothing but their colour, the one of a colour; it errs
// where the shop has none of it.
func (r *reader) inColour(f *wire, colour string) error {
	was := r.lib.Lamps[f.product]
	if colour == "" || slices.Contains(strings.Fields(was.Colour), colour) || was.Colour == "any" {
		return nil
	}
	for _, id := range stock.IDs(r.lib.Lamps) {
		l := r.lib.Lamps[id]
		alike := l.Kind == was.Kind && l.Volts == was.Volts && was.Colour != ""
		if alike && slices.Contains(strings.Fields(l.Colour), colour) {
			f.product = id
			return nil
		}
	}
	return fmt.Errorf("the shop has no %s of the colour %s", was.Name, colour)
}

// trigger ties a new or known input to a scene: button toggles glow.
func (r *reader) trigger() (*Reading, error) {
	words := r.words
	kind := strings.ToLower(words[0])
	if len(words) > 1 && (strings.EqualFold(words[1], "sensor") || strings.EqualFold(words[1], "button")) {
		words = append([]string{words[0]}, words[2:]...) // motion sensor runs glow
	}
	if len(words) < 3 {
		return nil, fmt.Errorf("say what it does: runs, toggles, holds or restarts, and the scene")
	}
	latch, ok := map[string]string{"runs": "one-shot", "toggles": "toggle", "holds": "momentary",
		"restarts": "retrigger"}[strings.ToLower(words[1])]
	if !ok {
		return nil, fmt.Errorf("%q is not understood; write runs, toggles, holds or restarts", words[1])
	}
	in, changes := r.inputOf(kind)
	name := strings.Join(words[2:], " ")
	scene, more := r.sceneOf(name)
	changes = append(changes, more...)
	id := r.p.FreshID("trigger", in+" "+scene)
	changes = append(changes, r.p.Put("trigger", id, plan.Trigger{ID: id, Input: in, Scene: scene, Latch: latch}))
	return &Reading{
		Text:   fmt.Sprintf("%s %s scene “%s” (%s)", kind, words[1], name, latch),
		Edit:   plan.Edit{Changes: changes},
		Select: "trigger:" + id,
	}, nil
}

// cue adds to a scene: cue K1 0 s for 5 s in glow.
func (r *reader) cue() (*Reading, error) {
	text := strings.Join(r.words[1:], " ")
	head, scene, ok := strings.Cut(text, " in ")
	head, length, ok2 := strings.Cut(head, " for ")
	channel, start, ok3 := strings.Cut(head, " ")
	if !ok || !ok2 || !ok3 {
		return nil, fmt.Errorf("a cue takes a switch, a start, a length and a scene")
	}
	var s *plan.Scene
	for i := range r.p.Scenes() {
		if sameName(r.p.Scenes()[i].Name, scene) || strings.EqualFold(r.p.Scenes()[i].ID, scene) {
			s = &r.p.Scenes()[i]
		}
	}
	if s == nil {
		return nil, fmt.Errorf("there is no scene %q", scene)
	}
	d := r.device(channel)
	if d == nil {
		return nil, fmt.Errorf("there is no switch %q", channel)
	}
	from, err := measure.Parse[measure.DurationKind](start)
	if err != nil {
		return nil, err
	}
	long, err := measure.Parse[measure.DurationKind](length)
	if err != nil {
		return nil, err
	}
	next, instead := *s, ""
	if next.Made { // what was made up gives way
		next.Made, next.Cues, instead = false, nil, ", in place of the cues made up for it"
	}
	next.Cues = append(append([]plan.Cue(nil), next.Cues...), plan.Cue{Channel: d.ID, Start: from, Length: long})
	return r.put(
		fmt.Sprintf("in “%s”, %s on at %s for %s%s", s.Name, d.Name, from, long, instead),
		"scene",
		s.ID,
		next,
	)
}

func (r *reader) opened() (*Reading, error) {
	if len(r.words) != 3 {
		return nil, fmt.Errorf("say which glue and when")
	}
	g := strings.ToLower(r.words[1])
	id := r.p.FreshID("lot", g)
	return r.put(
		fmt.Sprintf("a bottle of %s, opened %s", r.lib.Glues[g].Name, r.words[2]),
		"lot",
		id,
		plan.Lot{ID: id, Glue: g, Opened: r.words[2]},
	)
}

// inputOf is the prop's input of a kind, and what makes it where there is none.
func (r *reader) inputOf(kind string) (id string, make []plan.Change) {
	for _, i := range r.p.Inputs() {
		if i.Prop == r.prop && i.Kind == kind {
			id = i.ID
		}
	}
	if id != "" {
		return id, nil
	}
	id = r.p.FreshID("input", r.prop+"-"+kind)
	return id, []plan.Change{
		r.p.Put("input", id, plan.Input{ID: id, Prop: r.prop, Name: measure.Capital(kind), Kind: kind,
			MinPulse: measure.Must[measure.DurationKind]("30 ms")}),
	}
}

// sceneOf is the scene of a name, and what makes it where there is none: it holds every
// driven switch of the prop for 5 s.
func (r *reader) sceneOf(name string) (id string, make []plan.Change) {
	for _, s := range r.p.Scenes() {
		if sameName(s.Name, name) || strings.EqualFold(s.ID, name) {
			id = s.ID
		}
	}
	if id != "" {
		return id, nil
	}
	id = r.p.FreshID("scene", name)
	s := plan.Scene{ID: id, Prop: r.prop, Name: name, Made: true}
	for _, d := range r.p.Devices() {
		if d.Prop == r.prop && d.Driven {
			s.Cues = append(s.Cues, plan.Cue{Channel: d.ID, Start: measure.Must[measure.DurationKind]("0 s"),
				Length: measure.Must[measure.DurationKind]("5 s")})
		}
	}
	return id, []plan.Change{r.p.Put("scene", id, s)}
}

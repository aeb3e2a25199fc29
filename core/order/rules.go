package order

import (
	"slices"
	"sort"
	"strings"

	"zapbarn/core/source"
)

// Rule says that one task comes before another.
type Rule struct {
	Code string
	Says string // the order, in a sentence
	Why  string
	From source.Source
	// kinds of what comes first and of what comes after; all others of the prop when after is nil
	before, after []string
	when          func(a, b *Task) bool // of two of one prop; nil is always
	closes        bool                  // what follows must begin while what came first keeps
}

// closing is a rule whose second task must begin while the first one keeps.
func (r *Rule) closing() *Rule {
	r.closes = true
	return r
}

var rules []*Rule

func rule(code, says, why string, before, after []string, when func(a, b *Task) bool) *Rule {
	r := &Rule{Code: code, Says: says, Why: why, From: source.FromTrade(""), before: before, after: after, when: when}
	rules = append(rules, r)
	return r
}

// Rules are all rules of order, by code.
func Rules() []*Rule {
	out := slices.Clone(rules)
	sort.Slice(out, func(i, j int) bool { return out[i].Code < out[j].Code })
	return out
}

func kindsOf(list ...string) []string { return list }

var (
	_ = rule("cut-first", "Parts are cut before they are fitted, glued, coated or wired.",
		"there is nothing to work on before",
		kindsOf("cut"), kindsOf("fit", "glue", "join", "coat", "wire", "mount", "close"), nil)
	_ = rule("made-in-order", "A body is made layer by layer, each on the last when that is dry.",
		"a wet core under a dry skin cracks it, and slumps", kindsOf("make"), kindsOf("make"),
		func(a, b *Task) bool { return share(a, b) && a.n+1 == b.n })
	_ = rule("made-first", "What is modelled, printed or made ready is that before it is fitted, glued, filled or coated.",
		"there is nothing to work on before, and paint on grease or wet clay comes off",
		kindsOf("make"), kindsOf("fit", "glue", "join", "fill", "coat", "black out", "close"), share)
	_ = rule("made-before-wire", "Bodies are made before lamps and wires go in.",
		"there is nothing to lead them through before",
		kindsOf("make"), kindsOf("wire", "mount"), nil)
	_ = rule("mould-before-gel", "A mould is sealed, waxed and released before gel coat or resin goes in.",
		"what goes into a bare mould never comes out of it", kindsOf("mould"), kindsOf("gel coat", "lay up"), share)
	_ = rule(
		"gel-before-plies",
		"Gel coat is in and tacky before the first ply.",
		"plies on wet gel show through, and on cured gel they do not hold",
		kindsOf("gel coat"),
		kindsOf("lay up"),
		share,
	).closing()
	_ = rule(
		"laid-before-glue",
		"A shell is out of its mould before it is fitted, glued, filled or coated.",
		"it has no other side before",
		kindsOf("lay up"),
		kindsOf("fit", "glue", "join", "fill", "coat", "close"),
		share,
	)
	_ = rule("fit-before-glue", "A body is fitted dry before it is glued.",
		"what does not fit shows while it can still be trimmed; a cement that grabs at first touch forgives nothing",
		kindsOf("fit"), kindsOf("glue"), share)
	_ = rule("bodies-before-joins", "A body is glued before it is joined to another.",
		"its own seams want clamps where the other would be in the way", kindsOf("glue"), kindsOf("join"), share)
	_ = rule("fill-before-coat", "Seams are filled and sanded before the first coat.",
		"the first coat shows each one that was missed, and sanding then goes through it",
		kindsOf("fill"), kindsOf("coat"), share)
	_ = rule("glue-before-fill", "A seam is glued before it is filled.", "filler in an open seam keeps the glue out",
		kindsOf("glue", "join"), kindsOf("fill"), share)
	_ = rule(
		"glue-before-coat",
		"Parts are glued before they are coated, but for a heat seal.",
		"glue holds on the stock, not on the paint",
		kindsOf(
			"glue",
			"join",
		),
		kindsOf("coat"),
		func(a, b *Task) bool { return share(a, b) && !(b.heat && a.joins) },
	)
	_ = rule("heat-before-foam", "A part is heat-sealed before it is joined to foam.",
		"the heat that seals one melts the other, near 75 C",
		kindsOf("coat"), kindsOf("join"), func(a, b *Task) bool { return a.heat && b.joins && share(a, b) })
	_ = rule("coats-in-order", "Coats go on from the surface up, each when the one under it is dry.",
		"a barrier keeps solvents out only when it is there first; wet paint under a coat wrinkles it",
		kindsOf("coat"), kindsOf("coat"), func(a, b *Task) bool { return share(a, b) && a.n+1 == b.n }).closing()
	_ = rule(
		"coat-before-wire",
		"Paint is dry before lamps and wires go in.",
		"lamps are not painted over and need no masking (one school; the other wires first and masks: leave the wait out, "+
			"with a reason)",
		kindsOf("coat"),
		kindsOf("wire"),
		nil,
	)
	_ = rule("body-before-mechanism", "A body is glued and coated before a mechanism is mounted in it.",
		"drips in a bearing, and a frame that still moves", kindsOf("glue", "join", "coat"), kindsOf("mount"), nil)
	_ = rule("black-before-wire", "A lit body is blacked out inside before it is wired and closed.",
		"behind lamps and wires no brush reaches a seam", kindsOf("black out"), kindsOf("wire", "close"), nil)
	_ = rule("glue-before-black", "A body is glued before its seams are blacked out.",
		"what is not closed yet cannot be blacked", kindsOf("glue", "join"), kindsOf("black out"), share)
	_ = rule("wire-before-prove", "What is wired is proven.", "a card wants something to measure",
		kindsOf("wire"), kindsOf("prove"), nil)
	_ = rule("prove-before-close", "Lamps are lit on the bench before they are closed in.",
		"behind a glued face a dead lamp costs the face", kindsOf("wire", "prove"), kindsOf("close"), nil)
	_ = rule("all-before-tune", "A prop is wired, proven, closed and its mechanism mounted before it is tuned.",
		"times change with each of them", kindsOf("wire", "prove", "close", "mount"), kindsOf("tune"), nil)
	_ = rule("done-before-set-up", "A prop is done before it is set up.", "a yard has no bench",
		nil, kindsOf("install"), func(a, _ *Task) bool { return a.Kind != "dark test" && a.Kind != "install" })
	_ = rule("all-before-dark-test", "Everything stands before the dark test.", "light of one shows up another",
		kindsOf("install"), kindsOf("dark test"), nil)
	goodsFirst = rule("goods-first", "What is on its way is there before it is worked on.", "it is not there before",
		kindsOf("arrive"), nil, nil)
	inParts = rule("parts-in-order", "What is done in parts is done one part after the other.",
		"you said in how many", nil, nil, nil)
	said = rule("as-you-said", "What you put after something comes after it.", "you said so", nil, nil, nil)
)

// Overruling is the ID of the waiver by which a task need not wait as a rule says.
func Overruling(r *Rule, t *Task) string { return "order-" + r.Code + "@" + t.Key }

// link finds what each task waits for.
func (b *builder) link() {
	b.overruled = map[string]bool{}
	for i := range b.Plan.Waivers() {
		b.overruled[b.Plan.Waivers()[i].ID] = true
	}
	byProp := map[string]map[string][]*Task{}
	for _, t := range b.o.Tasks {
		if byProp[t.Prop] == nil {
			byProp[t.Prop] = map[string][]*Task{}
		}
		byProp[t.Prop][t.Kind] = append(byProp[t.Prop][t.Kind], t)
	}
	put := func(a, t *Task, r *Rule) {
		if b.overruled[Overruling(r, t)] {
			return
		}
		if a != t {
			l := Link{Task: a, Rule: r}
			if r.closes && (a.coat == t.coat || t.Kind != "coat") {
				l.Within, l.Again = a.keeps, a.again
			}
			t.wait(l)
		}
	}
	for _, t := range b.o.Tasks {
		here := byProp[t.Prop]
		for _, r := range rules {
			if !slices.Contains(r.after, t.Kind) {
				continue
			}
			if t.Kind == "dark test" {
				for _, a := range b.o.Tasks {
					if slices.Contains(r.before, a.Kind) {
						put(a, t, r)
					}
				}
				continue
			}
			for _, k := range kinds {
				if r.before != nil && !slices.Contains(r.before, k.name) {
					continue
				}
				for _, a := range here[k.name] {
					if r.when == nil || r.when(a, t) {
						put(a, t, r)
					}
				}
			}
		}
		for _, part := range t.of {
			put(part, t, inParts)
		}
		b.arrivals(t, here["arrive"], put)
		if t.Job != nil && t.Job.After != "" {
			if a := b.o.by[t.Job.After]; a != nil {
				put(a, t, said)
			}
		}
	}
}

// arrivals has a task wait for what comes for it.
func (b *builder) arrivals(t *Task, coming []*Task, put func(a, t *Task, r *Rule)) {
	for _, a := range coming {
		if t.Kind != "arrive" && b.wants(t, a.About[1]) {
			put(a, t, goodsFirst)
		}
	}
}

// wants is whether a task works on an element, kind:id: what concerns it; for a solid all that
// handles it, for what is wired the wiring of its prop, for a prop all of it, for what is
// played its tuning.
func (b *builder) wants(t *Task, of string) bool {
	kind, id, _ := strings.Cut(of, ":")
	if slices.Contains(t.About, of) {
		return kind != "prop" || t.Kind != "install"
	}
	switch kind {
	case "prop":
		return t.Kind != "install"
	case "part":
		solid, _, _ := strings.Cut(id, "/")
		return t.handles(solid)
	case "solid":
		return t.handles(id)
	case "finish", "joint": // by name, or not at all
		return false
	case "mechanism":
		m := b.Plan.Mechanism(id)
		return m != nil && t.Key == "mount:"+m.Motor || t.Kind == "tune"
	case "scene", "trigger", "promise":
		return t.Kind == "tune"
	case "device":
		return t.Kind == "wire" || t.Kind == "mount" && t.Key == "mount:"+id
	}
	return t.Kind == "wire"
}

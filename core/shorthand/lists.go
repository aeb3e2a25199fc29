package shorthand

import (
	"fmt"
	"slices"
	"strconv"
	"strings"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/show"
)

// The lists inside elements, as one line of text: what a ticket shows and
// takes. Each Read reverses its Write.

// WriteLayers is a coat stack: masonry 1, latex 2.
func WriteLayers(ls []plan.Layer) string {
	var out []string
	for _, l := range ls {
		out = append(out, fmt.Sprintf("%s %d", l.Coat, l.Coats))
	}
	return strings.Join(out, ", ")
}

// ReadLayers reads a coat stack.
func ReadLayers(text string) ([]plan.Layer, error) {
	var out []plan.Layer
	for _, item := range split(text, ",") {
		w := strings.Fields(item)
		l := plan.Layer{Coat: strings.ToLower(w[0]), Coats: 1}
		if len(w) > 2 {
			return nil, measure.Bad("layers", "%q is not understood; write such as masonry, latex 2", item)
		}
		if len(w) == 2 {
			n, err := strconv.Atoi(strings.TrimPrefix(w[1], "x"))
			if err != nil {
				return nil, measure.Bad("layers", "%q is not a number of coats; write such as latex 2", w[1])
			}
			l.Coats = n
		}
		out = append(out, l)
	}
	return out, nil
}

// WriteCues is a scene: K1 at 0 s for 5 s; K2 at 1 s for 2 s.
func WriteCues(cs []plan.Cue) string {
	var out []string
	for _, c := range cs {
		text := fmt.Sprintf("%s at %s for %s", c.Channel, c.Start, c.Length)
		if c.Shape != "" {
			text += " " + c.Shape
		}
		if c.Level > 0 {
			text += fmt.Sprintf(" %d%%", c.Level)
		}
		out = append(out, text)
	}
	return strings.Join(out, "; ")
}

// ReadCues reads a scene.
func ReadCues(text string) ([]plan.Cue, error) {
	var out []plan.Cue
	for _, item := range split(text, ";") {
		channel, rest, ok := strings.Cut(item, " at ")
		start, length, ok2 := strings.Cut(rest, " for ")
		if !ok || !ok2 {
			return nil, measure.Bad(
				"cues",
				"%q is not understood; write such as K1 at 0 s for 5 s; K2 at 1 s for 2 s",
				item,
			)
		}
		from, err := measure.Parse[measure.DurationKind](start)
		if err != nil {
			return nil, measure.Bad("cues", "%s", err)
		}
		cue := plan.Cue{Channel: strings.TrimSpace(channel), Start: from}
		words := strings.Fields(length)
		if n := len(words); n > 1 && share.MatchString(words[n-1]) {
			cue.Level, _ = strconv.Atoi(strings.TrimSuffix(words[n-1], "%"))
			words = words[:n-1]
		}
		if n := len(words); n > 1 && slices.Contains(show.Shapes[1:], show.Shape(words[n-1])) {
			cue.Shape, words = words[n-1], words[:n-1]
		}
		length = strings.Join(words, " ")
		long, err := measure.Parse[measure.DurationKind](length)
		if err != nil {
			return nil, measure.Bad("cues", "%s", err)
		}
		cue.Length = long
		out = append(out, cue)
	}
	return out, nil
}

// WriteOpenings is a list of holes: slot 8 in x 1 5/8 in on front, up 3 in; the
// name follows as "called Entrance", a door adds "door".
func WriteOpenings(os []plan.Opening) string {
	var out []string
	for _, o := range os {
		s := o.Kind + " " + o.W.String()
		switch o.Kind {
		case "round":
		case "text":
			s = "text " + o.H.String()
		default:
			s += " x " + o.H.String()
		}
		if !o.Deep.IsZero() {
			s += " deep " + o.Deep.String()
		}
		s += " on " + o.Face
		if !o.X.IsZero() {
			s += " right " + o.X.String()
		}
		if !o.Y.IsZero() {
			s += " up " + o.Y.String()
		}
		if o.Path != "" {
			s += " corners " + o.Path
		}
		if o.Text != "" {
			s += " says " + o.Text
		}
		if o.Door {
			s += " door"
		}
		if o.Name != "" && o.Name != "Opening" {
			s += " called " + o.Name
		}
		out = append(out, s)
	}
	return strings.Join(out, "; ")
}

// ReadOpenings reads a list of holes; bare is the unit of a bare number.
func ReadOpenings(text, bare string) ([]plan.Opening, error) {
	var out []plan.Opening
	for _, item := range split(text, ";") {
		o, err := readOpening(item, bare)
		if err != nil {
			return nil, err
		}
		out = append(out, o)
	}
	return out, nil
}

// readOpening reads one of them.
func readOpening(item, bare string) (o plan.Opening, err error) {
	o = plan.Opening{Name: "Opening"}
	bad := func(why string) error {
		return measure.Bad("openings", "%q: %s; write such as slot 8 in x 1 5/8 in on front up 3 in", item, why)
	}
	rest := item
	if head, name, ok := strings.Cut(rest, " called "); ok {
		o.Name, rest = strings.TrimSpace(name), head
	}
	if strings.HasSuffix(rest, " door") {
		o.Door, rest = true, strings.TrimSuffix(rest, " door")
	}
	if head, text, ok := strings.Cut(rest, " says "); ok {
		o.Text, rest = strings.TrimSpace(text), head
	}
	if head, path, ok := strings.Cut(rest, " corners "); ok {
		o.Path, rest = strings.TrimSpace(path), head
	}
	length := func(s string) measure.Length {
		l, e := measure.ParseLengthIn(s, bare)
		if e != nil && err == nil {
			err = e
		}
		return l
	}
	if head, up, ok := strings.Cut(rest, " up "); ok {
		o.Y, rest = length(up), head
	}
	if head, right, ok := strings.Cut(rest, " right "); ok {
		o.X, rest = length(right), head
	}
	head, face, ok := strings.Cut(rest, " on ")
	if !ok {
		return o, bad("say on which face")
	}
	o.Face = strings.TrimSpace(face)
	kind, size, ok := strings.Cut(strings.TrimSpace(head), " ")
	if !ok {
		return o, bad("say its kind and size")
	}
	o.Kind = strings.ToLower(kind)
	if head, deep, ok := strings.Cut(size, " deep "); ok {
		o.Deep, size = length(deep), head
	}
	wide, high, two := strings.Cut(size, " x ")
	if o.W = length(wide); o.Kind == "text" {
		o.W, o.H = measure.Length{}, o.W
	}
	if two {
		o.H = length(high)
	}
	if err != nil {
		return o, bad(err.Error())
	}
	return o, nil
}

func split(text, sep string) []string {
	var out []string
	for _, s := range strings.Split(text, sep) {
		if s = strings.TrimSpace(s); s != "" {
			out = append(out, s)
		}
	}
	return out
}

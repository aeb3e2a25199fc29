package shorthand

import (
	"slices"
	"sort"
	"strings"

	"zapbarn/core/form"
	"zapbarn/core/plan"
	"zapbarn/core/stock"
)

// Complete lists what the last word of a phrase may become, or what may follow
// when it ends in a space: verbs and names first, then the verb's own words and
// what the shop has for it. At most eight.
func Complete(p *plan.Plan, lib *stock.Library, prop, text string) []string {
	lib = p.Shop(lib)
	words := strings.Fields(text)
	last := ""
	if len(words) > 0 && !strings.HasSuffix(text, " ") {
		last, words = strings.ToLower(words[len(words)-1]), words[:len(words)-1]
	}
	var all []string
	if len(words) == 0 {
		for name := range verbs {
			if !strings.HasSuffix(name, "...") {
				all = append(all, name)
			}
		}
		for name := range aliases {
			all = append(all, name)
		}
		sort.Strings(all)
		all = append(all, namesIn(p, prop)...)
	} else {
		verb := strings.ToLower(words[0])
		if to, ok := aliases[verb]; ok {
			verb = to[0]
		}
		all = follows(p, lib, prop, verb)
		r := &reader{p: p, lib: lib, prop: prop}
		if t, rest, ok := r.named(words); ok && len(rest) == 0 { // what of it, or where to
			for _, w := range sortedWords() {
				if _, has := fieldOf(t.value, w); has {
					all = append(all, w)
				}
			}
			if t.kind == "solid" {
				all = append(all, relations...)
			}
		}
	}
	var out []string
	for _, w := range all {
		if strings.HasPrefix(strings.ToLower(w), last) && !strings.EqualFold(w, last) && !slices.Contains(out, w) &&
			!slices.Contains(words, w) {
			if out = append(out, w); len(out) == 8 {
				break
			}
		}
	}
	return out
}

// namesIn are the things of the open prop, by name.
func namesIn(p *plan.Plan, prop string) (out []string) {
	for _, kind := range []string{"solid", "device", "input", "scene"} {
		for _, e := range p.Elements(kind) {
			if p.Belongs(e.Value) == prop {
				if name := plan.NameOf(e.Value); kind == "device" {
					out = append(out, e.ID)
				} else {
					out = append(out, name)
				}
			}
		}
	}
	return out
}

// sortedWords are what people call fields.
func sortedWords() []string {
	words := make([]string, 0, len(fieldWords))
	for w := range fieldWords {
		words = append(words, w)
	}
	sort.Strings(words)
	return words
}

// follows are the words that may come behind a verb.
func follows(p *plan.Plan, lib *stock.Library, prop, verb string) (out []string) {
	v, ok := verbs[verb]
	if k, solid := form.Of(verb); solid {
		for _, x := range strings.Fields(k.Example) {
			if strings.Trim(x, "abcdefghijklmnopqrstuvwxyz") == "" && x != verb && len(x) > 2 && x != "box" {
				out = append(out, x)
			}
		}
		for _, id := range stock.IDs(lib.Materials) {
			if lib.Materials[id].Form == k.Form {
				out = append(out, id)
			}
		}
		return append(out, "beside")
	}
	switch verb {
	case "glue":
		return append(append(namesIn(p, prop), "to", "with"), stock.IDs(lib.Glues)...)
	case "coat":
		return append(namesIn(p, prop), stock.IDs(lib.Coats)...)
	case "lamp", "strip", "pixels":
		out = append(stock.IDs(lib.Lamps), "on", "at")
	case "supply":
		out = stock.IDs(lib.Supplies)
	case "opened":
		return stock.IDs(lib.Glues)
	case "shop":
		return append(stock.Tables(), "like")
	case "price":
		return append(stock.IDs(lib.Materials), stock.IDs(lib.Supplies)...)
	case "remove", "rename", "copy", "mirror":
		return append(namesIn(p, prop), "as", "to", "prop")
	}
	if !ok { // a thing's name: what of it, or where to
		return namesIn(p, prop)
	}
	for _, x := range strings.Fields(v.example) {
		if strings.Trim(x, "abcdefghijklmnopqrstuvwxyz") == "" && x != verb && x != "or" {
			out = append(out, x)
		}
	}
	return append(out, namesIn(p, prop)...)
}

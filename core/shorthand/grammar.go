package shorthand

import (
	"sort"

	"zapbarn/core/form"
)

// Word is a verb of the quick line as its page tells it.
type Word struct {
	Verb, Example string
	Also          []string // other words for it
	Makes         string   // the form of a verb that makes a solid, as a builder calls it
}

// Grammar lists every verb, in the order of the alphabet.
func Grammar() []Word {
	also := map[string][]string{}
	for word, to := range aliases {
		also[to[0]] = append(also[to[0]], word)
	}
	var out []Word
	for verb, v := range verbs {
		w := Word{Verb: verb, Example: v.example, Also: also[verb]}
		sort.Strings(w.Also)
		if k, ok := form.Of(verb); ok {
			w.Makes = k.Title
		}
		out = append(out, w)
	}
	sort.Slice(out, func(i, j int) bool { return out[i].Verb < out[j].Verb })
	return out
}

// Relations are the words that place one solid by another.
func Relations() []string { return relations }

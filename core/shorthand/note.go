package shorthand

import (
	"fmt"
	"slices"
	"strings"

	"zapbarn/core/plan"
)

// note puts words on a thing: note box: sand the lid.
func (r *reader) note() (*Reading, error) {
	words := r.words[1:]
	k := slices.IndexFunc(words, func(w string) bool { return strings.HasSuffix(w, ":") })
	if k < 0 {
		return nil, fmt.Errorf("say of what, then a colon, then what is to be remembered")
	}
	of := append([]string(nil), words[:k+1]...)
	if of[k] = strings.TrimSuffix(of[k], ":"); of[k] == "" {
		of = of[:k]
	}
	t, rest, ok := r.named(of)
	if !ok || len(rest) > 0 {
		return nil, r.what(of)
	}
	text := strings.ReplaceAll(strings.Join(words[k+1:], " "), " , ", ", ")
	x := plan.Note{ID: r.p.FreshID("note", t.id), On: t.kind + ":" + t.id, Text: text}
	got, err := r.put(fmt.Sprintf("note on %s: %s", plan.NameOf(t.value), text), "note", x.ID, x)
	if got != nil {
		got.Select = x.On
	}
	return got, err
}

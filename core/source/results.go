package source

import (
	"encoding/json"
	"iter"
	"strings"
)

// Key names a number: of which kind of thing, of which thing, and what of it. A
// display's own numbers, and those of a form or a calculator by itself, have no ID.
type Key struct{ Kind, ID, What string }

// KeyOf is the key of a thing's number.
func KeyOf(kind, id, what string) Key { return Key{kind, id, what} }

// What is the key of a number that is not yet anyone's.
func What(name string) Key { return Key{What: name} }

// String is kind:id:what, for links and files.
func (k Key) String() string {
	switch {
	case k.Kind == "":
		return k.What
	case k.ID == "":
		return k.Kind + ":" + k.What
	}
	return k.Kind + ":" + k.ID + ":" + k.What
}

// ParseKey reads what String writes.
func ParseKey(s string) Key {
	kind, rest, ok := strings.Cut(s, ":")
	if !ok {
		return What(s)
	}
	if i := strings.LastIndexByte(rest, ':'); i >= 0 {
		return Key{kind, rest[:i], rest[i+1:]}
	}
	return Key{Kind: kind, What: rest}
}

// MarshalText writes a key as String does.
func (k Key) MarshalText() ([]byte, error) { return []byte(k.String()), nil }

// UnmarshalText reads it.
func (k *Key) UnmarshalText(b []byte) error {
	*k = ParseKey(string(b))
	return nil
}

// thing is whose numbers they are.
type thing struct{ kind, id string }

// Results are numbers by their keys, in the order in which they were worked out.
// What is kept twice is what was kept last, where it stood. Other results may lie
// under them, shared and left as they are.
type Results struct {
	under []*Results
	list  []Result
	at    map[Key]int
	of    map[thing][]int
}

// Over are empty results with others under them.
func Over(under ...*Results) *Results {
	return &Results{under: under, at: map[Key]int{}, of: map[thing][]int{}}
}

// Keep keeps a number by its key.
func (r *Results) Keep(x Result) {
	if i, ok := r.at[x.Key]; ok {
		r.list[i] = x
		return
	}
	r.at[x.Key] = len(r.list)
	t := thing{x.Key.Kind, x.Key.ID}
	r.of[t] = append(r.of[t], len(r.list))
	r.list = append(r.list, x)
}

// Get is the number of a key, if there is one.
func (r *Results) Get(k Key) (Result, bool) {
	if i, ok := r.at[k]; ok {
		return r.list[i], true
	}
	for _, u := range r.under {
		if x, ok := u.Get(k); ok {
			return x, true
		}
	}
	return Result{}, false
}

// At is a thing's number, an empty one when there is none.
func (r *Results) At(kind, id, what string) Result {
	x, _ := r.Get(Key{kind, id, what})
	return x
}

// Of are all numbers of a thing.
func (r *Results) Of(kind, id string) (all []Result) {
	for _, u := range r.under {
		all = append(all, u.Of(kind, id)...)
	}
	for _, i := range r.of[thing{kind, id}] {
		all = append(all, r.list[i])
	}
	return all
}

// All goes through every number.
func (r *Results) All() iter.Seq[Result] {
	return func(yield func(Result) bool) {
		for _, u := range r.under {
			for x := range u.All() {
				if !yield(x) {
					return
				}
			}
		}
		for _, x := range r.list {
			if !yield(x) {
				return
			}
		}
	}
}

// Len counts them.
func (r *Results) Len() int {
	n := len(r.list)
	for _, u := range r.under {
		n += u.Len()
	}
	return n
}

// MarshalJSON writes them as one object, by key.
func (r *Results) MarshalJSON() ([]byte, error) {
	out := map[string]Result{}
	for x := range r.All() {
		out[x.Key.String()] = x
	}
	return json.Marshal(out)
}

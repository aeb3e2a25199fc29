package source

import (
	"encoding/json"
	"iter"
	"slices"
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

// Results are numbers by their keys: thing by thing as each was first spoken of, and of
// a thing in the order in which they were worked out. What is kept twice is what was kept
// last, where it stood. Other results may lie under them, shared and left as they are.
type Results struct {
	under  []*Results
	things []*numbers
	of     map[thing]*numbers
}

// numbers are those of one thing; of their keys only What is told by the list, which may be
// another's as well.
type numbers struct {
	thing
	list   []Result
	shared bool
}

// whole is a number of the list with its whole key.
func (n *numbers) whole(i int) Result {
	x := n.list[i]
	x.Key.Kind, x.Key.ID = n.kind, n.id
	return x
}

// Over are empty results with others under them.
func Over(under ...*Results) *Results {
	return &Results{under: under, of: map[thing]*numbers{}}
}

// Room makes room for the numbers of so many things, where they are known to come.
func (r *Results) Room(things int) {
	if len(r.things) == 0 {
		r.things, r.of = make([]*numbers, 0, things), make(map[thing]*numbers, things)
	}
}

// Keep keeps a number by its key.
func (r *Results) Keep(x Result) {
	n := r.numbers(x.Key.Kind, x.Key.ID)
	i := slices.IndexFunc(n.list, func(y Result) bool { return y.Key.What == x.Key.What })
	if n.shared {
		n.list, n.shared = slices.Clone(n.list), false
	}
	if i >= 0 {
		n.list[i] = x
	} else {
		n.list = append(n.list, x)
	}
}

// Take keeps numbers of a thing, in their order, by What of their keys alone. The list is
// shared from here on: nobody may change it.
func (r *Results) Take(kind, id string, list []Result) {
	n := r.numbers(kind, id)
	if len(n.list) == 0 {
		n.list, n.shared = list, true
		return
	}
	for _, x := range list {
		x.Key.Kind, x.Key.ID = kind, id
		r.Keep(x)
	}
}

// TakeOver keeps the numbers another has of a thing, not counting what lies under it.
func (r *Results) TakeOver(from *Results, kind, id string) {
	if n := from.of[thing{kind, id}]; n != nil {
		r.Take(kind, id, n.list)
	}
}

// numbers are those of a thing, so far none perhaps.
func (r *Results) numbers(kind, id string) *numbers {
	t := thing{kind, id}
	n := r.of[t]
	if n == nil {
		n = &numbers{thing: t}
		r.of[t] = n
		r.things = append(r.things, n)
	}
	return n
}

// Get is the number of a key, if there is one.
func (r *Results) Get(k Key) (Result, bool) {
	if n := r.of[thing{k.Kind, k.ID}]; n != nil {
		for i := range n.list {
			if n.list[i].Key.What == k.What {
				return n.whole(i), true
			}
		}
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
	if n := r.of[thing{kind, id}]; n != nil {
		for i := range n.list {
			all = append(all, n.whole(i))
		}
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
		for _, n := range r.things {
			for i := range n.list {
				if !yield(n.whole(i)) {
					return
				}
			}
		}
	}
}

// Len counts them.
func (r *Results) Len() (n int) {
	for _, x := range r.things {
		n += len(x.list)
	}
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

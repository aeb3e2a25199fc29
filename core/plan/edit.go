package plan

import (
	"bytes"
	"encoding/json"
	"fmt"
	"slices"
	"sort"
	"strings"
	"unicode"

	"zapbarn/core/measure"
	"zapbarn/core/wiring"

	"golang.org/x/text/unicode/norm"
)

// Change replaces one element: Before nil adds it, After nil takes it away.
type Change struct {
	Kind   string          `json:"kind"`
	ID     string          `json:"id"`
	At     int             `json:"at"` // where it stands in its list
	Before json.RawMessage `json:"before,omitempty"`
	After  json.RawMessage `json:"after,omitempty"`
}

// Edit is one undoable step.
type Edit struct {
	Label   string   `json:"label"`
	Changes []Change `json:"changes"`
}

// Inverse undoes the edit.
func (e Edit) Inverse() Edit {
	inv := Edit{Label: e.Label}
	for _, c := range slices.Backward(e.Changes) {
		c.Before, c.After = c.After, c.Before
		inv.Changes = append(inv.Changes, c)
	}
	return inv
}

// Stale says an element is no longer what the edit was made on.
type Stale struct {
	Kind, ID string
	Now      json.RawMessage // what stands there; nil when it is gone
}

func (s *Stale) Error() string {
	if s.Now == nil {
		return fmt.Sprintf("%s %s was taken away meanwhile", s.Kind, s.ID)
	}
	return fmt.Sprintf("%s %s was changed meanwhile", s.Kind, s.ID)
}

// Element is one element with its kind and ID.
type Element struct {
	Kind, ID string
	Value    any // pointer to the struct
}

// Elements lists all elements of one kind.
func (p *Plan) Elements(kindName string) []Element {
	k, err := kindNamed(kindName)
	if err != nil {
		return nil
	}
	return k.all(p)
}

// Get returns an element and where it stands, or nil and -1.
func (p *Plan) Get(kindName, id string) (any, int) {
	k, err := kindNamed(kindName)
	if err != nil {
		return nil, -1
	}
	p.reads.Saw(k.bit)
	return k.find(p, id)
}

func encode(v any) json.RawMessage {
	b, err := json.Marshal(v)
	if err != nil {
		panic(err) // plain structs of text and numbers cannot fail
	}
	return b
}

// Put is the change that sets an element to v, a pointer to or value of its struct.
func (p *Plan) Put(kindName, id string, v any) Change {
	c := Change{Kind: kindName, ID: id, After: encode(v), At: -1}
	if now, at := p.Get(kindName, id); now != nil {
		c.Before, c.At = encode(now), at
	}
	return c
}

// Drop is the change that takes an element away, if it is there.
func (p *Plan) Drop(kindName, id string) Change {
	c := Change{Kind: kindName, ID: id, At: -1}
	if now, at := p.Get(kindName, id); now != nil {
		c.Before, c.At = encode(now), at
	}
	return c
}

// Apply returns the plan after the edit. It refuses an edit made on an older
// state (*Stale) and one that leaves the plan invalid; p never changes. The two
// share the lists of kinds that the edit does not touch: a plan that was handed
// out is only read.
func (p *Plan) Apply(e Edit) (*Plan, error) {
	q, err := p.changed(e)
	if err != nil {
		return nil, err
	}
	if err := q.Validate(); err != nil {
		return nil, err
	}
	if len(q.broken) > 0 {
		q = q.Clone()
		q.readmit()
	}
	return q, nil
}

// changed is the plan after an edit, judged by nobody yet. It refuses an edit made on an older
// state.
func (p *Plan) changed(e Edit) (*Plan, error) {
	q := p.cloned(e.changes)
	for _, c := range e.Changes {
		k, err := kindNamed(c.Kind)
		if err != nil {
			return nil, err
		}
		var now json.RawMessage
		aside := q.setAside(c.Kind, c.ID)
		if v, _ := q.Get(c.Kind, c.ID); v != nil {
			now = encode(v)
		} else if aside >= 0 {
			now = q.broken[aside].Raw
		}
		if !sameJSON(now, c.Before) {
			return nil, &Stale{c.Kind, c.ID, now}
		}
		if aside >= 0 {
			q.broken = slices.Delete(slices.Clone(q.broken), aside, aside+1)
		}
		if c.After == nil {
			k.drop(q, c.ID)
			continue
		}
		if err := k.put(q, c.At, c.After); err != nil {
			return nil, fmt.Errorf("%s %s: %w", c.Kind, c.ID, err)
		}
	}
	return q, nil
}

// sound reports whether each element that an edit leaves can be by itself, so that it may be
// laid out.
func (p *Plan) sound(e Edit) bool {
	c := checks{p, wiring.IndexOf(p.Devices()), p.Own()}
	for _, x := range e.Changes {
		k, err := kindNamed(x.Kind)
		if v, _ := p.Get(x.Kind, x.ID); err == nil && v != nil &&
			measure.First(texts(v), needs(v)) == nil && k.check(v, c) == nil {
			continue
		}
		if x.After != nil {
			return false
		}
	}
	return true
}

// Placed is the edit with where each element stands in its list as this plan has it, so that
// taking it back puts every one back in its place; an edit that was made on a part of the plan
// knows them by that part's lists. One that cannot be applied is left as it is.
func (p *Plan) Placed(e Edit) Edit {
	q := p.cloned(e.changes)
	changes := slices.Clone(e.Changes)
	for i := range changes {
		c := &changes[i]
		k, err := kindNamed(c.Kind)
		if err != nil {
			return e
		}
		if c.Before != nil {
			_, c.At = k.find(q, c.ID)
		}
		if c.After == nil {
			k.drop(q, c.ID)
		} else if k.put(q, c.At, c.After) != nil {
			return e
		}
	}
	e.Changes = changes
	return e
}

// of reports whether the edit changes elements of a kind.
func (e Edit) changes(kind string) bool {
	return slices.ContainsFunc(e.Changes, func(c Change) bool { return c.Kind == kind })
}

// sameJSON compares as values, since a store may space or order keys its own way.
func sameJSON(a, b json.RawMessage) bool {
	if len(a) == 0 || len(b) == 0 {
		return len(a) == len(b)
	}
	if bytes.Equal(a, b) {
		return true
	}
	var x, y any
	if json.Unmarshal(a, &x) != nil || json.Unmarshal(b, &y) != nil {
		return false
	}
	return bytes.Equal(encode(x), encode(y))
}

// Without is the edit that takes an element away together with all that
// cannot stand without it.
func (p *Plan) Without(kindName, id string) Edit {
	l := p.loss(kindName, id)
	l.photos()
	var out []Change
	for _, k := range slices.Backward(kinds) { // leaves first
		all := k.all(p)
		for _, e := range slices.Backward(all) {
			if l.gone[lost{k.name, e.ID}] {
				out = append(out, p.Drop(k.name, e.ID))
			}
		}
	}
	for _, d := range p.Devices() {
		if l.gone[lost{"device", d.Data}] && !l.gone[lost{"device", d.ID}] {
			d.Data, d.Pin = "", 0
			out = append([]Change{p.Put("device", d.ID, d)}, out...)
		}
	}
	for _, s := range p.Solids() {
		if l.gone[lost{"solid", s.By}] && !l.gone[lost{"solid", s.ID}] {
			s.By, s.How, s.ByAt = "", "", measure.Length{}
			out = append([]Change{p.Put("solid", s.ID, s)}, out...)
		}
	}
	label := "take away " + id
	if v, _ := p.Get(kindName, id); v != nil {
		label = "take away " + p.Name(v)
	}
	return Edit{label, out}
}

// lost is an element that goes; losses are all that go with one.
type lost struct{ kind, id string }

type losses struct {
	p     *Plan
	gone  map[lost]bool
	order []lost
}

func (l *losses) lose(kind, id string) {
	if r := (lost{kind, id}); !l.gone[r] {
		l.gone[r] = true
		l.order = append(l.order, r)
	}
}

// loss is an element with all that cannot stand without it.
func (p *Plan) loss(kind, id string) *losses {
	l := &losses{p: p, gone: map[lost]bool{}}
	l.lose(kind, id)
	for n := 0; n < len(l.order); n++ {
		r := l.order[n]
		for _, d := range p.dependents(r.kind, r.id) {
			if x, ok := d.Value.(*Device); ok && x.Data == r.id && x.From != r.id {
				continue // pixels stay, with no data
			}
			if x, ok := d.Value.(*Solid); ok && x.By == r.id && r.kind == "solid" &&
				!strings.HasPrefix(x.Fills, r.id+"/") {
				continue // it stays where it stands
			}
			l.lose(d.Kind, d.ID)
		}
	}
	return l
}

// photos lets go of those that nothing else shows any more.
func (l *losses) photos() {
	left := map[string]bool{}
	for _, k := range kinds {
		for _, e := range k.all(l.p) {
			for _, r := range references(e.Value) {
				if r.Kind == "photo" && !l.gone[lost{k.name, e.ID}] {
					left[r.ID] = true
				}
			}
		}
	}
	for _, r := range l.order {
		v, _ := l.p.Get(r.kind, r.id)
		for _, named := range references(v) {
			if named.Kind == "photo" && !left[named.ID] {
				l.lose("photo", named.ID)
			}
		}
	}
}

// dependents are the elements that name this one.
func (p *Plan) dependents(kindName, id string) (out []Element) {
	for _, k := range kinds {
		for _, e := range k.all(p) {
			for _, r := range references(e.Value) {
				if r.Kind == kindName && r.ID == id {
					out = append(out, e)
				}
			}
		}
	}
	return out
}

// FreshID makes an ID from a name that no element of that kind has.
func (p *Plan) FreshID(kindName, name string) string {
	base := Slug(name)
	id := base
	for n := 2; ; n++ {
		if v, _ := p.Get(kindName, id); v == nil {
			return id
		}
		id = fmt.Sprintf("%s-%d", base, n)
	}
}

// FreshName is the next free short name of a device: S1, S2, W1.
func (p *Plan) FreshName(prefix string) string {
	for n := 1; ; n++ {
		id := fmt.Sprintf("%s%d", prefix, n)
		if p.Device(id) == nil {
			return id
		}
	}
}

// Slug makes a name safe for use as an ID: letters without their accents,
// digits and dashes. A name with none of these is "item".
func Slug(name string) string {
	var b strings.Builder
	for _, r := range strings.ToLower(norm.NFD.String(name)) {
		if unicode.Is(unicode.Mn, r) {
			continue // the accent of the letter before
		}
		switch {
		case r >= 'a' && r <= 'z' || r >= '0' && r <= '9':
			b.WriteRune(r)
		case b.Len() > 0 && !strings.HasSuffix(b.String(), "-"):
			b.WriteByte('-')
		}
	}
	s := strings.Trim(b.String(), "-")
	if len(s) > maxSlug {
		s = strings.Trim(s[:maxSlug], "-")
	}
	if s == "" {
		s = "item"
	}
	return s
}

// sortedKeys lists a map's keys in order.
func sortedKeys[V any](m map[string]V) []string {
	out := make([]string, 0, len(m))
	for k := range m {
		out = append(out, k)
	}
	sort.Strings(out)
	return out
}

// Idle reports an edit that leaves every element as it was.
func (e Edit) Idle() bool {
	for _, c := range e.Changes {
		if !sameJSON(c.Before, c.After) {
			return false
		}
	}
	return true
}

// Numbered is an ID with a number behind, within the length an ID may have.
func Numbered(id string, n int) string {
	end := fmt.Sprintf("-%d", n)
	return strings.TrimRight(id[:min(len(id), maxSlug-len(end))], "-") + end
}

// maxSlug is the longest ID made from a name.
const maxSlug = 40

package plan

import (
	"bytes"
	"encoding/json"
	"fmt"
	"slices"
	"sort"
	"strings"
	"unicode"

	"golang.org/x/text/unicode/norm"
	"zapbarn/core/measure"
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

// kind is what the document knows of one sort of element.
type kind struct {
	name string
	all  func(*Plan) []Element
	find func(p *Plan, id string) (any, int) // pointer to the struct, and where it stands
	put  func(p *Plan, at int, raw json.RawMessage) error
	add  func(p *Plan, raw json.RawMessage) error // at the end, without looking for one of its ID
	drop func(p *Plan, id string)
	make func() any

	count func(p *Plan) int
}

// Element is one element with its kind and ID.
type Element struct {
	Kind, ID string
	Value    any // pointer to the struct
}

func listKind[T any](name string, list func(*Plan) *[]T, key func(*T) string) kind {
	return kind{
		name: name,
		make: func() any { return new(T) },

		count: func(p *Plan) int { return len(*list(p)) },
		all: func(p *Plan) []Element {
			l := *list(p)
			out := make([]Element, len(l))
			for i := range l {
				out[i] = Element{name, key(&l[i]), &l[i]}
			}
			return out
		},
		find: func(p *Plan, id string) (any, int) {
			l := *list(p)
			for i := range l {
				if key(&l[i]) == id {
					return &l[i], i
				}
			}
			return nil, -1
		},
		put: func(p *Plan, at int, raw json.RawMessage) error {
			var v T
			if err := decodeFields(raw, &v); err != nil {
				return err
			}
			l := list(p)
			for i := range *l {
				if key(&(*l)[i]) == key(&v) {
					(*l)[i] = v
					return nil
				}
			}
			if at < 0 || at > len(*l) {
				at = len(*l)
			}
			*l = slices.Insert(*l, at, v)
			return nil
		},
		add: func(p *Plan, raw json.RawMessage) error {
			var v T
			if err := decodeFields(raw, &v); err != nil {
				return err
			}
			l := list(p)
			*l = append(*l, v)
			return nil
		},
		drop: func(p *Plan, id string) {
			l := list(p)
			*l = slices.DeleteFunc(*l, func(v T) bool { return key(&v) == id })
		},
	}
}

var kinds = []kind{
	{name: "display", make: func() any { return new(Display) },
		all: func(p *Plan) []Element { return []Element{{"display", p.Display.ID, &p.Display}} },
		find: func(p *Plan, id string) (any, int) {
			if id != p.Display.ID {
				return nil, -1
			}
			return &p.Display, 0
		},
		put:  func(p *Plan, _ int, raw json.RawMessage) error { return decodeFields(raw, &p.Display) },
		add:  func(p *Plan, raw json.RawMessage) error { return decodeFields(raw, &p.Display) },
		drop: func(*Plan, string) {}, count: func(*Plan) int { return 1 }},
	listKind("good", func(p *Plan) *[]Good { return &p.Goods }, func(x *Good) string { return x.ID }),
	listKind("prop", func(p *Plan) *[]Prop { return &p.Props }, func(x *Prop) string { return x.ID }),
	listKind("solid", func(p *Plan) *[]Solid { return &p.Solids }, func(x *Solid) string { return x.ID }),
	listKind("joint", func(p *Plan) *[]Joint { return &p.Joints }, func(x *Joint) string { return x.ID }),
	listKind("finish", func(p *Plan) *[]Finish { return &p.Finishes }, func(x *Finish) string { return x.ID }),
	listKind("device", func(p *Plan) *[]Device { return &p.Devices }, func(x *Device) string { return x.ID }),
	listKind("input", func(p *Plan) *[]Input { return &p.Inputs }, func(x *Input) string { return x.ID }),
	listKind("scene", func(p *Plan) *[]Scene { return &p.Scenes }, func(x *Scene) string { return x.ID }),
	listKind("trigger", func(p *Plan) *[]Trigger { return &p.Triggers }, func(x *Trigger) string { return x.ID }),
	listKind("lot", func(p *Plan) *[]Lot { return &p.Lots }, func(x *Lot) string { return x.ID }),
	listKind("reading", func(p *Plan) *[]Reading { return &p.Readings }, func(x *Reading) string { return x.ID }),
	listKind("offcut", func(p *Plan) *[]Offcut { return &p.Offcuts }, func(x *Offcut) string { return x.ID }),
	listKind("layout", func(p *Plan) *[]Layout { return &p.Layouts }, func(x *Layout) string { return x.ID }),
	listKind("photo", func(p *Plan) *[]Photo { return &p.Photos }, func(x *Photo) string { return x.ID }),
	listKind("picture", func(p *Plan) *[]Picture { return &p.Pictures }, func(x *Picture) string { return x.ID }),
	listKind("outlet", func(p *Plan) *[]Outlet { return &p.Outlets }, func(x *Outlet) string { return x.ID }),
	listKind("plug", func(p *Plan) *[]Plug { return &p.Plugs }, func(x *Plug) string { return x.ID }),
	listKind("waiver", func(p *Plan) *[]Waiver { return &p.Waivers }, func(x *Waiver) string { return x.ID }),
}

// Kinds names every kind of element, in document order.
func Kinds() []string {
	var out []string
	for _, k := range kinds {
		out = append(out, k.name)
	}
	return out
}

func kindNamed(name string) (kind, error) {
	for _, k := range kinds {
		if k.name == name {
			return k, nil
		}
	}
	return kind{}, measure.Bad("kind", "%q is not a kind of element; choose one of %s", name, strings.Join(Kinds(), ", "))
}

// Blank is a new empty element of a kind, as a pointer.
func Blank(kindName string) (any, error) {
	k, err := kindNamed(kindName)
	if err != nil {
		return nil, err
	}
	return k.make(), nil
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

// Clone copies the plan so that its lists can change.
func (p *Plan) Clone() *Plan {
	q := *p
	q.Props, q.Solids, q.Joints, q.Finishes = slices.Clone(p.Props), slices.Clone(p.Solids), slices.Clone(p.Joints), slices.Clone(p.Finishes)
	q.Devices, q.Inputs, q.Scenes, q.Triggers = slices.Clone(p.Devices), slices.Clone(p.Inputs), slices.Clone(p.Scenes), slices.Clone(p.Triggers)
	q.Lots, q.Waivers, q.Readings = slices.Clone(p.Lots), slices.Clone(p.Waivers), slices.Clone(p.Readings)
	q.Offcuts, q.Layouts = slices.Clone(p.Offcuts), slices.Clone(p.Layouts)
	q.Outlets, q.Plugs = slices.Clone(p.Outlets), slices.Clone(p.Plugs)
	q.Goods = slices.Clone(p.Goods)
	q.Photos, q.Pictures = slices.Clone(p.Photos), slices.Clone(p.Pictures)
	return &q
}

// Apply returns the plan after the edit. It refuses an edit made on an older
// state (*Stale) and one that leaves the plan invalid; p never changes.
func (p *Plan) Apply(e Edit) (*Plan, error) {
	q := p.Clone()
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
	if err := q.Validate(); err != nil {
		return nil, err
	}
	return q, nil
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
	type ref struct{ kind, id string }
	gone := map[ref]bool{{kindName, id}: true}
	order := []ref{{kindName, id}}
	lose := func(k, i string) {
		if !gone[ref{k, i}] {
			gone[ref{k, i}] = true
			order = append(order, ref{k, i})
		}
	}
	for n := 0; n < len(order); n++ {
		r := order[n]
		for _, d := range p.dependents(r.kind, r.id) {
			if x, ok := d.Value.(*Device); ok && x.Data == r.id && x.From != r.id {
				continue // pixels stay, with no data
			}
			lose(d.Kind, d.ID)
		}
	}
	var out []Change
	for _, k := range slices.Backward(kinds) { // leaves first
		all := k.all(p)
		for _, e := range slices.Backward(all) {
			if gone[ref{k.name, e.ID}] {
				out = append(out, p.Drop(k.name, e.ID))
			}
		}
	}
	for _, d := range p.Devices {
		if gone[ref{"device", d.Data}] && !gone[ref{"device", d.ID}] {
			d.Data, d.Pin = "", 0
			out = append([]Change{p.Put("device", d.ID, d)}, out...)
		}
	}
	label := "take away " + id
	if v, _ := p.Get(kindName, id); v != nil {
		label = "take away " + NameOf(v)
	}
	return Edit{label, out}
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

// NameOf is how an element is called on screen.
func NameOf(v any) string {
	switch x := v.(type) {
	case *Display:
		return x.Name
	case *Prop:
		return x.Name
	case *Solid:
		return x.Name
	case *Device:
		return x.Name
	case *Input:
		return x.Name
	case *Scene:
		return x.Name
	case *Joint:
		return "joint of " + x.A + " and " + x.B
	case *Finish:
		return "coats of " + x.Solid
	case *Trigger:
		return x.Input + " to " + x.Scene
	case *Lot:
		return "bottle of " + x.Glue
	case *Reading:
		return "reading of " + x.Device
	case *Offcut:
		return "offcut " + x.ID
	case *Layout:
		return "layout of " + x.ID
	case *Photo:
		return "photo " + x.ID
	case *Picture:
		return x.Name
	case *Outlet:
		return x.Name
	case *Plug:
		return x.Name
	case *Good:
		return x.Table + " " + x.Good
	case *Waiver:
		return "waiver of " + x.ID
	}
	return ""
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

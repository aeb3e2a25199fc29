package plan

import (
	"encoding/json"
	"reflect"
	"slices"
	"strings"
	"sync"

	"zapbarn/core/measure"
	"zapbarn/core/stock"
	"zapbarn/core/wiring"
)

// kinds is every kind of element, in the order they stand in a document: each
// in a file of its own, with its struct, its list and limit, its name and its
// validation. What it refers to, and how its fields are called, its tags say:
//
//	ref:"device"       it names an element of that kind
//	ref:"prop,needed"  and cannot do without
//	ref:"part"         it names a part, solid/panel, or =material
//	ref:"any"          it names any element, kind:id
//	label:"Volts"      the field on its ticket
//	choose:"in|mm"     one of these words, or of a list such as outlets
//	wide:"true"        a long text
var kinds []kind

func init() { // not in the variable itself: kinds' functions look it up
	kinds = []kind{
		displayKind, goodKind, propKind, solidKind, jointKind, finishKind, deviceKind, mechanismKind, sceneKind, inputKind,
		triggerKind, promiseKind, clipKind,
		lotKind,
		readingKind, offcutKind, layoutKind, photoKind, pictureKind, outletKind, plugKind, waiverKind, noteKind,
		personKind, jobKind, deliveryKind, stockedKind,
		plotKind, wallKind, walkwayKind, fixtureKind, cordKind, viewpointKind, forecastKind, sketchKind,
		triedKind, nightKind, incidentKind, tickedKind,
	}
	for i := range kinds {
		kinds[i].bit = 1 << i
	}
}

// item is what each kind's struct does, as a pointer.
type item interface {
	Key() string
	Called() string // on the screen
}

// checks is what an element is judged against.
type checks struct {
	plan  *Plan
	wires wiring.Index
	lib   *stock.Library
}

// check checks an element for itself; its references are checked by their tags.
func (k kind) check(v any, c checks) error {
	if k.valid != nil {
		return k.valid(v, c)
	}
	return v.(interface{ valid(c checks) error }).valid(c)
}

// kind is what the document knows of one sort of element.
type kind struct {
	name  string
	bit   KindSet                        // in what was read
	most  int                            // how many a plan may hold: some twenty times the largest display that is known
	twin  sharing                        // what no two may share besides an ID; nil for nothing
	valid func(v any, c checks) error    // beyond its references; nil where its struct has a method for it
	list  *listOps                       // nil of the display, which is one
	again func(v any, c *copying) string // names v, a copy of one whose prop is made once more; "" leaves it out, nil all
	refs  []refAt                        // the fields that name others
	typ   reflect.Type
	every func(*Plan) []Element
	find  func(p *Plan, id string) (any, int) // pointer to the struct, and its index; not recorded as read
	put   func(p *Plan, at int, raw json.RawMessage) error
	add   func(p *Plan, raw json.RawMessage) error // at the end, without looking for one of its ID
	drop  func(p *Plan, id string)
	make  func() any
}

// sharing is what two elements may not share, and what is said when they do.
type sharing func(v any) (shared string, err error)

// twinOf is a copy of an element that shares no list with it.
func (k kind) twinOf(v any) any {
	c := reflect.New(k.typ)
	c.Elem().Set(reflect.ValueOf(v).Elem())
	for i := range k.typ.NumField() {
		if f := c.Elem().Field(i); f.Kind() == reflect.Slice && !f.IsNil() {
			f.Set(reflect.AppendSlice(reflect.MakeSlice(f.Type(), 0, f.Len()), f))
		}
	}
	return c.Interface()
}

// listOps are what is done with a kind's list as a whole.
type listOps struct {
	count func(*Plan) int
	clone func(*Plan)
	same  func(a, b *Plan) bool
}

// all are the elements of a kind.
func (k kind) all(p *Plan) []Element {
	p.reads.Saw(k.bit)
	return k.every(p)
}

func (k kind) count(p *Plan) int {
	p.reads.Saw(k.bit)
	if k.list == nil {
		return 1
	}
	return k.list.count(p)
}

// same is whether two plans have the same elements of a kind, in one order.
func (k kind) same(a, b *Plan) bool {
	if k.list == nil {
		return a.doc.Display == b.doc.Display
	}
	return k.list.same(a, b)
}

// listed fills in a kind that is a list of the document.
func listed[T any, P interface {
	*T
	item
}](k kind, list func(*Plan) *[]T) kind {
	k.typ = reflect.TypeFor[T]()
	k.refs = refsIn(k.typ, nil)
	k.list = &listOps{
		count: func(p *Plan) int { return len(*list(p)) },
		clone: func(p *Plan) { l := list(p); *l = slices.Clone(*l) },
		same: func(a, b *Plan) bool {
			x, y := *list(a), *list(b)
			return len(x) == len(y) && (len(x) == 0 || &x[0] == &y[0] || reflect.DeepEqual(x, y))
		},
	}
	k.make = func() any { return new(T) }
	k.every = func(p *Plan) []Element {
		l := *list(p)
		out := make([]Element, len(l))
		for i := range l {
			out[i] = Element{k.name, P(&l[i]).Key(), &l[i]}
		}
		return out
	}
	k.find = func(p *Plan, id string) (any, int) {
		if i := indexOf[T, P](*list(p), id); i >= 0 {
			return &(*list(p))[i], i
		}
		return nil, -1
	}
	k.put = func(p *Plan, at int, raw json.RawMessage) error {
		var v T
		if err := decodeFields(raw, &v); err != nil {
			return err
		}
		l := list(p)
		if i := indexOf[T, P](*l, P(&v).Key()); i >= 0 {
			(*l)[i] = v
			return nil
		}
		if at < 0 || at > len(*l) {
			at = len(*l)
		}
		*l = slices.Insert(*l, at, v)
		return nil
	}
	k.add = func(p *Plan, raw json.RawMessage) error {
		var v T
		if err := decodeFields(raw, &v); err != nil {
			return err
		}
		l := list(p)
		*l = append(*l, v)
		return nil
	}
	k.drop = func(p *Plan, id string) {
		l := list(p)
		*l = slices.DeleteFunc(*l, func(v T) bool { return P(&v).Key() == id })
	}
	return k
}

// indexOf is where an element of an ID stands, or -1.
func indexOf[T any, P interface {
	*T
	item
}](list []T, id string) int {
	for i := range list {
		if P(&list[i]).Key() == id {
			return i
		}
	}
	return -1
}

// refAt is a field that names another element.
type refAt struct {
	path   []int // field indices; a list between them is walked
	field  string
	kind   string // "part" for solid/panel
	needed bool
}

// refsIn reads the ref tags of a struct, those of lists within it too.
func refsIn(t reflect.Type, path []int) (out []refAt) {
	for i := range t.NumField() {
		f := t.Field(i)
		at := append(slices.Clone(path), i)
		if of, needed := strings.CutSuffix(f.Tag.Get("ref"), ",needed"); of != "" {
			name, _, _ := strings.Cut(f.Tag.Get("json"), ",")
			out = append(out, refAt{at, name, of, needed})
		}
		if f.Type.Kind() == reflect.Slice && f.Type.Elem().Kind() == reflect.Struct {
			out = append(out, refsIn(f.Type.Elem(), at)...)
		}
	}
	return out
}

// each calls with every text that the field at a path holds.
func each(v reflect.Value, path []int, do func(reflect.Value)) {
	if len(path) == 0 {
		do(v)
		return
	}
	f := v.Field(path[0])
	if f.Kind() != reflect.Slice {
		each(f, path[1:], do)
		return
	}
	for i := range f.Len() {
		each(f.Index(i), path[1:], do)
	}
}

// ref is a reference an element makes to another.
type ref struct{ Kind, ID, Field string }

// references lists what an element names.
func references(v any) (out []ref) {
	for _, at := range refsOf(v) {
		each(reflect.ValueOf(v).Elem(), at.path, func(f reflect.Value) {
			id, kind := f.String(), at.kind
			if kind == "part" {
				if strings.HasPrefix(id, "=") {
					return // bought
				}
				id, _, _ = strings.Cut(id, "/")
				kind = "solid"
			}
			if kind == "any" && id != "" {
				if k, of, ok := strings.Cut(id, ":"); ok {
					kind, id = k, of
				}
			}
			if id != "" {
				out = append(out, ref{kind, id, at.field})
			}
		})
	}
	return out
}

// needs checks the references that must be given.
func needs(v any) error {
	for _, at := range refsOf(v) {
		if !at.needed {
			continue
		}
		var err error
		each(reflect.ValueOf(v).Elem(), at.path, func(f reflect.Value) {
			if f.String() == "" {
				err = measure.Bad(at.field, "is empty; name the %s it belongs to", at.kind)
			}
		})
		if err != nil {
			return err
		}
	}
	return nil
}

// renamed points an element's references elsewhere: to says what an ID of a
// kind is called now.
func renamed(v any, to func(kind, id string) string) {
	for _, at := range refsOf(v) {
		each(reflect.ValueOf(v).Elem(), at.path, func(f reflect.Value) {
			switch id := f.String(); {
			case id == "" || strings.HasPrefix(id, "="):
			case at.kind == "any":
				kind, of, _ := strings.Cut(id, ":")
				f.SetString(kind + ":" + to(kind, of))
			case at.kind == "part":
				solid, panel, whole := strings.Cut(id, "/")
				if solid = to("solid", solid); whole {
					solid += "/" + panel
				}
				f.SetString(solid)
			default:
				f.SetString(to(at.kind, id))
			}
		})
	}
}

var byType = sync.OnceValue(func() map[reflect.Type]*kind {
	out := map[reflect.Type]*kind{}
	for i := range kinds {
		out[kinds[i].typ] = &kinds[i]
	}
	return out
})

func refsOf(v any) []refAt {
	if k := byType()[reflect.TypeOf(v).Elem()]; k != nil {
		return k.refs
	}
	return nil
}

// Kinds names every kind of element, in document order.
func Kinds() []string {
	var out []string
	for _, k := range kinds {
		out = append(out, k.name)
	}
	return out
}

var byName = sync.OnceValue(func() map[string]kind {
	out := map[string]kind{}
	for _, k := range kinds {
		out[k.name] = k
	}
	return out
})

func kindNamed(name string) (kind, error) {
	if k, ok := byName()[name]; ok {
		return k, nil
	}
	return kind{}, measure.Bad(
		"kind",
		"%q is not a kind of element; choose one of %s",
		name,
		strings.Join(Kinds(), ", "),
	)
}

// Most is how many elements of a kind a plan may hold.
func Most(kind string) int { return byName()[kind].most }

// NameOf is how an element is called on screen.
func NameOf(v any) string {
	if e, ok := v.(item); ok {
		return e.Called()
	}
	return ""
}

// Name is what an element is called on the screen: NameOf, with the names of what it
// refers to and not their IDs.
func (p *Plan) Name(v any) string {
	switch x := v.(type) {
	case *Joint:
		return "joint of " + p.partName(x.A) + " and " + p.partName(x.B)
	case *Finish:
		if s := p.Solid(x.Solid); s != nil {
			return "coats of " + s.Name
		}
	case *Lot:
		if g := p.Own().Glues[x.Glue]; g.ID != "" {
			return "bottle of " + measure.Uncapital(g.Name)
		}
	case *Trigger:
		i, s := p.Input(x.Input), find(p.Scenes(), x.Scene, func(s *Scene) string { return s.ID })
		if i != nil && s != nil {
			return i.Name + " to " + s.Name
		}
	case *Forecast:
		return "Forecast of " + x.On
	case *Night:
		return "Night of " + x.On
	case *Plot:
		if x := p.Prop(x.Prop); x != nil {
			return "Place of " + x.Name
		}
	case *Reading:
		if d := p.Device(x.Device); d != nil {
			return "reading of " + d.Name
		}
	}
	return NameOf(v)
}

// partName is what a part is called by its solid: Hive box front.
func (p *Plan) partName(ref string) string {
	if m, bought := strings.CutPrefix(ref, "="); bought {
		return p.Own().Materials[m].Name
	}
	id, panel, _ := strings.Cut(ref, "/")
	if s := p.Solid(id); s != nil {
		return strings.TrimSpace(s.Name + " " + panel)
	}
	return ref
}

// Belongs is the prop that an element at hand belongs to: its own, or that of
// what it cannot do without; "" when it belongs to none.
func (p *Plan) Belongs(v any) string {
	if x, ok := v.(*Prop); ok {
		return x.ID
	}
	if v == nil || reflect.ValueOf(v).IsNil() {
		return ""
	}
	for _, at := range refsOf(v) {
		if !at.needed {
			continue
		}
		id := reflect.ValueOf(v).Elem().FieldByIndex(at.path).String()
		switch at.kind {
		case "prop":
			return id
		case "any":
			return p.PropOf(id)
		}
		up, _ := p.Get(at.kind, id)
		if prop := p.Belongs(up); prop != "" {
			return prop
		}
	}
	return ""
}

// Clone copies the plan so that its lists can change.
func (p *Plan) Clone() *Plan {
	return p.cloned(func(string) bool { return true })
}

// cloned copies the plan so that its lists of some kinds can change; the rest it shares.
func (p *Plan) cloned(change func(kind string) bool) *Plan {
	q := *p
	for _, k := range kinds {
		if k.list != nil && change(k.name) {
			k.list.clone(&q)
		}
	}
	return &q
}

// Blank is a new empty element of a kind, as a pointer.
func Blank(kindName string) (any, error) {
	k, err := kindNamed(kindName)
	if err != nil {
		return nil, err
	}
	return k.make(), nil
}

// kindOfType is the name of the kind of element that a struct is.
func kindOfType(t reflect.Type) string {
	if k := byType()[t]; k != nil {
		return k.name
	}
	return ""
}

// twins says when an element shares what no two of its kind may.
func (k kind) twins(e Element, seen map[string]bool) error {
	if k.twin == nil {
		return nil
	}
	shared, err := k.twin(e.Value)
	if shared == "" {
		return nil
	}
	if seen[shared] {
		return err
	}
	seen[shared] = true
	return nil
}

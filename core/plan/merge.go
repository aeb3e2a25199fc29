package plan

import (
	"encoding/json"
	"fmt"
	"reflect"
	"strings"

	"zapbarn/core/measure"
)

// Sent is what was noted on a phone that was out of reach: an element of the night book as
// it was entered there, and as it had been when it was read.
type Sent struct {
	Kind  string          `json:"kind"` // ticked, incident or night
	ID    string          `json:"id"`
	Value json.RawMessage `json:"value"`
	Was   json.RawMessage `json:"was,omitempty"` // null where it was new
}

// Clash is where two noted different things: both are kept, and told.
type Clash struct {
	What   string // of what
	Theirs string // what stands
	Mine   string // what was sent, kept beside it
}

// MaxSent is how many entries one phone may send at once.
const MaxSent = 2000

// Merged is what came of a merge.
type Merged struct {
	Edit    Edit
	Clashes []Clash
	Left    []string // lines that were ticked and are on no list of their night, as date and line
}

// Merge takes in what was sent from phones: nothing is lost, nothing is taken twice. A line
// that two ticked stays as it was first; what two changed differently stays as it is, and
// what was sent is kept in words beside it; a tick of a line that is on no list, as known
// tells, is left out and named. It takes time in proportion to the book and what was sent.
func (p *Plan) Merge(sent []Sent, known func(on, line string) bool) (out Merged, err error) {
	if len(sent) > MaxSent {
		return out, measure.Bad("sent", "%d entries at once; at most %d", len(sent), MaxSent)
	}
	m := newMerging(p)
	for n, s := range sent {
		switch s.Kind {
		case "ticked":
			err = m.tick(s, known)
		case "incident":
			err = m.incident(s)
		case "night":
			err = m.night(s)
		default:
			err = measure.Bad("kind", "%q is nothing of the night book", s.Kind)
		}
		if err != nil {
			return Merged{}, place(fmt.Sprintf("sent[%d]", n), err)
		}
	}
	m.out.Edit.Label = fmt.Sprintf("merge the night book, %d entries", len(m.out.Edit.Changes))
	return m.out, nil
}

// merging is the night book as it is while entries are taken in.
type merging struct {
	plan      *Plan
	out       Merged
	ticks     map[[2]string]*Ticked // by night and line
	incidents map[string]*Incident
	nights    map[string]*Night // by date
	taken     map[lost]bool     // IDs
}

func newMerging(p *Plan) *merging {
	m := &merging{plan: p, ticks: map[[2]string]*Ticked{}, incidents: map[string]*Incident{}, nights: map[string]*Night{},
		taken: map[lost]bool{}}
	for i := range p.Ticks() {
		x := &p.Ticks()[i]
		m.ticks[[2]string{x.On, x.Line}], m.taken[lost{"ticked", x.ID}] = x, true
	}
	for i := range p.Incidents() {
		x := &p.Incidents()[i]
		m.incidents[x.ID], m.taken[lost{"incident", x.ID}] = x, true
	}
	for i := range p.NightBook() {
		x := &p.NightBook()[i]
		m.nights[x.On], m.taken[lost{"night", x.ID}] = x, true
	}
	return m
}

// fresh is an ID made from a name that nothing of a kind has yet.
func (m *merging) fresh(kind, name string) string {
	base := Slug(name)
	id := base
	for n := 2; m.taken[lost{kind, id}]; n++ {
		id = Numbered(base, n)
	}
	m.taken[lost{kind, id}] = true
	return id
}

// put adds a change from what was there, nil where it is new.
func (m *merging) put(kind, id string, was, now any) {
	c := Change{Kind: kind, ID: id, At: -1, After: encode(now)}
	if was != nil {
		c.Before = encode(was)
		_, c.At = m.plan.Get(kind, id)
	}
	m.out.Edit.Changes = append(m.out.Edit.Changes, c)
}

func (m *merging) tick(s Sent, known func(on, line string) bool) error {
	var x Ticked
	if err := decodeFields(s.Value, &x); err != nil {
		return err
	}
	key := [2]string{x.On, x.Line}
	switch o := m.ticks[key]; {
	case o == nil && !known(x.On, x.Line):
		m.out.Left = append(m.out.Left, x.On+" "+x.Line)
	case o == nil:
		x.ID = m.fresh("ticked", x.On+"-"+x.Line)
		m.ticks[key] = &x
		m.put("ticked", x.ID, nil, x)
	case o.By != x.By:
		m.out.Clashes = append(m.out.Clashes, Clash{What: x.Line, Theirs: by(o.By, o.At), Mine: by(x.By, x.At)})
	}
	return nil
}

func by(who, at string) string {
	if at != "" {
		return "done by " + who + " at " + at
	}
	return "done by " + who
}

func (m *merging) incident(s Sent) error {
	var x Incident
	if err := decodeFields(s.Value, &x); err != nil {
		return err
	}
	if m.plan.Prop(x.Prop) == nil {
		x.Prop = "" // it was taken away meanwhile; what happened is kept
	}
	x.ID = Slug(s.ID)
	if o := m.incidents[x.ID]; o != nil {
		if *o == x {
			return nil // sent before
		}
		m.out.Clashes = append(m.out.Clashes, Clash{What: o.What, Theirs: o.What, Mine: x.What})
		x.ID = m.fresh("incident", x.ID)
	}
	m.incidents[x.ID], m.taken[lost{"incident", x.ID}] = &x, true
	m.put("incident", x.ID, nil, x)
	return nil
}

// night merges a night field by field.
func (m *merging) night(s Sent) error {
	var mine, was Night
	if err := decodeFields(s.Value, &mine); err != nil {
		return err
	}
	if len(s.Was) > 0 && string(s.Was) != "null" {
		if err := decodeFields(s.Was, &was); err != nil {
			return err
		}
	}
	now := m.nights[mine.On]
	if now == nil {
		mine.ID = m.fresh("night", mine.On)
		m.nights[mine.On] = &mine
		m.put("night", mine.ID, nil, mine)
		return nil
	}
	next, theirs, lost := mergedNight(*now, mine, was)
	if len(lost) > 0 {
		clash := Clash{What: "night of " + now.On, Theirs: strings.Join(theirs, ", "), Mine: strings.Join(lost, ", ")}
		m.out.Clashes = append(m.out.Clashes, clash)
		if also := "Also noted: " + clash.Mine + "."; !strings.Contains(next.Note, also) {
			next.Note = strings.TrimSpace(next.Note + "\n" + also)
		}
	}
	if next != *now {
		m.put("night", next.ID, *now, next)
		m.nights[mine.On] = &next
	}
	return nil
}

// mergedNight is a night as it is now with what mine changed of what it had been; theirs and
// lost are the fields that both changed, as they are and as they were sent.
func mergedNight(now, mine, was Night) (next Night, theirs, lost []string) {
	next = now
	v, m, o := reflect.ValueOf(&next).Elem(), reflect.ValueOf(mine), reflect.ValueOf(was)
	for i := range v.NumField() {
		label := v.Type().Field(i).Tag.Get("label")
		if label == "" || v.Type().Field(i).Name == "On" {
			continue
		}
		a, b, c := v.Field(i).Interface(), m.Field(i).Interface(), o.Field(i).Interface()
		switch {
		case a == b || b == c: // the same, or not touched out there
		case a == c: // not touched here
			v.Field(i).Set(m.Field(i))
		default:
			theirs = append(theirs, fmt.Sprintf("%s %v", strings.ToLower(label), a))
			lost = append(lost, fmt.Sprintf("%s %v", strings.ToLower(label), b))
		}
	}
	return next, theirs, lost
}

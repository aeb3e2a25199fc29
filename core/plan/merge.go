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

// Merge takes in what was sent from phones: nothing is lost, nothing is taken twice. A line
// that two ticked stays as it was first; what two changed differently stays as it is, and
// what was sent is kept in words beside it.
func (p *Plan) Merge(sent []Sent) (e Edit, clashes []Clash, err error) {
	if len(sent) > 2000 {
		return e, nil, measure.Bad("sent", "%d entries at once; at most 2000", len(sent))
	}
	q := p
	for _, s := range sent {
		var c *Change
		var clash *Clash
		switch s.Kind {
		case "ticked":
			c, clash, err = q.mergeTick(s)
		case "incident":
			c, clash, err = q.mergeIncident(s)
		case "night":
			c, clash, err = q.mergeNight(s)
		default:
			return e, nil, measure.Bad("kind", "%q is nothing of the night book", s.Kind)
		}
		if err != nil {
			return e, nil, err
		}
		if clash != nil {
			clashes = append(clashes, *clash)
		}
		if c == nil {
			continue
		}
		next, err := q.Apply(Edit{Changes: []Change{*c}})
		if err != nil {
			return e, nil, err
		}
		q = next
		e.Changes = append(e.Changes, *c)
	}
	e.Label = fmt.Sprintf("merge the night book, %d entries", len(e.Changes))
	return e, clashes, nil
}

func (p *Plan) mergeTick(s Sent) (*Change, *Clash, error) {
	var x Ticked
	if err := decodeFields(s.Value, &x); err != nil {
		return nil, nil, err
	}
	for i := range p.Ticks {
		o := &p.Ticks[i]
		if o.On != x.On || o.Line != x.Line {
			continue
		}
		if o.By == x.By {
			return nil, nil, nil
		}
		return nil, &Clash{What: x.Line, Theirs: by(o.By, o.At), Mine: by(x.By, x.At)}, nil
	}
	x.ID = p.FreshID("ticked", x.On+"-"+x.Line)
	c := p.Put("ticked", x.ID, x)
	return &c, nil, nil
}

func by(who, at string) string {
	if at != "" {
		return "done by " + who + " at " + at
	}
	return "done by " + who
}

func (p *Plan) mergeIncident(s Sent) (*Change, *Clash, error) {
	var x Incident
	if err := decodeFields(s.Value, &x); err != nil {
		return nil, nil, err
	}
	x.ID = Slug(s.ID)
	if there, _ := p.Get("incident", x.ID); there != nil {
		o := *there.(*Incident)
		if reflect.DeepEqual(o, x) {
			return nil, nil, nil // sent before
		}
		clash := &Clash{What: o.What, Theirs: o.What, Mine: x.What}
		x.ID = p.FreshID("incident", x.ID)
		c := p.Put("incident", x.ID, x)
		return &c, clash, nil
	}
	c := p.Put("incident", x.ID, x)
	return &c, nil, nil
}

// mergeNight merges a night field by field.
func (p *Plan) mergeNight(s Sent) (*Change, *Clash, error) {
	var mine, was Night
	if err := decodeFields(s.Value, &mine); err != nil {
		return nil, nil, err
	}
	if len(s.Was) > 0 && string(s.Was) != "null" {
		if err := decodeFields(s.Was, &was); err != nil {
			return nil, nil, err
		}
	}
	var now *Night
	for i := range p.NightBook {
		if p.NightBook[i].On == mine.On {
			now = &p.NightBook[i]
		}
	}
	if now == nil {
		mine.ID = p.FreshID("night", mine.On)
		c := p.Put("night", mine.ID, mine)
		return &c, nil, nil
	}
	next := *now
	var theirs, lost []string
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
	var clash *Clash
	if len(lost) > 0 {
		clash = &Clash{What: "night of " + now.On, Theirs: strings.Join(theirs, ", "), Mine: strings.Join(lost, ", ")}
		also := "Also noted: " + clash.Mine + "."
		if !strings.Contains(next.Note, also) {
			next.Note = strings.TrimSpace(next.Note + "\n" + also)
		}
	}
	if reflect.DeepEqual(next, *now) {
		return nil, clash, nil
	}
	c := p.Put("night", next.ID, next)
	return &c, clash, nil
}

package plan

import (
	"fmt"
	"strings"

	"zapbarn/core/form"
	"zapbarn/core/measure"
	"zapbarn/core/pattern"
)

// copying is a prop being made once more.
type copying struct {
	p    *Plan
	prop string               // the new one's ID
	ids  map[[2]string]string // what a kind's ID is called in the copy
	used map[[2]string]bool
}

// to is what an element is called in the copy: as it was when it is shared.
func (c *copying) to(kind, id string) string {
	if n, ok := c.ids[[2]string{kind, id}]; ok {
		return n
	}
	return id
}

// fresh is an ID from a name that neither the plan nor the copy has.
func (c *copying) fresh(kind, name string) string {
	base := Slug(name)
	id := base
	for n := 2; c.taken(kind, id); n++ {
		id = Numbered(base, n)
	}
	return id
}

// numbered is the next free short name: S2 of S1.
func (c *copying) numbered(kind, id string) string {
	prefix := strings.TrimRight(id, "0123456789")
	if prefix == "" {
		prefix = "D"
	}
	for n := 1; ; n++ {
		if id = fmt.Sprintf("%s%d", prefix, n); !c.taken(kind, id) {
			return id
		}
	}
}

func (c *copying) taken(kind, id string) bool {
	v, _ := c.p.Get(kind, id)
	return v != nil || c.used[[2]string{kind, id}]
}

// CopyProp is the edit that makes a prop once more under a new name, with all
// that belongs to it and has an again in its kind: solids, joints, coats, wiring,
// inputs, scenes, triggers, notes. What it shares with others, such as an outlet,
// or a supply of another prop that feeds it, stays shared. Devices get fresh short
// names; readings, waivers and pictures are of the first one and are not copied.
// It returns the new prop's ID.
func (p *Plan) CopyProp(id, name string) (Edit, string, error) {
	from := p.Prop(id)
	if from == nil {
		return Edit{}, "", fmt.Errorf("there is no prop %q", id)
	}
	e := Edit{Label: "copy " + from.Name + " as " + name}
	c := &copying{p: p, ids: map[[2]string]string{}, used: map[[2]string]bool{}}
	prop := *from
	prop.ID, prop.Name = p.FreshID("prop", name), name
	c.prop, c.ids[[2]string{"prop", id}] = prop.ID, prop.ID
	e.Changes = append(e.Changes, p.Put("prop", prop.ID, prop))
	type twin struct {
		kind, id string
		v        any
	}
	var twins []twin
	for _, k := range kinds { // named first: they refer to each other both ways
		if k.again == nil {
			continue
		}
		for _, x := range k.all(p) {
			if p.Belongs(x.Value) != id {
				continue
			}
			v := k.twinOf(x.Value)
			if fresh := k.again(v, c); fresh != "" {
				c.ids[[2]string{k.name, x.ID}], c.used[[2]string{k.name, fresh}] = fresh, true
				twins = append(twins, twin{k.name, fresh, v})
			}
		}
	}
	for _, t := range twins {
		renamed(t.v, c.to)
		e.Changes = append(e.Changes, p.Put(t.kind, t.id, t.v))
	}
	return e, prop.ID, nil
}

// CopySolid is a solid once more in its prop, under a new name, with its coats;
// mirrored, what is left of the prop's middle becomes right.
func (p *Plan) CopySolid(id, name string, mirrored bool) (Edit, string, error) {
	from := p.Solid(id)
	if from == nil {
		return Edit{}, "", fmt.Errorf("there is no solid %q", id)
	}
	s := *from
	s.ID, s.Name = p.FreshID("solid", s.Prop+"-"+name), name
	verb := "copy "
	if mirrored {
		verb = "mirror "
		s.X = negative(s.X)
		switch s.How {
		case "beside right":
			s.How = "beside left"
		case "beside left":
			s.How = "beside right"
		}
		openings := s.Openings
		s.Openings = nil
		for _, o := range openings {
			o.X = negative(o.X)
			if ring, err := o.corners(); o.Kind == "shape" && err == nil {
				o.Path = pattern.WriteRings(pattern.Mirrored([][]pattern.Point{ring}))
			}
			s.Openings = append(s.Openings, o)
		}
		if o, ok := s.Form.(form.Outline); ok {
			if rings, err := pattern.ReadRings(o.Path); err == nil {
				o.Path = pattern.WriteRings(pattern.Mirrored(rings))
				s.Form = o
			}
		}
	}
	e := Edit{Label: verb + from.Name + " as " + name, Changes: []Change{p.Put("solid", s.ID, s)}}
	for _, f := range p.Finishes() {
		if f.Solid == id {
			f.ID, f.Solid = s.ID, s.ID
			e.Changes = append(e.Changes, p.Put("finish", f.ID, f))
		}
	}
	return e, s.ID, nil
}

// negative is a length the other way, as written.
func negative(l measure.Length) measure.Length {
	text := l.String()
	switch {
	case l.Value() == 0:
		return l
	case strings.HasPrefix(text, "-") || strings.HasPrefix(text, "−"):
		text = strings.TrimSpace(strings.TrimLeft(text, "-−"))
	default:
		text = "-" + text
	}
	n, err := measure.Parse[measure.LengthKind](text)
	if err != nil {
		return l
	}
	return n
}

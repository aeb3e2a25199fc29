package plan

import (
	"fmt"
	"strings"

	"zapbarn/core/form"
	"zapbarn/core/measure"
	"zapbarn/core/pattern"
)

// CopyProp is the edit that makes a prop once more under a new name, with all
// that belongs to it: solids, joints, coats, wiring, inputs, scenes, triggers.
// What it shares with others, such as an outlet, or a supply of another prop that
// feeds it, stays shared. Devices get fresh short names; readings, waivers and
// pictures are of the first one and are not copied. It returns the new prop's ID.
func (p *Plan) CopyProp(id, name string) (Edit, string, error) {
	from := p.Prop(id)
	if from == nil {
		return Edit{}, "", fmt.Errorf("there is no prop %q", id)
	}
	q := p.Clone() // takes the copies one by one, so that fresh names are fresh
	e := Edit{Label: "copy " + from.Name + " as " + name}
	put := func(kind, id string, v any) error {
		c := q.Put(kind, id, v)
		e.Changes = append(e.Changes, c)
		k, err := kindNamed(kind)
		if err != nil {
			return err
		}
		return k.put(q, -1, c.After)
	}
	prop := *from
	prop.ID, prop.Name = q.FreshID("prop", name), name
	if err := put("prop", prop.ID, prop); err != nil {
		return e, "", err
	}
	solid, device, input, scene := map[string]string{}, map[string]string{}, map[string]string{}, map[string]string{}
	to := func(m map[string]string, id string) string {
		if n, ok := m[id]; ok {
			return n
		}
		return id
	}
	for _, s := range p.Solids {
		if s.Prop != id {
			continue
		}
		was := s.ID
		s.ID, s.Prop = q.FreshID("solid", prop.ID+"-"+s.Name), prop.ID
		solid[was] = s.ID
		if err := put("solid", s.ID, s); err != nil {
			return e, "", err
		}
	}
	for _, d := range p.Devices { // named first: they refer to each other both ways
		if d.Prop == id {
			device[d.ID] = ""
		}
	}
	taken := map[string]bool{}
	for _, d := range p.Devices {
		taken[d.ID] = true
	}
	for _, d := range p.Devices {
		if d.Prop != id {
			continue
		}
		prefix := strings.TrimRight(d.ID, "0123456789")
		if prefix == "" {
			prefix = "D"
		}
		for n := 1; ; n++ {
			if fresh := fmt.Sprintf("%s%d", prefix, n); !taken[fresh] {
				taken[fresh], device[d.ID] = true, fresh
				break
			}
		}
	}
	for _, d := range p.Devices {
		if d.Prop != id {
			continue
		}
		fresh := device[d.ID]
		if d.Name = strings.ReplaceAll(d.Name, d.ID, fresh); d.Name == "" {
			d.Name = fresh
		}
		d.ID, d.Prop, d.Proven = fresh, prop.ID, false
		d.From, d.To, d.Data, d.In = to(device, d.From), to(device, d.To), to(device, d.Data), to(solid, d.In)
		if err := put("device", d.ID, d); err != nil {
			return e, "", err
		}
	}
	part := func(ref string) string {
		s, panel, ok := strings.Cut(ref, "/")
		if ok {
			return to(solid, s) + "/" + panel
		}
		return to(solid, s)
	}
	for _, j := range p.Joints {
		if j.Prop == id {
			j.A, j.B, j.Prop = part(j.A), part(j.B), prop.ID
			j.ID = q.FreshID("joint", j.A+" "+j.B)
			if err := put("joint", j.ID, j); err != nil {
				return e, "", err
			}
		}
	}
	for _, f := range p.Finishes {
		if n, ok := solid[f.Solid]; ok {
			f.ID, f.Solid = n, n
			if err := put("finish", f.ID, f); err != nil {
				return e, "", err
			}
		}
	}
	for _, x := range p.Inputs {
		if x.Prop == id {
			was := x.ID
			x.ID, x.Prop = q.FreshID("input", prop.ID+"-"+x.Name), prop.ID
			input[was] = x.ID
			if err := put("input", x.ID, x); err != nil {
				return e, "", err
			}
		}
	}
	for _, x := range p.Scenes {
		if x.Prop == id {
			was := x.ID
			x.ID, x.Prop = q.FreshID("scene", prop.ID+"-"+x.Name), prop.ID
			scene[was] = x.ID
			cues := x.Cues
			x.Cues = nil
			for _, c := range cues {
				c.Channel = to(device, c.Channel)
				x.Cues = append(x.Cues, c)
			}
			if err := put("scene", x.ID, x); err != nil {
				return e, "", err
			}
		}
	}
	for _, x := range p.Triggers {
		if input[x.Input] == "" || scene[x.Scene] == "" {
			continue
		}
		x.Input, x.Scene = input[x.Input], scene[x.Scene]
		x.ID = q.FreshID("trigger", x.Input+"-"+x.Scene)
		if err := put("trigger", x.ID, x); err != nil {
			return e, "", err
		}
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
		openings := s.Openings
		s.Openings = nil
		for _, o := range openings {
			o.X = negative(o.X)
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
	for _, f := range p.Finishes {
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

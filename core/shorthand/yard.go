package shorthand

import (
	"fmt"
	"slices"
	"strconv"
	"strings"
	"time"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/words"
)

// at takes a place from the front of words: how far right, how far down.
func (r *reader) at(list []string) (x, y measure.Length, rest []string, err error) {
	bad := fmt.Errorf("a place is two lengths, how far right and how far down, such as 12 ft, 8 ft")
	across, down := list, []string(nil)
	if i := slices.Index(list, ","); i >= 0 {
		across, down = list[:i], list[i+1:]
	}
	v, n := r.yardLength(across)
	if n == 0 || down != nil && n < len(across) {
		return x, y, list, bad
	}
	if down == nil {
		down = across[n:]
	}
	x = v
	if v, n = r.yardLength(down); n == 0 {
		return x, y, list, bad
	}
	y, list = v, down[n:]
	return x, y, list, nil
}

// yardLength is the length that begins words, and how many it takes: a bare number is feet
// out there, or metres.
func (r *reader) yardLength(list []string) (measure.Length, int) {
	l, n := words.LengthAt(list, 0, r.p.Display().Units)
	if n == 0 {
		return l, 0
	}
	out, err := plan.YardLength(strings.Join(list[:n], " "), r.p.Display().Units)
	if err != nil {
		return l, 0
	}
	return out, n
}

// angleAfter takes an angle behind a word.
func angleAfter(list []string, mark string) (a measure.Angle, rest []string, err error) {
	for i, w := range list {
		if !strings.EqualFold(w, mark) || i+1 >= len(list) {
			continue
		}
		n := 1
		if i+2 < len(list) && (strings.EqualFold(list[i+2], "deg") || strings.EqualFold(list[i+2], "degrees")) {
			n = 2
		}
		a, err = measure.Parse[measure.AngleKind](strings.Join(list[i+1:i+1+n], " "))
		return a, append(slices.Clone(list[:i]), list[i+1+n:]...), err
	}
	return a, list, nil
}

// stand puts a prop in the yard, or an outlet: stand skep at 20 ft, 6 ft turned 30.
func (r *reader) stand() (*Reading, error) {
	who, rest, ok := parted(r.words[1:], "at")
	if !ok {
		return nil, fmt.Errorf("say which prop stands, then at which place")
	}
	t, more, found := r.named(who)
	if found && t.kind == "outlet" && len(more) == 0 {
		x := *t.value.(*plan.Outlet)
		var err error
		if x.X, x.Y, more, err = r.at(rest); err != nil {
			return nil, err
		}
		if len(more) > 0 {
			return nil, wantNone(more)
		}
		return r.put(fmt.Sprintf("%s is %s right and %s down", x.Name, x.X, x.Y), "outlet", x.ID, x)
	}
	if !found || t.kind != "prop" || len(more) > 0 {
		return nil, r.what(who)
	}
	turn, rest, err := angleAfter(rest, "turned")
	if err != nil {
		return nil, err
	}
	x := plan.Plot{Prop: t.id}
	if there := r.p.PlotOf(t.id); there != nil {
		x = *there
	} else {
		x.ID = r.p.FreshID("plot", t.id)
	}
	if x.X, x.Y, rest, err = r.at(rest); err != nil {
		return nil, err
	}
	if !turn.IsZero() {
		x.Turn = turn
	}
	if len(rest) > 0 {
		return nil, wantNone(rest)
	}
	text := fmt.Sprintf("%s stands %s right and %s down", plan.NameOf(t.value), x.X, x.Y)
	if x.Turn.Value() != 0 {
		text += ", turned " + measure.Degrees(x.Turn.Value())
	}
	return r.put(text, "plot", x.ID, x)
}

// align puts things of the yard in line: align skep, gate, sunflowers in a row.
func (r *reader) align() (*Reading, error) {
	list, how := slices.Clone(r.words[1:]), ""
	for _, end := range [][]string{{"in", "a", "row"}, {"in", "a", "column"}, {"in", "line"}, {"evenly"}} {
		if n := len(list) - len(end); n > 0 && strings.EqualFold(strings.Join(list[n:], " "), strings.Join(end, " ")) {
			list, how = list[:n], end[len(end)-1]
			break
		}
	}
	if how == "" {
		return nil, fmt.Errorf("say what, then in a row, in a column, or evenly")
	}
	var keys, names []string
	for len(list) > 0 {
		if list[0] == "," || strings.EqualFold(list[0], "and") {
			list = list[1:]
			continue
		}
		t, rest, ok := r.named(list)
		if !ok {
			return nil, r.what(list)
		}
		key := t.kind + ":" + t.id
		if t.kind == "prop" {
			plot := r.p.PlotOf(t.id)
			if plot == nil {
				return nil, fmt.Errorf("%s is not set out yet; say where it stands", plan.NameOf(t.value))
			}
			key = "plot:" + plot.ID
		}
		keys, names, list = append(keys, key), append(names, plan.NameOf(t.value)), rest
	}
	if how == "line" {
		how = "row"
	}
	e, err := r.p.Align(keys, how)
	if err != nil {
		return nil, err
	}
	return &Reading{Text: strings.Join(names, ", ") + ": " + e.Label, Edit: e, Select: keys[0]}, nil
}

// wall is what hides: screen reed 6 ft high from 8 ft, 14 ft to 16 ft, 14 ft.
func (r *reader) wall() (*Reading, error) {
	kind := strings.ToLower(r.words[0])
	head, rest, ok := parted(r.words, "from")
	if !ok {
		return nil, fmt.Errorf("say from which place it goes, and to which")
	}
	w := r.phrase(head[1:])
	x := plan.Wall{Kind: kind, High: w.Before("high", "tall")}
	x.Name = r.nameOr(w.List, measure.Capital(kind), len(r.p.Walls()))
	var err error
	if x.X, x.Y, rest, err = r.at(rest); err != nil {
		return nil, err
	}
	if len(rest) == 0 || !strings.EqualFold(rest[0], "to") {
		return nil, fmt.Errorf("say to which place it goes")
	}
	if x.ToX, x.ToY, rest, err = r.at(rest[1:]); err != nil {
		return nil, err
	}
	if len(rest) > 0 {
		return nil, wantNone(rest)
	}
	x.ID = r.p.FreshID("wall", x.Name)
	return r.put(fmt.Sprintf("%s, a %s", x.Name, kind), "wall", x.ID, x)
}

// nameOr is a name as typed, or one with a number.
func (r *reader) nameOr(list []string, word string, n int) string {
	if name := asTyped(list); name != "" {
		return measure.Capital(name)
	}
	return fmt.Sprintf("%s %d", word, n+1)
}

// walk is where people go: walk path 4 ft wide 3 ft, 26 ft ; 14 ft, 19 ft.
func (r *reader) walk() (*Reading, error) {
	list := r.words[1:]
	x := plan.Walkway{Kind: "path"}
	switch {
	case len(list) > 1 && strings.EqualFold(list[0], "way") && strings.EqualFold(list[1], "out"):
		x.Kind, list = "way out", list[2:]
	case len(list) > 0 && (strings.EqualFold(list[0], "street") || strings.EqualFold(list[0], "path")):
		x.Kind, list = strings.ToLower(list[0]), list[1:]
	}
	w := r.phrase(slices.Clone(list))
	x.Wide = w.Before("wide")
	var through []string
	for _, one := range strings.Split(strings.Join(w.List, " "), ";") {
		px, py, rest, err := r.at(strings.Fields(one))
		if err != nil {
			return nil, err
		}
		if len(rest) > 0 {
			return nil, wantNone(rest)
		}
		through = append(through, px.String()+", "+py.String())
	}
	x.Through = strings.Join(through, "; ")
	x.Name = map[string]string{"path": "Guests' path", "way out": "Way out", "street": "Street"}[x.Kind]
	for _, o := range r.p.Walkways() {
		if o.Name == x.Name {
			x.Name = fmt.Sprintf("%s %d", x.Name, len(r.p.Walkways())+1)
		}
	}
	x.ID = r.p.FreshID("walkway", x.Name)
	return r.put(fmt.Sprintf("%s through %s", x.Name, words.Count(len(through), "place")), "walkway", x.ID, x)
}

// light is a lamp in the yard: light fill 100 lm at 12 ft, 10 ft up 1 ft beam 60 aimed 90.
func (r *reader) light() (*Reading, error) {
	head, rest, ok := parted(r.words[1:], "at")
	if !ok {
		return nil, fmt.Errorf("say where it is, at which place")
	}
	x := plan.Fixture{Use: "practical"}
	var name []string
	for i := 0; i < len(head); i++ {
		low := strings.ToLower(head[i])
		var n int
		switch {
		case low == "fill" || low == "practical":
			x.Use = low
		case i+1 < len(head) && (strings.EqualFold(head[i+1], "lm") || strings.EqualFold(head[i+1], "lumens")):
			if _, err := fmt.Sscanf(low, "%d", &n); err != nil {
				return nil, fmt.Errorf("%q is no number of lumens", head[i])
			}
			x.Lumens, i = n, i+1
		case strings.HasSuffix(low, "lm") && len(low) > 2 && low[0] >= '0' && low[0] <= '9':
			if _, err := fmt.Sscanf(low, "%dlm", &n); err != nil {
				return nil, fmt.Errorf("%q is no number of lumens", head[i])
			}
			x.Lumens = n
		default:
			name = append(name, head[i])
		}
	}
	var err error
	for _, f := range []struct {
		mark string
		to   *measure.Angle
	}{{"beam", &x.Beam}, {"aimed", &x.Aim}, {"tilted", &x.Tilt}} {
		if *f.to, rest, err = angleAfter(rest, f.mark); err != nil {
			return nil, err
		}
	}
	w := r.phrase(slices.Clone(rest))
	x.High = w.After("up")
	if x.X, x.Y, rest, err = r.at(w.List); err != nil {
		return nil, err
	}
	if len(rest) > 0 {
		return nil, wantNone(rest)
	}
	x.Name = r.nameOr(name, measure.Capital(x.Use)+" lamp", len(r.p.Fixtures()))
	x.ID = r.p.FreshID("fixture", x.Name)
	return r.put(fmt.Sprintf("%s, %s, %d lm", x.Name, x.Use, x.Lumens), "fixture", x.ID, x)
}

// cord leads from an outlet to a prop: cord porch to skep 50 ft.
func (r *reader) cord() (*Reading, error) {
	from, to, ok := parted(r.words[1:], "to")
	if !ok {
		return nil, fmt.Errorf("say from which outlet to which prop it leads")
	}
	o := r.outletNamed(asTyped(from))
	if o == nil {
		return nil, fmt.Errorf("there is no outlet %q", asTyped(from))
	}
	t, rest, found := r.named(to)
	if !found || t.kind != "prop" {
		return nil, r.what(to)
	}
	x := plan.Cord{Outlet: o.ID, Prop: t.id, Name: o.Name + " cord to " + plan.NameOf(t.value)}
	if l, n := words.LengthAt(rest, 0, r.p.Display().Units); n > 0 {
		x.Long, rest = l, rest[n:]
	}
	if len(rest) > 0 {
		return nil, wantNone(rest)
	}
	x.ID = r.p.FreshID("cord", x.Name)
	return r.put("a cord from "+o.Name+" to "+plan.NameOf(t.value), "cord", x.ID, x)
}

// view is where one looks from: view gate at 3 ft, 26 ft looking -30.
func (r *reader) view() (*Reading, error) {
	name, rest, ok := parted(r.words[1:], "at")
	if !ok {
		return nil, fmt.Errorf("name it and say where one stands")
	}
	look, rest, err := angleAfter(rest, "looking")
	if err != nil {
		return nil, err
	}
	x := plan.Viewpoint{Name: measure.Capital(asTyped(name)), Look: look}
	if x.X, x.Y, rest, err = r.at(rest); err != nil {
		return nil, err
	}
	if len(rest) > 0 {
		return nil, wantNone(rest)
	}
	x.ID = r.p.FreshID("viewpoint", x.Name)
	return r.put("viewpoint “"+x.Name+"”", "viewpoint", x.ID, x)
}

// wind is a day's forecast: wind 2026-10-31 22 mph gusts 31 mph air 9 C 80 %.
func (r *reader) wind() (*Reading, error) {
	list := r.words[1:]
	if len(list) == 0 {
		return nil, fmt.Errorf("say which night, and how strong")
	}
	if _, err := time.Parse(time.DateOnly, list[0]); err != nil {
		return nil, measure.Bad("on", "%q is no date; write such as 2026-10-31", list[0])
	}
	x := plan.Forecast{ID: r.p.FreshID("forecast", list[0]), On: list[0]}
	if there := r.p.ForecastOf(x.On); there != nil {
		x = *there
	}
	head, air, _ := parted(list, "air")
	if err := r.air(&x, air); err != nil {
		return nil, err
	}
	head, gusts, _ := parted(head[1:], "gusts")
	for _, f := range []struct {
		list []string
		to   *measure.Speed
	}{{head, &x.Wind}, {gusts, &x.Gusts}} {
		if len(f.list) == 0 {
			continue
		}
		v, err := measure.Parse[measure.SpeedKind](strings.Join(f.list, " "))
		if err != nil {
			return nil, err
		}
		*f.to = v
	}
	said := []string{}
	for _, f := range [][2]string{{"wind ", x.Wind.String()}, {"gusts ", x.Gusts.String()}, {"", x.Temp.String()}} {
		if f[1] != "" {
			said = append(said, f[0]+f[1])
		}
	}
	if x.RH > 0 {
		said = append(said, fmt.Sprintf("%d %%", x.RH))
	}
	if len(said) == 0 {
		return nil, fmt.Errorf("say how strong the wind is to be, or the air")
	}
	return r.put("forecast of "+x.On+": "+strings.Join(said, ", "), "forecast", x.ID, x)
}

// air is a day's temperature and humidity: 9 C 80 %.
func (r *reader) air(x *plan.Forecast, list []string) error {
	for i := 0; i < len(list); i++ {
		n := 1
		if i+1 < len(list) && (list[i+1] == "%" || len(list[i+1]) == 1 && strings.ContainsAny(list[i+1], "CcFf")) {
			n = 2
		}
		word := strings.Join(list[i:i+n], " ")
		if percent, ok := strings.CutSuffix(strings.ReplaceAll(word, " ", ""), "%"); ok {
			v, err := strconv.Atoi(percent)
			if err != nil {
				return measure.Bad("rh", "%q is no humidity; write such as 80 %%", word)
			}
			x.RH = v
		} else {
			v, err := measure.Parse[measure.CelsiusKind](word)
			if err != nil {
				return err
			}
			x.Temp = v
		}
		i += n - 1
	}
	return nil
}

package yard

import (
	"bytes"
	"fmt"
	"html/template"
	"math"
	"net/http"
	"net/url"
	"slices"
	"strconv"
	"strings"

	"zapbarn/web/shell"

	"zapbarn/core/check"
	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/yard"
	"zapbarn/web/draw"

	"github.com/gin-gonic/gin"
)

// Place is the display as guests meet it.
func (s Room) Place() shell.Place {
	return shell.Place{
		ID: "yard", Name: "Yard", Hint: "walk path 4 ft wide 3 ft, 26 ft ; 14 ft, 19 ft",
		Ways: []shell.Way{
			{ID: "plan", Title: "Plan", Body: "yard", Fill: shell.Showing(newView, s.fill)},
			{ID: "sight", Title: "Sight", Body: "yard", Fill: shell.Showing(newView, s.fill)},
			{ID: "light", Title: "Light", Body: "yard", Fill: shell.Showing(newView, s.fill)},
			{ID: "wind", Title: "Wind", Body: "yard", Fill: shell.Showing(newView, s.fill)},
			{ID: "walk", Title: "Guest's eye", Body: "yard", Fill: shell.Showing(newView, s.fill)},
			{ID: "strike", Title: "Strike", Fill: shell.Showing(newView, s.strikeFill)},
		},
		Link:    func(p *shell.Page, to shell.Way) string { return p.Href("yard", "", p.Sel, to.ID) },
		SnagWay: func(code string) string { return ways[code] },
	}
}

// ways is the way each snag of the yard is best looked at.
var ways = map[string]string{
	"tips":             "wind",
	"push-over":        "wind",
	"fill-seen":        "sight",
	"practical-unseen": "sight",
	"path-dark":        "light",
	"past-it":          "walk",
}

// YardPage is what the Yard shows.
type YardPage struct {
	Empty  bool
	Eye    template.HTML
	Far    int // mm along the path
	Long   int
	At     string // how far along, as told
	Views  []shell.Link
	Stands []shell.Option // props that do not stand yet: the line that sets each out
	Legend string
	Passes []Pass
	On     string

	Child     bool   // looked at by a child
	ChildHref string // to that, or back
	Sketches  []shell.Link
	Weather   []shell.Row    // the days that are forecast
	EyeQuery  template.URL   // of the picture as a file
	Layers    []shell.Option // what can be left out of the drawing
	Uses      []shell.Link   // lamps of one use alone
}

// layers are the kinds of thing that can be left out of the drawing.
var layers = []shell.Option{
	{Value: "plot", Text: "Props"},
	{Value: "walkway", Text: "Ways"},
	{Value: "wall", Text: "Walls"},
	{Value: "fixture", Text: "Lamps"},
	{Value: "cord", Text: "Cords"},
	{Value: "viewpoint", Text: "Viewpoints"},
	{Value: "sketch", Text: "Sketch"},
}

// Pass is when something goes off as a guest comes by.
type Pass struct{ Name, Sensor, Then, Beside, Says string }

var legends = map[string]string{
	"plan": "Drag what stands here, or pick it and use the arrow keys; with Shift, left and right turn it. The thick " +
		"edge of a prop is its front.",
	"sight": "A crossed lamp is fill: it is not to be seen. Red is where it is, by eyes 1.6 m and 1.1 m high that look " +
		"the way they walk.",
	"light": "Pools from 0.2, 0.5, 2 and 8 lux on the ground, by the lamps that are set out; no other light is counted.",
	"wind": "The wind that moves each prop first, over or along. Weights are those of the parts, bare, unless a ticket " +
		"says otherwise.",
	"walk": "What a guest sees there, all lamps on. Props are shown where they are lit.",
}

func (s Room) fill(_ *gin.Context, p *view, _ []check.Snag) error {
	p.yard()
	return nil
}

// yard fills in the plan as it is looked at.
func (p *view) yard() {
	w := p.Work
	y := w.Yard()
	v := &YardPage{Layers: layers, Legend: legends[p.Way], On: p.Way}
	p.Yard = v
	v.Empty = len(w.Plan.Plots())+len(w.Plan.Walls())+len(w.Plan.Walkways())+len(w.Plan.Fixtures()) == 0
	v.Stands = p.setOut()
	for _, f := range w.Plan.Forecasts() {
		v.Weather = append(v.Weather, shell.Row{Key: "forecast:" + f.ID, Title: f.On, On: p.Sel == "forecast:"+f.ID,
			Href: p.Href("yard", "", "forecast:"+f.ID, "wind"), Sub: "wind " + w.Speed(f.Wind.Value()),
			Right: "gusts " + w.Speed(f.Gusts.Value())})
	}
	for _, x := range w.Plan.Sketches() {
		v.Sketches = append(v.Sketches, shell.Link{Text: x.Name, Href: p.Href("yard", "", "sketch:"+x.ID, p.Way),
			On: p.Sel == "sketch:"+x.ID})
	}
	far := 0.0
	if path := y.Path(); path != nil {
		v.Long = int(path.Long() * 1000)
		far = path.Long() * 0.35
		if mm, err := strconv.Atoi(p.Query.Get("far")); err == nil {
			far = math.Max(0, math.Min(path.Long(), float64(mm)/1000))
		}
		v.Far, v.At = int(far*1000), w.Run(far*1000)
	}
	use := p.Query.Get("lamps")
	if p.Way != "light" || use != "fill" && use != "practical" {
		use = ""
	}
	for _, x := range [][2]string{{"", "All lamps"}, {"practical", "Practicals alone"}, {"fill", "Fills alone"}} {
		v.Uses = append(v.Uses, shell.Link{Text: x[1], On: use == x[0],
			Href: "/p/" + p.PlanID + "/yard?" + url.Values{"way": {"light"}, "lamps": {x[0]}}.Encode()})
	}
	p.Draw = template.HTML(draw.Yard(w, draw.YardView{Way: p.Way, Sel: p.Sel, Far: far, Lamps: use,
		Href: func(key string) string { return p.Href("yard", "", key, p.Way) }, Photos: "/p/" + p.PlanID + "/photo/"}))
	if p.Way == "walk" {
		p.eye(v, far)
	}
	kind, id, _ := strings.Cut(p.Sel, ":")
	if slices.Contains(kinds, kind) {
		p.Ticket = p.TicketOf(kind, id)
	}
}

// kinds are what stands in a yard.
var kinds = []string{"plot", "wall", "walkway", "fixture", "cord", "viewpoint", "forecast", "outlet", "sketch"}

// eye is the picture from the path, or from a viewpoint that is picked.
func (p *view) eye(v *YardPage, far float64) {
	y := p.Work.Yard()
	path := y.Path()
	v.Child = p.Query.Get("child") != ""
	v.ChildHref = p.Href("yard", "", p.Sel, "walk") + "&far=" + strconv.Itoa(v.Far)
	if !v.Child {
		v.ChildHref += "&child=1"
	}
	q := url.Values{"far": {strconv.Itoa(v.Far)}, "child": {p.Query.Get("child")}, "sel": {p.Sel}, "way": {"walk"}}
	v.EyeQuery = template.URL(q.Encode())
	for i := range p.Plan.Viewpoints() {
		x := &p.Plan.Viewpoints()[i]
		v.Views = append(v.Views, shell.Link{Text: x.Name, Href: p.Href("yard", "", "viewpoint:"+x.ID, "walk"),
			On: p.Sel == "viewpoint:"+x.ID})
		if p.Sel != "viewpoint:"+x.ID {
			continue
		}
		e := yard.Eye{Spot: yard.Spot{Pt: yard.Pt{X: x.X.Value() / 1000, Y: x.Y.Value() / 1000},
			Z: x.Eye.Or(yard.AdultEye*1000) / 1000}, Look: x.Look.Value() * math.Pi / 180}
		v.Eye = template.HTML(draw.Eye(p.Work, e, "From "+x.Name+", eye at "+p.Work.Run(e.Z*1000)))
	}
	if path == nil || v.Eye != "" {
		return
	}
	at, way := path.At(far)
	high := yard.AdultEye
	if p.Query.Get("child") != "" {
		high = yard.ChildEye
	}
	e := yard.Eye{Spot: yard.Spot{Pt: at, Z: high}, Look: math.Atan2(way.Y, way.X)}
	if look, err := strconv.Atoi(p.Query.Get("look")); err == nil {
		e.Look += float64(max(-180, min(180, look))) * math.Pi / 180
	}
	v.Eye = template.HTML(
		draw.Eye(p.Work, e, "From "+p.Work.Run(far*1000)+" along the path, eye at "+p.Work.Run(high*1000)),
	)
	v.Passes = p.passes()
}

// EyeFile sends what a guest sees, as a picture of its own.
func (s Room) EyeFile(c *gin.Context) {
	w, open := s.Open(c)
	if !open {
		return
	}
	css, err := shell.Style()
	if err != nil {
		s.Fail(c, err)
		return
	}
	p := newView(&shell.Page{Asked: shell.Asked{PlanID: c.Param("plan"), Place: "yard", Way: "walk", Sel: c.Query("sel"),
		Query: c.Request.URL.Query()}, Plan: w.Plan, Work: w})
	p.yard()
	if p.Yard.Eye == "" {
		s.Trouble(c, http.StatusNotFound, "Nothing to see", "No path and no viewpoint is set out yet.")
		return
	}
	head := `<svg xmlns="http://www.w3.org/2000/svg" width="1120" height="660" `
	svg := strings.Replace(string(p.Yard.Eye), "<svg ", head, 1)
	end := strings.Index(svg, ">") + 1
	var b bytes.Buffer
	b.WriteString(svg[:end] + "<style><![CDATA[" + string(css) + "]]></style>" + svg[end:])
	shell.Send(c, "guests-eye.svg", &b)
}

// passes are what guests set off as they walk, and where they are then.
func (p *view) passes() (out []Pass) {
	run := func(m float64) string { return p.Work.Run(m * 1000) }
	for _, x := range p.Work.Passings() {
		v := Pass{Name: p.NameOf("prop:" + x.Input.Prop), Then: run(x.Then), Beside: "not set out",
			Sensor: x.Input.Name + " at " + p.Work.Run(x.Input.Far.Value())}
		if x.Stands != nil {
			v.Beside, v.Says = run(x.Stands.Along), run(math.Abs(x.Past()))+" before it"
			if x.Past() > 0 {
				v.Says = run(x.Past()) + " past it"
			}
		}
		out = append(out, v)
	}
	return out
}

// setOut are lines for the props that do not stand in the yard yet, each at a free place.
func (p *view) setOut() (out []shell.Option) {
	x := 4.0
	for _, prop := range p.Plan.Props() {
		if p.Plan.PlotOf(prop.ID) != nil {
			continue
		}
		out = append(out, shell.Option{Text: prop.Name,
			Value: fmt.Sprintf("stand %s at %s, %s", prop.Name, measure.Tape(x*304.8, p.Plan.Metric()),
				measure.Tape(5*304.8, p.Plan.Metric()))})
		x += 6
	}
	for _, o := range p.Plan.Outlets() {
		if o.X.IsZero() && o.Y.IsZero() && len(p.Plan.Plots()) > 0 {
			out = append(out, shell.Option{Text: o.Name,
				Value: fmt.Sprintf("stand %s at %s, %s", o.Name, measure.Tape(304.8, p.Plan.Metric()),
					measure.Tape(304.8, p.Plan.Metric()))})
		}
	}
	return out
}

// YardAdds is the palette of the Yard.
func (p *view) YardAdds() []shell.Add {
	at := func(x, y float64) string {
		return measure.Tape(x*304.8, p.Plan.Metric()) + ", " + measure.Tape(y*304.8, p.Plan.Metric())
	}
	out := []shell.Add{}
	for _, o := range p.setOut() {
		out = append(out, shell.Press("prop", o.Value, "M5 8H25V22H5Z", "M5 22H25"))
		break
	}
	out = append(
		out,
		shell.Press("path", "walk path 4 ft wide "+at(2, 20)+" ; "+at(20, 18)+" ; "+at(40, 20), "",
			"M2 20Q10 8 28 10M2 26Q12 14 28 16"),
		shell.Press("way out", "walk way out "+at(40, 20)+" ; "+at(46, 20), "", "M3 14H24M18 8L25 14L18 20"),
		shell.Press("screen",
			"screen 6 ft high from "+at(10, 12)+" to "+at(16, 12),
			"M3 7H27V11H3Z",
			"M5 11V22M15 11V22M25 11V22"),
		shell.Press("fill", "light fill 100 lm at "+at(12, 9)+" up "+measure.Tape(304.8, p.Plan.Metric()),
			"M7 14a8 8 0 1 0 16 0a8 8 0 1 0 -16 0", "M7 14H23M15 6V22"),
		shell.Press("practical", "light practical 60 lm at "+at(18, 9)+" up "+measure.Tape(914.4, p.Plan.Metric()),
			"M9 14a6 6 0 1 0 12 0a6 6 0 1 0 -12 0", "M15 3V6M15 22V25M4 14H7M23 14H26"),
		shell.Press("view", "view Gate at "+at(2, 20)+" looking -20", "M4 14L26 5V23Z", ""),
	)
	for _, o := range p.Plan.Outlets() {
		for _, s := range p.Plan.Plots() {
			out = append(
				out,
				shell.Press("cord", "cord "+o.Name+" to "+p.NameOf("prop:"+s.Prop)+" 50 ft", "M3 9H11V18H3Z",
					"M11 13Q18 4 20 14T28 14"),
			)
			return out
		}
	}
	return out
}

// AddSketch lays a picture beneath the plan, as wide as was said.
func (s Room) AddSketch(c *gin.Context) {
	var in struct {
		Across string `form:"across"`
	}
	w, open := s.OpenWith(c, &in)
	if !open {
		return
	}
	photo, err := shell.PhotoIn(c, w.Plan, "Sketch")
	var across measure.Length
	if err == nil {
		if across, err = measure.ParseLengthIn(in.Across, w.Plan.Display().Units); err != nil {
			err = measure.Bad("across", "%s", err)
		}
	}
	if err != nil {
		_, msg := shell.FieldErrors(err)
		values := map[string]string{"across": in.Across}
		s.Refused(c, shell.Over{Err: "No sketch was laid down. " + measure.Capital(msg), Values: values,
			Code: shell.CodeOf(err)})
		return
	}
	x := plan.Sketch{ID: w.Plan.FreshID("sketch", photo.Title), Name: measure.Capital(photo.Title), Photo: photo.Photo.ID,
		Wide: photo.Wide, Tall: photo.Tall, Across: across}
	p := &shell.Page{Asked: shell.Asked{PlanID: c.Param("plan")}}
	s.Apply(
		c,
		plan.Edit{Label: "lay down " + x.Name, Changes: []plan.Change{w.Plan.Put("photo", photo.Photo.ID, photo.Photo),
			w.Plan.Put("sketch", x.ID, x)}},
		shell.Over{},
		p.Href("yard", "", "sketch:"+x.ID, ""),
	)
}

// view is what the Yard shows.
type view struct {
	*shell.Page
	Draw   template.HTML
	Yard   *YardPage
	Strike *StrikeView
}

func newView(p *shell.Page) *view { return &view{Page: p} }

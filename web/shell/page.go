package shell

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"html/template"
	"net/http"
	"net/url"
	"strings"
	"sync"
	"time"

	"zapbarn/core/check"
	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/shorthand"
	"zapbarn/core/source"
	"zapbarn/core/wiring"
	"zapbarn/core/work"
	"zapbarn/store"
	"zapbarn/web/draw"

	"github.com/gin-gonic/gin"
)

// Link is a link or a choice that may be the current one.
type Link struct {
	Text, Href string
	On         bool
	Count      int
}

// SnagView is a snag as the gutter and the walkdown show it.
type SnagView struct {
	check.Snag
	Href    string
	Keys    string
	Main    bool
	Like    []SnagView // equal ones, folded under this
	Untried bool       // its mends were not tried yet
	Of      string     // the prop it is of, where others are in sight as well
}

// Result is a number on a ticket.
type Result struct {
	Key         source.Key
	Label, Text string
}

// Ticket is the selected thing.
type Ticket struct {
	Title, Sub string
	Touches    []Link
	Says       []Say
	Kind, ID   string
	Was        string // the element as it was shown, for noticing stale edits
	Fields     []Field
	Results    []Result
	Cautions   []string
	Verdict    string
	Reasons    []string
	Notes      []NoteView
}

// Class is how a field is set on the ticket.
func (f Field) Class() string {
	out := ""
	if f.Kind == "choice" || f.Name == "name" {
		out = " two-wide"
	}
	if f.Kind == "wide" || f.Kind == "check" {
		out += " " + f.Kind
	}
	if f.Error != "" {
		out += " bad"
	}
	return out
}

// Conflict is a stale edit: what stands there now and what was entered.
type Conflict struct {
	Name string
	Gone bool
	Rows []ConflictRow
	Was  string // the element as it stands now, for sending mine again
	Kind string
	ID   string
	mine map[string]string // the fields I changed
}

// ConflictRow is one field of a conflict.
type ConflictRow struct{ Name, Label, Theirs, Mine string }

// Page is what every page has, whatever it shows: a room shows it with a view of its own, which
// holds this page and what the room shows.
type Page struct {
	Asked
	Frame
	Gutter
	Refusal
	Plan      *plan.Plan
	Work      *work.Work
	Body      template.HTML
	Aside     template.HTML // a ticket of the room's own, in place of the common one
	Notes     template.HTML // what the room has in the gutter, in place of its snags
	Ticket    *Ticket
	Several   *Several // what is picked together, in place of one ticket
	Reach     *Reach
	NeedsProp bool
	places    PlacesOf
	Fleeting  bool // not to be kept: what it shows is going on
}

// Asked is what a page's address says.
type Asked struct {
	PlanID, Place, Prop, Sel, Way string
	Query                         url.Values
	Back                          string // the address itself
}

// Frame is what stands around what is shown.
type Frame struct {
	Title, Theme string
	Hint         string // of the quick line
	Who          string // who last gave a name here
	Days         string // to the opening
	Tour         *TourStep
	Doors        []Link
	Ways         []Link
	Props        []Link
	Steps        store.Steps // what undo and redo would do
}

// Gutter is what is to be mended.
type Gutter struct {
	Snags   []SnagView
	More    int // that are not shown
	Summary string
	Untried int    // snags whose mends there was no time to try
	Tally   string // of its snags and costs, to tell an edit's effect by
}

// Refusal is what was entered and could not be taken, with why.
type Refusal struct {
	Quick, QuickError string
	Tries             []string // lines to go on with
	Error             string
	Conflict          *Conflict
	entered           map[string]string
	Laid              any // what the room it came from lays over its view
}

// Over is what a refused form lays over the page it came from.
type Over struct {
	Values   map[string]string
	errors   map[string]string
	Err      string
	quick    string
	quickErr string
	tries    []string
	conflict *Conflict
	Laid     any // of the room's own
	Code     int
}

var funcs = template.FuncMap{
	"behindMark": func() template.HTML { return behindMark },
	"mark":       func(l fmt.Stringer) string { return l.String() },
	"upper":      measure.Capital,
	"keymap":     keymap,
	"join":       strings.Join,
	"tape":       func(p *plan.Plan, mm float64) string { return measure.Run(mm, p.Metric()) },
	"hole":       func(p *plan.Plan, mm float64) string { return measure.Tape(mm, p.Metric()) },
	"inc":        func(n int) int { return n + 1 },
	"percent":    func(share float64) string { return measure.Decimal(100*share, 1) + " %" },
	"dict": func(pairs ...any) map[string]any {
		m := map[string]any{}
		for i := 0; i+1 < len(pairs); i += 2 {
			m[pairs[i].(string)] = pairs[i+1]
		}
		return m
	},
}

// Add is something that can be added by pressing its drawing, and the phrase that makes it.
type Add struct{ Name, Line, Path, Thin string }

// Press is an Add: what is called name, said by a line, drawn by an outline and thin lines on it.
func Press(name, line, outline, thin string) Add { return Add{name, line, outline, thin} }

// Defs are the materials of the drawings.
func (p *Page) Defs() template.HTML { return template.HTML(draw.Defs()) }

func (s *Site) Place(c *gin.Context, place string) {
	s.get(c, place, c.Param("plan"), c.Request.URL)
}

// Refused renders the page a form was sent from again, with what was entered.
func (s *Site) Refused(c *gin.Context, o Over) {
	u, err := url.Parse(Local(c.PostForm("back")))
	if err != nil {
		u = &url.URL{Path: "/p/" + c.Param("plan")}
	}
	place := "barn"
	if parts := strings.Split(strings.Trim(u.Path, "/"), "/"); len(parts) == 3 {
		place = parts[2]
	}
	if o.Code == 0 {
		o.Code = http.StatusUnprocessableEntity
	}
	s.render(c, place, c.Param("plan"), u, o)
}

// render answers with a page as it is now, with what a refused form lays over it.
func (s *Site) render(c *gin.Context, place, id string, u *url.URL, o Over) {
	u, all := asksMends(u)
	p, err := s.rendered(c, place, id, u, o, all)
	if err != nil {
		s.Fail(c, err)
		return
	}
	SendPage(c, p.code, p.page)
}

// rendered is a page worked out and rendered.
func (s *Site) rendered(c *gin.Context, place, id string, u *url.URL, o Over, all bool) (*rendering, error) {
	got, m, err := s.Worked(c.Request.Context(), id)
	if err == nil && got.heavy != nil {
		err = got.heavy
	}
	if err != nil {
		return nil, err
	}
	steps, err := s.Store.Steps(c.Request.Context(), id, Editor(c))
	if err != nil {
		return nil, err
	}
	pl, ok := s.Places.of(place)
	if !ok {
		return nil, errNoPlace
	}
	p, many := s.begun(c, got.Work, pl, u, o)
	p.PlanID, p.Steps, p.Tour = id, steps, tourOf(c, id)
	tried := got.mends.Tried()
	if err := s.whole(c, p, pl, got, many, all, o); err != nil {
		return nil, err
	}
	var b bytes.Buffer
	if err := s.pages.ExecuteTemplate(&b, "page.html", p); err != nil {
		return nil, err
	}
	if all {
		tried = got.mends.Tried()
	}
	page := Pack(b.Bytes())
	out := &rendering{at: m, tried: tried, untried: p.Untried, made: s.Now(), page: page,
		behind: sync.OnceValue(page.marked),
		code:   http.StatusOK, keep: !p.Fleeting}
	if pl.Clock {
		out.clock = s.minute()
	}
	if o.Code != 0 {
		out.code = o.Code
	}
	return out, nil
}

// errNoPlace is the error of an address that names no place.
var errNoPlace = errors.New("there is no such place")

// whole fills a page: its snags, what its way shows, the ticket, the mends that are known.
func (s *Site) whole(c *gin.Context, p *Page, pl Place, got Worked, many []string, all bool, o Over) error {
	p.lead(got.snags())
	s.fillSnags(p, got.snags())
	p.Tally = tallied(got.Work, got.snags())
	view, err := s.filled(c, p, pl, got.snags())
	if err != nil {
		return err
	}
	if len(many) > 1 {
		p.several(many, o)
	}
	s.tryMends(c.Request.Context(), p, got.mends, all || c.Request.Method != http.MethodGet)
	p.Ticket.over(o)
	return s.bodied(p, pl, view)
}

// begun is a page with what its address says: the place, the prop, what is picked.
func (s *Site) begun(c *gin.Context, w *work.Work, pl Place, u *url.URL, o Over) (p *Page, many []string) {
	q := u.Query()
	p = &Page{
		Asked: Asked{Place: pl.ID, Prop: q.Get("prop"), Sel: q.Get("sel"), Way: q.Get("way"), Query: q,
			Back: u.RequestURI()},
		Frame: Frame{Title: pl.Name, Hint: shorthand.InUnits(pl.Hint, w.Plan.Metric()), Theme: ThemeOf(c), Who: whoOf(c),
			Days: DaysTo(w.Plan.Display().Opens, s.Now())},
		Refusal: Refusal{Quick: o.quick, QuickError: o.quickErr, Tries: o.tries, Error: o.Err, Conflict: o.conflict,
			entered: o.Values, Laid: o.Laid},
		Plan: w.Plan, Work: w, places: s.Places,
	}
	if pl.Dark {
		p.Theme = "dark"
	}
	many = picked(w.Plan, p.Sel)
	if strings.Contains(p.Sel, ",") && len(many) > 0 {
		p.Sel = many[0]
	}
	if p.Prop == "" && p.Sel != "" {
		p.Prop = w.Plan.PropOf(p.Sel)
	}
	p.Reach = reachOf(w.Plan, o)
	if w.Plan.Prop(p.Prop) == nil {
		p.Prop = ""
	}
	if p.Prop == "" && pl.OfProp && len(w.Plan.Props()) > 0 {
		p.Prop = DefaultProp(w, pl.ID)
	}
	return p, many
}

// lead fills in what leads elsewhere: the places, and the props in this one.
func (p *Page) lead(snags []check.Snag) {
	p.doors(snags)
	for _, pr := range p.Plan.Props() {
		p.Props = append(p.Props,
			Link{Text: pr.Name, Href: p.Href(p.Place, pr.ID, "", p.Query.Get("way")), On: pr.ID == p.Prop})
	}
}

// over lays what was entered, and what is wrong with it, over a ticket's fields.
func (t *Ticket) over(o Over) {
	if t == nil {
		return
	}
	for i := range t.Fields {
		f := &t.Fields[i]
		f.Error = o.errors[f.Name]
		if v, ok := o.Values[f.Name]; ok {
			if f.Error != "" {
				f.Stored = f.Value
			}
			f.Value, f.Checked = v, v == "on"
		}
	}
}

// doors lead to the places, each with what is to be mended there.
func (p *Page) doors(snags []check.Snag) {
	for _, pl := range p.places {
		n := 0
		for _, sn := range snags {
			if sn.Waived == nil && sn.Level >= check.Fix && (sn.Place == pl.ID || pl.ID == "walkdown") {
				n++
			}
		}
		if pl.ID == "barn" {
			n = 0
		}
		p.Doors = append(p.Doors, Link{pl.Name, p.Href(pl.ID, p.Prop, "", ""), pl.ID == p.Place, n})
	}
}

// DefaultProp is the prop a place opens with; "" when there is none.
func DefaultProp(w *work.Work, place string) string {
	if len(w.Plan.Props()) == 0 {
		return ""
	}
	for _, p := range w.Plan.Props() {
		for _, s := range w.Plan.Solids() {
			if place == "bench" && s.Prop == p.ID && s.Kind == "box" {
				return p.ID
			}
		}
		if place != "bench" {
			for _, d := range w.Plan.Devices() {
				if d.Prop == p.ID && d.Is(wiring.Origin) {
					return p.ID
				}
			}
		}
	}
	return w.Plan.Props()[0].ID
}

// Href is the address of a place with a prop, a selection and a way to see it.
func (p *Page) Href(place, prop, sel, way string) string {
	path := "/p/" + p.PlanID
	if place != "barn" {
		path += "/" + place
	}
	q := url.Values{}
	for k, v := range map[string]string{"prop": prop, "sel": sel, "way": way} {
		if v != "" {
			q.Set(k, v)
		}
	}
	if len(q) == 0 {
		return path
	}
	return path + "?" + q.Encode()
}

// goTo is where pressing a snag leads.
func (p *Page) goTo(s check.Snag) string {
	place, way := s.Place, ""
	at := ""
	if len(s.At) > 0 {
		at = s.At[0]
	}
	switch kind, _, _ := strings.Cut(at, ":"); kind {
	case "part":
		way = "parts"
	case "display":
		if at = ""; place != "calendar" && place != "stores" {
			place = "walkdown"
		}
	default:
		if in, _ := plan.ShownIn(kind); in.Place == place {
			way = in.Way
		}
	}
	if pl, ok := p.places.of(place); ok && pl.SnagWay != nil {
		return p.Href(place, "", at, pl.SnagWay(s.Code))
	}
	if strings.HasPrefix(s.Code, "coat-") {
		way = "joints"
	}
	return p.Href(place, s.Prop, at, way)
}

// speaksOf is whether a snag belongs to the place, and to the prop that is open.
func (p *Page) speaksOf(sn check.Snag) bool {
	switch {
	case p.Place == "barn" || p.Place == "walkdown":
		return true
	case sn.Place != p.Place:
		return false
	case p.Prop == "" || p.Place == "yard" || sn.Prop == p.Prop:
		return true
	}
	return sn.Prop == "" && p.Way == "power"
}

func (s *Site) fillSnags(p *Page, snags []check.Snag) {
	n := [4]int{}
	for _, sn := range snags {
		if sn.Waived != nil || !p.speaksOf(sn) {
			continue
		}
		n[sn.Level]++
		p.Snags = append(p.Snags, p.View(sn))
	}
	p.Snags = Folded(p.Snags)
	for len(p.Snags) > 14 {
		last := len(p.Snags) - 1
		p.More += 1 + len(p.Snags[last].Like)
		p.Snags = p.Snags[:last]
	}
	var said []string
	for l := check.Stop; l >= check.Note; l-- {
		if n[l] > 0 {
			said = append(said, fmt.Sprintf("%d %s", n[l], l))
		}
	}
	p.Summary = strings.Join(said, ", ")
	if p.Summary == "" {
		p.Summary = "none here"
	}
}

func DaysTo(opens string, now time.Time) string {
	t, err := time.Parse(time.DateOnly, opens)
	if err != nil {
		return "no opening date"
	}
	n := int(t.Sub(now.UTC().Truncate(24*time.Hour)).Hours() / 24)
	switch {
	case n > 1:
		return fmt.Sprintf("%d days to opening", n)
	case n == 1:
		return "opens tomorrow"
	case n == 0:
		return "opens today"
	}
	return fmt.Sprintf("opened %d days ago", -n)
}

// told lists a thing's numbers.
func (p *Page) NumbersOf(kind, id string) (out []Result) {
	for _, r := range p.Work.Results().Of(kind, id) {
		out = append(out, Result{r.Key, r.Label, r.Text})
	}
	return out
}

// TicketOf shows an element with its fields.
func (p *Page) TicketOf(kind, id string) *Ticket {
	v, _ := p.Plan.Get(kind, id)
	if v == nil {
		return nil
	}
	was, _ := json.Marshal(v)
	t := &Ticket{
		Title:  p.Plan.Name(v),
		Kind:   kind,
		ID:     id,
		Was:    string(was),
		Fields: FieldsOf(p.Work, v),
		Notes:  p.notesOn(kind + ":" + id),
		Says:   p.says(v),
	}
	switch kind {
	case "display":
		t.Results = p.NumbersOf(kind, "")
	case "solid":
		t.Results = append(p.NumbersOf(kind, id), p.NumbersOf("finish", id)...)
	default:
		t.Results = p.NumbersOf(kind, id)
	}
	switch x := v.(type) {
	case *plan.Solid:
		t.solid(p, x)
	case *plan.Prop:
		t.Sub = x.Note
		for _, s := range p.Plan.Solids() {
			if s.Prop == id {
				t.Touches = append(t.Touches, Link{Text: s.Name, Href: p.Href("bench", id, "solid:"+s.ID, p.Way)})
			}
		}
	case *plan.Joint:
		t.joint(p, x)
	case *plan.Finish:
		f := p.Work.Finishes()[id]
		t.Title, t.Sub = "Coats", "from the surface up, on "+p.Plan.Solid(x.Solid).Name
		t.Verdict = f.Verdict.String()
		for _, r := range f.Reasons {
			t.Reasons = append(t.Reasons, r.Text)
		}
		t.Cautions = f.Cautions
	case *plan.Device:
		t.device(p, x)
	case *plan.Outlet:
		t.Sub = "mains outlet"
		t.Cautions = append(t.Cautions,
			"Plugs and cords only. Fixed wiring, and anything in a wall or a panel, belongs "+
				"to a licensed electrician and the local code.", "No chained power strips; ground-fault protection outdoors.")
		for _, l := range p.Work.OnOutlet(id) {
			t.Touches = append(t.Touches, Link{Text: l.Name, Href: p.Href("loom", p.Prop, l.Kind+":"+l.ID, "power")})
		}
	default:
		t.about(p, v)
	}
	return t
}

// solid is what the ticket of a solid says.
func (t *Ticket) solid(p *Page, x *plan.Solid) {
	t.Sub = fmt.Sprintf("%s of %s, in %s", x.Kind, p.Work.Lib.Materials[x.Stock].Name, p.Plan.Prop(x.Prop).Name)
	for _, part := range p.Work.Parts() {
		if part.Solid.ID == x.ID {
			t.Touches = append(t.Touches, Link{Text: fmt.Sprintf("%d %s", part.No, part.Panel.Name),
				Href: p.Href("bench", x.Prop, "part:"+part.Ref, "parts")})
		}
	}
	if p.Work.Lib.Materials[x.Stock].Foam() {
		t.Cautions = append(t.Cautions, "Hot wire or knife, never a flame; respirator for hot-cut foam.")
	}
	if lacks := p.Work.Lacks(x.ID); lacks != nil {
		t.Cautions = append(t.Cautions, "Half known: fill in the empty sizes.")
	}
}

// joint is what the ticket of a joint says.
func (t *Ticket) joint(p *Page, x *plan.Joint) {
	a := p.Work.Joints()[x.ID]
	t.Title, t.Sub = "Joint", SideName(p.Work, x.A)+" to "+SideName(p.Work, x.B)
	t.Verdict = a.Verdict.String()
	for _, r := range a.Reasons {
		t.Reasons = append(t.Reasons, r.Text)
	}
	t.Cautions = append(append([]string{}, a.Prep...), a.Cautions...)
	t.Reasons = append(t.Reasons, "undone by: "+a.Undo)
}

// device is what the ticket of a device says.
func (t *Ticket) device(p *Page, x *plan.Device) {
	s := "fed by " + x.From
	if x.From == "" {
		s = "feeds the rest"
		if !x.Is(wiring.Origin) {
			s = "fed by nothing yet"
		}
	}
	t.Sub = x.Kind + ", " + s
	for _, d := range p.Plan.Devices() {
		if d.From == x.ID && len(t.Touches) < 4 {
			t.Touches = append(t.Touches, Link{Text: d.Name, Href: p.Href("loom", x.Prop, "device:"+d.ID, "")})
		}
	}
	if x.Is(wiring.Origin) {
		t.Cautions = append(
			t.Cautions,
			"Extra-low voltage only. Fixed mains wiring belongs to a licensed electrician "+
				"and the local code.",
		)
	} else if x.Is(wiring.Load) && !x.Proven {
		t.Cautions = append(t.Cautions, "Light it on the bench before it is closed in: polarity first.")
	}
}

// about is what the ticket of anything else is under its name.
func (t *Ticket) about(p *Page, v any) {
	switch x := v.(type) {
	case *plan.Good:
		t.Sub = "in this plan's shop; everything is worked out with it"
	case *plan.Picture:
		t.Sub = "reference picture of " + p.Plan.Prop(x.Prop).Name
	case *plan.Plug:
		t.Sub = "plugged in"
	case *plan.Offcut:
		t.Title, t.Sub = "Offcut", "on the shelf, of "+p.Work.Lib.Materials[x.Stock].Name
	case *plan.Input:
		t.Sub = x.Kind
	case *plan.Scene:
		t.Sub = fmt.Sprintf("scene of %d cues", len(x.Cues))
	case *plan.Mechanism:
		t.Sub = x.Kind
		if x.Kind == "lid" || x.Kind == "slide" {
			t.Cautions = append(t.Cautions,
				"A metal arm springs back when it is bent: the calculator overbend says how "+
					"far. A fixed arm beats a loose one where it moves fast.")
		}
	case *plan.Clip:
		t.Sub = "a sound"
	case *plan.Promise:
		t.Title, t.Sub = "Promise", "what the show must keep, whatever happens"
	case *plan.Trigger:
		t.Title, t.Sub = "Trigger", p.Plan.Input(x.Input).Name+" works "+p.Plan.Scene(x.Scene).Name
	case *plan.Display:
		t.Sub = "the whole display"
	case *plan.Person:
		t.Sub = "one of the crew"
	case *plan.Delivery:
		t.Sub = "on its way, for " + p.NameOf(x.For)
	case *plan.Job:
		t.Sub = "a task of your own"
	}
}

// FieldErrors turns a core error into messages by field, and the rest.
func FieldErrors(err error) (map[string]string, string) {
	var f *measure.FieldError
	if errors.As(err, &f) {
		name := f.Field
		if i := strings.IndexByte(name, '['); i > 0 {
			name = name[:i]
		}
		if i := strings.IndexByte(name, '.'); i > 0 {
			name = name[:i]
		}
		return map[string]string{name: f.Why}, f.Field + ": " + f.Why
	}
	return nil, err.Error()
}

// Entered is what was written into a field of a form that was refused.
func (p *Page) Entered(field string) string { return p.entered[field] }

// EnteredAs is the same, and whether the field was in it.
func (p *Page) EnteredAs(field string) (text string, ok bool) {
	text, ok = p.entered[field]
	return text, ok
}

// NameOf is what the element of a key is called.
func (p *Page) NameOf(key string) string {
	kind, id, _ := strings.Cut(key, ":")
	v, _ := p.Plan.Get(kind, id)
	if v == nil {
		return key
	}
	return p.Plan.Name(v)
}

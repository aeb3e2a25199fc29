package walkdown

import (
	_ "embed" // the page to take along has its style and script in it
	"encoding/base64"
	"fmt"
	"html/template"
	"net/http"
	"net/url"
	"strings"
	"time"

	"zapbarn/web/shell"

	"zapbarn/core/check"
	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/source"
	"zapbarn/core/words"
	"zapbarn/core/work"

	"github.com/gin-gonic/gin"
)

//go:embed evening.css
var eveningStyle string

//go:embed evening.js
var eveningScript string

// NightPage is a night of the season, and the season so far.
type NightPage struct {
	Counters  []work.Counter // how often what moves has moved
	On        string
	Lists     []RoundList
	Night     plan.Night
	Incidents []shell.Row
	Season    *work.Season
	Open      string
	Up        *source.Result
	Props     []shell.Option
	Nights    []shell.Row
	Merged    string // what came of a phone's file
}

// RoundList is the opening or the closing list.
type RoundList struct {
	Name, Left string
	Rows       []RoundRow
}

// RoundRow is one line of it.
type RoundRow struct {
	work.Round
	Of, Href string
	Done     *plan.Ticked
}

func (s Room) nightsWay() shell.Way {
	return shell.Way{
		ID:    "nights",
		Title: "Nights", NoSnags: true,
		Fill: shell.Showing(newView, func(_ *gin.Context, p *view, _ []check.Snag) error {
			p.nights(s.Now())
			return nil
		}),
	}
}

// nights fills in a night: the one asked for, or today's.
func (p *view) nights(now time.Time) {
	w := p.Work
	on := p.Query.Get("on")
	if _, err := time.Parse(time.DateOnly, on); err != nil {
		on = now.Format(time.DateOnly)
	}
	v := &NightPage{On: on, Season: w.Season(), Counters: w.Counters(), Night: plan.Night{On: on},
		Merged: p.Query.Get("merged")}
	p.Nights = v
	for i := range p.Plan.NightBook() {
		n := &p.Plan.NightBook()[i]
		if n.On == on {
			v.Night = *n
		}
	}
	v.Lists = p.rounds(on)
	for i := range p.Plan.Incidents() {
		x := &p.Plan.Incidents()[i]
		r := shell.Row{Key: "incident:" + x.ID, Href: p.Href("walkdown", "", "incident:"+x.ID, "nights") + "&on=" + on,
			Title: x.What, Sub: x.On, Right: words.Count(x.Minutes, "minute"), On: p.Sel == "incident:"+x.ID}
		if x.Prop != "" {
			r.Sub += ", " + p.NameOf("prop:"+x.Prop)
		}
		if x.Mended != "" {
			r.Sub += "; " + x.Mended
		}
		v.Incidents = append(v.Incidents, r)
	}
	for _, n := range v.Season.Nights {
		v.Nights = append(
			v.Nights,
			shell.Row{Key: "night:" + n.ID, Href: p.Href("walkdown", "", "", "nights") + "&on=" + n.On,
				Title: n.On, Sub: n.Weather, Right: words.Count(n.Guests, "guest"), On: n.On == on},
		)
	}
	if v.Season.Open.Text != "" {
		v.Up = &v.Season.Open
	}
	v.Open = measure.Span(float64(v.Season.Minutes) * 60)
	for _, x := range p.Plan.Props() {
		v.Props = append(v.Props, shell.Option{Value: x.ID, Text: x.Name})
	}
	kind, id, _ := strings.Cut(p.Sel, ":")
	if kind == "incident" || kind == "night" {
		p.Ticket = p.TicketOf(kind, id)
	}
}

// rounds are the two lists of a night, what was done ticked.
func (p *view) rounds(on string) []RoundList {
	done := map[string]*plan.Ticked{}
	for i := range p.Plan.Ticks() {
		if x := &p.Plan.Ticks()[i]; x.On == on {
			done[x.Line] = x
		}
	}
	out := []RoundList{{Name: "Opening"}, {Name: "Closing"}}
	left := [2]int{}
	for _, r := range p.Work.Rounds(on) {
		k := 0
		if r.Closing {
			k = 1
		}
		row := RoundRow{Round: r, Done: done[r.Key]}
		if r.Prop != "" {
			row.Of = p.NameOf("prop:" + r.Prop)
		}
		if row.Done == nil {
			left[k]++
		}
		out[k].Rows = append(out[k].Rows, row)
	}
	for k := range out {
		out[k].Left = "all done"
		if left[k] > 0 {
			out[k].Left = fmt.Sprintf("%d of %d left", left[k], len(out[k].Rows))
		}
	}
	return out
}

// booked are the kinds of element that the night book's forms make, each found again by
// what names it.
var booked = map[string]struct {
	blank func() any
	find  func(p *plan.Plan, v any) string
}{
	"night": {func() any { return &plan.Night{} }, func(p *plan.Plan, v any) string {
		for _, x := range p.NightBook() {
			if x.On == v.(*plan.Night).On {
				return x.ID
			}
		}
		return ""
	}},
	"incident": {func() any { return &plan.Incident{} }, func(*plan.Plan, any) string { return "" }},
	"ticked": {func() any { return &plan.Ticked{} }, func(p *plan.Plan, v any) string {
		for _, x := range p.Ticks() {
			if x.On == v.(*plan.Ticked).On && x.Line == v.(*plan.Ticked).Line {
				return x.ID
			}
		}
		return ""
	}},
	"tried": {func() any { return &plan.Tried{} }, func(p *plan.Plan, v any) string {
		if x := p.TriedAs(v.(*plan.Tried).At, v.(*plan.Tried).What); x != nil {
			return x.ID
		}
		return ""
	}},
}

// bookLabel is what an entry of the book is called in the log.
func bookLabel(p *plan.Plan, kind string, v any, said string) string {
	switch r := []rune(said); {
	case kind == "ticked" && len(r) > 0:
		return "done: " + string(r[:min(80, len(r))])
	case kind == "night":
		return p.Name(v)
	}
	return plan.NameOf(v)
}

// booking is what a form says of an entry of the book, beside its fields.
type booking struct {
	Kind  string `form:"kind" binding:"required"`
	Label string `form:"label"`
	Undo  string `form:"undo"`
}

// BookIn writes a form of the night book, or of a card, into the plan.
func (s Room) BookIn(c *gin.Context) {
	var in booking
	if !s.Bind(c, &in) {
		return
	}
	kind := in.Kind
	of, ok := booked[kind]
	if !ok {
		s.Refused(c, shell.Over{Err: "There is no such thing in the book."})
		return
	}
	who := shell.SayWho(c, "n.by")
	values := map[string]string{}
	photo, err := shell.FormPhoto(c)
	if err != nil {
		_, msg := shell.FieldErrors(err)
		s.Refused(c, shell.Over{Err: "Nothing was noted. " + measure.Capital(msg), Code: shell.CodeOf(err)})
		return
	}
	err = s.ChangeBy(c, who, func(p *plan.Plan) (plan.Edit, error) {
		v := of.blank()
		for k, list := range c.Request.PostForm {
			if name, ok := strings.CutPrefix(k, "n."); ok {
				text := list[len(list)-1]
				values[k] = text
				if name == "by" {
					text = who
				}
				if err := plan.SetText(v, name, text, p.Metric()); err != nil {
					return plan.Edit{}, err
				}
			}
		}
		if t, ok := v.(*plan.Ticked); ok {
			t.At = s.Now().Format("15:04")
		}
		id, label := of.find(p, v), bookLabel(p, kind, v, in.Label)
		if id != "" && in.Undo != "" {
			return plan.Edit{Label: "not " + label, Changes: []plan.Change{p.Drop(kind, id)}}, nil
		}
		e := plan.Edit{Label: label}
		if t, ok := v.(*plan.Tried); ok {
			e.Changes = shownBy(p, t, id, photo)
		}
		if id == "" {
			id = p.FreshID(kind, values["n.on"]+"-"+plan.NameOf(v))
		}
		if err := plan.SetText(v, "id", id, false); err != nil {
			return plan.Edit{}, err
		}
		e.Changes = append(e.Changes, p.Put(kind, id, v))
		return e, nil
	})
	if err != nil {
		_, msg := shell.FieldErrors(err)
		s.Refused(c, shell.Over{Err: "Nothing was noted. " + measure.Capital(msg), Values: values})
		return
	}
	s.Applied(c, nil, shell.Over{}, "")
}

// shownBy puts a photo on a card that was tried, or keeps the one it had.
func shownBy(p *plan.Plan, t *plan.Tried, id string, photo []byte) []plan.Change {
	if photo == nil {
		if was, _ := p.Get("tried", id); was != nil {
			t.Photo = was.(*plan.Tried).Photo
		}
		return nil
	}
	t.Photo = p.FreshID("photo", "card")
	ph := plan.Photo{ID: t.Photo, Data: base64.StdEncoding.EncodeToString(photo)}
	return []plan.Change{p.Put("photo", ph.ID, ph)}
}

// MergeNights takes in what a phone kept while it was out of reach.
func (s Room) MergeNights(c *gin.Context) {
	_, data, err := shell.Upload(c, "file", 4<<20)
	if err != nil {
		s.Applied(c, err, shell.Over{}, "")
		return
	}
	sent, err := plan.ReadList[plan.Sent](data, plan.MaxSent)
	if err != nil {
		s.Refused(c, shell.Over{Err: "The file is no night book: choose the one the phone's page saved. It " +
			err.Error() + "."})
		return
	}
	w, open := s.Open(c)
	if !open {
		return
	}
	known, err := w.RoundsOf(sent)
	if err != nil {
		s.Refused(c, shell.Over{Err: "Nothing was merged. " + measure.Capital(shell.Reason(err)) + "."})
		return
	}
	var got plan.Merged
	err = s.Change(c, func(p *plan.Plan) (plan.Edit, error) {
		var err error
		got, err = p.Merge(sent, known)
		return got.Edit, err
	})
	if err != nil {
		_, msg := shell.FieldErrors(err)
		s.Refused(c, shell.Over{Err: "Nothing was merged. " + measure.Capital(msg)})
		return
	}
	said := words.Count(len(got.Edit.Changes), "entry") + " merged"
	for _, x := range got.Clashes {
		said += fmt.Sprintf(
			". %s: “%s” stays; “%s” is kept beside it",
			measure.Capital(lineText(x.What)),
			x.Theirs,
			x.Mine,
		)
	}
	if n := len(got.Left); n > 0 {
		said += fmt.Sprintf(". %s of lines that are on no list of their night, left out: %s", words.Count(n, "tick"),
			lineText(words.Few(got.Left, 3)))
	}
	q := &shell.Page{Asked: shell.Asked{PlanID: c.Param("plan")}}
	s.Applied(c, nil, shell.Over{}, q.Href("walkdown", "", "", "nights")+"&merged="+url.QueryEscape(said+"."))
}

// lineText is a line's key in words.
func lineText(key string) string {
	return strings.NewReplacer("open:", "opening list, ", "close:", "closing list, ", ":", " ").Replace(key)
}

// EveningFile is a night as one page for a phone that is out of reach.
type EveningFile struct {
	Name, On string
	Lists    []RoundList
	Props    []shell.Option
	Night    plan.Night
	Plan     string
	Key      string // where the phone keeps it
	Style    template.CSS
	Script   template.JS
}

// Evening sends a night as one file: it asks nothing of any server, keeps what is entered on
// the phone, and saves it as a file to be merged.
func (s Room) Evening(c *gin.Context) {
	w, open := s.Open(c)
	if !open {
		return
	}
	asked := shell.Asked{PlanID: c.Param("plan"), Query: c.Request.URL.Query()}
	p := newView(&shell.Page{Asked: asked, Plan: w.Plan, Work: w})
	p.nights(s.Now())
	v := EveningFile{Name: w.Plan.Display().Name, On: p.Nights.On, Lists: p.Nights.Lists, Props: p.Nights.Props,
		Night: p.Nights.Night, Plan: p.PlanID, Key: "zapbarn-" + p.PlanID + "-" + p.Nights.On}
	v.Style, v.Script = template.CSS(eveningStyle), template.JS(eveningScript) // our own files
	c.Header("Content-Disposition", fmt.Sprintf(`attachment; filename="night-%s.html"`, v.On))
	s.Show(c, http.StatusOK, "evening.html", v)
}

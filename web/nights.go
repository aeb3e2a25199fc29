package web

import (
	"encoding/base64"
	"errors"
	"fmt"
	"html/template"
	"io"
	"net/url"
	"strings"
	"time"

	"zapbarn/core/check"
	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/source"
	"zapbarn/core/words"
	"zapbarn/core/work"

	"github.com/gin-gonic/gin"
)

// NightPage is a night of the season, and the season so far.
type NightPage struct {
	Counters  []work.Counter // how often what moves has moved
	On        string
	Lists     []RoundList
	Night     plan.Night
	Incidents []Row
	Season    *work.Season
	Open      string
	Up        *source.Result
	Props     []Option
	Nights    []Row
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

func (s *Server) nightsWay() way {
	return way{
		id:    "nights",
		title: "Nights", noSnags: true,
		fill: showing(newWalkdown, func(_ *gin.Context, p *walkdownView, _ []check.Snag) error {
			p.nights(s.now())
			return nil
		}),
	}
}

// nights fills in a night: the one asked for, or today's.
func (p *walkdownView) nights(now time.Time) {
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
		r := Row{Key: "incident:" + x.ID, Href: p.href("walkdown", "", "incident:"+x.ID, "nights") + "&on=" + on,
			Title: x.What, Sub: x.On, Right: words.Count(x.Minutes, "minute"), On: p.Sel == "incident:"+x.ID}
		if x.Prop != "" {
			r.Sub += ", " + p.nameOf("prop:"+x.Prop)
		}
		if x.Mended != "" {
			r.Sub += "; " + x.Mended
		}
		v.Incidents = append(v.Incidents, r)
	}
	for _, n := range v.Season.Nights {
		v.Nights = append(
			v.Nights,
			Row{Key: "night:" + n.ID, Href: p.href("walkdown", "", "", "nights") + "&on=" + n.On,
				Title: n.On, Sub: n.Weather, Right: words.Count(n.Guests, "guest"), On: n.On == on},
		)
	}
	if v.Season.Open.Text != "" {
		v.Up = &v.Season.Open
	}
	v.Open = measure.Span(float64(v.Season.Minutes) * 60)
	for _, x := range p.Plan.Props() {
		v.Props = append(v.Props, Option{Value: x.ID, Text: x.Name})
	}
	kind, id, _ := strings.Cut(p.Sel, ":")
	if kind == "incident" || kind == "night" {
		p.Ticket = p.ticket(kind, id)
	}
}

// rounds are the two lists of a night, what was done ticked.
func (p *walkdownView) rounds(on string) []RoundList {
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
			row.Of = p.nameOf("prop:" + r.Prop)
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

// bookIn writes a form of the night book, or of a card, into the plan.
func (s *Server) bookIn(c *gin.Context) {
	kind := c.PostForm("kind")
	of, ok := booked[kind]
	if !ok {
		s.refused(c, over{err: "There is no such thing in the book."})
		return
	}
	who := sayWho(c, "n.by")
	values := map[string]string{}
	photo, err := formPhoto(c)
	if err != nil {
		_, msg := fieldErrors(err)
		s.refused(c, over{err: "Nothing was noted. " + measure.Capital(msg), code: codeOf(err)})
		return
	}
	_, err = s.store.Edit(c.Request.Context(), c.Param("plan"), editorNamed(c, who),
		func(p *plan.Plan) (plan.Edit, error) {
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
				t.At = s.now().Format("15:04")
			}
			id, label := of.find(p, v), bookLabel(p, kind, v, c.PostForm("label"))
			if id != "" && c.PostForm("undo") != "" {
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
		_, msg := fieldErrors(err)
		s.refused(c, over{err: "Nothing was noted. " + measure.Capital(msg), values: values})
		return
	}
	s.applied(c, nil, over{}, "")
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

// mergeNights takes in what a phone kept while it was out of reach.
func (s *Server) mergeNights(c *gin.Context) {
	_, data, err := upload(c, "file", 4<<20)
	if err != nil {
		s.applied(c, err, over{}, "")
		return
	}
	sent, err := plan.ReadList[plan.Sent](data, plan.MaxSent)
	if err != nil {
		s.refused(c, over{err: "The file is no night book: choose the one the phone's page saved. It " +
			err.Error() + "."})
		return
	}
	w, _, err := s.work(c.Request.Context(), c.Param("plan"))
	if err != nil {
		s.fail(c, err)
		return
	}
	known, err := w.RoundsOf(sent)
	if err != nil {
		s.refused(c, over{err: "Nothing was merged. " + measure.Capital(reason(err)) + "."})
		return
	}
	var got plan.Merged
	_, err = s.store.Edit(c.Request.Context(), c.Param("plan"), editor(c), func(p *plan.Plan) (plan.Edit, error) {
		var err error
		got, err = p.Merge(sent, known)
		return got.Edit, err
	})
	if err != nil {
		_, msg := fieldErrors(err)
		s.refused(c, over{err: "Nothing was merged. " + measure.Capital(msg)})
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
	q := &Page{Asked: Asked{PlanID: c.Param("plan")}}
	s.applied(c, nil, over{}, q.href("walkdown", "", "", "nights")+"&merged="+url.QueryEscape(said+"."))
}

// lineText is a line's key in words.
func lineText(key string) string {
	return strings.NewReplacer("open:", "opening list, ", "close:", "closing list, ", ":", " ").Replace(key)
}

// EveningFile is a night as one page for a phone that is out of reach.
type EveningFile struct {
	Name, On string
	Lists    []RoundList
	Props    []Option
	Night    plan.Night
	Plan     string
	Key      string // where the phone keeps it
	Style    template.CSS
	Script   template.JS
}

// evening sends a night as one file: it asks nothing of any server, keeps what is entered on
// the phone, and saves it as a file to be merged.
func (s *Server) evening(c *gin.Context) {
	w, _, err := s.work(c.Request.Context(), c.Param("plan"))
	if err != nil {
		s.fail(c, err)
		return
	}
	p := newWalkdown(&Page{Asked: Asked{PlanID: c.Param("plan"), Query: c.Request.URL.Query()}, Plan: w.Plan, Work: w})
	p.nights(s.now())
	v := EveningFile{Name: w.Plan.Display().Name, On: p.Nights.On, Lists: p.Nights.Lists, Props: p.Nights.Props,
		Night: p.Nights.Night, Plan: p.PlanID, Key: "zapbarn-" + p.PlanID + "-" + p.Nights.On}
	css, err1 := files.ReadFile("static/evening/evening.css")
	js, err2 := files.ReadFile("static/evening/evening.js")
	if err := errors.Join(err1, err2); err != nil {
		s.fail(c, err)
		return
	}
	v.Style, v.Script = template.CSS(css), template.JS(js) // our own files
	var b strings.Builder
	if err := s.pages.ExecuteTemplate(&b, "evening.html", v); err != nil {
		s.fail(c, err)
		return
	}
	c.Header("Content-Disposition", fmt.Sprintf(`attachment; filename="night-%s.html"`, v.On))
	c.Header("Content-Type", "text/html; charset=utf-8")
	_, _ = io.WriteString(c.Writer, b.String())
}

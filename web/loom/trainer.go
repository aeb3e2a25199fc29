package loom

import (
	"fmt"
	"html/template"
	"net/http"
	"net/url"
	"slices"
	"strconv"
	"strings"

	"zapbarn/web/shell"

	"zapbarn/core/check"
	"zapbarn/core/measure"
	"zapbarn/core/wiring"
	"zapbarn/store"
	"zapbarn/web/draw"

	"github.com/gin-gonic/gin"
)

// Trainer is the drill panel.
type Trainer struct {
	Supply  string
	Level   int
	Seed    uint64
	Taken   string // devices measured, as the address keeps them
	Seen    []SeenRow
	Choices []shell.Option
	Levels  []shell.Link
	Fresh   string
	Dark    int
	Answer  *store.Drill
	Record  []store.Drill
	Error   string
}

// drill reads a drill's address: level, seed, and what was measured so far.
func (p *view) drill(q url.Values) (*wiring.Drill, *Trainer, []string) {
	t := &Trainer{Level: 1, Seed: 1, Taken: q.Get("m")}
	if n, err := strconv.Atoi(q.Get("level")); err == nil && n >= 1 && n <= 3 {
		t.Level = n
	}
	if n, err := strconv.ParseUint(q.Get("seed"), 10, 32); err == nil {
		t.Seed = n
	}
	for _, d := range p.Plan.Devices() {
		if d.Prop == p.Prop && d.Is(wiring.Origin) && t.Supply == "" {
			t.Supply = d.ID
		}
	}
	dr, err := wiring.NewDrill(p.Plan.Wiring(p.Work.Lib), t.Supply, t.Level, t.Seed)
	if err != nil {
		_, t.Error = shell.FieldErrors(err)
		return nil, t, nil
	}
	var taken []string
	for _, id := range strings.Split(t.Taken, ",") {
		if _, ok := dr.Measure(id); ok && len(taken) < 60 {
			taken = append(taken, id)
		}
	}
	return dr, t, taken
}

func (s Room) trainWay() shell.Way {
	return shell.Way{ID: "train", Title: "Train", Fill: shell.Showing(newView, s.train)}
}

// train shows a hidden fault: what is lit, what was measured, and the record.
func (s Room) train(c *gin.Context, p *view, _ []check.Snag) error {
	q := p.Query
	dr, t, taken := p.drill(q)
	p.Train, p.Fleeting = t, true
	record, err := s.Store.Drills(c.Request.Context(), p.PlanID, 12)
	if err != nil {
		return err
	}
	t.Record = record
	to := func(level int, seed uint64, m string) string {
		v := url.Values{"way": {"train"}, "prop": {p.Prop}, "level": {fmt.Sprint(level)}, "seed": {fmt.Sprint(seed)}}
		if m != "" {
			v.Set("m", m)
		}
		return "/p/" + p.PlanID + "/loom?" + v.Encode()
	}
	for l := 1; l <= 3; l++ {
		t.Levels = append(t.Levels, shell.Link{Text: fmt.Sprintf("level %d", l), Href: to(l, t.Seed, ""), On: l == t.Level})
	}
	t.Fresh = to(t.Level, t.Seed+1, "")
	if dr == nil {
		return nil
	}
	done := q.Get("answered") != "" && len(record) > 0
	if done {
		t.Answer = &record[0]
	}
	// the board shows what the eye sees: lit or dark, no volts
	seen := &wiring.State{Readings: map[string]wiring.Operating{}, Solution: p.Work.All().Solution, Hidden: true}
	for _, d := range p.Plan.Devices() {
		g := wiring.Operating{State: "ok", Volts: 12}
		if lit, ok := dr.Lit(d.ID); ok {
			g.State = "lit"
			if !lit {
				g.State = "dark"
				t.Dark++
			}
		}
		seen.Readings[d.ID] = g
	}
	for _, id := range taken {
		v, _ := dr.Measure(id)
		t.Seen = append(t.Seen, SeenRow{Name: p.Plan.Device(id).Name, What: measure.Volts(v)})
	}
	groups, says := dr.Choices()
	for i := range groups {
		t.Choices = append(t.Choices, shell.Option{Value: groups[i], Text: says[i], On: false})
	}
	p.Draw = template.HTML(draw.Harness(p.Work, seen, p.Prop, "", func(key string) string {
		_, id, _ := strings.Cut(key, ":")
		return to(t.Level, t.Seed, strings.Join(append(append([]string(nil), taken...), id), ","))
	}))
	return nil
}

// Answer judges a learner's answer and keeps it in the record.
func (s Room) Answer(c *gin.Context) {
	var in struct {
		Back  string `form:"back"`
		Guess string `form:"guess"`
	}
	w, open := s.OpenWith(c, &in)
	if !open {
		return
	}
	u, err := url.Parse(shell.Local(in.Back))
	if err != nil {
		u = &url.URL{Path: "/p/" + c.Param("plan")}
	}
	q := u.Query()
	p := newView(&shell.Page{Asked: shell.Asked{PlanID: c.Param("plan"), Prop: q.Get("prop")}, Plan: w.Plan, Work: w})
	if p.Prop == "" {
		p.Prop = shell.DefaultProp(w, "loom")
	}
	dr, t, taken := p.drill(q)
	who := shell.SayWho(c, "who")
	switch {
	case dr == nil:
		s.Refused(c, shell.Over{Err: t.Error})
		return
	case who == "" || len(who) > 40:
		s.Refused(c, shell.Over{Err: "name: is empty; write whose record this is"})
		return
	}
	truth, say := dr.Truth()
	groups, says := dr.Choices()
	k := slices.Index(groups, in.Guess)
	if k < 0 {
		s.Refused(c, shell.Over{Err: "fault: choose what is wrong from the list"})
		return
	}
	best := dr.Best()
	d := store.Drill{
		PlanID:   p.PlanID,
		Who:      who,
		Level:    t.Level,
		Truth:    say,
		Answer:   says[k],
		Readings: len(taken),
		Best:     best,
		Score:    wiring.Score(in.Guess == truth, len(taken), best),
	}
	if err := s.Store.AddDrill(c.Request.Context(), d); err != nil {
		s.Fail(c, err)
		return
	}
	q.Set("answered", "1")
	u.RawQuery = q.Encode()
	c.Redirect(http.StatusSeeOther, u.RequestURI())
}

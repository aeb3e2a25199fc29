package web

import (
	"fmt"
	"html/template"
	"net/http"
	"net/url"
	"strconv"
	"strings"

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
	Choices []Option
	Levels  []Link
	Fresh   string
	Dark    int
	Answer  *store.Drill
	Record  []store.Drill
	Error   string
}

// drill reads a drill's address: level, seed, and what was measured so far.
func (p *loomView) drill(q url.Values) (*wiring.Drill, *Trainer, []string) {
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
		_, t.Error = fieldErrors(err)
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

func (s *Server) loomTrainWay() way {
	return way{id: "train", title: "Train", fill: showing(newLoom, s.train)}
}

// train shows a hidden fault: what is lit, what was measured, and the record.
func (s *Server) train(c *gin.Context, p *loomView, _ []check.Snag) error {
	q := p.Query
	dr, t, taken := p.drill(q)
	p.Train, p.Fleeting = t, true
	record, err := s.store.Drills(c.Request.Context(), p.PlanID, 12)
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
		t.Levels = append(t.Levels, Link{Text: fmt.Sprintf("level %d", l), Href: to(l, t.Seed, ""), On: l == t.Level})
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
		t.Choices = append(t.Choices, Option{groups[i], says[i], false})
	}
	p.Draw = template.HTML(draw.Harness(p.Work, seen, p.Prop, "", func(key string) string {
		_, id, _ := strings.Cut(key, ":")
		return to(t.Level, t.Seed, strings.Join(append(append([]string(nil), taken...), id), ","))
	}))
	return nil
}

// answer judges a learner's answer and keeps it in the record.
func (s *Server) answer(c *gin.Context) {
	w, _, err := s.work(c.Request.Context(), c.Param("plan"))
	if err != nil {
		s.fail(c, err)
		return
	}
	u, err := url.Parse(local(c.PostForm("back")))
	if err != nil {
		u = &url.URL{Path: "/p/" + c.Param("plan")}
	}
	q := u.Query()
	p := newLoom(&Page{Asked: Asked{PlanID: c.Param("plan"), Prop: q.Get("prop")}, Plan: w.Plan, Work: w})
	if p.Prop == "" {
		p.Prop = defaultProp(w, "loom")
	}
	dr, t, taken := p.drill(q)
	who := sayWho(c, "who")
	switch {
	case dr == nil:
		s.refused(c, over{err: t.Error})
		return
	case who == "" || len(who) > 40:
		s.refused(c, over{err: "name: is empty; write whose record this is"})
		return
	}
	truth, say := dr.Truth()
	guess := c.PostForm("guess")
	said := ""
	groups, says := dr.Choices()
	for i := range groups {
		if groups[i] == guess {
			said = says[i]
		}
	}
	if said == "" {
		s.refused(c, over{err: "fault: choose what is wrong from the list"})
		return
	}
	best := dr.Best()
	d := store.Drill{
		PlanID:   p.PlanID,
		Who:      who,
		Level:    t.Level,
		Truth:    say,
		Answer:   said,
		Readings: len(taken),
		Best:     best,
		Score:    wiring.Score(guess == truth, len(taken), best),
	}
	if err := s.store.AddDrill(c.Request.Context(), d); err != nil {
		s.fail(c, err)
		return
	}
	q.Set("answered", "1")
	u.RawQuery = q.Encode()
	c.Redirect(http.StatusSeeOther, u.RequestURI())
}

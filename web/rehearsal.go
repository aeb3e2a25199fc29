package web

import (
	"encoding/json"
	"fmt"
	"html/template"
	"net/url"
	"slices"
	"sort"
	"strconv"
	"strings"

	"zapbarn/core/check"
	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/show"
	"zapbarn/core/work"
	"zapbarn/web/draw"

	"github.com/gin-gonic/gin"
)

// rehearsalPlace is what happens when something is pressed.
var rehearsalPlace = place{
	id: "rehearsal", name: "Rehearsal", hint: "mat runs glow", ofProp: true,
	ways: []way{{id: "stage", title: "Stage", fill: func(_ *Server, _ *gin.Context, p *Page, _ []check.Snag) error {
		p.rehearsal()
		return nil
	}}},
	link: func(p *Page, _ way) string { return p.href("rehearsal", p.Prop, p.Sel, "") },
}

// Player is the rehearsal's controls.
type Player struct {
	At       int
	Seconds  string
	Until    int
	Inputs   []PlayInput
	Prev     string
	Next     string
	Start    string
	Clear    string
	Frames   string // JSON for the player
	Events   []show.Event
	Rules    []Link
	Lit      int
	Scene    string        // the picked scene
	Cues     template.HTML // its cues, to be dragged
	Supplies []Result
}

// PlayInput is an input's two presses.
type PlayInput struct{ Name, Press, Hold, Href string }

// presses reads mat@1000:200,button@2500:3000.
func presses(text string, p *plan.Plan) (out []show.Stimulus) {
	for _, one := range strings.Split(text, ",") {
		name, rest, ok := strings.Cut(one, "@")
		a, h, ok2 := strings.Cut(rest, ":")
		at, e1 := strconv.Atoi(a)
		held, e2 := strconv.Atoi(h)
		if !ok || !ok2 || e1 != nil || e2 != nil || at < 0 || held < 1 || at > 120_000 || held > 60_000 ||
			p.Input(name) == nil ||
			len(out) > 200 {
			continue
		}
		out = append(out, show.Press(name, at, held)...)
	}
	sort.SliceStable(out, func(i, j int) bool { return out[i].At < out[j].At })
	return out
}

// rehearse runs the presses and solves the wiring at each moment.
func rehearse(w *work.Work, text string) (stim []show.Stimulus, tr show.Trace, frames []work.Frame) {
	stim = presses(text, w.Plan)
	until := 8000
	longest := 0
	for _, s := range w.Machine.Scenes {
		longest = max(longest, s.Duration())
	}
	for _, s := range stim {
		until = max(until, s.At+min(longest, 60_000)+1000)
	}
	until = (until + 999) / 1000 * 1000
	if w.ShowErr == nil {
		tr = w.Machine.Run(stim, until)
	}
	tr.Until = until
	// a rig of its own: frames of one request must not disturb another's
	own := *w
	own.Rig = plan.NewRig(w.Plan, w.Lib)
	return stim, tr, own.Frames(tr)
}

// rehearsal plays what is pressed and draws the moment asked for.
func (p *Page) rehearsal() {
	w, q := p.Work, p.Query
	text := q.Get("press")
	stim, tr, frames := rehearse(w, text)
	at, err := strconv.Atoi(q.Get("t"))
	if err != nil || at < 0 {
		at = 0
	}
	at = min(at, tr.Until)
	shown := map[string]bool{p.Prop: true}
	for _, d := range w.Plan.Devices {
		if d.Kind == "lamp" {
			shown[d.Prop] = true
		}
	}
	p.Draw = template.HTML(draw.Rehearsal(w, stim, tr, frames, at, shown))
	link := func(press string, t int) string {
		u := url.Values{"t": {strconv.Itoa(t)}}
		if press != "" {
			u.Set("press", press)
		}
		if p.Prop != "" {
			u.Set("prop", p.Prop)
		}
		if p.Sel != "" {
			u.Set("sel", p.Sel)
		}
		return "/p/" + p.PlanID + "/rehearsal?" + u.Encode()
	}
	with := func(input string, held int) string {
		next := fmt.Sprintf("%s@%d:%d", input, at, held)
		if text != "" {
			next = text + "," + next
		}
		return link(next, at)
	}
	pl := &Player{
		At:      at,
		Seconds: measure.Decimal(float64(at)/1000, 2) + " s",
		Until:   tr.Until,
		Start:   link(text, 0),
		Clear:   link("", 0),
		Events:  tr.Events,
	}
	for _, in := range w.Plan.Inputs {
		pl.Inputs = append(
			pl.Inputs,
			PlayInput{in.Name, with(in.ID, 200), with(in.ID, 3000), p.href("rehearsal", p.Prop, "input:"+in.ID, "")},
		)
	}
	moments := []int{0, tr.Until}
	for _, e := range tr.Events {
		moments = append(moments, e.At)
	}
	slices.Sort(moments)
	pl.Prev, pl.Next = link(text, 0), link(text, tr.Until)
	for _, m := range slices.Backward(moments) {
		if m < at {
			pl.Prev = link(text, m)
			break
		}
	}
	for _, m := range moments {
		if m > at {
			pl.Next = link(text, m)
			break
		}
	}
	for _, t := range w.Plan.Triggers {
		verb := map[string]string{"one-shot": "runs", "retrigger": "restarts", "momentary": "holds",
			"toggle": "toggles"}[t.Latch]
		pl.Rules = append(
			pl.Rules,
			Link{
				Text: fmt.Sprintf("%s %s %s", w.Plan.Input(t.Input).Name, verb, w.Plan.Scene(t.Scene).Name),
				Href: p.href("rehearsal", p.Prop, "trigger:"+t.ID, ""),
				On:   p.Sel == "trigger:"+t.ID,
			},
		)
	}
	for _, sc := range w.Plan.Scenes {
		pl.Rules = append(
			pl.Rules,
			Link{
				Text: "scene " + sc.Name,
				Href: p.href("rehearsal", p.Prop, "scene:"+sc.ID, ""),
				On:   p.Sel == "scene:"+sc.ID,
			},
		)
	}
	b, err := json.Marshal(framesJSON(w, tr, frames))
	if err == nil {
		pl.Frames = string(b)
	}
	p.Player = pl
	kind, id, _ := strings.Cut(p.Sel, ":")
	if sc := w.Plan.Scene(p.scene(kind, id)); sc != nil {
		pl.Scene, pl.Cues = sc.ID, template.HTML(draw.Cues(w, sc))
	}
	if kind == "input" || kind == "scene" || kind == "trigger" || kind == "device" {
		p.Ticket = p.ticket(kind, id)
	}
	if p.Ticket == nil && len(w.Plan.Triggers) > 0 {
		p.Ticket = p.ticket("trigger", w.Plan.Triggers[0].ID)
	}
}

// scene is the scene that is picked, or that the picked or first trigger works.
func (p *Page) scene(kind, id string) string {
	if kind == "scene" {
		return id
	}
	for i := range p.Plan.Triggers {
		if t := &p.Plan.Triggers[i]; kind != "trigger" || t.ID == id {
			return t.Scene
		}
	}
	if len(p.Plan.Scenes) > 0 {
		return p.Plan.Scenes[0].ID
	}
	return ""
}

type frameJSON struct {
	At    int               `json:"at"`
	Lamps map[string]int    `json:"lamps"`
	Amps  map[string]string `json:"amps"`
}

func framesJSON(w *work.Work, tr show.Trace, frames []work.Frame) any {
	var out []frameJSON
	for _, f := range frames {
		j := frameJSON{At: f.At, Lamps: map[string]int{}, Amps: map[string]string{}}
		for _, d := range w.Plan.Devices {
			switch d.Kind {
			case "lamp":
				j.Lamps[d.ID] = draw.GlowLevel(f.State.Readings[d.ID])
			case "supply":
				j.Amps[d.ID] = measure.Amps(f.State.Readings[d.ID].Amps)
			}
		}
		out = append(out, j)
	}
	return map[string]any{"until": tr.Until, "frames": out, "events": tr.Events}
}

// trace answers a rehearsal as JSON: events, and lamps and amps at each moment.
func (s *Server) trace(c *gin.Context) {
	w, _, err := s.work(c.Request.Context(), c.Param("plan"))
	if err != nil {
		s.fail(c, err)
		return
	}
	_, tr, frames := rehearse(w, c.Query("press"))
	c.JSON(200, framesJSON(w, tr, frames))
}

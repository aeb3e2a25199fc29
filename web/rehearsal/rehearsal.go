package rehearsal

import (
	"encoding/json"
	"fmt"
	"html/template"
	"net/url"
	"sort"
	"strconv"
	"strings"

	"zapbarn/web/shell"

	"zapbarn/core/check"
	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/show"
	"zapbarn/core/wiring"
	"zapbarn/core/work"
	"zapbarn/web/draw"

	"github.com/gin-gonic/gin"
)

// Place is what happens when something is pressed.
func (s Room) Place() shell.Place {
	return shell.Place{
		ID: "rehearsal", Name: "Rehearsal", Hint: "when mat, if ready: glow 5 s", OfProp: true, Idle: true,
		Dark: true,
		Ways: []shell.Way{
			{ID: "stage", Title: "Stage", Fill: shell.Showing(newView, func(_ *gin.Context, p *view, _ []check.Snag) error {
				p.rehearsal()
				return nil
			})},
			s.motionWay(), s.searchWay(), s.nightWay(), s.handWay(),
		},
		Link: func(p *shell.Page, w shell.Way) string {
			to := w.ID
			if to == "stage" {
				to = ""
			}
			return p.Href("rehearsal", p.Prop, p.Sel, to)
		},
	}
}

// Player is the rehearsal's controls.
type Player struct {
	At       int
	Seconds  string
	Until    int
	Inputs   []PlayInput
	Power    string
	Prev     string
	Next     string
	Start    string
	Clear    string
	Frames   string // JSON for the player
	Events   []show.Event
	Rules    []shell.Link
	Lit      int
	Scene    string        // the picked scene
	Cues     template.HTML // its cues, to be dragged
	Text     Notation
	Supplies []shell.Result
	Rails    []shell.Option // switches that scenes drive, for a sound
	Clips    []shell.Link
	Shows    []PixelView
}

// PlayInput is an input's two presses.
type PlayInput struct{ Name, Press, Hold, Href string }

// presses reads mat@1000:200,button@2500:3000, a contact that opens for so long,
// top!1390:2, and a power cut, power!2000:1000.
func presses(text string, p *plan.Plan) (out []show.Stimulus) {
	for _, one := range strings.Split(text, ",") {
		mark := strings.IndexAny(one, "@!")
		if mark < 0 {
			continue
		}
		name, opens := one[:mark], one[mark] == '!'
		a, h, ok := strings.Cut(one[mark+1:], ":")
		at, e1 := strconv.Atoi(a)
		held, e2 := strconv.Atoi(h)
		if !ok || e1 != nil || e2 != nil || at < 0 || held < 1 || at > 600_000 || held > 120_000 ||
			p.Input(name) == nil && name != show.Mains || len(out) > 200 {
			continue
		}
		if opens || name == show.Mains {
			out = append(
				out,
				show.Stimulus{At: at, Input: name},
				show.Stimulus{At: at + held, Input: name, Down: true},
			)
		} else {
			out = append(out, show.Press(name, at, held)...)
		}
	}
	sort.SliceStable(out, func(i, j int) bool { return out[i].At < out[j].At })
	return out
}

// rehearse runs the presses and solves the wiring at each moment.
func rehearse(w *work.Work, text string) draw.Playing {
	stim := presses(text, w.Plan)
	until := 8000
	longest := 0
	for _, s := range w.Machine().Scenes {
		longest = max(longest, s.Duration())
	}
	for _, s := range stim {
		until = max(until, s.At+min(longest, 60_000)+1000)
	}
	until = (until + 999) / 1000 * 1000
	p := draw.Playing{Broken: -1}
	if w.ShowErr() == nil {
		p.Trace, p.Contacts = w.Machine().Contacts(stim, until)
	}
	p.Trace.Until = until
	p.Frames = w.Frames(p.Trace)
	return p
}

// onStage are the props that are shown: those with something to see, and the open one.
func (p *view) onStage() map[string]bool {
	shown := map[string]bool{p.Prop: true}
	for _, d := range p.Work.Plan.Devices() {
		if d.Is(wiring.Load) {
			shown[d.Prop] = true
		}
	}
	return shown
}

// rehearsal plays what is pressed and draws the moment asked for.
func (p *view) rehearsal() {
	w, q := p.Work, p.Query
	text := q.Get("press")
	play := rehearse(w, text)
	at, err := strconv.Atoi(q.Get("t"))
	if err != nil || at < 0 {
		at = 0
	}
	play.At, play.Prop, play.Props = min(at, play.Trace.Until), p.Prop, p.onStage()
	p.Draw = template.HTML(draw.Rehearsal(w, play))
	p.player(play, text)
	kind, id, _ := strings.Cut(p.Sel, ":")
	if sc := w.Plan.Scene(p.scene(kind, id)); sc != nil {
		p.Player.Scene, p.Player.Cues = sc.ID, template.HTML(draw.Cues(w, sc))
	}
	switch kind {
	case "input", "scene", "trigger", "device", "promise", "mechanism", "clip":
		p.Ticket = p.TicketOf(kind, id)
	}
	if p.Ticket == nil {
		for i := range w.Plan.Triggers() {
			if t := &w.Plan.Triggers()[i]; p.Prop == "" || w.Plan.Input(t.Input).Prop == p.Prop {
				p.Ticket = p.TicketOf("trigger", t.ID)
				break
			}
		}
	}
}

// played is where the Stage stands with some presses at a time.
func (p *view) played(press string, t int) string {
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

// player fills in the controls.
func (p *view) player(play draw.Playing, text string) {
	w, at := p.Work, play.At
	with := func(mark string) string {
		if text != "" {
			mark = text + "," + mark
		}
		return p.played(mark, at)
	}
	pl := &Player{
		At:      at,
		Seconds: measure.Decimal(float64(at)/1000, 2) + " s",
		Until:   play.Trace.Until,
		Start:   p.played(text, 0),
		Clear:   p.played("", 0),
		Events:  play.Trace.Events,
		Power:   with(fmt.Sprintf("power!%d:1000", at)),
		Text:    p.notation(),
	}
	for i := range w.Plan.Inputs() {
		in := &w.Plan.Inputs()[i]
		if !in.Wired() || p.Prop != "" && in.Prop != p.Prop {
			continue
		}
		pl.Inputs = append(pl.Inputs, PlayInput{in.Name, with(fmt.Sprintf("%s@%d:200", in.ID, at)),
			with(fmt.Sprintf("%s@%d:3000", in.ID, at)), p.Href("rehearsal", p.Prop, "input:"+in.ID, "")})
	}
	prev, next := around(play)
	pl.Prev, pl.Next = p.played(text, prev), p.played(text, next)
	pl.Rules = p.ruled()
	for i := range w.Plan.Devices() {
		if d := &w.Plan.Devices()[i]; d.Driven && d.Prop == p.Prop {
			sounds := strings.Contains(strings.ToLower(d.Name), "play")
			pl.Rails = append(pl.Rails, shell.Option{Value: d.ID, Text: d.Name, On: sounds})
		}
	}
	pl.Shows = p.shows()
	for _, x := range w.Plan.Clips() {
		if x.Prop == p.Prop {
			pl.Clips = append(
				pl.Clips,
				shell.Link{Text: "sound " + x.Name, Href: p.Href("rehearsal", p.Prop, "clip:"+x.ID, ""),
					On: p.Sel == "clip:"+x.ID},
			)
		}
	}
	b, err := json.Marshal(framesJSON(w, play))
	if err == nil {
		pl.Frames = string(b)
	}
	p.Player = pl
}

// ruled are the triggers, scenes and promises, to be picked.
func (p *view) ruled() (out []shell.Link) {
	w := p.Work
	add := func(text, key string) {
		out = append(out, shell.Link{Text: text, Href: p.Href("rehearsal", p.Prop, key, ""), On: p.Sel == key})
	}
	verb := map[string]string{"one-shot": "runs", "retrigger": "restarts", "momentary": "holds", "toggle": "toggles",
		"set": "sets", "reset": "stops"}
	for _, t := range w.Plan.Triggers() {
		in := w.Plan.Input(t.Input)
		if p.Prop == "" || in.Prop == p.Prop {
			add(fmt.Sprintf("%s %s %s", in.Name, verb[t.Latch], w.Plan.Scene(t.Scene).Name), "trigger:"+t.ID)
		}
	}
	for _, sc := range w.Plan.Scenes() {
		if p.Prop == "" || sc.Prop == p.Prop {
			add("scene "+sc.Name, "scene:"+sc.ID)
		}
	}
	for _, x := range w.Plan.Promises() {
		if p.Prop == "" || x.Prop == p.Prop {
			add("always "+x.Says, "promise:"+x.ID)
		}
	}
	return out
}

// scene is the scene that is picked, or that the picked or first trigger works.
func (p *view) scene(kind, id string) string {
	if kind == "scene" {
		return id
	}
	for _, mine := range []bool{true, false} { // one of the open prop's, if it has any
		for i := range p.Plan.Triggers() {
			t := &p.Plan.Triggers()[i]
			in := p.Plan.Input(t.Input)
			if (kind != "trigger" || t.ID == id) && (!mine || p.Prop == "" || in != nil && in.Prop == p.Prop) {
				return t.Scene
			}
		}
	}
	if len(p.Plan.Scenes()) > 0 {
		return p.Plan.Scenes()[0].ID
	}
	return ""
}

type frameJSON struct {
	At    int               `json:"at"`
	Lamps map[string]int    `json:"lamps"`
	Amps  map[string]string `json:"amps"`
	Fog   []string          `json:"fog"`
	DB    string            `json:"db"`
	Loud  float64           `json:"loud"` // share of the meter
}

type moverJSON struct {
	ID      string   `json:"id"`
	Poses   []string `json:"poses"`
	Up      int      `json:"up"`
	Down    int      `json:"down"`
	Circles bool     `json:"circles"`
}

// framesJSON is what the player needs to play by itself.
func framesJSON(w *work.Work, play draw.Playing) any {
	var out []frameJSON
	for _, f := range play.Frames {
		j := frameJSON{At: f.At, Lamps: map[string]int{}, Amps: map[string]string{}, Fog: []string{}}
		for _, d := range w.Plan.Devices() {
			switch {
			case d.Is(wiring.Load):
				level := draw.GlowLevel(f.State.Readings[d.ID])
				j.Lamps[d.ID] = level
				if level > 0 && w.Lib.Lamps[d.Product].Makes == "fog" {
					j.Fog = append(j.Fog, d.ID)
				}
			case d.Is(wiring.Origin):
				j.Amps[d.ID] = draw.Supplied(f.State.Readings[d.ID])
			}
		}
		db := w.Decibels(f.State)
		j.DB, j.Loud = draw.LoudText(db), max(0, min(1, (db-40)/60))
		out = append(out, j)
	}
	scale := draw.StageScale(w, play.Props)
	movers := []moverJSON{}
	for _, v := range w.Machine().Movers {
		if m := w.Moved(v.ID); m != nil && len(play.Props) > 0 {
			movers = append(movers, moverJSON{v.ID, draw.Poses(m, scale), v.UpTime, max(v.DownTime, 1), v.Circles})
		}
	}
	moves := play.Trace.Moves
	if moves == nil {
		moves = []show.Move{}
	}
	return map[string]any{"until": play.Trace.Until, "frames": out, "events": play.Trace.Events, "movers": movers,
		"moves": moves}
}

// Trace answers a rehearsal as JSON: events, and lamps and amps at each moment.
func (s Room) Trace(c *gin.Context) {
	w, open := s.Open(c)
	if !open {
		return
	}
	c.JSON(200, framesJSON(w, rehearse(w, c.Query("press"))))
}

// around are the moments before and after the one that is shown at which anything happens.
func around(play draw.Playing) (prev, next int) {
	next = play.Trace.Until
	for _, e := range play.Trace.Events {
		if e.At < play.At {
			prev = max(prev, e.At)
		} else if e.At > play.At {
			next = min(next, e.At)
		}
	}
	return prev, next
}

// view is what the Rehearsal shows.
type view struct {
	*shell.Page
	Draw   template.HTML
	Player *Player
	Motion *MotionView
	Search *SearchView
	Night  *NightView
	Hand   *HandView
}

func newView(p *shell.Page) *view { return &view{Page: p} }

package web

import (
	"context"
	"encoding/json"
	"fmt"
	"html/template"
	"net/http"
	"net/url"
	"slices"
	"sort"
	"strconv"
	"strings"
	"time"

	"github.com/gin-gonic/gin"
	"zapbarn/core/check"
	"zapbarn/core/form"
	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/show"
	"zapbarn/formats"
	"zapbarn/store"
	"zapbarn/web/draw"
)

// Row is a line of a list.
type Row struct {
	Key, Href, Mark, Title, Sub, Right string
	On                                 bool
}

// Group is a list under a heading.
type Group struct {
	Title string
	Rows  []Row
}

// Take is what the plan takes from one stock.
type Take struct{ Name, Count, CountKey, Used, UsedKey, Cost, CostKey string }

// LogLine is one edit of the log.
type LogLine struct {
	When, What, State string
	ID                int64
	Here              bool // the plan stands just after it
}

// barnShown is how many rows of props come with the page; the rest comes when
// it is looked at.
const barnShown = 2

// Later is a drawing that comes when it is looked at; its things are links
// meanwhile.
type Later struct {
	Href  string
	Links []Link
}

func (p *Page) barnRow(rows draw.BarnRows, row int, snags []check.Snag) template.HTML {
	return template.HTML(
		rows.Barn(
			p.Work,
			row,
			p.Sel,
			func(key string) string { return p.href("barn", "", key, "") },
			func(prop string) [4]string { return aspects(p.Work, snags, prop) },
		),
	)
}

// row answers one row of the barn's props, as a drawing.
func (s *Server) row(c *gin.Context) {
	w, snags, err := s.work(c.Request.Context(), c.Param("plan"))
	if err != nil {
		s.fail(c, err)
		return
	}
	rows := draw.RowsOf(w)
	n, err := strconv.Atoi(c.Query("n"))
	if err != nil || n < 0 || n >= len(rows.Rows) {
		s.trouble(c, http.StatusNotFound, "There is no such row", "The props stand otherwise now. Load the page again.")
		return
	}
	p := &Page{PlanID: c.Param("plan"), Plan: w.Plan, Work: w}
	sendPage(c, http.StatusOK, pack([]byte(p.barnRow(rows, n, snags))))
}

// barn shows all props on ground lines, to one scale.
func (s *Server) barn(p *Page, snags []check.Snag) {
	w := p.Work
	for _, v := range waysOf["barn"] {
		p.Ways = append(
			p.Ways,
			Link{
				Text: v[1],
				Href: p.href("barn", p.Prop, "", v[0]),
				On:   p.Way == v[0] || p.Way == "" && v[0] == "show",
			},
		)
	}
	if p.Way == "shop" {
		s.shopWay(p)
		return
	}
	if p.Sel == "" && p.Prop != "" {
		p.Sel = "prop:" + p.Prop
	}
	rows := draw.RowsOf(w)
	for i := range max(1, len(rows.Rows)) {
		if i < barnShown {
			p.Drawn = append(p.Drawn, p.barnRow(rows, i, snags))
			continue
		}
		l := Later{Href: fmt.Sprintf("/p/%s/row?n=%d", p.PlanID, i)}
		for _, x := range rows.Props(i) {
			l.Links = append(l.Links, Link{Text: x.Name, Href: p.href("barn", "", "prop:"+x.ID, "")})
		}
		p.Later = append(p.Later, l)
	}
	kind, id, _ := strings.Cut(p.Sel, ":")
	if p.Ticket = p.ticket(kind, id); p.Ticket == nil {
		p.Ticket = p.ticket("display", w.Plan.Display.ID)
	} else if kind == "prop" {
		p.Ticket.Touches = []Link{{Text: "to its bench", Href: p.href("bench", id, "", "")},
			{Text: "to its loom", Href: p.href("loom", id, "", "")}}
	}
	for _, sh := range w.Sheets {
		k := "stock:" + sh.Stock.ID
		p.Takes = append(
			p.Takes,
			Take{
				sh.Stock.Name,
				plural(w.Results[k+":sheets"].Value, "sheet"),
				k + ":sheets",
				w.Results[k+":yield"].Text + " used",
				k + ":yield",
				w.Results[k+":cost"].Text,
				k + ":cost",
			},
		)
	}
	for _, b := range w.Bars {
		k := "stock:" + b.Stock.ID
		p.Takes = append(
			p.Takes,
			Take{
				Name:     b.Stock.Name,
				Count:    plural(w.Results[k+":bars"].Value, "length"),
				CountKey: k + ":bars",
				Used:     w.Results[k+":yield"].Text + " used",
				UsedKey:  k + ":yield",
			},
		)
	}
	for _, d := range w.Plan.Devices {
		if d.Kind == "supply" {
			g := w.All.Readings[d.ID]
			p.Rows = append(
				p.Rows,
				Row{
					Key:   "device:" + d.ID + ":load",
					Href:  p.href("loom", d.Prop, "device:"+d.ID, ""),
					Mark:  g.State,
					Title: d.Name + ", " + w.Plan.Prop(d.Prop).Name,
					Right: w.Results["device:"+d.ID+":load"].Text,
				},
			)
		}
	}
}

func plural(n float64, one string) string {
	if n == 1 {
		return "1 " + one
	}
	return fmt.Sprintf("%.0f %ss", n, one)
}

// aspects are the four squares of a prop: parts, joints, coats, wiring; each
// done, snag or none.
func aspects(w *plan.Work, snags []check.Snag, prop string) [4]string {
	have := [4]bool{}
	for _, s := range w.Plan.Solids {
		have[0] = have[0] || s.Prop == prop && w.Shapes[s.ID] != nil
	}
	for _, j := range w.Plan.Joints {
		have[1] = have[1] || j.Prop == prop
	}
	for _, f := range w.Plan.Finishes {
		have[2] = have[2] || w.Plan.Solid(f.Solid).Prop == prop
	}
	for _, d := range w.Plan.Devices {
		have[3] = have[3] || d.Prop == prop
	}
	of := [4]func(check.Snag) bool{
		func(s check.Snag) bool {
			return s.Place == "bench" && !strings.HasPrefix(s.Code, "glue-") && !strings.HasPrefix(s.Code, "coat-")
		},
		func(s check.Snag) bool { return strings.HasPrefix(s.Code, "glue-") },
		func(s check.Snag) bool { return strings.HasPrefix(s.Code, "coat-") },
		func(s check.Snag) bool { return s.Place == "loom" },
	}
	var out [4]string
	for i := range out {
		out[i] = "none"
		if have[i] {
			out[i] = "done"
			if l := worst(snags, func(s check.Snag) bool {
				return s.Prop == prop && s.Level >= check.Fix &&
					of[i](s)
			}); l != "" {
				out[i] = "snag"
			}
		}
	}
	return out
}

// bench shows one prop: whole, its parts, the sheets, joints and coats, print.
func (s *Server) bench(p *Page) {
	w := p.Work
	kind, id, _ := strings.Cut(p.Sel, ":")
	if p.Way == "" {
		p.Way = map[string]string{"part": "parts", "joint": "joints", "finish": "joints"}[kind]
		if p.Way == "" {
			p.Way = "whole"
		}
	}
	for _, v := range waysOf["bench"] {
		sel := p.Sel
		if kind == "joint" && v[0] != "joints" {
			sel = ""
		}
		p.Ways = append(p.Ways, Link{Text: v[1], Href: p.href("bench", p.Prop, sel, v[0]), On: p.Way == v[0]})
	}
	if p.Prop == "" {
		return
	}
	to := func(key string) string { return p.href("bench", p.Prop, key, p.Way) }
	var part *plan.Part
	if kind == "part" {
		part = w.Part(id)
	}
	if part == nil && p.Way == "parts" {
		for _, q := range w.Parts {
			if q.Solid.Prop == p.Prop && (kind != "solid" || q.Solid.ID == id) {
				part = q
				p.Sel = "part:" + q.Ref
				break
			}
		}
	}
	switch p.Way {
	case "parts":
		if part != nil {
			p.Draw = template.HTML(draw.Parts(w, part, to))
		} else {
			p.whole(to)
		}
	case "sheets":
		p.Draw = template.HTML(draw.Sheets(w, p.Prop, p.Sel, to))
		p.stocks()
	case "joints":
		s.joints(p)
	case "print":
		p.prints()
	case "picture":
		p.picture(id, kind)
		return
	default:
		p.whole(to)
	}
	switch {
	case kind == "offcut":
		p.Ticket = p.ticket(kind, id)
	case part != nil:
		p.Ticket = p.ticket("solid", part.Solid.ID)
		p.Ticket.Title = part.Name()
		p.Ticket.Sub = fmt.Sprintf(
			"%s › part %d of %d, cut %d",
			w.Plan.Prop(p.Prop).Name,
			part.No,
			part.Of,
			part.Panel.Copies,
		)
		key := "part:" + part.Ref
		p.Ticket.Results = append(p.pick(key+":size", key+":mass", key+":area"), p.Ticket.Results...)
		p.Ticket.Cautions = append(formats.SawLines(part.Panel, w.Plan.Metric()), p.Ticket.Cautions...)
	case kind == "solid" || kind == "joint" || kind == "finish" || kind == "lot":
		p.Ticket = p.ticket(kind, id)
	}
	if p.Ticket == nil {
		p.Ticket = p.ticket("prop", p.Prop)
	}
	if sol := w.Plan.Solid(id); (p.Way == "whole" || p.Way == "parts") && (kind == "solid" || kind == "part") {
		if part != nil {
			sol = part.Solid
		}
		if sol != nil && w.Shapes[sol.ID] != nil {
			p.OrderOf = sol.Name
			for _, step := range form.Steps(sol.Form, w.Shapes[sol.ID]) {
				step = measure.InUnits(step, w.Plan.Metric())
				p.Order = append(p.Order, measure.InUnits(step, w.Plan.Metric()))
			}
		}
	}
}

// Print is a part or sheet with the files it can be had as.
type Print struct {
	Title, Sub string
	Links      []Link
}

// prints lists what the print way offers.
func (p *Page) prints() {
	w := p.Work
	base := "/p/" + p.PlanID
	for _, part := range w.Parts {
		if part.Solid.Prop != p.Prop {
			continue
		}
		q := "?ref=" + url.QueryEscape(part.Ref)
		p.Prints = append(
			p.Prints,
			Print{
				fmt.Sprintf("%d %s", part.No, part.Name()),
				w.Results["part:"+part.Ref+":size"].Text + fmt.Sprintf(", cut %d", part.Panel.Copies),
				[]Link{
					{Text: "SVG", Href: base + "/part.svg" + q},
					{Text: "DXF", Href: base + "/part.dxf" + q},
					{Text: "tiled PDF, Letter", Href: base + "/part.pdf" + q},
					{Text: "A4", Href: base + "/part.pdf" + q + "&paper=A4"},
					{Text: "36 in roll", Href: base + "/part.pdf" + q + "&paper=roll36"},
				},
			},
		)
	}
	for _, sh := range w.Sheets {
		for n, one := range sh.Layout.Sheets {
			mine := false
			for _, q := range one.Placed {
				mine = mine || w.Part(sh.Pieces[q.Part].Ref).Solid.Prop == p.Prop
			}
			if mine {
				q := fmt.Sprintf("?stock=%s&n=%d", url.QueryEscape(sh.Stock.ID), n+1)
				p.Sheets = append(
					p.Sheets,
					Print{
						Title: sh.Stock.Name + ", " + w.Called(sh, n),
						Links: []Link{
							{Text: "SVG", Href: base + "/sheet.svg" + q},
							{Text: "DXF", Href: base + "/sheet.dxf" + q},
						},
					},
				)
			}
		}
	}
}

// whole draws the prop in two views.
func (p *Page) whole(to func(string) string) {
	iso, front := draw.Whole(p.Work, p.Prop, p.Sel, to)
	p.Draw, p.Side = template.HTML(iso), template.HTML(front)
}

func (s *Server) joints(p *Page) {
	w := p.Work
	for _, j := range w.Plan.Joints {
		if j.Prop != p.Prop {
			continue
		}
		a := w.Joints[j.ID]
		p.Rows = append(
			p.Rows,
			Row{
				Key:   "joint:" + j.ID,
				Href:  p.href("bench", p.Prop, "joint:"+j.ID, "joints"),
				Mark:  a.Verdict.String(),
				Title: sideName(w, j.A) + " to " + sideName(w, j.B),
				Sub:   w.Lib.Glues[j.Glue].Name + ": " + a.Reasons[0].Text,
				Right: "handle after " + measure.Span(a.Handling),
				On:    p.Sel == "joint:"+j.ID,
			},
		)
	}
	for _, f := range w.Plan.Finishes {
		sol := w.Plan.Solid(f.Solid)
		if sol.Prop != p.Prop {
			continue
		}
		g := w.Finishes[f.ID]
		var said []string
		for _, l := range f.Layers {
			said = append(said, fmt.Sprintf("%s x%d", w.Lib.Coats[l.Coat].Name, l.Coats))
		}
		sub := strings.Join(said, ", then ")
		if len(g.Reasons) > 0 {
			sub += ". " + measure.Capital(g.Reasons[0].Text)
		}
		p.Finishes = append(
			p.Finishes,
			Row{
				Key:   "solid:" + sol.ID,
				Href:  p.href("bench", p.Prop, "finish:"+f.ID, "joints"),
				Mark:  g.Verdict.String(),
				Title: sol.Name,
				Sub:   sub,
				Right: "waits " + measure.Span(g.Total),
				On:    p.Sel == "finish:"+f.ID,
			},
		)
	}
}

func sideName(w *plan.Work, ref string) string {
	if q := w.Part(ref); q != nil {
		return q.Name()
	}
	if m, ok := strings.CutPrefix(ref, "="); ok {
		return w.Lib.Materials[m].Name
	}
	if s := w.Plan.Solid(ref); s != nil {
		return s.Name
	}
	return ref
}

// loom shows a prop's wiring as a harness board or a list.
func (s *Server) loom(p *Page, q url.Values) {
	w := p.Work
	if p.Way == "" {
		p.Way = "harness"
	}
	for _, v := range waysOf["loom"] {
		p.Ways = append(p.Ways, Link{Text: v[1], Href: p.href("loom", p.Prop, p.Sel, v[0]), On: p.Way == v[0]})
	}
	if p.Prop == "" {
		return
	}
	if p.Way == "power" {
		p.Draw = template.HTML(
			draw.Power(w, p.Sel, func(key string) string { return p.href("loom", p.Prop, key, "power") }),
		)
		kind, id, _ := strings.Cut(p.Sel, ":")
		if p.Ticket = p.ticket(kind, id); p.Ticket == nil {
			p.Ticket = p.ticket("display", w.Plan.Display.ID)
		}
		return
	}
	st := w.All
	state := q.Get("state")
	if p.Way == "harness" || p.Way == "list" || p.Way == "prove" {
		for _, k := range w.Plan.Cases(w.Lib) {
			p.Cases = append(p.Cases, Option{k.Key, k.Name, k.Key == state || state == "" && k.Key == "all"})
		}
		if got := w.Plan.Case(w.Lib, state); got != nil && state != "all" {
			st = got
		}
	}
	_, id, _ := strings.Cut(p.Sel, ":")
	d := w.Plan.Device(id)
	switch p.Way {
	case "prove":
		p.cards(st)
		return
	case "fault":
		p.fault()
		return
	case "build":
		p.Harness = w.Harness(p.Prop)
		if d != nil {
			p.Ticket = p.ticket("device", d.ID)
		} else {
			p.Ticket = p.ticket("prop", p.Prop)
		}
		p.Side = template.HTML(draw.Routes(w, p.Prop))
		if f, err := formats.FlatBoard(w, p.Prop); err == nil {
			p.Draw = template.HTML(draw.Board(f))
		}
		return
	case "train":
		return
	}
	if p.Way == "list" {
		for _, k := range []string{"supply", "converter", "fuse", "switch", "run", "connector", "controller", "lamp"} {
			g := Group{
				Title: map[string]string{"supply": "Supplies", "converter": "Converters", "fuse": "Fuses", "switch": "Switches",
					"run": "Runs", "connector": "Connectors", "controller": "Controllers", "lamp": "Lamps, motors, servos"}[k],
			}
			for _, d := range w.Plan.Devices {
				if d.Prop == p.Prop && d.Kind == k {
					r := st.Readings[d.ID]
					sub := "fed by nothing"
					switch {
					case d.From != "":
						sub = "from " + d.From
					case d.Kind == "supply" && d.Cell != "":
						sub = fmt.Sprintf("%d x %s", max(1, d.Cells)*max(1, d.Sets), d.Cell)
					case d.Kind == "supply":
						v, a := plan.SupplyOf(&d, w.Lib)
						sub = measure.Volts(v) + " " + measure.Amps(a)
						if o := w.Plan.OutletNamed(d.Outlet); o != nil {
							sub += ", " + o.Name
						}
					}
					if !d.At.IsZero() {
						sub += " at " + d.At.String()
					}
					if d.Kind == "run" {
						sub += fmt.Sprintf(
							", %s, %s, both conductors %s",
							d.Gauge,
							d.Length,
							w.Results["device:"+d.ID+":ohms"].Text,
						)
					}
					g.Rows = append(
						g.Rows,
						Row{
							Key:   "device:" + d.ID,
							Href:  p.href("loom", p.Prop, "device:"+d.ID, "list"),
							Mark:  r.State,
							Title: d.Name,
							Sub:   sub,
							Right: measure.Volts(r.Volts) + "  " + measure.Amps(r.Amps),
							On:    p.Sel == "device:"+d.ID,
						},
					)
				}
			}
			if g.Rows != nil {
				p.Groups = append(p.Groups, g)
			}
		}
	} else {
		p.Draw = template.HTML(draw.Harness(w, st, p.Prop, p.Sel,
			func(key string) string { return p.href("loom", p.Prop, key, p.Way) }))
		run := ""
		if d != nil && d.Kind != "supply" && d.Prop == p.Prop {
			run = d.ID
		}
		if run == "" { // the lamp that loses most
			most := -1.0
			for _, x := range w.Plan.Devices {
				if g := st.Readings[x.ID]; x.Kind == "lamp" && x.Prop == p.Prop && !x.Reversed && g.Drop > most {
					run, most = x.ID, g.Drop
				}
			}
		}
		if p.Below = template.HTML(draw.Profile(w, st, run)); p.Below == "" && d != nil && d.From != "" {
			p.Below = template.HTML(draw.Profile(w, st, d.From))
		}
	}
	if d != nil {
		p.Ticket = p.ticket("device", d.ID)
	}
	if p.Ticket == nil {
		for _, x := range w.Plan.Devices {
			if x.Prop == p.Prop && x.Kind == "supply" {
				p.Ticket = p.ticket("device", x.ID)
				break
			}
		}
	}
	if p.Ticket == nil {
		p.Ticket = p.ticket("prop", p.Prop)
	}
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
func rehearse(w *plan.Work, text string) (stim []show.Stimulus, tr show.Trace, frames []plan.Frame) {
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

func (s *Server) rehearsal(p *Page, q url.Values) {
	w := p.Work
	p.Ways = []Link{{Text: "Stage", Href: p.href("rehearsal", p.Prop, p.Sel, ""), On: true}}
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
	if kind == "input" || kind == "scene" || kind == "trigger" || kind == "device" {
		p.Ticket = p.ticket(kind, id)
	}
	if p.Ticket == nil && len(w.Plan.Triggers) > 0 {
		p.Ticket = p.ticket("trigger", w.Plan.Triggers[0].ID)
	}
}

type frameJSON struct {
	At    int               `json:"at"`
	Lamps map[string]int    `json:"lamps"`
	Amps  map[string]string `json:"amps"`
}

func framesJSON(w *plan.Work, tr show.Trace, frames []plan.Frame) any {
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

// walkdown lists all snags, the waived too, and the log.
func (s *Server) walkdown(c *gin.Context, p *Page, snags []check.Snag) error {
	if p.Way == "" {
		p.Way = "snags"
	}
	for _, v := range waysOf["walkdown"] {
		p.Ways = append(p.Ways, Link{Text: v[1], Href: p.href("walkdown", "", "", v[0]), On: p.Way == v[0]})
	}
	p.Snags, p.More = nil, 0
	for _, sn := range snags {
		if (sn.Waived != nil) == (p.Way == "waived") {
			p.Snags = append(p.Snags, p.view(sn))
		}
	}
	p.Snags = folded(p.Snags)
	if len(p.Snags) > 0 {
		p.Snags[0].Main = p.Way == "snags"
	}
	log, err := s.store.Log(c.Request.Context(), p.PlanID, 60)
	if err != nil {
		return err
	}
	here := false
	for _, e := range log {
		l := LogLine{e.At.Local().Format("Jan 2, 15:04:05"), e.Label, e.State, e.ID, e.State == "done" && !here}
		here = here || l.Here
		p.Log = append(p.Log, l)
	}
	if p.Way == "find" {
		p.Find = p.Query.Get("find")
		p.Found = p.find(p.Find, snags)
	}
	return nil
}

// Shed is a display in the row of barns.
type Shed struct {
	Name, Href, Days, Worst string
}

func (s *Server) displays(c *gin.Context) { s.home(c, 200, nil, "") }

// freshTime is how long the list of displays waits for those not worked out
// since they changed; freshMost is how many it has worked out.
const freshTime, freshMost = 400 * time.Millisecond, 8

// freshen works out displays that were changed since they were worked out last,
// and takes what is done in time into the list. The rest goes on behind it.
func (s *Server) freshen(ctx context.Context, list []store.Listing) {
	ctx, cancel := context.WithTimeout(ctx, freshTime)
	defer cancel()
	type fresh struct {
		i   int
		rev int64
		got store.Summary
	}
	day, under := s.now().Format(time.DateOnly), 0
	done := make(chan fresh, len(list))
	for i, l := range list {
		if l.Seen.Rev == l.Rev && l.Seen.Day == day || under == freshMost {
			continue
		}
		under++
		go func() {
			if got, m, err := s.worked(context.Background(), l.ID); err == nil {
				done <- fresh{i, m.version.Rev, store.Summary{Rev: m.version.Rev, Day: m.day, Worst: got.worst()}}
			}
		}()
	}
	for ; under > 0; under-- {
		select {
		case f := <-done:
			list[f.i].Seen, list[f.i].Rev = f.got, f.rev
		case <-ctx.Done():
			return
		}
	}
}

// home is the row of displays with the three questions and the import.
func (s *Server) home(c *gin.Context, code int, entered map[string]string, problem string) {
	list, err := s.store.List(c.Request.Context())
	if err != nil {
		s.fail(c, err)
		return
	}
	s.freshen(c.Request.Context(), list)
	var sheds []Shed
	for _, l := range list {
		sh := Shed{Name: l.Name, Href: "/p/" + l.ID, Days: daysTo(l.Opens, s.now()), Worst: l.Seen.Worst}
		switch {
		case l.Seen.Worst == "":
			sh.Worst = "not looked at yet"
		case l.Seen.Rev != l.Rev || l.Seen.Day != s.now().Format(time.DateOnly):
			sh.Worst = "when last looked at, " + l.Seen.Worst
		}
		sheds = append(sheds, sh)
	}
	if entered == nil {
		entered = map[string]string{"units": "in", "opens": s.now().AddDate(0, 0, 42).Format(time.DateOnly)}
	}
	c.Status(code)
	c.Header("Content-Type", "text/html; charset=utf-8")
	_ = s.pages.ExecuteTemplate(
		c.Writer,
		"home.html",
		map[string]any{
			"Sheds":   sheds,
			"Theme":   themeOf(c),
			"Title":   "Displays",
			"V":       entered,
			"Problem": problem,
			"Back":    "/",
		},
	)
}

package rehearsal

import (
	"html/template"
	"strconv"
	"strings"
	"time"

	"zapbarn/web/shell"

	"zapbarn/core/check"
	"zapbarn/core/measure"
	"zapbarn/core/show"
	"zapbarn/core/work"
	"zapbarn/web/draw"

	"github.com/gin-gonic/gin"
)

// SearchView is what a search of the behaviour came to.
type SearchView struct {
	Depth   int
	Done    int
	Whole   bool
	Loops   bool
	States  string
	Moments string
	Deeper  string // leads to the next depth
	Err     string
	Kept    []Kept
	Broken  int
	Depths  []shell.Link
	Looking string // where it is told how far a deeper search is; none when there is none to do
	Wanted  int    // how deep that goes
	Wait    string // the page that waits for it
}

// Kept is a promise and whether it is kept.
type Kept struct {
	Text   string
	Own    bool
	Held   bool
	Events string
	Steps  string
	At     string
	Replay string
	Strip  template.HTML
	Href   string
}

func (s Room) searchWay() shell.Way {
	return shell.Way{
		ID: "search", Title: "Search",
		Fill: shell.Showing(newView, func(c *gin.Context, p *view, _ []check.Snag) error {
			p.searched()
			return nil
		}),
	}
}

// searchMost bounds the search of one part of the show: some two seconds' worth. What goes
// to atOnce events, or is all seen in a few moments, is looked for while the page waits, the
// rest in view.
const searchMost, searchFew, atOnce = 1_500_000, 20_000, 3

// searched looks for the bad surprise, to the depth that is asked for.
func (p *view) searched() {
	w := p.Work
	depth, err := strconv.Atoi(p.Query.Get("depth"))
	if err != nil {
		depth = 3
	}
	depth = max(1, min(work.Deepest, depth))
	at := func(n int) string {
		return p.Href("rehearsal", p.Prop, p.Sel, "search") + "&depth=" + strconv.Itoa(n)
	}
	wanted := depth
	if depth > atOnce && w.SurprisesSoon(depth, searchFew) == nil && p.Query.Get("wait") == "" {
		depth = atOnce
	}
	got := w.SurprisesTo(depth, searchMost, nil)
	v := &SearchView{Depth: depth, Done: got.Depth, Whole: got.Exhaustive, Loops: got.Loops,
		States: grouped(got.States), Moments: grouped(got.Moments), Broken: len(got.Broken)}
	p.Search = v
	if wanted > depth {
		p.Fleeting = true
		v.Wanted, v.Looking, v.Wait = wanted, "/deeper?depth="+strconv.Itoa(wanted), at(wanted)+"&wait=1"
	}
	for n := 1; n <= work.Deepest; n++ {
		v.Depths = append(v.Depths, shell.Link{Text: strconv.Itoa(n), Href: at(n), On: n == wanted})
	}
	if v.Whole && depth < work.Deepest && wanted == depth {
		v.Deeper = at(depth + 1)
	}
	if got.Err != nil {
		v.Err = measure.Capital(got.Err.Error())
	}
	all := append(append([]show.Promise(nil), got.Promises...), w.Machine().BuiltIn()...)
	for _, x := range all {
		if b := got.Of(x.ID); b != nil {
			v.Kept = append(v.Kept, p.broken(b))
		}
	}
	for i := range got.Broken {
		if b := &got.Broken[i]; strings.HasPrefix(b.Promise.ID, show.AfterPower) {
			v.Kept = append(v.Kept, p.broken(b))
		}
	}
	for _, x := range all {
		if got.Of(x.ID) == nil {
			v.Kept = append(v.Kept, Kept{Text: promised(w, x), Own: w.Plan.PromiseOf(x.ID) != nil, Held: true,
				Href: p.promiseHref(x)})
		}
	}
	kind, id, _ := strings.Cut(p.Sel, ":")
	p.Ticket = p.TicketOf(kind, id)
}

// Deeper looks for surprises of longer sequences and streams how far it is as server-sent
// events; what it found is kept with the plan, for the page. Closing the stream ends it.
func (s Room) Deeper(c *gin.Context) {
	w, open := s.Open(c)
	if !open {
		return
	}
	depth, _ := strconv.Atoi(c.Query("depth"))
	depth = max(1, min(work.Deepest, depth))
	ctx, end, ok := s.Streamed(c)
	if !ok {
		return
	}
	defer end()
	shown := time.Time{}
	got := w.SurprisesTo(depth, searchMost, func(p show.Progress) bool {
		if time.Since(shown) > shell.SearchShows {
			shown = time.Now()
			return ctx.Err() == nil && shell.Sent(c, deeperSaid(p, false))
		}
		return ctx.Err() == nil
	})
	if ctx.Err() == nil {
		shell.Sent(c, deeperSaid(show.Progress{Share: 1, States: got.States, Moments: got.Moments, Depth: got.Depth}, true))
	}
}

// deeperMessage is one message of it.
type deeperMessage struct {
	Share float64 `json:"share"`
	Said  string  `json:"said"`
	Done  bool    `json:"done"`
}

func deeperSaid(p show.Progress, done bool) deeperMessage {
	said := grouped(p.States) + " states, " + grouped(p.Moments) + " moments"
	if p.Parts > 1 && !done {
		said = strconv.Itoa(p.Done) + " of " + strconv.Itoa(p.Parts) + " parts of the show, " + said
	}
	return deeperMessage{Share: p.Share, Said: said, Done: done}
}

func (p *view) promiseHref(x show.Promise) string {
	if p.Plan.PromiseOf(x.ID) != nil {
		return p.Href("rehearsal", p.Prop, "promise:"+x.ID, "search")
	}
	return ""
}

// broken tells how a promise is broken, and draws it.
func (p *view) broken(b *show.Broken) Kept {
	w := p.Work
	x := b.Promise
	after := ""
	if strings.HasPrefix(x.ID, show.AfterPower) {
		after = ", once power was lost"
	}
	x.ID = strings.TrimPrefix(x.ID, show.AfterPower)
	press := work.Presses(b)
	k := Kept{Text: promised(w, x) + after, Own: w.Plan.PromiseOf(x.ID) != nil, Events: work.Events(b.Events),
		Steps: measure.Capital(w.Steps(b)), At: measure.Span(float64(b.At) / 1000), Replay: p.played(press, b.At),
		Href: p.promiseHref(x)}
	play := rehearse(w, press)
	play.At, play.Broken = b.At, b.At
	if m := w.Plan.Mechanism(x.A.ID); m != nil {
		play.Prop = m.Prop
	} else if own := w.Plan.PromiseOf(x.ID); own != nil {
		play.Prop = own.Prop
	} else if d := w.Device(x.A.ID); d != nil {
		play.Prop = d.Prop
	}
	play.Trace.Until = max(2000, (b.At+2999)/1000*1000)
	k.Strip = template.HTML(draw.Strip(w, play))
	return k
}

// promised is a promise in words.
func promised(w *work.Work, x show.Promise) string {
	if own := w.Plan.PromiseOf(x.ID); own != nil {
		return measure.Capital(own.Says)
	}
	a, b := w.Named(x.A), w.Named(x.B)
	switch x.Kind {
	case show.Longest:
		return a + " is never on for longer than " + measure.Span(float64(x.For)/1000)
	case show.Never:
		return a + " and " + measure.Uncapital(b) + " are never on together"
	case show.IntoStop:
		return a + ": its motor is not driven on at the end"
	case show.Alone:
		return a + ": nothing moves by itself when power comes back"
	case show.Silent:
		return a + " can always be started again"
	}
	return x.ID
}

// grouped writes a count with its thousands apart.
func grouped(n int) string {
	s := strconv.Itoa(n)
	for i := len(s) - 3; i > 0; i -= 3 {
		s = s[:i] + "," + s[i:]
	}
	return s
}

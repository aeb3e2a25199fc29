package rehearsal

import (
	"context"
	"fmt"
	"strings"
	"time"

	"zapbarn/web/shell"

	"zapbarn/core/measure"
	"zapbarn/core/show"
	"zapbarn/formats"
	"zapbarn/standin"

	"github.com/gin-gonic/gin"
)

// Echo is a run on the stand-in beside the simulator's.
type Echo struct {
	Sent, Came, Lost int
	Slowest          string
	Pressed          string // what was pressed, and when
	Same             bool
	Differs          string
	Rows             []EchoRow
}

// EchoRow is one channel's spans, simulated and echoed.
type EchoRow struct{ Name, Want, Got string }

// standing runs the first input of a controller, pressed twice, on the stand-in when that
// is asked for.
func (p *view) standing(c *gin.Context, ctl *formats.Controller) error {
	first := ""
	for _, in := range ctl.Machine.Inputs {
		if in.Kind == show.Contact && in.Mover == "" {
			first = in.ID
			break
		}
	}
	if first == "" {
		return nil
	}
	name := measure.Uncapital(p.Plan.Input(first).Name)
	at := p.Href("rehearsal", p.Prop, p.Sel, "hand") + "&run="
	p.Hand.Runs = []shell.Link{
		{Text: "Run " + name + " on it", Href: at + "well"},
		{Text: "with packets lost", Href: at + "lost"},
		{Text: "with " + name + " stuck", Href: at + "stuck"},
		{Text: "with a brown-out", Href: at + "brownout"},
	}
	how := p.Query.Get("run")
	f := standin.Faults{Seed: 1}
	switch how {
	case "":
		return nil
	case "lost":
		f.Lost, f.Seed = 40, 3
	case "stuck":
		f.Stuck = first
	case "brownout":
		f.BrownOut = 2500
	}
	stim := append(show.Press(first, 500, 300), show.Press(first, 9000, 300)...)
	const until = 20_000
	ctx, cancel := context.WithTimeout(c.Request.Context(), 12*time.Second)
	defer cancel()
	e, err := standin.Run(ctx, ctl.Machine, stim, until, f)
	if err != nil {
		return fmt.Errorf("the stand-in: %w", err)
	}
	tr := ctl.Machine.Run(stim, until)
	out := &Echo{
		Sent:    e.Sent,
		Came:    e.Came,
		Lost:    e.Sent - e.Came,
		Slowest: e.Slowest.Round(10 * time.Microsecond).String(),
		Same:    true,
		Pressed: measure.Capital(name) + " closes at 0.5 s and at 9 s, for 0.3 s each; 20 s are played",
	}
	for _, ch := range ctl.Machine.Channels {
		want, got := spansText(tr.Spans(ch.ID)), spansText(e.Spans(ch.ID, until))
		if want != got && out.Same {
			out.Same, out.Differs = false, p.Work.Named(show.Term{Kind: "channel", ID: ch.ID})
		}
		out.Rows = append(out.Rows, EchoRow{p.Work.Named(show.Term{Kind: "channel", ID: ch.ID}), want, got})
	}
	p.Hand.Echo = out
	return nil
}

func spansText(spans []show.Span) string {
	var out []string
	for _, s := range spans {
		out = append(
			out,
			fmt.Sprintf("%s to %s", measure.Span(float64(s.From)/1000), measure.Span(float64(s.To)/1000)),
		)
	}
	if len(out) == 0 {
		return "off"
	}
	return strings.Join(out, ", ")
}

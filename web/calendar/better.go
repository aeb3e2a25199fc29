package calendar

import (
	"encoding/json"
	"net/http"
	"strings"
	"time"

	"zapbarn/web/shell"

	"zapbarn/core/order"
	"zapbarn/core/plan"
	"zapbarn/core/work"

	"github.com/gin-gonic/gin"
)

// orderFor is how long a search for a better order goes on when nobody stops it; orderTries
// is how many orders it tries at most: what it finds hangs on these, not on the seconds.
const orderFor, orderTries = 5 * time.Second, 50_000

// FoundOrder is one message of a search for a better order.
type FoundOrder struct {
	Share  float64 `json:"share"` // of the search, 0 to 1
	Said   string  `json:"said"`
	Layout string  `json:"layout,omitempty"` // the order, to be kept
	Done   bool    `json:"done"`
}

// Better looks for a better order of work and streams how far it came as server-sent
// events. Closing the stream ends it; what was found is kept by sending it back.
func (s Room) Better(c *gin.Context) {
	w, open := s.Open(c)
	if !open {
		return
	}
	t := order.In(w)
	if t.Loop != nil || len(t.Row) == 0 {
		c.String(http.StatusConflict, "There is no order to look for: tasks wait for each other, or none is left.\n")
		return
	}
	ctx, end, ok := s.Streamed(c)
	if !ok {
		return
	}
	defer end()
	look, start, better := t.Better(), time.Now(), false
	for {
		done := look.Proven() || look.Tries() >= orderTries || time.Since(start) > orderFor
		m := FoundOrder{
			Share: max(
				float64(look.Tries())/orderTries,
				float64(time.Since(start))/float64(orderFor),
			), Said: look.Says(), Done: done,
		}
		if done {
			m.Share = 1
		}
		if better {
			m.Layout = look.Turns()
		}
		if !shell.Sent(c, m) || done {
			return
		}
		for shown := time.Now(); time.Since(shown) < shell.SearchShows && look.Tries() < orderTries && !look.Proven(); {
			if ctx.Err() != nil {
				return
			}
			better = look.Step(20) || better
		}
	}
}

// KeepTurns stores an order that a search found, or forgets the one that is kept.
func (s Room) KeepTurns(c *gin.Context) {
	var in struct {
		Do     string `form:"do"`
		Layout string `form:"layout"`
	}
	w, open := s.OpenWith(c, &in)
	if !open {
		return
	}
	d := w.Plan.Display()
	e := plan.Edit{Label: "forget the kept order of work"}
	if d.Turns = ""; in.Do == "keep" {
		var keys string
		if json.Unmarshal([]byte(in.Layout), &keys) != nil || keys == "" {
			s.Refused(c, shell.Over{Err: "That order cannot be read; look for one again."})
			return
		}
		d.Turns, e.Label = strings.Join(strings.Fields(keys), " "), "keep a better order of work"
	}
	e.Changes = []plan.Change{w.Plan.Put("display", d.ID, d)}
	if q, err := w.Plan.Apply(e); err == nil && d.Turns != "" {
		was, now := order.In(w), order.In(work.Do(q, s.Lib, s.Now()))
		if !now.NoWorse(was) {
			s.Refused(
				c,
				shell.Over{Err: "The plan changed while the search ran, so that order is no better now. Look again.",
					Code: http.StatusConflict},
			)
			return
		}
	}
	s.Apply(c, e, shell.Over{}, "")
}

package web

import (
	"encoding/json"
	"net/http"
	"strings"
	"time"

	"zapbarn/core/order"
	"zapbarn/core/plan"
	"zapbarn/core/work"

	"github.com/gin-gonic/gin"
)

// orderFor is how long a search for a better order goes on when nobody stops it; orderTries
// is how many orders it tries at most: what it finds hangs on these, not on the seconds.
const orderFor, orderTries = 5 * time.Second, 50_000

// foundOrder is one message of a search for a better order.
type foundOrder struct {
	Share  float64 `json:"share"` // of the search, 0 to 1
	Said   string  `json:"said"`
	Layout string  `json:"layout,omitempty"` // the order, to be kept
	Done   bool    `json:"done"`
}

// better looks for a better order of work and streams how far it came as server-sent
// events. Closing the stream ends it; what was found is kept by sending it back.
func (s *Server) better(c *gin.Context) {
	w, _, err := s.work(c.Request.Context(), c.Param("plan"))
	if err != nil {
		s.fail(c, err)
		return
	}
	t := order.In(w)
	if t.Loop != nil || len(t.Row) == 0 {
		c.String(http.StatusConflict, "There is no order to look for: tasks wait for each other, or none is left.\n")
		return
	}
	ctx, end, ok := s.streamed(c)
	if !ok {
		return
	}
	defer end()
	look, start, better := t.Better(), time.Now(), false
	for {
		done := look.Proven() || look.Tries() >= orderTries || time.Since(start) > orderFor
		m := foundOrder{
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
		if !sent(c, m) || done {
			return
		}
		for shown := time.Now(); time.Since(shown) < searchShows && look.Tries() < orderTries && !look.Proven(); {
			if ctx.Err() != nil {
				return
			}
			better = look.Step(20) || better
		}
	}
}

// keepTurns stores an order that a search found, or forgets the one that is kept.
func (s *Server) keepTurns(c *gin.Context) {
	w, _, err := s.work(c.Request.Context(), c.Param("plan"))
	if err != nil {
		s.fail(c, err)
		return
	}
	d := w.Plan.Display()
	e := plan.Edit{Label: "forget the kept order of work"}
	if d.Turns = ""; c.PostForm("do") == "keep" {
		var keys string
		if json.Unmarshal([]byte(c.PostForm("layout")), &keys) != nil || keys == "" {
			s.refused(c, over{err: "That order cannot be read; look for one again."})
			return
		}
		d.Turns, e.Label = strings.Join(strings.Fields(keys), " "), "keep a better order of work"
	}
	e.Changes = []plan.Change{w.Plan.Put("display", d.ID, d)}
	if q, err := w.Plan.Apply(e); err == nil && d.Turns != "" {
		was, now := order.In(w), order.In(work.Do(q, s.lib, s.now()))
		if !now.NoWorse(was) {
			s.refused(
				c,
				over{err: "The plan changed while the search ran, so that order is no better now. Look again.",
					code: http.StatusConflict},
			)
			return
		}
	}
	s.apply(c, e, over{}, "")
}

package web

import (
	"context"
	"errors"
	"net/http"
	"net/url"
	"strconv"
	"strings"
	"time"

	"zapbarn/core/check"
	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/shorthand"
	"zapbarn/core/source"
	"zapbarn/core/work"
	"zapbarn/store"

	"github.com/gin-gonic/gin"
)

// back answers a form that did what it was asked.
func (s *Server) back(c *gin.Context) { s.done(c, local(c.PostForm("back"))) }

// done answers an edit that was stored: it leads to a page that shows it.
func (s *Server) done(c *gin.Context, to string) {
	s.edited(c, c.Param("plan"))
	c.Redirect(http.StatusSeeOther, to)
}

// apply stores an edit and answers; a refusal keeps the page and what was entered.
func (s *Server) apply(c *gin.Context, e plan.Edit, o over, to string) {
	_, err := s.store.Edit(
		c.Request.Context(),
		c.Param("plan"),
		editor(c),
		func(*plan.Plan) (plan.Edit, error) { return e, nil },
	)
	s.applied(c, err, o, to)
}

// applied answers an edit that was stored, or refused with err.
func (s *Server) applied(c *gin.Context, err error, o over, to string) {
	_, fault := errors.AsType[*store.Fault](err)
	stale, isStale := errors.AsType[*plan.Stale](err)
	switch {
	case err == nil && to != "":
		s.done(c, to)
	case err == nil:
		s.back(c)
	case errors.Is(err, store.ErrDown), errors.Is(err, store.ErrFull), errors.Is(err,
		store.ErrNone), fault, c.Request.Context().Err() != nil:
		s.fail(c, err)
	case isStale:
		o.code = http.StatusConflict
		if o.conflict == nil {
			o.err = "Changed meanwhile in another window: " + stale.Error() + ". Look at it again, then repeat your step."
		}
		s.refused(c, o)
	default:
		o.errors, o.err = fieldErrors(err)
		s.refused(c, o)
	}
}

// quick does what the quick line says.
func (s *Server) quick(c *gin.Context) {
	line := c.PostForm("line")
	switch strings.ToLower(strings.TrimSpace(line)) {
	case "undo":
		s.undo(c)
		return
	case "redo":
		s.redo(c)
		return
	}
	if what, ok := strings.CutPrefix(strings.TrimSpace(line), "find "); ok {
		c.Redirect(http.StatusSeeOther, "/p/"+c.Param("plan")+"/walkdown?way=find&find="+url.QueryEscape(what))
		return
	}
	prop := c.PostForm("prop")
	r := &shorthand.Reading{}
	unread := false // the phrase itself was not understood
	var goOn []string
	_, err := s.store.Edit(c.Request.Context(), c.Param("plan"), editor(c), func(p *plan.Plan) (plan.Edit, error) {
		read, err := shorthand.Read(p, s.lib, prop, line) // on the plan as it stands: names it makes up are free
		if unread = err != nil; unread {
			goOn = tries(p, err)
			return plan.Edit{}, err
		}
		r = read
		return r.Edit, nil
	})
	if unread {
		s.refused(c, over{quick: line, quickErr: whyNot(err), tries: goOn})
		return
	}
	if err == nil {
		flash(c, r.Text)
	}
	s.applied(c, err, over{quick: line}, said(c.Param("plan"), prop, r.Select))
}

// flash tells the browser what an edit did, for its next page to say once.
func flash(c *gin.Context, text string) {
	const letters = 300
	if r := []rune(text); len(r) > letters {
		text = string(r[:letters]) + "…"
	}
	c.SetSameSite(http.SameSiteStrictMode)
	c.SetCookie("did", text, 20, "/p/"+c.Param("plan"), "", false, false)
}

// said is where a phrase's own element is seen.
func said(id, prop, sel string) string {
	p := &Page{Asked: Asked{PlanID: id}}
	kind, name, _ := strings.Cut(sel, ":")
	in, ok := plan.ShownIn(kind)
	switch {
	case !ok:
		in.Place = "bench"
	case kind == "prop":
		prop = name
	case kind == "job":
		sel = "task:own:" + name
	}
	if in.Whole && kind != "good" {
		prop = ""
	}
	return p.href(in.Place, prop, sel, in.Way)
}

// read answers what the quick line would do.
func (s *Server) read(c *gin.Context) {
	w, _, err := s.work(c.Request.Context(), c.Param("plan"))
	if err != nil {
		s.answered(c, err)
		return
	}
	if what, ok := strings.CutPrefix(strings.TrimSpace(c.Query("line")), "find "); ok {
		c.JSON(http.StatusOK, gin.H{"text": "look for “" + what + "” in everything"})
		return
	}
	if line := strings.ToLower(strings.TrimSpace(c.Query("line"))); line == "undo" || line == "redo" {
		steps, err := s.store.Steps(c.Request.Context(), c.Param("plan"), editor(c))
		what := map[string]string{"undo": steps.Undo, "redo": steps.Redo}[line]
		if err != nil || what == "" {
			c.JSON(http.StatusOK, gin.H{"error": "there is nothing to " + line})
			return
		}
		c.JSON(http.StatusOK, gin.H{"text": line + ": " + what})
		return
	}
	next := shorthand.Complete(w.Plan, s.lib, c.Query("prop"), c.Query("line"))
	r, err := shorthand.Read(w.Plan, s.lib, c.Query("prop"), c.Query("line"))
	if err != nil {
		c.JSON(http.StatusOK, gin.H{"error": err.Error(), "tries": offers(err), "next": next})
		return
	}
	c.JSON(http.StatusOK, gin.H{"text": r.Text, "next": next})
}

// readLines answers what several lines would do, one by one.
func (s *Server) readLines(c *gin.Context) {
	w, _, err := s.work(c.Request.Context(), c.Param("plan"))
	if err != nil {
		s.answered(c, err)
		return
	}
	r, lines := shorthand.ReadAll(w.Plan, s.lib, c.PostForm("prop"), c.PostForm("lines"))
	out := make([]gin.H, 0, len(lines))
	for _, l := range lines {
		if l.Err != nil {
			out = append(out, gin.H{"line": l.Text, "error": l.Err.Error()})
			continue
		}
		out = append(out, gin.H{"line": l.Text, "text": l.Says})
	}
	c.JSON(http.StatusOK, gin.H{"lines": out, "good": r != nil})
}

// lines does what several lines say, all of them or none.
func (s *Server) lines(c *gin.Context) {
	prop, text := c.PostForm("prop"), c.PostForm("lines")
	if c.PostForm("each") != "" {
		s.eachLine(c, prop, text)
		return
	}
	sel, unread := "", ""
	_, err := s.store.Edit(c.Request.Context(), c.Param("plan"), editor(c), func(p *plan.Plan) (plan.Edit, error) {
		r, lines := shorthand.ReadAll(p, s.lib, prop, text)
		if r == nil {
			unread = "there was no line"
			for _, l := range lines {
				if l.Err != nil {
					unread = l.Text + ": " + l.Err.Error()
					break
				}
			}
			return plan.Edit{}, errors.New(unread)
		}
		sel = r.Select
		return r.Edit, nil
	})
	if unread != "" {
		s.refused(c, over{err: "None of the lines was done. " + measure.Capital(unread)})
		return
	}
	s.applied(c, err, over{}, said(c.Param("plan"), prop, sel))
}

// eachLine does lines one by one, as if each had been entered: those a page still held when it
// was left. One that cannot be done does not hold up the others.
func (s *Server) eachLine(c *gin.Context, prop, text string) {
	const most = 200
	for n, line := range strings.Split(strings.TrimSpace(text), "\n") {
		if n == most {
			break // more than anybody types in the moment before they leave
		}
		_, err := s.store.Edit(c.Request.Context(), c.Param("plan"), editor(c), func(p *plan.Plan) (plan.Edit, error) {
			r, err := shorthand.Read(p, s.lib, prop, strings.TrimSpace(line))
			if err != nil {
				return plan.Edit{}, err
			}
			return r.Edit, nil
		})
		if errors.Is(err, store.ErrDown) || errors.Is(err, store.ErrFull) || errors.Is(err, store.ErrNone) {
			s.fail(c, err)
			return
		}
	}
	s.back(c)
}

// mend applies a snag's mend by its label. Where another edit came between, it
// is looked for again in the plan as it then stands.
func (s *Server) mend(c *gin.Context) {
	for try := 0; ; try++ {
		ctx, cancel := context.WithTimeout(c.Request.Context(), s.workTime)
		defer cancel()
		got, _, err := s.worked(ctx, c.Param("plan"))
		if err == nil && got.heavy != nil {
			err = got.heavy
		}
		if err != nil {
			s.fail(c, err)
			return
		}
		m, ok := got.mendOf(ctx, c.PostForm("snag"), c.PostForm("mend"))
		if !ok {
			s.refused(c, over{err: "That snag is gone or has changed; look again.", code: http.StatusConflict})
			return
		}
		err = s.store.Apply(c.Request.Context(), c.Param("plan"), editor(c), m.Edit)
		if _, stale := errors.AsType[*plan.Stale](err); stale && try < 3 {
			continue
		}
		s.applied(c, err, over{}, "")
		return
	}
}

// mendOf is a snag's mend by its label, where it cures.
func (w worked) mendOf(ctx context.Context, id, label string) (check.Mend, bool) {
	for _, sn := range w.snags() {
		if sn.ID() != id {
			continue
		}
		mends, _ := w.mends.Mends(work.NewWatch(ctx, time.Now), sn)
		for _, m := range mends {
			if m.Label == label {
				return m, true
			}
		}
	}
	return check.Mend{}, false
}

// waive lets a snag stand, with a reason; an empty form field keeps the page.
func (s *Server) waive(c *gin.Context) {
	id := c.PostForm("snag")
	v := plan.Waiver{
		ID:     id,
		Level:  c.PostForm("level"),
		Reason: strings.TrimSpace(c.PostForm("reason")),
		By:     sayWho(c, "by"),
	}
	_, err := s.store.Edit(c.Request.Context(), c.Param("plan"), editor(c), func(p *plan.Plan) (plan.Edit, error) {
		if c.PostForm("back-in") != "" {
			return plan.Edit{Label: "no longer waive " + id, Changes: []plan.Change{p.Drop("waiver", id)}}, nil
		}
		return plan.Edit{Label: "waive " + id, Changes: []plan.Change{p.Put("waiver", id, v)}}, nil
	})
	s.applied(c, err, over{}, "")
}

// errGone ends a removal of what is gone already.
var errGone = errors.New("that was taken away already")

// remove takes an element away with what hangs on it. It needs no plan worked
// out, so that what is too heavy can be taken away too.
func (s *Server) remove(c *gin.Context) {
	kind, id := c.PostForm("kind"), c.PostForm("id")
	prop := ""
	_, err := s.store.Edit(c.Request.Context(), c.Param("plan"), editor(c), func(p *plan.Plan) (plan.Edit, error) {
		if v, _ := p.Get(kind, id); v == nil || kind == "display" {
			return plan.Edit{}, errGone
		}
		prop = p.PropOf(kind + ":" + id)
		return p.Without(kind, id), nil
	})
	if errors.Is(err, errGone) {
		s.refused(c, over{err: measure.Capital(err.Error()) + ".", code: http.StatusConflict})
		return
	}
	s.applied(c, err, over{}, removedFrom(c.Param("plan"), kind, prop))
}

// removedFrom is where one is after something was taken away; "" for where one was.
func removedFrom(id, kind, prop string) string {
	in, ok := plan.ShownIn(kind)
	switch {
	case !ok:
		return ""
	case kind == "prop":
		in.Place, prop = "barn", ""
	case in.Whole:
		prop = ""
	}
	p := &Page{Asked: Asked{PlanID: id}}
	return p.href(in.Place, prop, "", in.Way)
}

func (s *Server) undo(c *gin.Context) { s.travel(c, s.store.Undo) }
func (s *Server) redo(c *gin.Context) { s.travel(c, s.store.Redo) }

func (s *Server) travel(c *gin.Context, step func(context.Context, string, store.By) (string, error)) {
	_, err := step(c.Request.Context(), c.Param("plan"), editor(c))
	switch _, blocked := errors.AsType[*store.Blocked](err); {
	case err == nil, errors.Is(err, store.ErrNothing):
		s.back(c)
	case blocked:
		s.refused(c, over{err: err.Error() + ".", code: http.StatusConflict})
	default:
		s.fail(c, err)
	}
}

// stepTo goes to just after one edit of the log.
func (s *Server) stepTo(c *gin.Context) {
	n, err := strconv.ParseInt(c.PostForm("to"), 10, 64)
	if err != nil {
		s.refused(c, over{err: "That step is gone; look again."})
		return
	}
	s.travel(c, func(ctx context.Context, id string, _ store.By) (string, error) {
		return "", s.store.StepTo(ctx, id, n)
	})
}

// working shows how a number was reached: a fragment for the dialog, or a page.
func (s *Server) working(c *gin.Context) {
	w, _, err := s.work(c.Request.Context(), c.Param("plan"))
	if err != nil {
		s.fail(c, err)
		return
	}
	key := source.ParseKey(c.Query("key"))
	r, ok := w.Results().Get(key)
	for _, pl := range s.places {
		if pl.working == key.Kind && pl.reached != nil {
			r, ok = pl.reached(w, key)
		}
	}
	if !ok {
		s.trouble(
			c,
			http.StatusNotFound,
			"That number is gone",
			"What it belonged to was changed or taken away. Go back and look again.",
		)
		return
	}
	c.Header("Content-Type", "text/html; charset=utf-8")
	name := "working-page.html"
	if c.GetHeader("X-Fragment") != "" {
		name = "working"
	}
	_ = s.pages.ExecuteTemplate(
		c.Writer,
		name,
		map[string]any{"R": r, "Theme": themeOf(c), "Title": r.Label, "Back": "/p/" + c.Param("plan")},
	)
}

// worst is the worst open level of the snags a test picks, or "".
func worst(snags []check.Snag, of func(check.Snag) bool) string {
	for _, s := range snags {
		if s.Waived == nil && of(s) {
			return s.Level.String()
		}
	}
	return ""
}

// begins checks the three questions of a new display.
func begins(name, units string) error {
	if strings.TrimSpace(name) == "" {
		return measure.Bad("name", "is empty; what is the display called?")
	}
	if units != "in" && units != "mm" {
		return measure.Bad("units", "choose inches or millimetres")
	}
	return nil
}

package shell

import (
	"context"
	"errors"
	"net/http"
	"net/url"
	"strings"
	"time"

	"zapbarn/core/check"
	"zapbarn/core/hearing"
	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/shorthand"
	"zapbarn/core/source"
	"zapbarn/core/work"
	"zapbarn/store"

	"github.com/gin-gonic/gin"
)

// Back answers a form that did what it was asked.
func (s *Site) Back(c *gin.Context) { s.done(c, Local(c.PostForm("back"))) }

// done answers an edit that was stored: it leads to a page that shows it.
func (s *Site) done(c *gin.Context, to string) {
	s.Edited(c, c.Param("plan"))
	c.Redirect(http.StatusSeeOther, to)
}

// Change stores an edit that is made of the plan as it is, by whoever asks.
func (s *Site) Change(c *gin.Context, edit func(p *plan.Plan) (plan.Edit, error)) error {
	_, err := s.Store.Edit(c.Request.Context(), c.Param("plan"), Editor(c), edit)
	return err
}

// ChangeBy is Change, by somebody who gave their name.
func (s *Site) ChangeBy(c *gin.Context, who string, edit func(p *plan.Plan) (plan.Edit, error)) error {
	_, err := s.Store.Edit(c.Request.Context(), c.Param("plan"), EditorNamed(c, who), edit)
	return err
}

// Open is the plan of an address worked out; false where that failed, and was answered.
func (s *Site) Open(c *gin.Context) (*work.Work, bool) {
	w, _, err := s.Work(c.Request.Context(), c.Param("plan"))
	if err != nil {
		s.Fail(c, err)
	}
	return w, err == nil
}

// Apply stores an edit and answers; a refusal keeps the page and what was entered.
func (s *Site) Apply(c *gin.Context, e plan.Edit, o Over, to string) {
	err := s.Change(c, func(*plan.Plan) (plan.Edit, error) { return e, nil })
	s.Applied(c, err, o, to)
}

// Applied answers an edit that was stored, or refused with err.
func (s *Site) Applied(c *gin.Context, err error, o Over, to string) {
	_, fault := errors.AsType[*store.Fault](err)
	stale, isStale := errors.AsType[*plan.Stale](err)
	switch {
	case err == nil && to != "":
		s.done(c, to)
	case err == nil:
		s.Back(c)
	case errors.Is(err, store.ErrDown), errors.Is(err, store.ErrFull), errors.Is(err,
		store.ErrNone), fault, c.Request.Context().Err() != nil:
		s.Fail(c, err)
	case isStale:
		o.Code = http.StatusConflict
		if o.conflict == nil {
			o.Err = "Changed meanwhile in another window: " + stale.Error() + ". Look at it again, then repeat your step."
		}
		s.Refused(c, o)
	default:
		o.errors, o.Err = FieldErrors(err)
		s.Refused(c, o)
	}
}

// Quick does what the quick line says.
func (s *Site) Quick(c *gin.Context) {
	var in struct {
		Line string `form:"line"`
		Prop string `form:"prop"`
	}
	if !s.Bind(c, &in) {
		return
	}
	line := in.Line
	switch strings.ToLower(strings.TrimSpace(line)) {
	case "undo":
		s.Undo(c)
		return
	case "redo":
		s.Redo(c)
		return
	}
	if what, ok := strings.CutPrefix(strings.TrimSpace(line), "find "); ok {
		c.Redirect(http.StatusSeeOther, "/p/"+c.Param("plan")+"/walkdown?way=find&find="+url.QueryEscape(what))
		return
	}
	prop := in.Prop
	r := &shorthand.Reading{}
	unread := false // the phrase itself was not understood
	var h hearing.Heard
	var goOn []string
	err := s.Change(c, func(p *plan.Plan) (plan.Edit, error) {
		h = hearing.Hear(p, s.Lib, prop, line) // on the plan as it stands: names it makes up are free
		if unread = h.Answer != hearing.Done; unread {
			goOn = goingOn(p, h)
			return plan.Edit{}, h.Err
		}
		r = h.Reading
		return r.Edit, nil
	})
	if unread {
		s.Refused(c, Over{quick: line, quickErr: notHeard(h), tries: goOn})
		return
	}
	if err == nil {
		flash(c, h.Text())
	}
	s.Applied(c, err, Over{quick: line}, ShownAt(c.Param("plan"), prop, r.Select))
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

// ShownAt is where a phrase's own element is seen.
func ShownAt(id, prop, sel string) string {
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
	return p.Href(in.Place, prop, sel, in.Way)
}

// Read answers what the quick line would do.
func (s *Site) Read(c *gin.Context) {
	w, _, err := s.Work(c.Request.Context(), c.Param("plan"))
	if err != nil {
		s.Answered(c, err)
		return
	}
	if what, ok := strings.CutPrefix(strings.TrimSpace(c.Query("line")), "find "); ok {
		c.JSON(http.StatusOK, gin.H{"text": "look for “" + what + "” in everything"})
		return
	}
	if line := strings.ToLower(strings.TrimSpace(c.Query("line"))); line == "undo" || line == "redo" {
		steps, err := s.Store.Steps(c.Request.Context(), c.Param("plan"), Editor(c))
		what := map[string]string{"undo": steps.Undo, "redo": steps.Redo}[line]
		if err != nil || what == "" {
			c.JSON(http.StatusOK, gin.H{"error": "there is nothing to " + line})
			return
		}
		c.JSON(http.StatusOK, gin.H{"text": line + ": " + what})
		return
	}
	next := shorthand.Complete(w.Plan, s.Lib, c.Query("prop"), c.Query("line"))
	h := hearing.Hear(w.Plan, s.Lib, c.Query("prop"), c.Query("line"))
	switch h.Answer {
	case hearing.Done:
		c.JSON(http.StatusOK, gin.H{"text": h.Text(), "next": next})
	case hearing.Offered:
		c.JSON(http.StatusOK, gin.H{"error": h.Trouble(), "tries": []string{h.As}, "next": next})
	default:
		c.JSON(http.StatusOK, gin.H{"error": h.Why, "tries": offers(h.Err), "next": next})
	}
}

// ReadLines answers what several lines would do, one by one.
func (s *Site) ReadLines(c *gin.Context) {
	var in struct {
		Prop  string `form:"prop"`
		Lines string `form:"lines"`
	}
	if !s.Bind(c, &in) {
		return
	}
	w, _, err := s.Work(c.Request.Context(), c.Param("plan"))
	if err != nil {
		s.Answered(c, err)
		return
	}
	r, lines := hearing.All(w.Plan, s.Lib, in.Prop, in.Lines)
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

// Lines does what several lines say, all of them or none.
func (s *Site) Lines(c *gin.Context) {
	var in struct {
		Prop  string `form:"prop"`
		Lines string `form:"lines"`
		Each  string `form:"each"`
	}
	if !s.Bind(c, &in) {
		return
	}
	prop, text := in.Prop, in.Lines
	if in.Each != "" {
		s.eachLine(c, prop, text)
		return
	}
	sel, unread := "", ""
	err := s.Change(c, func(p *plan.Plan) (plan.Edit, error) {
		r, lines := hearing.All(p, s.Lib, prop, text)
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
		s.Refused(c, Over{Err: "None of the lines was done. " + measure.Capital(unread)})
		return
	}
	s.Applied(c, err, Over{}, ShownAt(c.Param("plan"), prop, sel))
}

// eachLine does lines one by one, as if each had been entered: those a page still held when it
// was left. One that cannot be done does not hold up the others.
func (s *Site) eachLine(c *gin.Context, prop, text string) {
	const most = 200
	for n, line := range strings.Split(strings.TrimSpace(text), "\n") {
		if n == most {
			break // more than anybody types in the moment before they leave
		}
		err := s.Change(c, func(p *plan.Plan) (plan.Edit, error) {
			h := hearing.Hear(p, s.Lib, prop, strings.TrimSpace(line))
			if h.Answer != hearing.Done {
				return plan.Edit{}, h.Err
			}
			return h.Reading.Edit, nil
		})
		if errors.Is(err, store.ErrDown) || errors.Is(err, store.ErrFull) || errors.Is(err, store.ErrNone) {
			s.Fail(c, err)
			return
		}
	}
	s.Back(c)
}

// Mend applies a snag's mend by its label. Where another edit came between, it
// is looked for again in the plan as it then stands.
func (s *Site) Mend(c *gin.Context) {
	var in struct {
		Snag string `form:"snag" binding:"required"`
		Mend string `form:"mend" binding:"required"`
	}
	if !s.Bind(c, &in) {
		return
	}
	for try := 0; ; try++ {
		ctx, cancel := context.WithTimeout(c.Request.Context(), s.WorkTime)
		defer cancel()
		got, _, err := s.Worked(ctx, c.Param("plan"))
		if err == nil && got.heavy != nil {
			err = got.heavy
		}
		if err != nil {
			s.Fail(c, err)
			return
		}
		m, ok := got.mendOf(ctx, in.Snag, in.Mend)
		if !ok {
			s.Refused(c, Over{Err: "That snag is gone or has changed; look again.", Code: http.StatusConflict})
			return
		}
		err = s.Store.Apply(c.Request.Context(), c.Param("plan"), Editor(c), m.Edit)
		if _, stale := errors.AsType[*plan.Stale](err); stale && try < 3 {
			continue
		}
		s.Applied(c, err, Over{}, "")
		return
	}
}

// mendOf is a snag's mend by its label, where it cures.
func (w Worked) mendOf(ctx context.Context, id, label string) (check.Mend, bool) {
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

// Waive lets a snag stand, with a reason; an empty form field keeps the page.
func (s *Site) Waive(c *gin.Context) {
	var in struct {
		Snag   string `form:"snag" binding:"required"`
		Level  string `form:"level"`
		Reason string `form:"reason"`
		BackIn string `form:"back-in"`
	}
	if !s.Bind(c, &in) {
		return
	}
	id := in.Snag
	v := plan.Waiver{
		ID:     id,
		Level:  in.Level,
		Reason: strings.TrimSpace(in.Reason),
		By:     SayWho(c, "by"),
	}
	err := s.Change(c, func(p *plan.Plan) (plan.Edit, error) {
		if in.BackIn != "" {
			return plan.Edit{Label: "no longer waive " + id, Changes: []plan.Change{p.Drop("waiver", id)}}, nil
		}
		return plan.Edit{Label: "waive " + id, Changes: []plan.Change{p.Put("waiver", id, v)}}, nil
	})
	s.Applied(c, err, Over{}, "")
}

// ErrGone ends a removal of what is gone already.
var ErrGone = errors.New("that was taken away already")

// Remove takes an element away with what hangs on it. It needs no plan worked
// out, so that what is too heavy can be taken away too.
func (s *Site) Remove(c *gin.Context) {
	var in struct {
		Kind string `form:"kind" binding:"required"`
		ID   string `form:"id" binding:"required"`
	}
	if !s.Bind(c, &in) {
		return
	}
	kind, id := in.Kind, in.ID
	prop := ""
	err := s.Change(c, func(p *plan.Plan) (plan.Edit, error) {
		if v, _ := p.Get(kind, id); v == nil || kind == "display" {
			return plan.Edit{}, ErrGone
		}
		prop = p.PropOf(kind + ":" + id)
		return p.Without(kind, id), nil
	})
	if errors.Is(err, ErrGone) {
		s.Refused(c, Over{Err: measure.Capital(err.Error()) + ".", Code: http.StatusConflict})
		return
	}
	s.Applied(c, err, Over{}, removedFrom(c.Param("plan"), kind, prop))
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
	return p.Href(in.Place, prop, "", in.Way)
}

func (s *Site) Undo(c *gin.Context) { s.travel(c, s.Store.Undo) }
func (s *Site) Redo(c *gin.Context) { s.travel(c, s.Store.Redo) }

func (s *Site) travel(c *gin.Context, step func(context.Context, string, store.By) (string, error)) {
	_, err := step(c.Request.Context(), c.Param("plan"), Editor(c))
	switch _, blocked := errors.AsType[*store.Blocked](err); {
	case err == nil, errors.Is(err, store.ErrNothing):
		s.Back(c)
	case blocked:
		s.Refused(c, Over{Err: err.Error() + ".", Code: http.StatusConflict})
	default:
		s.Fail(c, err)
	}
}

// StepTo goes to just after one edit of the log.
func (s *Site) StepTo(c *gin.Context) {
	var in struct {
		To int64 `form:"to" binding:"required"`
	}
	if !s.Bind(c, &in) {
		return
	}
	s.travel(c, func(ctx context.Context, id string, _ store.By) (string, error) {
		return "", s.Store.StepTo(ctx, id, in.To)
	})
}

// Working shows how a number was reached: a fragment for the dialog, or a page.
func (s *Site) Working(c *gin.Context) {
	w, open := s.Open(c)
	if !open {
		return
	}
	key := source.ParseKey(c.Query("key"))
	r, ok := w.Results().Get(key)
	for _, pl := range s.Places {
		if pl.Working == key.Kind && pl.Reached != nil {
			r, ok = pl.Reached(w, key)
		}
	}
	if !ok {
		s.Trouble(
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
		map[string]any{"R": r, "Theme": ThemeOf(c), "Title": r.Label, "Back": "/p/" + c.Param("plan")},
	)
}

// Worst is the worst open level of the snags a test picks, or "".
func Worst(snags []check.Snag, of func(check.Snag) bool) string {
	for _, s := range snags {
		if s.Waived == nil && of(s) {
			return s.Level.String()
		}
	}
	return ""
}

// Begins checks the three questions of a new display.
func Begins(name, units string) error {
	if strings.TrimSpace(name) == "" {
		return measure.Bad("name", "is empty; what is the display called?")
	}
	if units != "in" && units != "mm" {
		return measure.Bad("units", "choose inches or millimetres")
	}
	return nil
}

package web

import (
	"context"
	"encoding/json"
	"errors"
	"net/http"
	"strings"

	"github.com/gin-gonic/gin"
	"zapbarn/core/check"
	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/shorthand"
	"zapbarn/store"
)

// back answers a form that did what it was asked.
func (s *Server) back(c *gin.Context) {
	c.Redirect(http.StatusSeeOther, local(c.PostForm("back")))
}

// apply stores an edit and answers; a refusal keeps the page and what was entered.
func (s *Server) apply(c *gin.Context, e plan.Edit, o over, to string) {
	err := s.store.Apply(c, c.Param("plan"), "", e)
	var stale *plan.Stale
	switch {
	case err == nil && to != "":
		c.Redirect(http.StatusSeeOther, to)
	case err == nil:
		s.back(c)
	case errors.Is(err, store.ErrDown) || errors.Is(err, store.ErrNone):
		s.fail(c, err)
	case errors.As(err, &stale):
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

// edit changes one element by the fields of its ticket.
func (s *Server) edit(c *gin.Context) {
	kind, id, was := c.PostForm("kind"), c.PostForm("id"), c.PostForm("was")
	w, _, err := s.work(c, c.Param("plan"))
	if err != nil {
		s.fail(c, err)
		return
	}
	values := map[string]string{}
	for k, v := range c.Request.PostForm {
		if name, ok := strings.CutPrefix(k, "f."); ok && len(v) > 0 {
			values[name] = v[len(v)-1]
		}
	}
	o := over{values: values}
	after, err := fill(w, kind, []byte(was), values)
	if err != nil {
		o.errors, o.err = fieldErrors(err)
		s.refused(c, o)
		return
	}
	e := plan.Edit{Label: "change " + c.PostForm("name"), Changes: []plan.Change{{Kind: kind, ID: id, At: -1, Before: json.RawMessage(was), After: after}}}
	if _, err := w.Plan.Apply(e); err != nil {
		var stale *plan.Stale
		if errors.As(err, &stale) {
			o.conflict = conflict(w, kind, id, was, stale, values)
			o.values = map[string]string{} // the ticket keeps what is mine, and takes the rest as it stands
			for _, r := range o.conflict.Rows {
				o.values[r.Name] = r.Mine
			}
		}
	}
	s.apply(c, e, o, "")
}

// conflict sets what stands there now beside what was entered.
func conflict(w *plan.Work, kind, id, was string, stale *plan.Stale, values map[string]string) *Conflict {
	k := &Conflict{Kind: kind, ID: id, Name: stale.ID, Gone: stale.Now == nil, Was: string(stale.Now)}
	read := func(raw string) map[string]Field {
		v, err := plan.Blank(kind)
		if err != nil || json.Unmarshal([]byte(raw), v) != nil {
			return nil
		}
		k.Name = plan.NameOf(v)
		out := map[string]Field{}
		for _, f := range fieldsOf(w, v) {
			if f.Kind == "check" {
				f.Value = map[bool]string{true: "on", false: "off"}[f.Checked]
			}
			out[f.Name] = f
		}
		return out
	}
	before, now := read(was), map[string]Field{}
	if !k.Gone {
		now = read(string(stale.Now))
	}
	for _, s := range specsOfKind(w, kind, was) {
		mine, sent := values[s.name]
		if sent && mine != before[s.name].Value || !k.Gone && now[s.name].Value != before[s.name].Value {
			if !sent || mine == before[s.name].Value {
				mine = now[s.name].Value // not mine to change
			}
			k.Rows = append(k.Rows, ConflictRow{s.name, s.label, now[s.name].Value, mine})
		}
	}
	return k
}

func specsOfKind(w *plan.Work, kind, raw string) []spec {
	v, err := plan.Blank(kind)
	if err != nil || json.Unmarshal([]byte(raw), v) != nil {
		return nil
	}
	return specsOf(w, v)
}

// quick does what the quick line says.
func (s *Server) quick(c *gin.Context) {
	w, _, err := s.work(c, c.Param("plan"))
	if err != nil {
		s.fail(c, err)
		return
	}
	line := c.PostForm("line")
	switch strings.ToLower(strings.TrimSpace(line)) {
	case "undo":
		s.undo(c)
		return
	case "redo":
		s.redo(c)
		return
	}
	r, err := shorthand.Read(w.Plan, s.lib, c.PostForm("prop"), line)
	if err != nil {
		s.refused(c, over{quick: line, quickErr: err.Error()})
		return
	}
	p := &Page{PlanID: c.Param("plan")}
	place, way := "bench", ""
	prop := c.PostForm("prop")
	switch kind, id, _ := strings.Cut(r.Select, ":"); kind {
	case "device":
		place = "loom"
	case "outlet", "plug":
		place, way = "loom", "power"
	case "offcut":
		way = "sheets"
	case "trigger", "scene", "input":
		place = "rehearsal"
	case "joint", "finish", "lot":
		way = "joints"
	case "prop":
		prop = id
	}
	s.apply(c, r.Edit, over{quick: line}, p.href(place, prop, r.Select, way))
}

// read answers what the quick line would do.
func (s *Server) read(c *gin.Context) {
	w, _, err := s.work(c, c.Param("plan"))
	if err != nil {
		c.JSON(http.StatusServiceUnavailable, gin.H{"error": "the database does not answer"})
		return
	}
	if line := strings.ToLower(strings.TrimSpace(c.Query("line"))); line == "undo" || line == "redo" {
		undo, redo, err := s.store.Steps(c, c.Param("plan"))
		what := map[string]string{"undo": undo, "redo": redo}[line]
		if err != nil || what == "" {
			c.JSON(http.StatusOK, gin.H{"error": "there is nothing to " + line})
			return
		}
		c.JSON(http.StatusOK, gin.H{"text": line + ": " + what})
		return
	}
	r, err := shorthand.Read(w.Plan, s.lib, c.Query("prop"), c.Query("line"))
	if err != nil {
		c.JSON(http.StatusOK, gin.H{"error": err.Error()})
		return
	}
	c.JSON(http.StatusOK, gin.H{"text": r.Text})
}

// mend applies a snag's mend by its label.
func (s *Server) mend(c *gin.Context) {
	_, snags, err := s.work(c, c.Param("plan"))
	if err != nil {
		s.fail(c, err)
		return
	}
	for _, sn := range snags {
		if sn.ID() != c.PostForm("snag") {
			continue
		}
		for _, m := range sn.Mends {
			if m.Label == c.PostForm("mend") {
				s.apply(c, m.Edit, over{}, "")
				return
			}
		}
	}
	s.refused(c, over{err: "That snag is gone or has changed; look again.", code: http.StatusConflict})
}

// waive lets a snag stand, with a reason; an empty form field keeps the page.
func (s *Server) waive(c *gin.Context) {
	w, _, err := s.work(c, c.Param("plan"))
	if err != nil {
		s.fail(c, err)
		return
	}
	id := c.PostForm("snag")
	if c.PostForm("back-in") != "" {
		s.apply(c, plan.Edit{Label: "no longer waive " + id, Changes: []plan.Change{w.Plan.Drop("waiver", id)}}, over{}, "")
		return
	}
	v := plan.Waiver{ID: id, Reason: strings.TrimSpace(c.PostForm("reason")), By: sayWho(c, "by")}
	s.apply(c, plan.Edit{Label: "waive " + id, Changes: []plan.Change{w.Plan.Put("waiver", id, v)}}, over{}, "")
}

// remove takes an element away with what hangs on it.
func (s *Server) remove(c *gin.Context) {
	w, _, err := s.work(c, c.Param("plan"))
	if err != nil {
		s.fail(c, err)
		return
	}
	kind, id := c.PostForm("kind"), c.PostForm("id")
	if v, _ := w.Plan.Get(kind, id); v == nil || kind == "display" {
		s.refused(c, over{err: "That was taken away already.", code: http.StatusConflict})
		return
	}
	p := &Page{PlanID: c.Param("plan")}
	place, prop := "bench", w.Plan.PropOf(kind+":"+id)
	switch kind {
	case "device":
		place = "loom"
	case "input", "scene", "trigger":
		place = "rehearsal"
	case "prop":
		place, prop = "barn", ""
	}
	s.apply(c, w.Plan.Without(kind, id), over{}, p.href(place, prop, "", ""))
}

func (s *Server) undo(c *gin.Context) { s.travel(c, s.store.Undo) }
func (s *Server) redo(c *gin.Context) { s.travel(c, s.store.Redo) }

func (s *Server) travel(c *gin.Context, step func(context.Context, string) (string, error)) {
	_, err := step(c, c.Param("plan"))
	switch {
	case err == nil, errors.Is(err, store.ErrNothing):
		s.back(c)
	case errors.Is(err, store.ErrDown), errors.Is(err, store.ErrNone):
		s.fail(c, err)
	default:
		s.refused(c, over{err: err.Error(), code: http.StatusConflict})
	}
}

// working shows how a number was reached: a fragment for the dialog, or a page.
func (s *Server) working(c *gin.Context) {
	w, _, err := s.work(c, c.Param("plan"))
	if err != nil {
		s.fail(c, err)
		return
	}
	r, ok := w.Results[c.Query("key")]
	if !ok {
		s.trouble(c, http.StatusNotFound, "That number is gone", "What it belonged to was changed or taken away. Go back and look again.")
		return
	}
	c.Header("Content-Type", "text/html; charset=utf-8")
	name := "working-page.html"
	if c.GetHeader("X-Fragment") != "" {
		name = "working"
	}
	_ = s.pages.ExecuteTemplate(c.Writer, name, map[string]any{"R": r, "Theme": themeOf(c), "Title": r.Label, "Back": "/p/" + c.Param("plan")})
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

// named checks the three questions of a new display.
func named(name, units string) error {
	if strings.TrimSpace(name) == "" {
		return measure.Bad("name", "is empty; what is the display called?")
	}
	if units != "in" && units != "mm" {
		return measure.Bad("units", "choose inches or millimetres")
	}
	return nil
}

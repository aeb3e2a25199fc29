package web

import (
	"strings"

	"zapbarn/core/plan"

	"github.com/gin-gonic/gin"
)

// plugIn plugs a supply, or another load, into the outlet it was dragged to.
func (s *Server) plugIn(c *gin.Context) {
	w, _, err := s.work(c.Request.Context(), c.Param("plan"))
	if err != nil {
		s.fail(c, err)
		return
	}
	kind, id, _ := strings.Cut(c.PostForm("load"), ":")
	outlet, _ := w.Plan.Get("outlet", c.PostForm("outlet"))
	load, _ := w.Plan.Get(kind, id)
	if outlet == nil || load == nil {
		s.refused(c, over{err: "That is gone; look again."})
		return
	}
	var next any
	switch x := load.(type) {
	case *plan.Device:
		d := *x
		d.Outlet = c.PostForm("outlet")
		next = d
	case *plan.Plug:
		d := *x
		d.Outlet = c.PostForm("outlet")
		next = d
	default:
		s.refused(c, over{err: plan.NameOf(load) + " has no plug."})
		return
	}
	label := "plug " + plan.NameOf(load) + " into " + plan.NameOf(outlet)
	s.apply(c, plan.Edit{Label: label, Changes: []plan.Change{w.Plan.Put(kind, id, next)}}, over{}, c.PostForm("back"))
}

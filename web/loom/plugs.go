package loom

import (
	"strings"

	"zapbarn/web/shell"

	"zapbarn/core/plan"

	"github.com/gin-gonic/gin"
)

// PlugIn plugs a supply, or another load, into the outlet it was dragged to.
func (s Room) PlugIn(c *gin.Context) {
	var in struct {
		Load   string `form:"load"`
		Outlet string `form:"outlet"`
		Back   string `form:"back"`
	}
	w, open := s.OpenWith(c, &in)
	if !open {
		return
	}
	kind, id, _ := strings.Cut(in.Load, ":")
	outlet, _ := w.Plan.Get("outlet", in.Outlet)
	load, _ := w.Plan.Get(kind, id)
	if outlet == nil || load == nil {
		s.Refused(c, shell.Over{Err: "That is gone; look again."})
		return
	}
	var next any
	switch x := load.(type) {
	case *plan.Device:
		d := *x
		d.Outlet = in.Outlet
		next = d
	case *plan.Plug:
		d := *x
		d.Outlet = in.Outlet
		next = d
	default:
		s.Refused(c, shell.Over{Err: plan.NameOf(load) + " has no plug."})
		return
	}
	label := "plug " + plan.NameOf(load) + " into " + plan.NameOf(outlet)
	s.Apply(c, plan.Edit{Label: label, Changes: []plan.Change{w.Plan.Put(kind, id, next)}}, shell.Over{}, in.Back)
}

package bench

import (
	"path/filepath"
	"strings"
	"unicode/utf8"

	"zapbarn/web/shell"

	"zapbarn/core/form"
	"zapbarn/core/measure"
	"zapbarn/core/pattern"
	"zapbarn/core/plan"
	"zapbarn/core/stock"
	"zapbarn/core/work"
	"zapbarn/formats"

	"github.com/gin-gonic/gin"
)

// BringIn makes a solid of an SVG or DXF outline, or of an STL mesh.
func (s Room) BringIn(c *gin.Context) {
	w, open := s.Open(c)
	if !open {
		return
	}
	var in bringing
	if !s.Bind(c, &in) {
		return
	}
	sol, err := in.brought(c, w)
	if err != nil {
		_, msg := shell.FieldErrors(err)
		s.Refused(c, shell.Over{Err: "Nothing was brought in. " + measure.Capital(msg), Code: shell.CodeOf(err)})
		return
	}
	p := &shell.Page{Asked: shell.Asked{PlanID: c.Param("plan")}}
	s.Apply(
		c,
		plan.Edit{Label: "bring in " + sol.Name, Changes: []plan.Change{w.Plan.Put("solid", sol.ID, sol)}},
		shell.Over{},
		p.Href("bench", sol.Prop, "solid:"+sol.ID, "whole"),
	)
}

// bringing is what a form says of an outline or mesh that is brought in.
type bringing struct {
	Prop  string `form:"prop"`
	Stock string `form:"stock"`
	Size  string `form:"size"`
	Of    string `form:"of"` // what the size is of: its height, or its width
	Pair  string `form:"pair"`
}

// brought is the solid of a file, and of what the form says of it.
func (in bringing) brought(c *gin.Context, w *work.Work) (*plan.Solid, error) {
	name, data, err := shell.Upload(c, "file", plan.MaxFile)
	if err != nil {
		return nil, err
	}
	bare := "in"
	if w.Plan.Metric() {
		bare = "mm"
	}
	sol := &plan.Solid{Prop: in.Prop, Stock: in.Stock}
	if w.Plan.Prop(sol.Prop) == nil {
		return nil, measure.Bad("prop", "is gone; open one first")
	}
	of := w.Lib.Materials[sol.Stock].Form
	if of != "sheet" && (of != "filament" || !strings.EqualFold(filepath.Ext(name), ".stl")) {
		return nil, measure.Bad(
			"stock",
			"the shop has no sheet %q; choose one of the list, a filament for a mesh alone",
			sol.Stock,
		)
	}
	size, err := measure.ParseLengthIn(in.Size, bare)
	if err != nil {
		return nil, measure.Bad("size", "%s; one known size gives the scale", err)
	}
	sol.Name = strings.TrimSuffix(filepath.Base(name), filepath.Ext(name))
	sol.Name = strings.TrimSpace(strings.NewReplacer("-", " ", "_", " ").Replace(sol.Name))
	if sol.Name == "" || utf8.RuneCountInString(sol.Name) > 60 {
		sol.Name = "Silhouette"
	}
	sol.Name = measure.Capital(sol.Name)
	sol.ID = w.Plan.FreshID("solid", sol.Prop+"-"+sol.Name)
	if strings.EqualFold(filepath.Ext(name), ".stl") {
		err = meshed(sol, data, size, in.Of == "width", of == "filament")
	} else {
		err = in.outlined(c, sol, data, size)
	}
	if err != nil {
		return nil, err
	}
	if _, err := sol.Shape(w.Lib); err != nil {
		return nil, measure.ErrorIn(err, w.Plan.Metric())
	}
	return sol, nil
}

// toUnits moves a drawing to its own corner and stretches it to a thousand
// units, so that two decimals are enough to keep it.
func toUnits(rings [][]pattern.Point) [][]pattern.Point {
	lo, hi := rings[0][0], rings[0][0]
	for _, r := range rings {
		for _, q := range r {
			lo.X, lo.Y, hi.X, hi.Y = min(lo.X, q.X), min(lo.Y, q.Y), max(hi.X, q.X), max(hi.Y, q.Y)
		}
	}
	f := 1000 / max(hi.X-lo.X, hi.Y-lo.Y, 1e-9)
	out := make([][]pattern.Point, len(rings))
	for i, r := range rings {
		for _, q := range r {
			out[i] = append(out[i], pattern.Point{X: (q.X - lo.X) * f, Y: (q.Y - lo.Y) * f})
		}
	}
	return out
}

// BringStocks are the sheets a silhouette or mesh can be cut from.
func (p *view) BringStocks() (out []shell.Option) {
	for _, f := range shell.FieldsOf(p.Work, &plan.Solid{Kind: "panel", Stock: "ply1/4", Form: form.Panel{}}) {
		if f.Name == "stock" {
			out = f.Options
		}
	}
	for _, id := range stock.IDs(p.Work.Lib.Materials) { // a mesh can be printed as well
		if m := p.Work.Lib.Materials[id]; m.Form == "filament" {
			out = append(out, shell.Option{Value: id, Text: "print: " + m.Name})
		}
	}
	return out
}

// meshed makes a solid of a mesh: cut in slices, or printed. size is its height, or its
// width.
func meshed(sol *plan.Solid, data []byte, size measure.Length, wide, printed bool) error {
	mesh, err := formats.STL(data, 1)
	if err != nil {
		return err
	}
	r := mesh.Report()
	if !r.Sound() {
		return measure.Bad("mesh", "cannot be cut: %s", strings.Join(r.Words(), "; "))
	}
	if wide {
		size = measure.Of[measure.LengthKind](size.Value() * (r.Hi.Z - r.Lo.Z) / (r.Hi.X - r.Lo.X))
	}
	packed, err := mesh.Pack()
	if err != nil {
		return err
	}
	if printed {
		*sol = sol.As(form.Printed{H: size, Mesh: packed})
	} else {
		*sol = sol.As(form.Mesh{H: size, Mesh: packed})
	}
	return nil
}

// outlined makes a solid of an outline.
func (in bringing) outlined(c *gin.Context, sol *plan.Solid, data []byte, size measure.Length) error {
	rings, err := formats.Rings(c.Request.Context(), data)
	if err != nil {
		return err
	}
	flat := form.Outline{Path: pattern.WriteRings(toUnits(rings)), Pair: in.Pair == "on"}
	if in.Of == "width" {
		flat.W = size
	} else {
		flat.H = size
	}
	*sol = sol.As(flat)
	return nil
}

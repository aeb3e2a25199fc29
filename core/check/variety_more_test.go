package check

import (
	"bytes"
	"fmt"
	"math/rand/v2"
	"reflect"
	"strings"

	"zapbarn/core/form"
	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/work"
	"zapbarn/demo"
	"zapbarn/testkit/edits"
	"zapbarn/testkit/shop"
)

// edges are the pattern book's solids with one field after the other far off, and
// with an opening that just keeps within, and one that just runs over, each edge.
func edges(b *bytes.Buffer) {
	book := demo.Patterns().In(shop.Kept)
	for i := range book.Solids() {
		s := book.Solids()[i]
		if s.Form == nil || s.Kind == "mesh" || s.Kind == "printed" { // these take their time, and have a net of their own
			continue
		}
		t := reflect.TypeOf(s.Form)
		for f := range t.NumField() {
			name, _, _ := strings.Cut(t.Field(f).Tag.Get("json"), ",")
			for _, text := range offs(reflect.ValueOf(s.Form).Field(f)) {
				x := s
				err := plan.SetText(&x, name, text, false)
				fmt.Fprintf(b, "%s %s %s: %s\n", s.Name, name, text, shaped(&x, err))
			}
		}
		faced(b, s)
	}
}

// offs are values far from a field's own, as text.
func offs(f reflect.Value) (out []string) {
	switch v := f.Interface().(type) {
	case bool:
		return []string{"on", "off"}
	case int:
		return []string{"0", "1", "2", "3", "5", "13", "31", "101", "1001", "100001"}
	case measure.Length:
		for _, by := range []float64{0, .01, .3, .52, .95, 1.1, 2, 7, 60} {
			out = append(out, fmt.Sprintf("%.4f mm", max(v.Value(), 10)*by))
		}
		return append(out, "-3 mm", "1 mm", "40 m")
	case interface{ Value() float64 }:
		for _, by := range []float64{.1, .6, 3, 30} {
			out = append(out, fmt.Sprintf("%.4f %s", max(v.Value(), .1)*by, edits.Units[f.Type()]))
		}
	case string:
		return []string{""}
	}
	return out
}

// shaped is what comes of a solid, in one line.
func shaped(s *plan.Solid, err error) string {
	if err != nil {
		return err.Error()
	}
	shape, err := s.Shape(shop.Kept)
	if err != nil {
		return err.Error()
	}
	area, volume := 0., 0.
	for _, p := range shape.Panels {
		area, volume = area+p.Area()*float64(p.Copies), volume+p.Volume()*float64(p.Copies)
	}
	return fmt.Sprintf("%d panels, %.5g mm2, %.5g mm3, exposed %.5g,%s %s", len(shape.Panels), area, volume,
		shape.Exposed(), numbers(shape.Results), sum(stands(shape, s)))
}

// faced puts a window that fits a face by a hair, and one that does not, against
// each of its edges.
func faced(b *bytes.Buffer, s plan.Solid) {
	shape, err := s.Shape(shop.Kept)
	if err != nil {
		return
	}
	const w, h = 20., 10.
	at := func(face string, wide, low, high float64) {
		mid := (low + high) / 2
		edges := [][3]float64{{wide/2 - w/2, mid, 1}, {-wide/2 + w/2, mid, 2}, {0, high - h/2, 3}, {0, low + h/2, 4}}
		for _, o := range edges {
			for _, off := range []float64{-.5, .5} {
				x := s
				dx, dy := 0., 0.
				switch o[2] {
				case 1:
					dx = off
				case 2:
					dx = -off
				case 3:
					dy = off
				case 4:
					dy = -off
				}
				for _, kind := range []string{"rect", "slot", "round"} {
					x.Openings = []plan.Opening{{Name: "o", Face: face, Kind: kind, W: ofMM(w), H: ofMM(h),
						X: ofMM(o[0] + dx), Y: ofMM(o[1] + dy)}}
					fmt.Fprintf(b, "%s %s %s edge %g by %g: %.120s\n", s.Name, face, kind, o[2], off, shaped(&x, nil))
				}
			}
		}
	}
	for _, p := range shape.Panels[:min(2, len(shape.Panels))] {
		lo, hi := p.Bounds()
		at(p.ID, hi.X-lo.X, 0, hi.Y-lo.Y)
	}
	for _, wall := range shape.Walls {
		high := shape.Size.Z
		if wall == "top" || wall == "bottom" {
			high = shape.Size.Y
		}
		at(wall, shape.Size.X, 0, high)
	}
}

func ofMM(mm float64) measure.Length { return measure.Of[measure.LengthKind](mm) }

// layouts are boards laid by hand, locked, cut, let go and kept, by seed.
func layouts(b *bytes.Buffer) {
	for seed := range uint64(60) {
		r := rand.New(rand.NewPCG(seed, 77))
		p := plan.New("x", "X", "in", "").In(shop.Kept)
		p.Doc().Props = []plan.Prop{{ID: "a", Name: "A"}}
		for n := range 3 + r.IntN(6) {
			s := plan.NewSolid("a", fmt.Sprint("S", n), []string{"xps1", "ply1/4"}[r.IntN(2)], anyBoard(r))
			s.ID = fmt.Sprint("s", n)
			p.Doc().Solids = append(p.Solids(), s)
		}
		for n := range r.IntN(3) {
			p.Doc().Offcuts = append(p.Offcuts(), plan.Offcut{ID: fmt.Sprint("o", n), Stock: "xps1", W: inches(r, 10, 30),
				H: inches(r, 10, 60)})
		}
		for step := range 6 {
			w := work.Do(p, shop.Kept, today)
			if len(w.Sheets()) == 0 {
				break
			}
			s := w.Sheets()[r.IntN(len(w.Sheets()))]
			var e plan.Edit
			var err error
			what := ""
			switch r.IntN(4) {
			case 0:
				i := r.IntN(len(s.Layout.Sheets) + 1)
				what = fmt.Sprint("cut ", i)
				e, err = w.CutSheet(s, i)
			case 1, 2:
				piece, sheet := r.IntN(len(s.Pieces)+1), r.IntN(len(s.Layout.Sheets)+1)
				x, y := 1200*r.Float64(), 2400*r.Float64()
				what = fmt.Sprintf("move %d to %d, %.0f %.0f", piece, sheet, x, y)
				e, err = w.Move(s, piece, sheet, x, y, r.IntN(2) == 0, r.IntN(2) == 0)
			case 3:
				piece := r.IntN(len(s.Pieces)+1) - 1
				what = fmt.Sprint("loose ", piece)
				e = w.Loose(s, piece)
			}
			if err == nil {
				var q *plan.Plan
				if q, err = p.Apply(e); err == nil {
					p = q
				}
			}
			after := work.Do(p, shop.Kept, today)
			fmt.Fprintf(b, "%d.%d %s: %s %v", seed, step, what, e.Label, err)
			for _, s := range after.Sheets() {
				used, total, n := s.Used()
				fmt.Fprintf(b, "; %s %d new, %d cut, %d dropped, %d laid, %.4g of %.4g mm2, %v %s", s.Stock.ID, s.New(), s.Cut,
					len(s.Dropped), n, used, total, s.Kept, sum(asJSON(s.Keep(s.Layout))))
			}
			fmt.Fprintln(b)
		}
	}
}

func anyBoard(r *rand.Rand) form.Form {
	return form.Panel{W: inches(r, 4, 40), H: inches(r, 4, 70), Copies: 1 + r.IntN(3)}
}

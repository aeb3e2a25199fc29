package shorthand

import (
	"fmt"
	"slices"
	"strings"

	"zapbarn/core/form"
	"zapbarn/core/measure"
	"zapbarn/core/plan"
)

// mostOverlap is how far a pane may reach past its opening, in mm.
const mostOverlap = 12 * measure.Inch

// pane is a sheet that covers an opening from behind, glued to the frame or held by
// magnets: pane acrylic3 in box Entrance overlap 1/2 magnets 4.
func (r *reader) pane() (*Reading, error) {
	w := r.phrase(r.words[1:])
	material := r.stockIn(w, "")
	if material == "" || r.lib.Materials[material].Form != "sheet" {
		return nil, fmt.Errorf("say of which sheet, such as acrylic3 or ply1/4")
	}
	overlap, pull := w.After("overlap"), measure.Mass{}
	if overlap.IsZero() {
		overlap = measure.OnTape(12.7, r.p.Metric())
	}
	magnets := 0
	if k := slices.IndexFunc(w.List, func(x string) bool { return strings.EqualFold(x, "magnets") }); k >= 0 &&
		k+1 < len(w.List) {
		if _, err := fmt.Sscan(w.List[k+1], &magnets); err != nil || magnets < 1 {
			return nil, fmt.Errorf("%q magnets; write how many pairs, such as magnets 4", w.List[k+1])
		}
		w.List = append(w.List[:k:k], w.List[k+2:]...)
		pull = measure.Must[measure.MassKind]("1 kg")
	}
	_, where := take(w.List, "in")
	s, o, err := r.openingOf(where)
	if err != nil {
		return nil, err
	}
	if overlap.Value() > mostOverlap || overlap.Value() < 0 {
		return nil, fmt.Errorf(
			"%s of overlap; write up to %s",
			overlap,
			w.Say(measure.Of[measure.LengthKind](mostOverlap)),
		)
	}
	for i := range r.p.Solids() {
		if x := &r.p.Solids()[i]; x.Fills == s.ID+"/"+o.Name {
			return nil, fmt.Errorf("%s covers %s already; change that, or take it away first", x.Name, o.Name)
		}
	}
	wide, high := plan.OpeningSize(o)
	size := func(mm float64) measure.Length { return measure.OnTape(mm+2*overlap.Value(), r.p.Metric()) }
	x := plan.NewSolid(s.Prop, "Pane of "+o.Name, material, form.Panel{W: size(wide), H: size(high), Copies: 1})
	x.ID = r.p.FreshID("solid", s.Prop+"-"+x.Name)
	x.Fills, x.Magnets, x.Pull = s.ID+"/"+o.Name, magnets, pull
	r.behind(&x, s, o)
	how := "glued to its frame"
	if magnets > 0 {
		how = fmt.Sprintf("held by %d pairs of magnets", magnets)
	}
	p, _ := x.Form.(form.Panel)
	return r.put(fmt.Sprintf("pane of %s for %s of %s, %s x %s, %s", r.lib.Materials[material].Name, o.Name, s.Name,
		w.Say(p.W), w.Say(p.H), how), "solid", x.ID, x)
}

// behind places a pane behind its opening where that is in the front or the back:
// on the inside of the face, its middle on the opening's.
func (r *reader) behind(pane, s *plan.Solid, o *plan.Opening) {
	pane.X, pane.Y, pane.Z = s.X, s.Y, s.Z
	shape, err := s.Shape(r.lib)
	p, flat := pane.Form.(form.Panel)
	side := map[string]float64{"front": -1, "back": 1}[o.Face]
	if err != nil || !flat || side == 0 {
		return
	}
	deep := shape.Size.Y
	if box, ok := s.Form.(form.Box); ok { // without what its lid hangs over
		deep = box.D.Value()
	}
	in := r.lib.Materials[s.Stock].Thick.Value() + r.lib.Materials[pane.Stock].Thick.Value()/2
	at := func(from measure.Length, by float64) measure.Length {
		return measure.OnTape(from.Value()+by, r.p.Metric())
	}
	pane.X, pane.Y = at(s.X, o.X.Value()), at(s.Y, side*(deep/2-in))
	pane.Z = at(s.Z, o.Y.Value()-p.H.Value()/2)
}

// openingOf reads a solid and one of its openings.
func (r *reader) openingOf(where []string) (*plan.Solid, *plan.Opening, error) {
	t, rest, ok := r.named(where)
	s, solid := t.value.(*plan.Solid)
	if !ok || !solid {
		return nil, nil, r.what(where)
	}
	if o := s.Opening(strings.Join(rest, " ")); o != nil {
		return s, o, nil
	}
	var have []string
	for _, x := range s.Openings {
		have = append(have, x.Name)
	}
	if len(have) == 0 {
		return nil, nil, fmt.Errorf(
			"%s has no opening yet; cut one first, such as window 10 x 8 in %s",
			s.Name,
			s.Name,
		)
	}
	return nil, nil, fmt.Errorf(
		"%s has no opening %q; it has %s",
		s.Name,
		strings.Join(rest, " "),
		strings.Join(have, ", "),
	)
}

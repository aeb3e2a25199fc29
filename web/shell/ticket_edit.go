package shell

import (
	"encoding/json"
	"errors"
	"fmt"
	"maps"
	"net/http"
	"slices"
	"strings"

	"zapbarn/core/plan"
	"zapbarn/core/work"
	"zapbarn/store"

	"github.com/gin-gonic/gin"
)

// clash ends an edit whose fields another window changed as well.
type clash struct{ *Conflict }

func (clash) Error() string { return "changed meanwhile in another window" }

// Edit changes one element by the fields of its ticket. It is laid over the
// element as it stands when it is stored: what only I changed is changed, what
// only another window changed stays, and only fields that both changed, to
// different values, are asked about. A field that cannot be taken holds up none
// beside it: it alone stays as it was entered, with why.
func (s *Site) Edit(c *gin.Context) {
	var in struct {
		Kind string `form:"kind" binding:"required"`
		ID   string `form:"id" binding:"required"`
		Was  string `form:"was"`
		Name string `form:"name"`
	}
	w, open := s.OpenWith(c, &in)
	if !open {
		return
	}
	t := ticketEdit{work: w, kind: in.Kind, id: in.ID, was: in.Was,
		name: in.Name, values: map[string]string{}}
	for k, v := range c.Request.PostForm {
		if name, ok := strings.CutPrefix(k, "f."); ok && len(v) > 0 {
			t.values[name] = v[len(v)-1]
		}
	}
	o := Over{Values: t.values}
	err := s.Change(c, t.all)
	if k, ok := errors.AsType[clash](err); ok {
		o.conflict, o.Code = k.Conflict, http.StatusConflict
		o.Values = k.mine // the ticket keeps what is mine, and takes the rest as it stands
		s.Refused(c, o)
		return
	}
	if err == nil || !ofFields(err) {
		s.Applied(c, err, o, "")
		return
	}
	if _, again := s.Store.Edit(c.Request.Context(), c.Param("plan"), Editor(c), t.good); again != nil ||
		len(t.bad) == 0 {
		s.Applied(c, err, o, "") // none of them can be taken
		return
	}
	s.Edited(c, c.Param("plan"))
	o.errors, o.Values, o.Err = t.bad, map[string]string{}, t.says()
	for name := range t.bad {
		o.Values[name] = t.values[name]
	}
	s.Refused(c, o)
}

// ofFields is true of an error in what was entered, not of the database or of another edit.
func ofFields(err error) bool {
	_, fault := errors.AsType[*store.Fault](err)
	_, stale := errors.AsType[*plan.Stale](err)
	for _, other := range []error{store.ErrDown, store.ErrFull, store.ErrNone} {
		fault = fault || errors.Is(err, other)
	}
	return !fault && !stale
}

// ticketEdit is what a ticket's form says.
type ticketEdit struct {
	work                *work.Work
	kind, id, was, name string
	values              map[string]string
	bad                 map[string]string // why some cannot be taken, by field
}

// at is the element as it stands, where in its list, and what of the form is mine.
func (t *ticketEdit) at(p *plan.Plan) (stands []byte, at int, k *Conflict, err error) {
	now, at := p.Get(t.kind, t.id)
	if now == nil {
		return nil, at, nil, clash{conflict(t.work, t.kind, t.id, t.was, nil, t.values)}
	}
	if stands, err = json.Marshal(now); err != nil {
		return nil, at, nil, err
	}
	k = conflict(t.work, t.kind, t.id, t.was, stands, t.values)
	if len(k.Rows) > 0 {
		return nil, at, nil, clash{k}
	}
	return stands, at, k, nil
}

// edit is the edit that sets some fields of what stands.
func (t *ticketEdit) edit(stands []byte, at int, mine map[string]string) (plan.Edit, error) {
	after, err := fill(t.work, t.kind, stands, mine)
	return plan.Edit{
		Label:   "change " + t.name,
		Changes: []plan.Change{{Kind: t.kind, ID: t.id, At: at, Before: stands, After: after}},
	}, err
}

// all is the edit of all that was entered.
func (t *ticketEdit) all(p *plan.Plan) (plan.Edit, error) {
	if _, err := fill(t.work, t.kind, []byte(t.was), t.values); err != nil {
		return plan.Edit{}, err
	}
	stands, at, k, err := t.at(p)
	if err != nil {
		return plan.Edit{}, err
	}
	return t.edit(stands, at, k.mine)
}

// good is the edit of as many fields as can be taken: first those go that are named as wrong;
// where the rest still cannot be, they are taken one by one.
func (t *ticketEdit) good(p *plan.Plan) (plan.Edit, error) {
	if !json.Valid([]byte(t.was)) {
		return plan.Edit{}, ErrNothingGood // a damaged form
	}
	stands, at, k, err := t.at(p)
	if err != nil {
		return plan.Edit{}, err
	}
	try := func(set map[string]string) (plan.Edit, error) {
		e, err := t.edit(stands, at, set)
		if err == nil {
			_, err = p.Apply(e)
		}
		return e, err
	}
	t.bad = map[string]string{}
	set := maps.Clone(k.mine)
	for range k.mine {
		e, err := try(set)
		if err == nil && len(set) > 0 {
			return e, nil
		}
		named, _ := FieldErrors(err)
		gone := len(set)
		for name, why := range named {
			if _, mine := set[name]; mine {
				t.bad[name] = why
				delete(set, name)
			}
		}
		if len(set) == gone {
			break
		}
	}
	return t.oneByOne(k.mine, try)
}

// oneByOne takes fields in their order on the ticket, each with those before it that can be.
func (t *ticketEdit) oneByOne(mine map[string]string, try func(map[string]string) (plan.Edit,
	error)) (out plan.Edit, err error) {
	set := map[string]string{}
	t.bad = map[string]string{}
	err = ErrNothingGood
	for _, s := range specsOfKind(t.work, t.kind, t.was) {
		text, ok := mine[s.name]
		if !ok {
			continue
		}
		set[s.name] = text
		e, why := try(set)
		if why == nil {
			out, err = e, nil
			continue
		}
		delete(set, s.name)
		named, all := FieldErrors(why)
		if t.bad[s.name] = named[s.name]; t.bad[s.name] == "" {
			t.bad[s.name] = all
		}
	}
	return out, err
}

// ErrNothingGood ends an edit none of whose fields can be taken.
var ErrNothingGood = errors.New("none of the fields can be taken")

// says is what was not stored, and why, in words.
func (t *ticketEdit) says() string {
	labels := map[string]string{}
	for _, s := range specsOfKind(t.work, t.kind, t.was) {
		labels[s.name] = s.label
	}
	var out []string
	for _, name := range slices.Sorted(maps.Keys(t.bad)) {
		out = append(out, fmt.Sprintf("%s “%s”: %s", labels[name], strings.TrimSpace(t.values[name]), t.bad[name]))
	}
	return "Not stored: " + strings.Join(out, "; ") + ". What else you entered is stored."
}

// conflict compares three states of an element by its fields: as the form was
// loaded, as it stands (nil when it is gone) and as it was entered. Its rows are
// the fields that both changed, to different values; mine are those I changed.
func conflict(w *work.Work, kind, id, was string, stands []byte, values map[string]string) *Conflict {
	k := &Conflict{Kind: kind, ID: id, Name: id, Gone: stands == nil, Was: string(stands), mine: map[string]string{}}
	read := func(raw []byte) map[string]Field {
		v, err := plan.Blank(kind)
		if err != nil || json.Unmarshal(raw, v) != nil {
			return nil
		}
		k.Name = plan.NameOf(v)
		out := map[string]Field{}
		for _, f := range FieldsOf(w, v) {
			if f.Kind == "check" {
				f.Value = map[bool]string{true: "on", false: "off"}[f.Checked]
			}
			out[f.Name] = f
		}
		return out
	}
	before, now := read([]byte(was)), map[string]Field{}
	if !k.Gone {
		now = read(stands)
	}
	for _, s := range specsOfKind(w, kind, was) {
		mine, sent := values[s.name]
		mine = strings.TrimSpace(mine)
		if !sent || mine == before[s.name].Value {
			continue // not mine to change
		}
		k.mine[s.name] = mine
		if k.Gone || now[s.name].Value != before[s.name].Value && now[s.name].Value != mine {
			k.Rows = append(k.Rows, ConflictRow{s.name, s.label, now[s.name].Value, mine})
		}
	}
	return k
}

func specsOfKind(w *work.Work, kind, raw string) []spec {
	v, err := plan.Blank(kind)
	if err != nil || json.Unmarshal([]byte(raw), v) != nil {
		return nil
	}
	return specsOf(w, v)
}

package shell

import (
	"strings"
	"testing"

	"zapbarn/core/plan"
	"zapbarn/core/work"
	"zapbarn/demo"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestDaysToOpening(t *testing.T) {
	for opens, want := range map[string]string{"2026-10-08": "18 days to opening", "2026-09-21": "opens tomorrow",
		"2026-09-20": "opens today", "2026-09-10": "opened 10 days ago", "": "no opening date"} {
		assert.Equal(t, want, DaysTo(opens, today))
	}
}

func TestRedirectsStayHere(t *testing.T) {
	for back, want := range map[string]string{"/p/x?sel=a": "/p/x?sel=a", "//evil.example/": "/",
		"https://evil.example": "/", `/\evil`: "/", "": "/", "javascript:1": "/"} {
		assert.Equal(t, want, Local(back), back)
	}
}

// Each element's fields, filled with what they show, give the same element.
func TestFieldsReadBackWhatTheyShow(t *testing.T) {
	for _, p := range []*plan.Plan{demo.Apiary(today).In(shop.Kept), demo.Metric(today).In(shop.Kept)} {
		w := work.Do(p, shop.Kept, today)
		for _, kind := range plan.Kinds() {
			for _, e := range p.Elements(kind) {
				values := map[string]string{}
				for _, f := range FieldsOf(w, e.Value) {
					values[f.Name] = f.Value
					if f.Kind == "check" {
						values[f.Name] = map[bool]string{true: "on", false: "off"}[f.Checked]
					}
				}
				was := p.Put(kind, e.ID, e.Value).After
				after, err := fill(w, kind, was, values)
				require.NoError(t, err, "%s %s", kind, e.ID)
				assert.JSONEq(t, string(was), string(after), "%s %s", kind, e.ID)
			}
		}
	}
}

func TestBareNumbersInAMetricDisplay(t *testing.T) {
	p := demo.Metric(today).In(shop.Kept)
	w := work.Do(p, shop.Kept, today)
	was := p.Put("solid", "hopper-body", p.Solid("hopper-body")).After
	after, err := fill(w, "solid", was, map[string]string{"h": "480"})
	require.NoError(t, err)
	assert.Contains(t, string(after), `"h":"480 mm"`)
	for field, text := range map[string]string{"h": "tall", "sides": "six", "sides ": "-1"} {
		_, err := fill(w, "solid", was, map[string]string{strings.TrimSpace(field): text})
		assert.ErrorContains(t, err, strings.TrimSpace(field)+":")
	}
	_, err = fill(w, "solid", []byte("{"), nil)
	assert.ErrorContains(t, err, "load the page again")
	_, err = fill(w, "dragon", was, nil)
	assert.Error(t, err)
}

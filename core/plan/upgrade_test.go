package plan

import (
	"encoding/json"
	"os"
	"reflect"
	"strings"
	"testing"

	"zapbarn/core/form"
	"zapbarn/core/measure"
	"zapbarn/core/pattern"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Up to format 1 a box's height left out its lid. What was cut then is cut
// still: walls of 26 1/2 in under a lid of 1 in, 27 1/2 in outside.
func TestALidIsCountedSinceFormat2(t *testing.T) {
	for raw, want := range map[string]string{
		`{"kind":"box","lid":true,"h":"26 1/2 in","stock":"xps1"}`:    `27 1/2"`,
		`{"kind":"box","lid":true,"h":"600 mm","stock":"ply1/2"}`:     "612.7 mm",
		`{"kind":"box","lid":true,"h":"0.3333 in","stock":"xps1/2"}`:  "21.1658 mm", // 0.3333 x 25.4 + 12.7
		`{"kind":"box","lid":false,"h":"26 1/2 in","stock":"xps1"}`:   "26 1/2 in",
		`{"kind":"tower","lid":true,"h":"26 1/2 in","stock":"xps1"}`:  "26 1/2 in",
		`{"kind":"box","lid":true,"h":"tall","stock":"xps1"}`:         "tall",
		`{"kind":"box","lid":true,"h":"26 1/2 in","stock":"granite"}`: "26 1/2 in",
	} {
		var got map[string]any
		require.NoError(t, json.Unmarshal(Upgraded("solid", json.RawMessage(raw), 1), &got))
		assert.Equal(t, want, got["h"], raw)
		assert.Equal(t, raw, string(Upgraded("solid", json.RawMessage(raw), 2)), "the newest format stays as it is")
		assert.JSONEq(t, raw, string(Upgraded("device", json.RawMessage(raw), 1)))
	}
	assert.Equal(t, "not JSON", string(Upgraded("solid", json.RawMessage("not JSON"), 1)))

	old, err := os.ReadFile("testdata/plans/apiary-5.json")
	require.NoError(t, err)
	require.Contains(t, string(old), `"format": "zapbarn-plan/1"`)
	p, err := Decode(old)
	require.NoError(t, err)
	shape, err := p.Solid("riser-box").Shape(shop.Kept)
	require.NoError(t, err)
	assert.InDelta(t, 27.5*25.4, shape.Size.Z, 1e-9)
	for _, part := range shape.Panels {
		if part.ID == "front" {
			_, hi := bounds(part.Outline)
			assert.InDelta(t, 26.5*25.4, hi, 1e-9)
		}
	}
}

func bounds(o []pattern.Point) (low, high float64) {
	low, high = o[0].Y, o[0].Y
	for _, q := range o {
		low, high = min(low, q.Y), max(high, q.Y)
	}
	return
}

func TestAFormatThatIsNoneIsNamed(t *testing.T) {
	for text, want := range map[string]string{"other/1": "is not a plan", "zapbarn-plan/3": "newer version",
		"zapbarn-plan/0": "is not a plan", "zapbarn-plan/x": "is not a plan"} {
		_, err := Decode([]byte(`{"format":"` + text + `","display":{"id":"x","name":"X","units":"in"}}`))
		var f *measure.FieldError
		require.ErrorAs(t, err, &f, text)
		assert.Equal(t, "format", f.Field)
		assert.Contains(t, f.Why, want)
	}
}

// In files a form's fields stand among the solid's own: no name is in both, and
// one name has one type in every form.
func TestFormFieldsHaveTheirOwnNames(t *testing.T) {
	own, seen := jsonFields(reflect.TypeFor[Solid]()), map[string]reflect.Type{}
	for _, n := range form.Names() {
		k, _ := form.Of(n)
		ft := reflect.TypeOf(k.Blank)
		assert.True(t, ft.Comparable(), "%s: a shape is kept by its form", n)
		for i := range ft.NumField() {
			name, _, _ := strings.Cut(ft.Field(i).Tag.Get("json"), ",")
			assert.False(t, own[name], "%s.%s", n, name)
			if was, ok := seen[name]; ok {
				assert.Equal(t, was, ft.Field(i).Type, "%s.%s", n, name)
			}
			seen[name] = ft.Field(i).Type
		}
	}
}

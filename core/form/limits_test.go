package form

import (
	"flag"
	"fmt"
	"math"
	"os"
	"reflect"
	"strings"
	"testing"

	"zapbarn/core/measure"
	"zapbarn/core/stock"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var freeze = flag.Bool("freeze", false, "write testdata/limits.txt anew; read the difference")

// example is a kind's own example, and the stock it is made of.
func example(t *testing.T, k Kind) (Form, stock.Material) {
	text, _, _ := strings.Cut(k.Example, " (or")
	list := strings.Fields(text)
	if k.Form == "pipe" { // its stock is no word of the form's
		list = list[:len(list)-1]
	}
	return read(t, strings.Join(list, " ")), stock.Shop.Materials[k.Stock]
}

// edge is the size next to which a form goes from one that can be to one that cannot, between one
// that can and one that cannot, to a twentieth of a millimetre.
func edge(can, not float64, lays func(mm float64) bool) float64 {
	for math.Abs(can-not) > .05 {
		if mid := (can + not) / 2; lays(mid) {
			can = mid
		} else {
			not = mid
		}
	}
	return can
}

// The sizes that each form can be made in, from the smallest to the largest, one at a time with
// the others as in its example, and what the example comes to: parts, faces, volume, seams. The
// limits are those of the trade's sheets and of what is refused; the file is to be read.
func TestLimitsOfForms(t *testing.T) {
	var out strings.Builder
	for _, name := range Names() {
		k, _ := Of(name)
		if k.Read == nil {
			continue
		}
		f, m := example(t, k)
		s, err := Lay(f, On{Stock: m})
		require.NoError(t, err, name)
		area, volume, around := 0.0, 0.0, 0.0
		for _, p := range s.Panels {
			area, volume, around = area+p.Area()*float64(p.Copies), volume+p.Volume()*float64(p.Copies), around+p.Around()
		}
		for _, c := range s.Cuts {
			around += c.Length * float64(c.Count)
		}
		seams := 0.0
		for _, l := range s.Lines {
			seams += l.Length
		}
		fmt.Fprintf(&out, "%s: %d panels, %.4g mm2, %.4g mm3, %.4g mm round, seams %.4g mm, %.4g x %.4g x %.4g, %d steps\n",
			name, len(s.Panels), area, volume, around, seams, s.Size.X, s.Size.Y, s.Size.Z, len(Steps(f, s)))
		v := reflect.ValueOf(f)
		for i := range v.NumField() {
			l, ok := v.Field(i).Interface().(measure.Length)
			if !ok || l.IsZero() {
				continue
			}
			lays := func(size float64) bool {
				c := reflect.New(v.Type()).Elem()
				c.Set(v)
				c.Field(i).Set(reflect.ValueOf(mm(size)))
				_, err := Lay(c.Interface().(Form), On{Stock: m})
				return err == nil
			}
			least, most := 0.0, math.Inf(1)
			if !lays(.01) {
				least = edge(l.Value(), .01, lays)
			}
			if !lays(100_000) {
				most = edge(l.Value(), 100_000, lays)
			}
			fmt.Fprintf(&out, "  %s from %.4g to %.5g mm\n", strings.ToLower(v.Type().Field(i).Name), least, most)
		}
	}
	const file = "testdata/limits.txt"
	if *freeze {
		require.NoError(t, os.MkdirAll("testdata", 0o750))
		require.NoError(t, os.WriteFile(file, []byte(out.String()), 0o600))
	}
	want, err := os.ReadFile(file)
	require.NoError(t, err)
	was, now := strings.Split(string(want), "\n"), strings.Split(out.String(), "\n")
	for i := range min(len(was), len(now)) {
		assert.Equal(t, was[i], now[i], "go test ./core/form -freeze, and read the difference")
	}
	assert.Len(t, now, len(was))
	assert.NotContains(t, out.String(), "to +Inf", "every size ends somewhere")
}

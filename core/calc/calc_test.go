package calc

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// One worked example a calculator, from the tables named in the packages that
// do the sums.
type m = map[string]string

var examples = map[string]struct {
	args m
	key  string
	want string
}{
	"length":         {m{"of": `4'6"`}, "length", `54" = 1371.6 mm`},
	"box":            {m{"w": "22", "d": "18", "h": "26 1/2", "joint": "rabbet"}, "side", `17"`},
	"tower":          {m{"n": "4", "h": "10 in", "bottom": "24 in", "top": "4 in", "t": "1/2 in"}, "tilt", "30°"},
	"compound":       {m{"slope": "52"}, "cut", "31.6°"},
	"near-stop":      {m{"tilt": "43.2"}, "gap", "2.26 mm"},
	"disc":           {m{"d": "36 in"}, "disc", `36" x 36"`},
	"rings":          {m{"bottom": "24", "top": "24", "h": "30", "wall": "3"}, "layers", "15"},
	"pipe":           {m{"size": "1.5"}, "bore", "1.61 in"},
	"pipe-cut":       {m{"lengths": "6@44in,4@60in"}, "bars", "5, proven least"},
	"wire":           {m{"gauge": "18awg", "length": "1 m"}, "ohms", "41.9 mohm"},
	"gauge":          {m{"length": "10 ft", "amps": "2 A"}, "gauge", "18 AWG"},
	"led":            {m{"n": "3"}, "resistor", "120 ohm, 0.125 W"},
	"fuse":           {m{"amps": "2 A", "gauge": "22awg"}, "fuse", "3 A"},
	"glue":           {m{"a": "xps1", "b": "xps1", "glue": "contact"}, "verdict", "no"},
	"dry":            {m{"temp": "21 C", "rh": "50"}, "wait", "2 h"},
	"gores":          {m{"profile": "4,0 4,20", "n": "6"}, "bevel", "30°"},
	"slices":         {m{"w": "46 in", "h": "54 in"}, "layers", "27"},
	"cone":           {m{"bottom": "600 mm", "h": "400 mm", "t": "0.001 mm"}, "angle", "216°"},
	"wrap":           {m{"d": "200 mm", "h": "300 mm", "t": "10 mm", "kerf": "3 mm", "skin": "2 mm"}, "kerfs", "17"},
	"boards":         {m{"d": "8 ft"}, "string", `48"`},
	"layers":         {m{"want": "3 1/2"}, "layers", `4, 1/2" too thick`},
	"discs-in-disc":  {m{"n": "7", "d": "1 in"}, "holder", `3"`},
	"rings-at-pitch": {m{"height": "1000 mm", "pitch": "100 mm", "pole": "40 mm", "d": "10 mm"}, "rings", "10"},
	"scales": {
		m{"w": "600 mm", "h": "500 mm", "wide": "100 mm", "tall": "100 mm", "show": "50 mm"},
		"scales",
		"58",
	},
	"banding":     {m{"w": "22", "d": "18", "t": "1/2"}, "long", `23"`},
	"armature":    {m{"path": "40 in", "strands": "1"}, "wire", `3' 4"`},
	"sound":       {m{"level": "92", "at": "10 m"}, "guests", "72 dB"},
	"fog":         {m{"runs": "100", "rate": "20", "burst": "3 s"}, "fluid", "100 mL"},
	"fog-split":   {m{"a": "4 m", "b": "1 m"}, "share", "33 %"},
	"matrix":      {m{"columns": "64", "rows": "16"}, "refresh", "977 times a second"},
	"lever":       {m{"mass": "2", "reach": "300 mm", "friction": "0"}, "torque", "5.88 N m"},
	"hangers":     {m{"length": "48 in", "n": "5", "inset": "4 in"}, "gap", `10"`},
	"wedge":       {m{"base": "24 in", "rise": "2 in"}, "height", `1"`},
	"hollow":      {m{"thick": "2 in", "depth": "1 in"}, "left", `1"`},
	"screen":      {m{"diagonal": "24 in"}, "w", `20 15/16"`},
	"fit":         {m{"hole": "40.9 mm"}, "cut", "41.4 mm"},
	"scale":       {m{"known": "10 ft", "ref": "20 in", "other": "3 in"}, "length", `18"`},
	"battery":     {m{"cell": "aa", "amps": "100 mA"}, "hours", "20 h"},
	"strip-feeds": {m{"amps": "4 A", "ohms": "1.2"}, "feeds", "2, at the middles of 2 equal parts"},
	"outline":     {m{"path": "0,0 10,0 10,20 0,20", "h": "20 in"}, "face", "1.39 sq ft"},
	"overbend":    {m{"thick": "0.0359 in", "radius": "0.5 in", "metal": "steel"}, "opens", "13.36 mm"},
	"staves":      {m{"d": "24 in", "h": "30 in", "n": "12", "t": "1 in"}, "tilt", "15°"},
	"seam":        {m{"w": "40 in", "h": "120 in"}, "panel-1", `40" x 61"`},
	"grid":        {m{"known": "10 ft", "ref": "20 in", "throw": "1.5"}, "throw", `72"`},
	"glue-use":    {m{"glue": "pva", "length": "1 m", "width": "1 m"}, "takes", "200 mL"},
	"foam-cans":   {m{"w": "200 mm", "d": "200 mm", "h": "500 mm"}, "cans", "3 cans"},
	"led-rows":    {m{"count": "8"}, "rows", "2 x 3 with 120 ohm 0.125 W; 1 x 2 with 300 ohm 0.25 W"},
	"pixel-line":  {m{"count": "60", "amps": "1 A"}, "bright", "20 % of full white"},
	"outlet":      {m{"watts": "1500"}, "amps", "12.5 A, TOO MUCH for one circuit"},
}

func TestWorkedExamples(t *testing.T) {
	for name, c := range examples {
		calc, err := Named(name)
		require.NoError(t, err)
		rs, err := calc.Run(c.args)
		require.NoError(t, err, name)
		found := false
		for _, r := range rs {
			assert.NotEmpty(t, r.Steps, name)
			if r.Key.What == c.key {
				found = true
				assert.Equal(t, c.want, r.Text, name)
			}
		}
		assert.True(t, found, name)
	}
	assert.Len(t, List(), 49, "each calculator has its example here")
}

// Nonsense in any parameter names that parameter.
func TestBadInputNamesTheParameter(t *testing.T) {
	texts := map[string]string{
		"a":       "xps1",
		"b":       "ply1/4",
		"glue":    "pu",
		"lengths": "6@44in",
		"size":    "1",
		"profile": "egg",
		"kind":    "press",
		"aspect":  "16:9",
		"cell":    "aa",
		"path":    "0,0 9,0 5,5",
	}
	for _, c := range List() {
		for _, p := range c.Params {
			args := map[string]string{}
			for _, q := range c.Params {
				if q.Default == "" {
					args[q.Name] = map[string]string{"length": "10 in", "gauge": "18awg", "amps": "1 A", "volts": "12 V",
						"temp": "20 C", "number": "30", "count": "4", "time": "1 h", "ohms": "1 ohm", "watts": "100 W", "angle": "30",
						"percent": "50", "hours": "4", "text": texts[q.Name]}[q.Kind]
				}
			}
			for _, bad := range outOfDomain[p.Kind] { // its own name, what it is, what is accepted
				args[p.Name] = bad
				_, err := c.Run(args)
				if assert.Error(t, err, "%s %s=%s", c.Name, p.Name, bad) {
					assert.Contains(t, err.Error(), p.Name+":", "%s %s=%s", c.Name, p.Name, bad)
				}
			}
			args[p.Name] = "???"
			_, err := c.Run(args)
			require.Error(t, err, "%s %s", c.Name, p.Name)
			if p.Kind != "text" {
				assert.Contains(t, err.Error(), p.Name+":", "%s %s", c.Name, p.Name)
			}
		}
		_, err := c.Run(map[string]string{"bogus": "1"})
		assert.Error(t, err)
	}
	_, err := Named("divination")
	assert.ErrorContains(t, err, "choose")
}

// outOfDomain is what no parameter of a kind takes: negative, enormous, with
// the unit of something else.
var outOfDomain = map[string][]string{
	"length": {
		"-3 in",
		"1e6 m",
		"600W",
		"80%",
	}, "volts": {"-5 V", "2000 V", "5 A"}, "amps": {"-1 A", "5000 A", "1 V"}, "ohms": {"-1 ohm", "3 W"},
	"watts": {"-5 W", "900 kW", "3 V"},
	"angle": {
		"400",
		"-361 deg",
		"80%",
	}, "percent": {"101", "-1%", "80 W"}, "hours": {"-1", "1e6", "4 W"}, "time": {"2", "-2 h", "9000 days"},
	"temp":   {"400 C", "-80 C"},
	"number": {"-1", "1e9", "600W", "80%", "0x10", "NaN"}, "count": {"-1", "2.5", "1e9", "3 W"},
}

// Units mean what they say; a bare length and the answers are in the units
// asked for, or else in those of what was written.
func TestUnitsMeanWhatTheySay(t *testing.T) {
	run := func(name, units string, args map[string]string) string {
		k, err := Named(name)
		require.NoError(t, err)
		_, _, rs, err := k.Lay(args, units)
		require.NoError(t, err, "%s %v", name, args)
		out := ""
		for _, r := range rs {
			out += r.Text + " "
			for _, s := range r.Steps {
				out += s.Numbers + " " + s.Value + " "
			}
		}
		assert.NotContains(t, out, "⟦")
		return out
	}
	assert.Equal(
		t,
		run("outlet", "", map[string]string{"watts": "600W"}),
		run("outlet", "", map[string]string{"watts": "0.6 kW"}),
	)
	assert.Equal(
		t,
		run("strip-feeds", "", map[string]string{"amps": "4 A", "ohms": "0.3ohm", "volts": "12"}),
		run("strip-feeds", "", map[string]string{"amps": "4000 mA", "ohms": "300 mohm", "volts": "12 V"}),
	)
	assert.Equal(
		t,
		run("compound", "", map[string]string{"slope": "80"}),
		run("compound", "", map[string]string{"slope": "80deg"}),
	)
	assert.Equal(
		t,
		run("dry", "", map[string]string{"temp": "15 C", "rh": "80", "wait": "2 h"}),
		run("dry", "", map[string]string{"temp": "15 C", "rh": "80%", "wait": "2 h"}),
	)
	metric := run("tower", "mm", map[string]string{"h": "1200", "bottom": "500", "top": "230", "t": "25"})
	assert.Equal(
		t,
		metric,
		run("tower", "", map[string]string{"h": "1200 mm", "bottom": "50 cm", "top": "230 mm", "t": "2.5 cm"}),
	)
	assert.NotContains(t, metric, `"`)
	assert.Contains(t, run("tower", "in", map[string]string{"h": "48", "bottom": "20", "top": "9"}), `"`)
}

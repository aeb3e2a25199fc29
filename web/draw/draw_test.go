package draw

import (
	"encoding/xml"
	"fmt"
	"io"
	"math"
	"regexp"
	"strconv"
	"strings"
	"testing"
	"time"

	"zapbarn/core/calc"
	"zapbarn/core/check"
	"zapbarn/core/form"
	"zapbarn/core/measure"
	"zapbarn/core/order"
	"zapbarn/core/plan"
	"zapbarn/core/show"
	"zapbarn/core/work"
	"zapbarn/demo"
	"zapbarn/testkit/shop"
	"zapbarn/testkit/wirings"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var today = time.Date(2026, 9, 20, 0, 0, 0, 0, time.UTC)

func worked(p *plan.Plan) *work.Work { return work.Do(p, shop.Kept, today) }

func to(key string) string { return "?sel=" + key }

// node is one element of a drawing read back with the standard XML parser.
type node struct {
	name, text string
	attr       map[string]string
	in         []string // the data-keys it stands in
}

func parse(t *testing.T, svg string) []node {
	d := xml.NewDecoder(strings.NewReader(svg))
	var out []node
	var keys []string
	var stack []int
	for {
		tok, err := d.Token()
		if err == io.EOF {
			return out
		}
		require.NoError(t, err, "well-formed XML")
		switch x := tok.(type) {
		case xml.StartElement:
			n := node{name: x.Name.Local, attr: map[string]string{}}
			for _, a := range x.Attr {
				n.attr[a.Name.Local] = a.Value
			}
			if k := n.attr["data-key"]; k != "" {
				keys = append(keys, k)
			}
			n.in = append([]string(nil), keys...)
			out = append(out, n)
			stack = append(stack, len(out)-1)
		case xml.EndElement:
			if out[stack[len(stack)-1]].attr["data-key"] != "" {
				keys = keys[:len(keys)-1]
			}
			stack = stack[:len(stack)-1]
		case xml.CharData:
			if len(stack) > 0 {
				out[stack[len(stack)-1]].text += string(x)
			}
		}
	}
}

func extent(n node) (w, h float64) {
	lo, hi := [2]float64{math.Inf(1), math.Inf(1)}, [2]float64{math.Inf(-1), math.Inf(-1)}
	for _, m := range regexp.MustCompile(`(-?[\d.]+),(-?[\d.]+)`).FindAllStringSubmatch(n.attr["points"], -1) {
		for i := range 2 {
			v, _ := strconv.ParseFloat(m[i+1], 64)
			lo[i], hi[i] = math.Min(lo[i], v), math.Max(hi[i], v)
		}
	}
	return hi[0] - lo[0], hi[1] - lo[1]
}

// tapeScale reads px per mm off the drawing's own tape: the distance from one
// foot label to the next.
func tapeScale(t *testing.T, nodes []node) float64 {
	var xs []float64
	for _, n := range nodes {
		if n.name == "text" && n.attr["class"] == "tapetext" && n.attr["y"] == "18" {
			x, _ := strconv.ParseFloat(n.attr["x"], 64)
			v, err := strconv.ParseFloat(strings.Fields(n.text)[0], 64)
			require.NoError(t, err)
			xs = append(xs, x, v)
		}
	}
	require.GreaterOrEqual(t, len(xs), 4)
	return (xs[2] - xs[0]) / (xs[3] - xs[1]) / measure.Foot
}

// The flat pattern measured by its own tape is the part's true size.
func TestFlatPatternIsToTheTape(t *testing.T) {
	w := worked(demo.Apiary(today).In(shop.Kept))
	for _, ref := range []string{"riser-box/front", "riser-box/lid", "gate-pillar/face"} {
		part := w.Part(ref)
		nodes := parse(t, Parts(w, part, to))
		px := tapeScale(t, nodes)
		var cut *node
		for i := range nodes {
			if strings.HasPrefix(nodes[i].attr["class"], "cut m-") && cut == nil && len(nodes[i].in) == 0 {
				cut = &nodes[i]
			}
		}
		require.NotNil(t, cut, ref)
		lo, hi := part.Panel.Bounds()
		gw, gh := extent(*cut)
		assert.InDelta(t, hi.X-lo.X, gw/px, 2, ref)
		if part.Panel.Inside == nil {
			assert.InDelta(t, hi.Y-lo.Y, gh/px, 2, ref)
		}
	}
}

// Front view and person stand on one ground at the tape's scale.
func TestFrontViewAndPersonAreToTheTape(t *testing.T) {
	w := worked(demo.Apiary(today).In(shop.Kept))
	iso, front := Whole(w, "riser", "", "", to)
	nodes := parse(t, front)
	px := tapeScale(t, nodes)
	widest := 0.0
	for _, n := range nodes {
		if strings.HasPrefix(n.attr["class"], "m m-foam") {
			gw, _ := extent(n)
			widest = math.Max(widest, gw)
		}
	}
	assert.InDelta(t, 25*measure.Inch, widest/px, 2, "the lid is the widest")
	size, ok := check.Extent(w, "riser")
	require.True(t, ok)
	assert.Contains(t, front, measure.Tape(size.Z, false)[:4])
	keys := map[string]bool{}
	for _, n := range parse(t, iso) {
		if k := n.attr["data-key"]; k != "" {
			keys[k] = true
			assert.Equal(t, "?sel="+k, n.attr["href"])
			assert.NotEmpty(t, n.attr["aria-label"])
		}
	}
	assert.Len(t, keys, 6, "each part of the box is a link")
}

// However its parts stand, the width's dimension ends where the drawing does.
func TestDimensionLiesOverThePartsItMeasures(t *testing.T) {
	p := demo.Apiary(today).In(shop.Kept)
	for i := range p.Solids() {
		if s := &p.Solids()[i]; s.Prop == "riser" {
			s.X, _ = measure.ParseLengthIn("40 in", "in")
		}
	}
	_, front := Whole(worked(p), "riser", "", "", to)
	lo, hi, left, right := math.Inf(1), math.Inf(-1), 0.0, 0.0
	for _, n := range parse(t, front) {
		if strings.HasPrefix(n.attr["class"], "m m-foam") {
			for _, m := range regexp.MustCompile(`(-?[\d.]+),`).FindAllStringSubmatch(n.attr["points"], -1) {
				x, _ := strconv.ParseFloat(m[1], 64)
				lo, hi = math.Min(lo, x), math.Max(hi, x)
			}
		}
		if n.attr["class"] == "dim" && n.attr["y1"] == n.attr["y2"] {
			a, _ := strconv.ParseFloat(n.attr["x1"], 64)
			b, _ := strconv.ParseFloat(n.attr["x2"], 64)
			if math.Abs(b-a) > right-left {
				left, right = math.Min(a, b), math.Max(a, b)
			}
		}
	}
	assert.InDelta(t, lo, left, 1)
	assert.InDelta(t, hi, right, 1)
}

// Every copy of every part is drawn once on the sheets, inside its sheet.
func TestSheetsShowEveryPiece(t *testing.T) {
	w := worked(demo.Apiary(today).In(shop.Kept))
	want := 0
	for _, s := range w.Sheets() {
		want += len(s.Pieces) - len(s.Layout.TooLarge)
	}
	got := 0
	for _, n := range parse(t, Sheets(w, "riser", "", to)) {
		if n.name == "a" {
			got++
		}
	}
	assert.Equal(t, want, got)
}

// The harness shows each device once, its state by shape and by word.
func TestHarnessShowsEveryDeviceOnce(t *testing.T) {
	w := worked(demo.Apiary(today).In(shop.Kept))
	svg := Harness(w, w.All(), "shelf", "device:jar-8", to)
	seen := map[string]int{}
	for _, n := range parse(t, svg) {
		if n.name == "a" {
			seen[n.attr["data-key"]]++
		}
	}
	assert.Equal(t, 1, seen[""], "the grip of the jars' run, which slides where it is fed")
	for _, d := range w.Plan.Devices() {
		if d.Prop == "shelf" {
			assert.Equal(t, 1, seen["device:"+d.ID], d.ID)
		}
	}
	assert.Equal(t, 1, strings.Count(svg, `l-reversed"`))
	assert.Contains(t, svg, ">reversed</text>")
	comb := Harness(w, w.All(), "comb", "", to)
	for _, want := range []string{">X1</text>", ">U1</text>", "data from U1 pin 1", "72 pixels held to 60 %",
		"arrowline"} {
		assert.Contains(t, comb, want)
	}
	assert.Equal(t, 2, strings.Count(comb, `class="splice" cx`)-1, "two feeds, and the tap of the controller")
	routes := Routes(w, "comb")
	assert.Equal(t, 2, strings.Count(routes, `class="route"`), "the feed in both views")
	assert.True(t, strings.Contains(routes, "W4  43&#34;"), "20 in across the floor and 23 in up")
	assert.Empty(t, Routes(w, "shelf"), "no path drawn yet")
	for _, d := range []string{"cells", "jar-9", "W3"} {
		assert.Contains(t, Profile(w, w.All(), d), "Volts from S", d)
	}
	empty := Harness(w, w.All(), "skep", "", to)
	assert.Contains(t, empty, "supply 12v 5a", "an empty board says what to type")
	profile := Profile(w, w.All(), "W2")
	assert.Contains(t, profile, "3 % line 11.64 V")
	assert.Empty(t, Profile(w, w.All(), "S1"))
}

func TestRehearsalDrawing(t *testing.T) {
	w := worked(demo.Apiary(today).In(shop.Kept))
	tr, contacts := w.Machine().Contacts(show.Press("mat", 1000, 200), 8000)
	svg := Rehearsal(w, Playing{Contacts: contacts, Trace: tr, Frames: w.Frames(tr), At: 2000, Prop: "riser", Broken: -1,
		Props: map[string]bool{"riser": true, "shelf": true}})
	nodes := parse(t, svg)
	lamps, on := 0, 0
	for _, n := range nodes {
		if n.attr["data-lamp"] != "" {
			lamps++
		}
		if n.attr["class"] == "span on" {
			on++
		}
	}
	assert.Equal(t, 29, lamps, "of what is shown")
	assert.Equal(t, 4, on, "glow, frames up and down, hum; the fill is another prop's")
}

// Odd plans draw without fault: half known, empty, enormous, metric.
func TestOddPlansDraw(t *testing.T) {
	p := demo.Metric(today).In(shop.Kept)
	p.Doc().Solids = append(
		p.Solids(),
		plan.Solid{
			ID:    "half",
			Prop:  "hopper",
			Name:  "<Half & \"known\">",
			Kind:  "box",
			Stock: "xps1",
			Form:  form.Box{},
		},
	)
	p.Doc().Props = append(p.Props(), plan.Prop{ID: "empty", Name: "Empty"}, plan.Prop{ID: "big", Name: "Big"})
	p.Doc().Solids = append(
		p.Solids(),
		plan.Solid{
			ID:    "b",
			Prop:  "big",
			Name:  "B",
			Kind:  "panel",
			Stock: "ply1/4",
			Form:  form.Panel{W: measure.Len("20 m"), H: measure.Len("3 mm")},
		},
	)
	require.NoError(t, p.Validate())
	w := worked(p)
	for _, id := range []string{"hopper", "empty", "big"} {
		iso, front := Whole(w, id, "", "", to)
		for _, svg := range []string{front, Sheets(w, id, "", to), Harness(w, w.All(), id, "", to),
			RowsOf(w).Barn(w, 0, "", to, func(string) [4]string { return [4]string{"done", "snag", "none", "none"} })} {
			parse(t, svg)
			assert.NotContains(t, svg, "NaN")
			assert.NotContains(t, svg, "Inf")
		}
		if iso != "" {
			parse(t, iso)
		}
	}
	for _, part := range w.Parts() {
		parse(t, Parts(w, part, to))
	}
}

func BenchmarkDraw(b *testing.B) {
	w := worked(demo.Apiary(today).In(shop.Kept))
	b.Run("barn", func(b *testing.B) {
		b.ReportAllocs()
		for b.Loop() {
			RowsOf(w).Barn(w, 0, "", to, func(string) [4]string { return [4]string{} })
		}
	})
	b.Run("harness", func(b *testing.B) {
		b.ReportAllocs()
		for b.Loop() {
			Harness(w, w.All(), "shelf", "", to)
		}
	})
}

// Every kind of solid draws whole, flat and on its sheet, its parts as links.
func TestEveryKindDraws(t *testing.T) {
	l := measure.Len
	p := plan.New("k", "Kinds", "in", "").In(shop.Kept)
	for _, s := range []plan.Solid{
		{Kind: "box", Form: form.Box{W: l("12"), D: l("10"), H: l("9"), Joint: "mitre", Lid: true, Bottom: true}},
		{Kind: "tower", Form: form.Tower{Sides: 5, H: l("30"), Low: l("14"), High: l("8")}},
		{Kind: "disc", Form: form.Disc{W: l("18"), Bore: l("4"), Copies: 3, Upright: true}},
		{Kind: "rings", Form: form.Rings{Low: l("20"), High: l("10"), H: l("12"), Wall: l("2")}},
		{Kind: "panel", Form: form.Panel{W: l("20"), H: l("8"), Copies: 2, Lying: true}},
		{Kind: "gores", Form: form.Gores{Profile: "onion", W: l("16"), H: l("20"), Sides: 9}},
		{Kind: "gores", Form: form.Gores{Profile: "0,0 6,2 6,8 0,12", Sides: 6, Crease: true}},
		{Kind: "slices", Form: form.Slices{Profile: "bell", W: l("20"), H: l("18"), Wall: l("2")}},
		{Kind: "cone", Form: form.Cone{Low: l("14"), H: l("12")}},
		{Kind: "wrap", Form: form.Wrap{W: l("8"), H: l("10")}},
		{Kind: "wrap", Form: form.Wrap{W: l("10"), H: l("10"), Skin: l("1/8")}},
		{Kind: "boards", Form: form.Boards{W: l("60"), Offset: l("2")}},
		{Kind: "outline", Form: form.Outline{H: l("30"), Pair: true, Path: "0,0 10,0 10,10 0,10; 3,3 7,3 7,7 3,7"}},
		{Kind: "outline", Form: form.Outline{H: l("6"), Copies: 9, Bore: l("20"), Path: "0,0 2,0 1,8"}},
		{Kind: "panel", Seam: "half-lap", Form: form.Panel{W: l("20"), H: l("120")}},
		{Kind: "tower", Seam: "butt", Form: form.Tower{Sides: 4, H: l("130"), Low: l("30"), High: l("20")}},
		{Kind: "mesh", Form: form.Mesh{H: l("12"), Wall: l("1"),
			Mesh: demo.Apiary(time.Now()).In(shop.Kept).Solid("keeper-head").Form.(form.Mesh).Mesh}},
	} {
		s.ID = plan.Slug(s.Kind + "-" + string(rune('a'+len(p.Solids()))))
		s.Name, s.Prop, s.Stock = s.ID, s.ID, "xps1"
		if s.Kind == "wrap" {
			s.Stock = map[bool]string{true: "eva5roll", false: "ply1/4"}[s.Length("skin").IsZero()]
		}
		p.Doc().Props = append(p.Props(), plan.Prop{ID: s.ID, Name: s.ID})
		p.Doc().Solids = append(p.Solids(), s)
	}
	require.NoError(t, p.Validate())
	w := worked(p)
	for _, s := range p.Solids() {
		iso, front := Whole(w, s.ID, "", "", to)
		for _, svg := range []string{iso, front} {
			nodes := parse(t, svg)
			polygons := 0
			for _, n := range nodes {
				if n.name == "polygon" {
					polygons++
				}
			}
			assert.Greater(t, polygons, 0, s.ID)
			assert.NotContains(t, svg, "NaN", s.ID)
		}
		for _, panel := range w.Shapes()[s.ID].Panels {
			part := w.Part(s.ID + "/" + panel.ID)
			require.NotNil(t, part)
			svg := Parts(w, part, to)
			parse(t, svg)
			assert.NotContains(t, svg, "NaN")
			assert.Regexp(t, "OUTSIDE|TOP", svg, s.ID)
		}
	}
}

// Every pattern calculator has its picture, and what it draws is sound SVG.
func TestEveryPatternHasItsPicture(t *testing.T) {
	args := map[string]map[string]string{
		"box": {
			"w": "22",
			"d": "18",
			"h": "26",
		}, "tower": {"h": "48", "bottom": "20", "top": "9"}, "disc": {"d": "36"},
		"rings": {"bottom": "24", "top": "18", "h": "30", "wall": "3"}, "gores": {"w": "36", "h": "30"},
		"slices": {"w": "46", "h": "54"},
		"cone": {
			"bottom": "24",
			"h":      "18",
		}, "wrap": {"d": "12", "h": "30"}, "boards": {"d": "8 ft"}, "outline": {"path": "0,0 10,0 5,20", "h": "40"},
		"staves": {"d": "24", "h": "30"}, "seam": {"w": "40", "h": "120"},
		"layers": {
			"want": "3 1/2",
		}, "rings-at-pitch": {"height": "60", "pitch": "4", "pole": "2", "d": "1/2"},
		"scales":  {"w": "60", "h": "40", "wide": "6", "tall": "8", "show": "5"},
		"banding": {"w": "24", "d": "18", "t": "1/4"}, "armature": {"path": "40"},
		"hangers": {
			"length": "48",
			"n":      "5",
		}, "wedge": {"base": "24", "rise": "2"}, "hollow": {"thick": "2", "depth": "1"}, "screen": {"diagonal": "24"},
		"fit": {
			"hole": "2",
		}, "discs-in-disc": {"n": "7", "d": "1"}, "scale": {"known": "10 ft", "ref": "20", "other": "3"},
		"grid": {"known": "10 ft", "ref": "20"},
	}
	for name, a := range args {
		c, err := calc.Named(name)
		require.NoError(t, err)
		in, shape, _, err := c.Lay(a, "")
		require.NoError(t, err, name)
		svg := ""
		if shape != nil {
			svg = Shape(shape)
		} else {
			svg = Sum(name, in.N, in.T)
		}
		require.NotEmpty(t, svg, name)
		assert.Greater(t, len(parse(t, svg)), 6, name)
		assert.NotContains(t, svg, "NaN", name)
	}
	assert.Empty(
		t,
		Sum("fuse", func(string) float64 { return 1 }, func(string) string { return "" }),
		"a fuse is no pattern",
	)
}

// Motors, coils, screens and loudspeakers are drawn as what they are and their
// states said in words that fit; several at one place do not cover each other.
func TestLoadsThatAreNoLamps(t *testing.T) {
	p := plan.New("x", "X", "in", "").In(shop.Kept)
	p.Doc().Props = []plan.Prop{{ID: "a", Name: "A"}}
	l, g := measure.Len, measure.Must[measure.GaugeKind]
	for _, d := range []plan.Device{{ID: "S", Kind: "supply", Product: "ps12-2"},
		{ID: "W", Kind: "run", From: "S", Gauge: g("22 AWG"), Length: l("50 ft")},
		{ID: "M", Kind: "lamp", From: "W", Product: "motor12"}, {ID: "D", Kind: "lamp", From: "W", Product: "screen12"},
		{ID: "A", Kind: "lamp", From: "W", Product: "amp12"},
		{ID: "C", Kind: "lamp", From: "W", Product: "relay12"}, {ID: "R", Kind: "run", From: "W", Gauge: g("22 AWG"),
			Length: l("5 ft")}, {ID: "V", Kind: "lamp", From: "R", Product: "servo5"}} {
		d.Prop, d.Name = "a", d.ID
		p.Doc().Devices = append(p.Devices(), d)
	}
	require.NoError(t, p.Validate())
	w := worked(p)
	svg := Harness(w, w.All(), "a", "", to)
	assert.Equal(t, 5, strings.Count(svg, `class="lampbox w-`))
	assert.NotContains(t, svg, `class="flame"`)
	assert.NotContains(t, svg, `class="glow`)
	assert.Regexp(t, `data-volts="M">(slow|stands)<`, svg)
	places := map[string]bool{}
	for _, n := range parse(t, svg) {
		if c := n.attr["class"]; n.name == "path" && strings.HasPrefix(c, "lampbox w-") {
			at, _, _ := strings.Cut(n.attr["d"], "m")
			assert.False(t, places[at], at)
			places[at] = true
		}
	}
}

// All props stand on the rows, each once, none wider than its room; few stand
// on one ground line, many on several at one scale that tells them apart.
func TestBarnRows(t *testing.T) {
	for times, want := range map[int]int{1: 1, 8: 0} {
		p := wirings.Times(demo.Apiary(today).In(shop.Kept), times)
		b := RowsOf(work.Do(p, shop.Kept, today))
		if want > 0 {
			assert.Len(t, b.Rows, want)
		} else {
			assert.Greater(t, len(b.Rows), 3)
		}
		assert.GreaterOrEqual(t, b.Scale, leastBarn)
		n := 0
		for _, row := range b.Rows {
			wide := 0.0
			for _, it := range row {
				wide += it.slot(b.Scale)
			}
			assert.LessOrEqual(t, wide, barnRoom)
			n += len(row)
		}
		assert.Equal(t, len(p.Props()), n)
	}
	assert.Len(t, RowsOf(work.Do(plan.New("x", "X", "in", ""), shop.Kept, today)).Rows, 1, "an empty ground line")
}

// A prop that hangs is drawn whole: nothing of the front view lies above the
// picture, and its height is dimensioned where it hangs.
func TestWhatHangsIsDrawnWhole(t *testing.T) {
	p := plan.New("x", "X", "in", "").In(shop.Kept)
	p.Doc().Props = []plan.Prop{{ID: "a", Name: "A"}}
	p.Doc().Solids = []plan.Solid{
		{
			ID:    "s",
			Prop:  "a",
			Name:  "S",
			Kind:  "box",
			Stock: "xps1",
			Form:  form.Box{Joint: "butt", W: measure.Len("20 in"), D: measure.Len("20 in"), H: measure.Len("60 in")},
			Z:     measure.Len("50 in"),
		},
	}
	w := work.Do(p, shop.Kept, time.Time{})
	bottom, top := reach(w, "a")
	assert.InDelta(t, 50*25.4, bottom, 1e-6)
	assert.InDelta(t, 110*25.4, top, 1e-6)
	_, front := Whole(w, "a", "", "", func(string) string { return "" })
	least, most := math.Inf(1), 0.0
	for _, m := range regexp.MustCompile(`<polygon[^>]* points="([^"]+)"`).FindAllStringSubmatch(front, -1) {
		for _, pt := range strings.Fields(m[1]) {
			var x, y float64
			_, err := fmt.Sscanf(pt, "%g,%g", &x, &y)
			require.NoError(t, err)
			least, most = math.Min(least, y), math.Max(most, y)
		}
	}
	assert.Greater(t, least, 20.0)
	assert.Less(t, least, 120.0)
	assert.Less(t, most, 442.0)
	assert.NotZero(t, RowsOf(w))
}

// From above a solid that stands behind another is drawn above it on the sheet, to
// scale, the one that is picked marked; from each view a link leads to the other.
func TestFromAbove(t *testing.T) {
	p := plan.New("x", "X", "in", "").In(shop.Kept)
	p.Doc().Props = []plan.Prop{{ID: "a", Name: "A"}}
	for i, name := range []string{"near", "far"} {
		s := plan.NewSolid(
			"a",
			name,
			"xps1",
			form.Box{W: measure.Len("20 in"), D: measure.Len("10 in"), H: measure.Len("9 in")},
		)
		s.ID, s.Y = name, measure.Of[measure.LengthKind](float64(i)*381)
		p.Doc().Solids = append(p.Solids(), s)
	}
	w := worked(p)
	svg := FromAbove(w, "a", "solid:far", "/front")
	held := map[string][2]float64{} // where each is taken hold of, and how wide
	re := regexp.MustCompile(
		`data-solid="(\w+)"[^>]*><rect class="touch" x="[-\d.]+" y="([-\d.]+)" width="([-\d.]+)"`,
	)
	for _, m := range re.FindAllStringSubmatch(svg, -1) {
		y, err := strconv.ParseFloat(m[2], 64)
		require.NoError(t, err)
		wide, err := strconv.ParseFloat(m[3], 64)
		require.NoError(t, err)
		held[m[1]] = [2]float64{y, wide}
	}
	require.Len(t, held, 2)
	// 15 in back is three quarters of the 20 in that it is wide
	assert.InDelta(t, .75, (held["near"][0]-held["far"][0])/held["near"][1], .01)
	assert.Contains(t, svg, `class="body on" data-solid="far"`)
	assert.NotContains(t, svg, `class="body on" data-solid="near"`)
	assert.Contains(t, svg, `<a class="view" href="/front">front</a>`)
	_, front := Whole(w, "a", "", "/above", to)
	assert.Contains(t, front, `<a class="view" href="/above">from above</a>`)
}

// Whatever dates there are, the days that are drawn are those that are looked at.
func TestBarsOfAbsurdDates(t *testing.T) {
	for _, date := range []string{"9999-12-31", "2026-09-21", "1990-01-01", ""} {
		p := demo.Apiary(today).In(shop.Kept)
		p.Doc().Display.Opens = date
		if date != "" {
			p.Deliveries()[0].Arrives, p.Deliveries()[0].Faster = date, ""
			p.Doc().Jobs = append(p.Jobs(), plan.Job{ID: "j", Name: "Wait", From: date,
				Hands: measure.Must[measure.DurationKind]("30 days")})
		}
		if err := p.Validate(); err != nil {
			t.Fatal(date, err)
		}
		x := order.In(work.Do(p, shop.Kept, today))
		svg := Bars(x, 0, p, "", func(string) string { return "" })
		assert.Less(t, len(svg), 400_000, date)
		assert.Contains(t, svg, "Everything", date)
	}
}

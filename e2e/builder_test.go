package e2e

import (
	"bytes"
	"encoding/json"
	"fmt"
	"io"
	"mime/multipart"
	"net/http"
	"net/url"
	"os"
	"strings"
	"testing"

	"zapbarn/core/plan"
	"zapbarn/demo"
	"zapbarn/testkit"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// 1. The demo opens on something worth seeing, both props fully planned.
func TestDemoIsWorthSeeing(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s := open(t, "/")
	assert.Contains(t, s.text(".sheds"), "The Midnight Apiary")
	s.click(`a[href="/p/midnight-apiary"]`)
	s.wait(`document.querySelector("svg.barn")`)
	for _, prop := range []string{"Honey shelf", "Frame riser", "Skep", "Keeper"} {
		assert.Contains(t, s.text("svg.barn"), prop)
	}
	assert.Equal(t, "18 days to opening", s.text(".days"))
	assert.Greater(t, s.count("svg.barn polygon"), 30)
	assert.Contains(t, s.text(".gutter"), "Jar 8 is reversed")
	for _, path := range []string{"/bench?prop=riser", "/bench?prop=shelf&way=parts", "/loom?prop=shelf",
		"/loom?prop=riser", "/rehearsal?prop=riser"} {
		s.goTo(apiary + path)
		assert.Greater(t, s.count(".surface svg *"), 20, path)
	}
}

// 2. Start a display of their own in three questions, add a prop by one known size.
func TestStartYourOwn(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s := open(t, "/")
	assert.LessOrEqual(t, s.count(`form[action="/new"] label`)-1, 4, "name, date, and a choice of two")
	s.set("name", "Back porch")
	s.clickText("Raise the barn")
	s.wait(`location.pathname==="/p/back-porch"`)
	assert.Contains(t, s.text(".blank"), "prop weathervane 30 in tall", "the empty state says what to type first")
	s.say("prop weathervane 30 in tall", `new prop “weathervane”, 30 in tall`)
	assert.Equal(t, "30 in", s.plan("back-porch").Props()[0].Known.String())
	assert.Contains(t, s.text(".ticket"), "weathervane")
	assert.Contains(t, s.text(".gutter"), "still an idea")
}

// 3. Bench: every solid, drawn to scale, patterns with saw settings, sheets and pipes.
func TestBench(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s := open(t, "/p/thistledown-porch/bench")
	for line, got := range map[string]string{
		"box 400 x 300 x 250 ply1/4 mitre lid":   "box, 400 mm wide, 300 mm deep, 250 mm tall, mitre corners, lid",
		"tower 5 sides 600 tall 300 to 200 xps1": "tower of 5 sides",
		"disc 500 mm xps1 x2":                    "2 discs, 500 mm across",
		"rings 400 to 300 500 tall wall 50 xps2": "ring stack",
		"pipe 6@44in 4@60in 1.5":                 "10 pieces of pipe",
		"panel 900 x 250 ply1/2 x3":              "3 panel",
		"gores 300 x 400 n8 eva5 onion":          "8 gores, onion, 300 mm across, 400 mm tall",
		"slices 400 x 300 dome wall 60 xps2":     "dome in slices",
		"cone 300 to 50 400 tall eva5roll":       "cone, 300 mm across at the bottom",
		"wrap 200 x 300 eva5roll":                "tube by wrap",
		"boards 2 m xps1":                        "disc over boards, 2000 mm across",
	} {
		s.say(line, got)
		assert.Greater(t, s.count("svg.iso .body"), 0, line)
	}
	assert.Len(t, s.plan("thistledown-porch").Solids(), 12)
	assert.Equal(t, 2, s.count("svg.front .person"), "a standing adult and a child for size")

	s.goTo(apiary + "/bench?prop=riser&way=whole")
	assert.Contains(t, s.text("svg.front"), `27 1/2"`)
	before := eval[string](s, `document.querySelector(".body[data-dx]").getAttribute("transform")||""`)
	eval[bool](
		s,
		`(()=>{const e=document.querySelector("[data-explode]"); e.value=80; e.dispatchEvent(new Event("input",{bubbles:true})); return true})()`,
	)
	assert.NotEqual(t, before, eval[string](s, `document.querySelector(".body[data-dx]").getAttribute("transform")`))

	s.live(func() { s.click(`svg.iso a[data-key="part:riser-box/front"]`) })
	s.live(func() { s.clickText("Parts") })
	for _, want := range []string{"OUTSIDE", "up", `22"`, `26 1/2"`, "rabbet 1\"", "Sheet 3 of 4"} {
		assert.Contains(t, s.text("svg.parts"), want)
	}
	// change a size and everything follows at once
	s.live(func() { s.set("f.w", "30") })
	assert.Contains(t, s.text("svg.parts"), `30"`)
	assert.Equal(t, "30", s.value("f.w"), "as written")
	assert.Contains(t, s.text(".ticket .r"), `30" x 26 1/2"`)
	s.live(func() { s.set("f.stock", "ply1/2") })
	assert.Contains(t, s.text("svg.parts"), `Plywood 1/2"`)

	s.goTo(apiary + "/bench?prop=gate&way=parts")
	assert.Contains(t, s.text("svg.parts"), "blade tilt 44.7°")
	assert.Contains(t, s.text(".ticket"), "cut angle on the face 5.4° from square")
	assert.Equal(t, 1, s.count("svg.parts polygon.inside"), "the inside face is drawn")

	s.goTo(apiary + "/bench?prop=riser&way=sheets")
	assert.Contains(t, s.text("svg.sheets"), "proven least")
	assert.Greater(t, s.count("svg.sheets rect.offcut"), 3)
	s.goTo(apiary)
	assert.Regexp(t, `XPS board 1" ?\d sheets ?\d+ % used`, s.text(".three"))
}

// 4. Joints and coats: verdict, reason, waits, cautions; the classic mistakes raised.
func TestJointsAndCoats(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s := open(t, apiary+"/bench?prop=riser&way=joints")
	snags := s.text(".gutter")
	for _, want := range []string{"Solvent paint meets bare foam", "Glue between two closed faces",
		"Solvent glue meets foam", "The glue is past its date"} {
		assert.Contains(t, snags, want)
	}
	s.goTo(apiary + "/bench?prop=shelf&way=joints")
	assert.Contains(t, s.text(".gutter"), "Hot glue on a thin wall")
	s.goTo(apiary + "/bench?prop=riser&way=joints&sel=joint:riser-back-right")
	assert.Contains(t, s.text(".ticket"), "✕ no")
	assert.Contains(t, s.text(".ticket .r"), "respirator")
	s.live(func() { s.set("f.glue", "pu") })
	assert.Contains(t, s.text(".ticket"), "✓ good")
	assert.Contains(t, s.text(".ticket .r"), "Handle after 2 h")
	assert.Contains(t, s.text(".ticket .r"), "gloves")
	assert.NotContains(t, s.text(".gutter"), "Solvent glue meets foam")
	s.say("coat riser-box afresh masonry, enamel 2, clear 2", "Masonry sealer x1, then Spray enamel")
	assert.NotContains(t, s.text(".gutter"), "Solvent paint meets bare foam")
}

// 5. Loom: place things, change a gauge, see it at once; every mistake raised.
func TestLoom(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s := open(t, apiary+"/loom?prop=shelf&sel=device:W2")
	assert.Contains(t, s.text("svg.board"), "11.50")
	assert.Contains(t, s.text(".gutter"), "17 lamps drop up to 4.2 %")
	assert.Contains(t, s.text(".gutter"), "12 leads are too short")
	assert.Contains(t, s.text("svg.board"), "reversed", "by text")
	assert.Equal(t, 1, s.count("svg.board .l-reversed"), "by shape and colour")
	assert.Equal(t, 1, s.count("svg.board path.cross"))
	s.live(func() { s.set("f.gauge", "14 awg") })
	assert.NotContains(t, s.text("svg.board"), "11.50")
	assert.NotContains(t, s.text(".gutter"), "lamps drop up to")
	s.live(func() { s.set("f.gauge", "28 awg") })
	assert.Contains(t, s.text(".gutter"), "lamps drop up to")
	s.live(func() { s.set("f.from", "S1") })
	assert.Contains(t, s.text(".gutter"), "Run W2 has no fuse")
	assert.Zero(t, s.count("svg.board polyline.hot"))
	s.live(func() { s.set("f.gauge", "36 awg") })
	assert.Contains(t, s.text(".gutter"), "Run W2 is too thin")
	assert.Equal(t, 1, s.count("svg.board polyline.hot"), "a wire's state by shape")
	assert.Contains(t, s.text("svg.board"), "TOO MUCH", "and by word")
	s.goTo(apiary + "/loom?prop=shelf&sel=device:S1")
	s.live(func() { s.set("f.product", "ps24-5") })
	assert.Contains(t, s.text(".gutter"), "on the wrong rail")
	s.live(func() { s.set("f.product", "ps12-1") })
	assert.Contains(t, s.text(".gutter"), "Supply S1 is overloaded")
	assert.Contains(t, s.text("svg.board"), "OVERLOADED")
	s.goTo(apiary + "/loom?prop=riser")
	assert.Contains(t, s.text(".gutter"), "Supply S2 is sealed in")

	s.goTo("/p/thistledown-porch/loom")
	s.say("supply 12v 2a", "supply S2")
	s.say("fuse 2a on S2", "fuse F2")
	s.say("6 jars flicker on F2 22awg 3 m", "6 lamps")
	s.say("switch on F2", "hand switch SW1")
	s.say("lamp led-white on SW1", "Bare LED")
	assert.Equal(t, 6, s.count(`svg.board a[data-key*="jar"] .l-lit`))
	d := s.plan("thistledown-porch").Device("L1")
	require.NotNil(t, d)
	assert.Equal(t, "470 ohm", d.Resistor.String(), "a bare LED gets its resistor")
	s.goTo("/p/thistledown-porch/loom?sel=device:L1")
	s.live(func() { s.set("f.resistor", "50 ohm") })
	assert.Contains(t, s.text(".gutter"), "has no fit resistor")
}

// 6. One trigger: press it, step it, see lamps and current; toggle and momentary too.
func TestRehearsal(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s := open(t, apiary+"/rehearsal?prop=riser")
	amps := func() string { return s.text(`[data-amps="S2"]`) }
	assert.Equal(t, "0 mA", amps()[:4])
	s.live(func() { s.clickText("Path mat") })
	assert.Contains(t, s.text(".events"), "start glow")
	s.live(func() { s.clickText("step ▶") })
	s.live(func() { s.clickText("step ▶") })
	assert.Equal(t, "934 mA", amps()[:6])
	assert.Equal(t, 0, s.count(`circle.stageglow[data-lamp="fill"]:not(.lv0)`), "the fill comes half a second later")
	for range 12 {
		if s.count(`circle.stageglow[data-lamp="fill"]:not(.lv0)`) == 1 {
			break
		}
		s.live(func() { s.clickText("step ▶") })
	}
	assert.Equal(t, 1, s.count(`circle.stageglow[data-lamp="fill"]:not(.lv0)`))
	x := eval[string](s, `document.querySelector("[data-cursor]").getAttribute("transform")`)
	s.clickText("▶ play")
	s.wait(`document.querySelector("[data-cursor]").getAttribute("transform")!==` + "`" + x + "`")
	s.live(func() { s.clickText("❚❚ pause") })
	s.live(func() { s.clickText("Path mat") })
	assert.Contains(t, s.text(".events"), "ignored mat")
	assert.Contains(t, s.text(".gutter"), "Keeper's button can silence itself")
	s.goTo(apiary + "/rehearsal?prop=riser&sel=trigger:mat-glow")
	s.live(func() { s.set("f.latch", "momentary") })
	s.live(func() { s.click(`.inputs a[title="Hold Path mat for 3 s"]`) })
	assert.Contains(t, s.text(".events"), "end glow released")
}

// 7. Walkdown: all snags worst first; one press mends; waive with a reason.
func TestWalkdown(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s := open(t, apiary+"/walkdown")
	order := eval[[]string](
		s,
		`[...document.querySelectorAll(".walk .snag")].map(e=>e.className.replace("snag s-",""))`,
	)
	rank := map[string]int{"stop": 3, "fix": 2, "mind": 1, "note": 0}
	for i := 1; i < len(order); i++ {
		assert.LessOrEqual(t, rank[order[i]], rank[order[i-1]])
	}
	assert.Equal(t, 1, s.count(".btn.main"), "one red button")
	s.live(func() { s.clickText("Mend: Swap leads") })
	assert.False(t, s.plan("midnight-apiary").Device("jar-8").Reversed)
	assert.NotContains(t, s.text(".walk"), "Jar 8 is reversed")
	n := s.count(".walk .snag")
	eval[bool](
		s,
		`(()=>{const f=document.querySelector('.waive form'); f.reason.value="spare in the box"; f.by.value="Ola"; f.requestSubmit(); return true})()`,
	)
	s.wait(fmt.Sprintf(`document.querySelectorAll(".walk .snag").length===%d`, n-1))
	s.live(func() { s.clickText("Waived") })
	assert.Contains(t, s.text(".walk"), "Waived by Ola: spare in the box")
	s.live(func() { s.clickText("Log") })
	assert.Contains(t, s.text(".list"), "Swap leads")
}

// 8a. Every computed number opens to its working with sources.
func TestEveryNumberOpensToItsWorking(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s := open(t, apiary+"/loom?prop=shelf&sel=device:jar-8")
	s.click(".ticket .num")
	s.wait(`document.getElementById("working").open && document.querySelector("#working .steps")`)
	assert.Contains(t, s.text("#working"), "Newton")
	assert.Contains(t, s.text("#working"), "source:")
	for _, path := range []string{"", "/bench?prop=gate&way=parts", "/bench?prop=skep&sel=solid:skep-rings",
		"/loom?prop=shelf&sel=device:W2", "/loom?prop=riser&sel=device:S2",
		"/bench?prop=riser&way=joints&sel=joint:riser-front-left", "/bench?prop=riser&way=joints&sel=finish:riser-box"} {
		s.goTo(apiary + path)
		links := eval[[]string](s, `[...document.querySelectorAll("[data-working]")].map(e=>e.getAttribute("href"))`)
		require.NotEmpty(t, links, path)
		for _, l := range links {
			b := get(t, s.url+l, 200)
			assert.Contains(t, b, "<code>", l)
		}
	}
}

// 8b. Undo and redo by button and by key; a reload keeps all.
func TestUndoRedo(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s := open(t, apiary+"/loom?prop=shelf&sel=device:W2")
	want := string(s.plan("midnight-apiary").Encode())
	s.live(func() { s.set("f.gauge", "18 AWG") })
	s.live(func() { s.clickText("Take away") })
	assert.Nil(t, s.plan("midnight-apiary").Device("jar-3"), "what hangs on it goes with it")
	s.live(func() { s.click("[data-undo]") })
	assert.NotNil(t, s.plan("midnight-apiary").Device("jar-3"))
	eval[bool](
		s,
		`(()=>{document.activeElement.blur(); document.body.dispatchEvent(new KeyboardEvent("keydown",{key:"z",ctrlKey:true,bubbles:true})); return true})()`,
	)
	s.wait(`document.querySelector("[data-undo]").disabled`)
	assert.Equal(t, want, string(s.plan("midnight-apiary").Encode()))
	s.live(func() { s.click("[data-redo]") })
	s.goTo(apiary + "/loom?prop=shelf&sel=device:W2")
	assert.Equal(t, "18 AWG", s.value("f.gauge"))
}

// 8c. Two windows on one plan: what only one changed is merged; what both
// changed is asked about, with nothing lost.
func TestTwoWindows(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s := open(t, apiary+"/loom?prop=shelf&sel=device:W2")
	other := *s
	other.ctx = testkit.Browser(t, 1280, 800)
	other.goTo(apiary + "/loom?prop=shelf&sel=device:W2")
	s.live(func() { s.set("f.length", "36 ft") })
	s.live(func() { s.set("f.name", "Long run") })
	other.live(func() { other.set("f.gauge", "16 AWG") })
	w2 := s.plan("midnight-apiary").Device("W2")
	assert.Equal(t, "16 AWG", w2.Gauge.String(), "another field is no conflict")
	assert.Equal(t, "36 ft", w2.Length.String(), "and nothing of the other window is lost")
	assert.Equal(t, "36 ft", other.value("f.length"), "it is shown as it stands now")
	assert.Zero(t, other.count(".conflict"))
	// the same field, to another value
	s.live(func() { s.set("f.length", "38 ft") })
	other.live(func() { other.set("f.length", "40 ft") })
	assert.Contains(t, other.text(".conflict"), "changed meanwhile")
	assert.Contains(t, other.text(".conflict"), "38 ft")
	assert.Contains(t, other.text(".conflict"), "40 ft")
	assert.Equal(t, "38 ft", s.plan("midnight-apiary").Device("W2").Length.String(), "not overwritten unasked")
	assert.Equal(t, "40 ft", other.value("f.length"), "what was entered stays")
	other.live(func() { other.clickText("Save mine") })
	assert.Equal(t, "40 ft", s.plan("midnight-apiary").Device("W2").Length.String())
	// the same field to the same value is no conflict
	s.goTo(apiary + "/loom?prop=shelf&sel=device:W2")
	other.live(func() { other.set("f.gauge", "18 AWG") })
	s.live(func() { s.set("f.gauge", "18 AWG") })
	assert.Zero(t, s.count(".conflict"))
	// taken away meanwhile
	other.goTo(apiary + "/loom?prop=shelf&sel=device:W2")
	s.live(func() { s.clickText("Take away") })
	other.live(func() { other.set("f.name", "Ghost") })
	assert.Contains(t, other.text(".page"), "away")
}

// 9. Cut sheet on both papers, export and import, byte for byte the same plan.
func TestPrintExportImport(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s := open(t, apiary+"/bench?prop=riser&way=print")
	links := eval[[]string](s, `[...document.querySelectorAll(".printway a")].map(e=>e.getAttribute("href"))`)
	assert.Greater(t, len(links), 25)
	starts := map[string]string{
		".pdf": "%PDF-",
		".svg": "<svg ",
		".dxf": "  0\r\nSECTION",
		".csv": "prop,no",
		"xlsx": "PK",
		".stl": "Zap Barn, millimetres",
		"html": "<!doctype html>",
	}
	for _, link := range links {
		u, err := url.Parse(link)
		require.NoError(t, err)
		want := starts[u.Path[len(u.Path)-4:]]
		require.NotEmpty(t, want, link)
		assert.True(t, strings.HasPrefix(get(t, s.url+link, 200), want), link)
	}
	// a DXF reader from the npm registry, run in the browser, reads ours back
	parser, err := os.ReadFile("testdata/vendor/dxf-parser.js")
	require.NoError(t, err)
	eval[bool](s, string(parser)+";true")
	for ref, want := range map[string][2]float64{"riser-box/front": {22 * 25.4, 26.5 * 25.4},
		"gate-pillar/face": {26 * 25.4, 0}, "bee-body/gore": {0, 0}} {
		dxf, err := json.Marshal(get(t, s.url+apiary+"/part.dxf?ref="+url.QueryEscape(ref), 200))
		require.NoError(t, err)
		got := eval[[]float64](
			s,
			`(()=>{const d=new DxfParser().parseSync(`+string(
				dxf,
			)+`); const e=d.entities.filter(e=>e.type==="POLYLINE"&&e.layer==="cut").flatMap(e=>e.vertices);
			const x=e.map(v=>v.x),y=e.map(v=>v.y); return [Math.max(...x)-Math.min(...x),Math.max(...y)-Math.min(...y),Object.keys(d.tables.layer.layers).length]})()`,
		)
		if want[0] > 0 {
			assert.InDelta(t, want[0], got[0], .01, ref)
		}
		if want[1] > 0 {
			assert.InDelta(t, want[1], got[1], .01, ref)
		}
		assert.Equal(t, 5.0, got[2], "layers cut, pocket, score, mark and text")
	}
	file := get(t, s.url+apiary+"/plan.json", 200)
	assert.Equal(t, string(demo.Apiary(today).Encode()), file)
	upload := func(body string, code int) string {
		var b bytes.Buffer
		m := multipart.NewWriter(&b)
		w, err := m.CreateFormFile("plan", "plan.json")
		require.NoError(t, err)
		_, _ = io.WriteString(w, body)
		require.NoError(t, m.Close())
		r, err := testkit.Following().Post(s.url+"/import", m.FormDataContentType(), &b)
		require.NoError(t, err)
		defer r.Body.Close()
		out, _ := io.ReadAll(r.Body)
		assert.Equal(t, code, r.StatusCode)
		return string(out)
	}
	upload(file, 200)
	got, want := s.whole("midnight-apiary-2"), demo.Apiary(today)
	want.Doc().Display.ID, want.Doc().Display.Name = "midnight-apiary-2", want.Display().Name+" (2)"
	assert.Equal(t, want.Doc(), got.Doc())
	assert.Contains(t, upload(`{"format": `, 422), "line 1")
	assert.Contains(
		t,
		upload(`{"format":"zapbarn-plan/1","display":{"id":"x","name":"X","units":"furlongs"}}`, 422),
		"choose in, mm",
	)
	assert.Contains(t, upload(string(bytes.Repeat([]byte(" "), plan.MaxFile+10)), 413), "at most 8 MB")
}

func get(t *testing.T, url string, code int) string {
	t.Helper()
	r, err := http.Get(url)
	require.NoError(t, err)
	defer r.Body.Close()
	b, err := io.ReadAll(r.Body)
	require.NoError(t, err)
	require.Equal(t, code, r.StatusCode, url)
	return string(b)
}

// The trace the player shows is the one core computes.
func TestTraceIsCores(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s := serve(t)
	var a, b map[string]any
	require.NoError(t, json.Unmarshal([]byte(get(t, s.url+apiary+"/trace?press=mat@1000:200", 200)), &a))
	require.NoError(t, json.Unmarshal([]byte(get(t, s.url+apiary+"/trace?press=mat@1000:200", 200)), &b))
	assert.Equal(t, a, b)
	assert.Len(t, a["frames"], 9, "dark, frames up, glow, hum, and each of them off again")
}

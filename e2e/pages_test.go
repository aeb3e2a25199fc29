package e2e

import (
	"encoding/json"
	"fmt"
	"net/url"
	"testing"

	"zapbarn/core/calc"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// The calculators on screen do the same sums as the command line.
func TestCalculatorsOnScreen(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s := open(t, "/calc")
	assert.Equal(t, len(calc.List()), s.count("details.calc"))
	eval[bool](
		s,
		`(()=>{const f=document.querySelector("#tower form"); f.elements["h."].value="4 ft"; f.elements["bottom."].value="20 in"; f.elements["top."].value="9 in"; f.elements["n."].value="6"; f.submit(); return true})()`,
	)
	s.wait(`document.querySelector("#tower[open] .result")`)
	tower, err := calc.Named("tower")
	require.NoError(t, err)
	rs, err := tower.Run(map[string]string{"h": "4 ft", "bottom": "20 in", "top": "9 in", "n": "6"})
	require.NoError(t, err)
	for _, r := range rs {
		assert.Contains(t, s.text("#tower"), r.Text, r.Label)
	}
	assert.Contains(t, s.text("#tower"), "crown-moulding saw tables")
	// a bad value is named and stays in its field
	s.goTo("/calc?name=led&vs.=12+V&vf.=3.2+V&n.=9&amps.=20+mA")
	assert.Contains(t, s.text("#led .error"), "at most 3 in a row")
	assert.Equal(t, "9", eval[string](s, `document.querySelector("#led [name='n.']").value`))
}

// The quick line recalls with the arrows and completes with Tab.
func TestQuickLineRecallsAndCompletes(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s := open(t, apiary+"/bench?prop=riser")
	s.say("disc 12 in xps1", "1 disc")
	s.goTo(apiary + "/bench?prop=riser")
	eval[bool](s, `(()=>{document.getElementById("line").focus(); return true})()`)
	key := func(k string) {
		eval[bool](
			s,
			`(()=>{document.getElementById("line").dispatchEvent(new KeyboardEvent("keydown",{key:"`+k+`",bubbles:true,cancelable:true})); return true})()`,
		)
	}
	key("ArrowUp")
	assert.Equal(t, "disc 12 in xps1", s.value("line"))
	key("ArrowDown")
	assert.Equal(t, "", s.value("line"))
	eval[bool](s, `(()=>{const l=document.getElementById("line"); l.value="coat riser-box maso"; return true})()`)
	key("Tab")
	s.wait(`document.getElementById("line").value === "coat riser-box masonry "`)
	s.wait(`document.querySelector(".got").textContent.includes("Masonry sealer")`)
}

// What the quick line would do is told before it is done, and told why not.
func TestReadingBeforeDoing(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s := serve(t)
	read := func(line string) map[string]any {
		var m map[string]any
		require.NoError(
			t,
			json.Unmarshal([]byte(get(t, s.url+apiary+"/read?prop=riser&line="+url.QueryEscape(line), 200)), &m),
		)
		return m
	}
	assert.Contains(t, read("box 22 x 18 x 26 1/2 xps1 rabbet")["text"], `26 1/2" tall, rabbet corners`)
	assert.Contains(t, read("box 22 x 18")["error"], "try: ")
	assert.Nil(t, read("box 22 x 18")["tries"], "it is only begun")
	assert.Equal(t, []any{"box 9 x 9 x 9 xps1"}, read("box 9 x 9 x 9 xpz1")["tries"])
	before := string(s.plan("midnight-apiary").Encode())
	read("supply 12v 5a")
	assert.Equal(t, before, string(s.plan("midnight-apiary").Encode()), "reading does nothing")
}

// The theme is kept; the Rehearsal is always dark; print hides the frame.
func TestThemeAndPrint(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s := open(t, apiary)
	assert.Equal(t, "light", eval[string](s, `document.documentElement.classList.contains("dark")?"dark":"light"`))
	s.clickText("Lights out")
	s.wait(`document.documentElement.classList.contains("dark")`)
	s.goTo(apiary + "/walkdown")
	assert.True(t, eval[bool](s, `document.documentElement.classList.contains("dark")`))
	s.clickText("Lights on")
	s.wait(`!document.documentElement.classList.contains("dark")`)
	s.goTo(apiary + "/rehearsal")
	assert.True(t, eval[bool](s, `document.documentElement.classList.contains("dark")`))
	rules := eval[string](s, `(()=>{const all=(l)=>[...l].flatMap(r=>r.cssRules&&!r.media?all(r.cssRules):[r]);
		return [...document.styleSheets].flatMap(x=>all(x.cssRules)).filter(r=>r.media&&r.media.mediaText==="print")
		.map(r=>r.cssText).join("")})()`)
	assert.Contains(t, rules, ".beam")
	assert.Contains(t, rules, "display: none")
}

// Snags lead to the thing, and a leader line shows it.
func TestSnagsLeadThere(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s := open(t, apiary+"/loom?prop=shelf")
	eval[bool](
		s,
		`(()=>{document.querySelector(".gutter .snag").dispatchEvent(new MouseEvent("mouseover",{bubbles:true})); return true})()`,
	)
	assert.Equal(t, 1, s.count(".leader path"))
	s.goTo(apiary + "/walkdown")
	s.live(func() { s.clickText("Solvent paint meets bare foam") })
	s.wait(`location.pathname.endsWith("/bench")`)
	assert.Contains(t, s.text(".ticket"), "Hive box")
}

// Undo and redo are words of the quick line too.
func TestUndoIsAWord(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s := open(t, apiary+"/bench?prop=riser")
	before := string(s.plan("midnight-apiary").Encode())
	s.say("disc 12 in xps1", "1 disc")
	s.say("undo", "undo: 1 disc")
	assert.Equal(t, before, string(s.plan("midnight-apiary").Encode()))
	s.say("redo", "redo: 1 disc")
	assert.NotEqual(t, before, string(s.plan("midnight-apiary").Encode()))
}

// The wiring is looked at in each of its states.
func TestStatesOfTheWiring(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s := open(t, apiary+"/loom?prop=shelf")
	full := s.text(`[data-volts="jar-24"]`)
	choose := func(state string) {
		s.live(func() {
			eval[bool](
				s,
				`(()=>{const e=document.querySelector(".cases select"); e.value="`+state+`"; e.dispatchEvent(new Event("change",{bubbles:true})); return true})()`,
			)
		})
	}
	choose("without:S1")
	assert.Equal(t, "dark", s.text(`[data-volts="jar-24"]`))
	choose("cold")
	assert.NotEqual(t, full, s.text(`[data-volts="jar-24"]`))
	choose("scene:glow")
	assert.Equal(t, full, s.text(`[data-volts="jar-24"]`), "the jars are on in every scene")
	assert.Equal(t, "scene:glow", eval[string](s, `document.querySelector(".cases select").value`))
}

// Outlets and batteries: typed, drawn, judged, mended.
func TestWhereThePowerComesFrom(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s := open(t, apiary+"/loom?prop=riser&way=power")
	assert.Contains(t, s.text("svg.power"), "Smoker's fog heater")
	assert.Contains(t, s.text("svg.power"), "a night's limit 12 A")
	assert.Contains(t, s.text(".gutter"), "has no ground-fault protection")
	assert.Contains(t, s.text(".gutter"), "licensed electrician")
	s.say("outlet arbor 20a 120v guarded 12awg 30 ft", "outlet “Arbor”, 120v, 20a breaker, ground-fault protected")
	assert.Equal(t, "Arbor", s.text(".ticket h2"))
	assert.Contains(t, s.text(".ticket"), "Plugs and cords only")
	s.live(func() { s.clickText("Mend: Plug Smoker's fog heater into Arbor") })
	assert.Equal(t, "arbor", s.plan("midnight-apiary").Plugs()[0].Outlet)
	s.say("plug S2 into arbor", "plug Supply S2 into Arbor")
	s.say("battery 6 d x2", "battery B3, 6 of D alkaline in a row, 9 V, 2 rows")
	assert.Equal(t, "6", s.value("f.cells"))
	s.live(func() { s.set("f.cells", "4") })
	assert.Equal(t, 4, s.plan("midnight-apiary").Device("B3").Cells)
}

// Snags are narrowed by choosing: a trade, then a person; what is left says so, stays
// narrowed through a mend, and a press shows all again.
func TestSnagsForATradeAndAPerson(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s := open(t, apiary+"/walkdown")
	choose := func(name, value string) {
		s.live(func() {
			eval[bool](
				s,
				fmt.Sprintf(`(()=>{const e=document.querySelector(".surface select[name=%s]"); e.value=%q; `+
					`e.dispatchEvent(new Event("change",{bubbles:true})); return true})()`, name, value),
			)
		})
	}
	all := s.count(".walk .snag")
	choose("for", "ira")
	iras := s.count(".walk .snag")
	choose("trade", "wiring")
	wires := s.count(".walk .snag")
	assert.Greater(t, all, iras, "Sam paints")
	assert.Greater(t, iras, wires, "Ira does foam, too")
	assert.Contains(t, s.text(".walk"), "Jar 8 is reversed")
	s.live(func() { s.clickText("Mend: Swap leads") })
	assert.NotContains(t, s.text(".walk"), "Jar 8 is reversed")
	assert.Equal(t, "ira", eval[string](s, `document.querySelector("select[name=for]").value`), "still Ira's")
	s.goTo(apiary + "/walkdown?for=ira&trade=paint")
	assert.Zero(t, s.count(".walk .snag"))
	s.live(func() { s.clickText("Show all") })
	assert.Greater(t, s.count(".walk .snag"), iras)
}

package order

import (
	"fmt"
	"math"
	"slices"
	"strings"
	"testing"
	"time"

	"zapbarn/core/bond"
	"zapbarn/core/calendar"
	"zapbarn/core/form"
	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/shorthand"
	"zapbarn/core/stock"
	"zapbarn/core/work"
	"zapbarn/demo"
	"zapbarn/testkit/shop"
	"zapbarn/testkit/wirings"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var today = time.Date(2026, 9, 20, 0, 0, 0, 0, time.UTC)

// small is a box of foam with coats, a lamp inside and a motor, worked out.
func small(t *testing.T, change ...func(p *plan.Plan)) *work.Work {
	p := plan.New("x", "X", "in", "2026-10-01").In(shop.Kept)
	p.Doc().Display.Temp, p.Doc().Display.RH = measure.Must[measure.CelsiusKind]("21 C"), 50
	p.Doc().Props = []plan.Prop{{ID: "a", Name: "Crate"}}
	say := func(line string) {
		r, err := shorthand.Read(p, shop.Kept, "a", line)
		require.NoError(t, err, line)
		q, err := p.Apply(r.Edit)
		require.NoError(t, err, line)
		p = q
	}
	for _, line := range []string{"box 20 x 20 x 20 xps1", "panel 10 x 10 eva5", "glue box with pu",
		"glue panel to box with pu",
		"coat box masonry, latex 2", "coat panel heatseal", "supply 12v 2a", "lamp puck12 on S1 in box",
		"lamp motor12 on S1"} {
		say(line)
	}
	for i := range p.Solids() {
		p.Solids()[i].Sealed = p.Solids()[i].ID == "a-box"
	}
	p.Doc().Scenes = []plan.Scene{{ID: "glow", Prop: "a", Name: "Glow"}}
	p.Doc().People = []plan.Person{
		{ID: "ola", Name: "Ola", Hours: "mon-sun 9-17"},
		{ID: "ira", Name: "Ira", Hours: "mon-sun 9-17"},
	}
	for _, c := range change {
		c(p)
	}
	require.NoError(t, p.Validate())
	return work.Do(p, shop.Kept, today)
}

// modelled is a crate with a head of foam clay on an armature, coated and lit.
func modelled(t *testing.T) *work.Work {
	p := small(t).Plan
	for _, line := range []string{"modelled 8 x 9 x 11 skin 3/8 lightclay", "coat modelled latex"} {
		r, err := shorthand.Read(p, shop.Kept, "a", line)
		require.NoError(t, err, line)
		p, err = p.Apply(r.Edit)
		require.NoError(t, err, line)
	}
	return work.Do(p, shop.Kept, today)
}

// after lists what a task waits for: the keys, each with the rule that says so.
func after(t *Task) (out []string) {
	for _, l := range t.After {
		out = append(out, l.Task.Key+" by "+l.Rule.Code)
	}
	return out
}

// Each task waits for what the rules say, and for nothing else.
func TestWhatComesBeforeWhat(t *testing.T) {
	o := Of(small(t))
	var keys []string
	for _, x := range o.Tasks {
		keys = append(keys, x.Key)
	}
	assert.ElementsMatch(
		t,
		[]string{
			"cut:a",
			"fit:a-box",
			"glue:a-box",
			"join:a-panel-a-box",
			"fill:a-box",
			"coat:a-box:1:1",
			"coat:a-box:2:1",
			"coat:a-box:2:2",
			"coat:a-panel:1:1",
			"mount:L2",
			"wire:a",
			"prove:a",
			"close:a-box",
			"tune:a",
			"install:a",
			"dark:x",
		},
		keys,
	)
	for key, want := range map[string][]string{
		"cut:a":      nil,
		"fit:a-box":  {"cut:a by cut-first"},
		"glue:a-box": {"cut:a by cut-first", "fit:a-box by fit-before-glue"},
		"join:a-panel-a-box": {"cut:a by cut-first", "glue:a-box by bodies-before-joins",
			"coat:a-panel:1:1 by heat-before-foam"},
		"fill:a-box": {"glue:a-box by glue-before-fill", "join:a-panel-a-box by glue-before-fill"},
		"coat:a-box:1:1": {"cut:a by cut-first", "fill:a-box by fill-before-coat", "glue:a-box by glue-before-coat",
			"join:a-panel-a-box by glue-before-coat"},
		"coat:a-box:2:2": {"cut:a by cut-first", "fill:a-box by fill-before-coat", "glue:a-box by glue-before-coat",
			"join:a-panel-a-box by glue-before-coat", "coat:a-box:2:1 by coats-in-order"},
		"coat:a-panel:1:1": {"cut:a by cut-first"},
		"wire:a": {"cut:a by cut-first", "coat:a-box:1:1 by coat-before-wire", "coat:a-box:2:1 by coat-before-wire",
			"coat:a-box:2:2 by coat-before-wire", "coat:a-panel:1:1 by coat-before-wire"},
		"prove:a":     {"wire:a by wire-before-prove"},
		"close:a-box": {"cut:a by cut-first", "wire:a by prove-before-close", "prove:a by prove-before-close"},
		"mount:L2": {"cut:a by cut-first", "glue:a-box by body-before-mechanism",
			"join:a-panel-a-box by body-before-mechanism",
			"coat:a-box:1:1 by body-before-mechanism", "coat:a-box:2:1 by body-before-mechanism",
			"coat:a-box:2:2 by body-before-mechanism", "coat:a-panel:1:1 by body-before-mechanism"},
		"tune:a": {"mount:L2 by all-before-tune", "wire:a by all-before-tune", "prove:a by all-before-tune",
			"close:a-box by all-before-tune"},
		"dark:x": {"install:a by all-before-dark-test"},
	} {
		require.NotNil(t, o.Task(key), key)
		assert.ElementsMatch(t, want, after(o.Task(key)), key)
	}
	assert.Len(t, o.Task("install:a").After, 14, "all of the prop but the set-up itself")
	seen := map[string]bool{}
	shell := Of(laidUp(t))
	parts := Of(small(t, func(p *plan.Plan) { p.Doc().Jobs = []plan.Job{{ID: "j", Task: "cut:a", Parts: 2}} }))
	black := Of(small(t, func(p *plan.Plan) { p.Solids()[0].Blacked = true }))
	head := Of(modelled(t))
	for _, x := range slices.Concat(o.Tasks, shell.Tasks, parts.Tasks, black.Tasks, head.Tasks) {
		for _, l := range x.After {
			seen[l.Rule.Code] = true
		}
	}
	assert.Empty(t, after(head.Task("make:a-modelled:armature")))
	assert.ElementsMatch(t, []string{"make:a-modelled:armature by made-in-order"},
		after(head.Task("make:a-modelled:layer-1")))
	assert.Subset(t, after(head.Task("coat:a-modelled:1:1")), []string{"make:a-modelled:layer-1 by made-first"})
	assert.Subset(t, after(head.Task("wire:a")), []string{"make:a-modelled:layer-1 by made-before-wire"})
	assert.Equal(t, 24*60, head.Task("make:a-modelled:layer-1").Wait, "a day at 21 C and 50 %")
	assert.ElementsMatch(t, []string{"mould:a-laminate by mould-before-gel"}, after(shell.Task("gel:a-laminate")))
	plies := []string{"mould:a-laminate by mould-before-gel", "gel:a-laminate by gel-before-plies"}
	assert.ElementsMatch(t, plies, after(shell.Task("lay:a-laminate")))
	assert.Contains(t, after(shell.Task("coat:a-laminate:1:1")), "lay:a-laminate by laid-before-glue")
	lay := shell.Task("lay:a-laminate")
	assert.Equal(t, 24*60, lay.Wait, "a day at 21 C and 50 %")
	assert.True(t, lay.Whole, "in one go: resin does not wait")
	for _, r := range Rules() {
		assert.NotEmpty(t, r.Why, r.Code)
		if r != goodsFirst && r != said {
			assert.True(t, seen[r.Code], "%s is seen at work", r.Code)
		}
	}
}

// A ring is cut round its outside and round the hole in its middle.
func TestARingIsCutRoundBothEdges(t *testing.T) {
	p := plan.New("x", "X", "in", "2026-10-01").In(shop.Kept)
	p.Doc().Props = []plan.Prop{{ID: "a", Name: "Well"}}
	r, err := shorthand.Read(p, shop.Kept, "a", "rings 24 to 12 30 tall wall 3 xps2")
	require.NoError(t, err)
	p, err = p.Apply(r.Edit)
	require.NoError(t, err)
	w := work.Do(p, shop.Kept, today)
	metres, parts := 0.0, 0
	for _, x := range w.Parts() {
		require.Positive(t, x.Panel.Bore)
		parts += x.Panel.Copies
		metres += math.Pi * (x.Panel.Round + x.Panel.Bore) / 1000 * float64(x.Panel.Copies)
	}
	assert.InDelta(t, metres, cutOf(w)["a"].metres, metres/500, "a circle is cut as a polygon of many sides")
	assert.Equal(t, minutes(SetUp+LayOut*float64(parts)+CutMetre*cutOf(w)["a"].metres), Of(w).Task("cut:a").Hands)
}

// laidUp is a shell of two plies over a gel coat, painted.
func laidUp(t *testing.T) *work.Work {
	p := plan.New("x", "X", "in", "2026-10-01").In(shop.Kept)
	p.Doc().Display.Temp, p.Doc().Display.RH = measure.Must[measure.CelsiusKind]("21 C"), 50
	p.Doc().Props = []plan.Prop{{ID: "a", Name: "Mask"}}
	for _, line := range []string{"laminate 2 plies gel 9 x 11 x 5 glassmat", "coat laminate latex 1"} {
		r, err := shorthand.Read(p, shop.Kept, "a", line)
		require.NoError(t, err, line)
		q, err := p.Apply(r.Edit)
		require.NoError(t, err, line)
		p = q
	}
	return work.Do(p, shop.Kept, today)
}

// Times by hand. The box: 6 panels 20 in; by its pattern all edges together are laid out and
// cut; five seams dry 2 min each; waits as the products say at 21 C and 50 %.
func TestTimesByHand(t *testing.T) {
	w := small(t)
	o := Of(w)
	metres, parts := 0.0, 0
	for _, p := range w.Parts() {
		parts++
		metres += p.Panel.Around() / 1000
	}
	assert.Equal(t, minutes(SetUp+3*float64(parts)+6*metres), o.Task("cut:a").Hands)
	seams := len(w.Shapes()["a-box"].Lines)
	assert.Equal(t, minutes(5+2*float64(seams)), o.Task("fit:a-box").Hands)
	assert.Equal(t, 150, o.Task("coat:a-box:1:1").Wait, "masonry sealer, 2.5 h")
	assert.Equal(t, 120, o.Task("coat:a-box:2:1").Wait, "latex, 2 h before the next coat")
	assert.Equal(t, 240, o.Task("coat:a-box:2:2").Wait, "and 4 h before it is handled")
	assert.Equal(t, 120, o.Task("fill:a-box").Wait)
	area := w.StackOf(&w.Plan.Finishes()[0], false).Area
	assert.Equal(t, minutes(5+7.5*area), o.Task("coat:a-box:1:1").Hands, "8 m2 an hour")
	assert.Equal(t, 25, o.Task("wire:a").Hands, "5 min and three devices of 6")
	assert.Equal(t, 10, o.Task("prove:a").Hands, "5 min and two lamps of 2")
	assert.Equal(t, 50, o.Task("mount:L2").Hands)
	assert.Equal(t, 1, o.Task("install:a").People, "small and light")
	assert.Equal(t, 1, o.Task("cut:a").People)
	assert.Equal(t, 65, o.Task("dark:x").Hands, "an hour's walk and five minutes")
	assert.Equal(t, 35, o.Task("tune:a").Hands)
	assert.Equal(t, 30, o.Task("install:a").Hands)
	assert.Contains(t, strings.Join(o.Task("wire:a").Cautions, " "), "Mains side", "a supply is plugged in")
	cells := Of(small(t, func(p *plan.Plan) {
		p.Device("S1").Product, p.Device("S1").Cell, p.Device("S1").Cells = "", "aa", 8
	}))
	assert.NotContains(t, strings.Join(cells.Task("wire:a").Cautions, " "), "Mains side", "cells are not")
	heavy := Of(small(t, func(p *plan.Plan) { // a block of plywood, over 20 kg, and no side of it 1.5 m
		for _, side := range []string{"w", "d", "h"} {
			*p.Solid("a-box") = p.Solid("a-box").Set(side, measure.Len("50 in"))
		}
		p.Solid("a-box").Stock = "ply1/2"
	}))
	assert.Equal(t, 2, heavy.Task("install:a").People)
	light := Of(small(t, func(p *plan.Plan) {
		*p.Solid("a-box") = p.Solid("a-box").Set("h", measure.Len("50 in"))
	}))
	assert.Equal(t, 1, light.Task("install:a").People)
	glue := stock.Shop.Glues["pu"]
	assert.Equal(t, []Timer{{"together within", int(glue.Open.Value())}, {"hold or clamp", int(glue.Clamp.Value())}},
		o.Task("glue:a-box").Timers)
	assert.Equal(t, Timer{"the mix can be used", 300}, timers(stock.Shop.Glues["epoxy5"])[0], "five minutes")
	contact := stock.Shop.Glues["contact"]
	assert.Equal(t, Timer{"tacks, then press together", int(contact.Open.Value())}, timers(contact)[0])
	assert.Empty(t, timers(stock.Shop.Glues["tie"]))
	cold := Of(
		small(t, func(p *plan.Plan) {
			p.Doc().Display.Temp, p.Doc().Display.RH = measure.Must[measure.CelsiusKind]("11 C"), 70
		}),
	)
	// Magnus: 24.85 hPa at 21 C, 13.11 at 11: 24.85 x .5 / (13.11 x .3) = 3.16 times
	assert.InDelta(t, 3.16*150, float64(cold.Task("coat:a-box:1:1").Wait), 2)
	assert.InDelta(t, 3.16*120, float64(cold.Task("fill:a-box").Wait), 2)
	big := Of(small(t, func(p *plan.Plan) {
		s := p.Solid("a-box").Set("h", measure.Len("62 in"))
		*p.Solid("a-box") = s
	}))
	assert.Equal(t, 2, big.Task("cut:a").People)
	assert.Equal(t, 2, big.Task("install:a").People)
}

// Mixes by hand: five seams of 20 in take 5 x 3 + 4 x 2.54 = 25.2 minutes to lay, so a glue
// that can be used for five is mixed six times; one that does not set in its pot never.
func TestMixes(t *testing.T) {
	assert.Equal(t, 6, Batches(25.2, 5))
	assert.Equal(t, 5, Batches(25, 5), "just used up")
	assert.Equal(t, 1, Batches(3, 5))
	assert.Equal(t, 1, Batches(30, 0))
	assert.Equal(t, 1, Batches(0, 5))
	w := small(t, func(p *plan.Plan) {
		for i := range p.Joints() {
			p.Joints()[i].Glue = "epoxy5"
		}
	})
	o := Of(w)
	laying, millilitres := 0.0, 0.0
	for i := range w.Plan.Joints() {
		j := &w.Plan.Joints()[i]
		if e := ends(j); len(e) == 1 {
			length, _ := w.GlueLine(j)
			laying += 3 + 4*length/1000
			millilitres += w.Results().At("joint", j.ID, "takes").Value
		}
	}
	n := math.Ceil(laying / 5)
	assert.Contains(t, strings.Join(o.Task("glue:a-box").Steps, " "),
		fmt.Sprintf("%.0f mixes of about %.0f mL, each used up in 5 min", n, math.Ceil(millilitres/n)))
	moist := strings.Join(Of(small(t)).Task("glue:a-box").Steps, " ")
	assert.NotContains(t, moist, "mixes", "it cures from the air's water")
}

// What is said of a task counts: done ones are over once their wait is, one that is left out
// leads on to what it would have waited for, one is not begun before its day, one's own
// comes after what it names, and what took longer makes the like of it longer.
func TestWhatIsSaidOfATask(t *testing.T) {
	const day = calendar.Day
	say := func(jobs ...plan.Job) *Timetable {
		return In(small(t, func(p *plan.Plan) {
			for i := range jobs {
				jobs[i].ID = fmt.Sprintf("j%d", i)
			}
			p.Doc().Jobs = jobs
		}))
	}
	start := func(x *Timetable, key string) int {
		for i, r := range x.Row {
			if r.Key == key {
				return x.Slots[i].Start()
			}
		}
		return -1
	}
	hour := func(s string) measure.Duration { return measure.Must[measure.DurationKind](s) }
	plain := say()
	assert.True(t, plain.Asked)
	assert.Equal(t, 9*60, start(plain, "cut:a"))
	assert.Nil(t, plain.Loop)
	done := say(plan.Job{Task: "cut:a", State: "done", At: "2026-09-19 17:00", Took: hour("2 h"), By: "Ola"})
	assert.Equal(t, -1, start(done, "cut:a"))
	assert.Equal(t, 9*60, start(done, "fit:a-box"), "at once")
	dries := say(plan.Job{Task: "cut:a", State: "done"}, plan.Job{Task: "fit:a-box", State: "done"},
		plan.Job{Task: "glue:a-box", State: "done", At: "2026-09-20 08:55"})
	assert.Equal(t, 8*60+55+int(dries.Task("glue:a-box").Wait), dries.Task("glue:a-box").Free)
	assert.Equal(t, dries.Task("glue:a-box").Free, start(dries, "join:a-panel-a-box"), "it may not be handled before")
	out := say(
		plan.Job{Task: "cut:a", State: "done"},
		plan.Job{Task: "fill:a-box", State: "left out", Why: "texture hides it"},
	)
	assert.GreaterOrEqual(t, start(out, "coat:a-box:1:1"), start(out, "join:a-panel-a-box"))
	assert.Equal(t, -1, start(out, "fill:a-box"))
	assert.Less(t, out.End, done.End)
	later := say(plan.Job{Task: "cut:a", From: "2026-09-23"})
	assert.Equal(t, 3*day+9*60, start(later, "cut:a"))
	mine := say(plan.Job{Name: "Borrow the van", Hands: hour("1 h"), After: "prove:a", Prop: "a"})
	assert.GreaterOrEqual(t, start(mine, "own:j0"), start(mine, "prove:a")+10)
	assert.Equal(t, []string{"prove:a by as-you-said"}, after(mine.Task("own:j0")))
	slow := say(plan.Job{Task: "coat:a-box:1:1", State: "done", Took: hour("60 min")})
	planned := slow.Task("coat:a-box:1:1").Planned
	assert.Equal(
		t,
		Corrected{Planned: planned, Took: 60, Tasks: 1, Factor: math.Min(4, 60/float64(planned))},
		slow.Rates["coat"],
	)
	assert.Equal(t, minutes(float64(slow.Task("coat:a-box:2:1").Planned)*slow.Rates["coat"].Factor),
		slow.Task("coat:a-box:2:1").Hands)
	assert.Equal(t, slow.Task("wire:a").Planned, slow.Task("wire:a").Hands, "of another kind")
	quick := say(plan.Job{Task: "coat:a-box:1:1", State: "done", Took: hour("1 min")})
	assert.Equal(t, .25, quick.Rates["coat"].Factor)
	loop := say(plan.Job{Task: "cut:a", After: "prove:a"})
	require.NotEmpty(t, loop.Loop)
	assert.Empty(t, loop.Slots)
	assert.Zero(t, loop.Late())
}

// A prop that has come so far has that much behind it.
func TestAStageIsBehind(t *testing.T) {
	left := map[string]string{
		"":         "cut fit glue join fill coat mount wire prove close tune install",
		"cut":      "fit glue join fill coat mount wire prove close tune install",
		"glued":    "coat mount wire prove close tune install",
		"wired":    "coat mount prove close tune install",
		"proven":   "coat mount close tune install",
		"closed":   "tune install",
		"standing": "tune",
	}
	for stage, want := range left {
		o := Of(small(t, func(p *plan.Plan) { p.Props()[0].Stage = stage }))
		var got []string
		for _, x := range o.Left() {
			if x.Prop == "a" && !slices.Contains(got, x.Kind) {
				got = append(got, x.Kind)
			}
		}
		assert.Equal(t, want, strings.Join(got, " "), stage)
	}
}

// What is on its way holds up what it is for, and nothing else; when it is here, nothing.
func TestADelivery(t *testing.T) {
	waits := func(d plan.Delivery) (out []string) {
		d.ID, d.Name, d.Arrives = "post", "Parcel", "2026-09-25"
		o := Of(small(t, func(p *plan.Plan) { p.Doc().Deliveries = []plan.Delivery{d} }))
		assert.Equal(t, 5*calendar.Day+noon, o.Task("arrive:post").From)
		for _, x := range o.Tasks {
			for _, l := range x.After {
				if l.Rule == goodsFirst {
					out = append(out, x.Kind)
				}
			}
		}
		return out
	}
	assert.Equal(t, []string{"mount", "wire"}, waits(plan.Delivery{For: "device:L2"}))
	assert.Equal(t, []string{"wire"}, waits(plan.Delivery{For: "device:L1"}))
	assert.Equal(t, []string{"join", "coat"}, waits(plan.Delivery{For: "solid:a-panel"}))
	assert.NotContains(t, waits(plan.Delivery{For: "prop:a"}), "arrive")
	w := small(t)
	for _, f := range w.Plan.Finishes() {
		got := waits(plan.Delivery{For: "finish:" + f.ID})
		require.NotEmpty(t, got, "the paint of %s", f.Solid)
		for _, kind := range got {
			assert.Equal(t, "coat", kind)
		}
	}
	for _, j := range w.Plan.Joints() {
		got := waits(plan.Delivery{For: "joint:" + j.ID})
		require.NotEmpty(t, got, "the glue of %s", j.ID)
		for _, kind := range got {
			assert.Contains(t, []string{"glue", "join"}, kind)
		}
	}
	// whatever is wired, handled or moved and something is for, something waits
	for _, d := range w.Plan.Devices() {
		assert.NotEmpty(t, waits(plan.Delivery{For: "device:" + d.ID}), d.ID)
	}
	for _, s := range w.Plan.Solids() {
		assert.NotEmpty(t, waits(plan.Delivery{For: "solid:" + s.ID}), s.ID)
	}
	late := In(small(t, func(p *plan.Plan) {
		p.Doc().Deliveries = []plan.Delivery{{ID: "post", Name: "Motor", For: "device:L2", Arrives: "2026-10-02"}}
	}))
	assert.Positive(t, late.Late(), "it comes the day after the opening")
	in := In(small(t, func(p *plan.Plan) {
		p.Doc().Deliveries = []plan.Delivery{{ID: "post", Name: "Motor", For: "device:L2", Arrives: "2026-10-02", In: true}}
	}))
	assert.Zero(t, in.Late())
	assert.Less(t, in.End, late.End)
}

// Who is asked must be there: with a crew of one, what takes two cannot be done; before
// anybody was named it can.
func TestACrewOfOne(t *testing.T) {
	two := func(p *plan.Plan) {
		*p.Solid("a-box") = p.Solid("a-box").Set("h", measure.Len("62 in"))
		p.Doc().People = p.People()[:1]
	}
	undone, why := In(small(t, two)).Undone()
	require.NotEmpty(t, undone)
	assert.Equal(t, "cut:a", undone[0].Key)
	assert.Equal(t, "wants 2 people at once", why[0])
	free := In(small(t, two, func(p *plan.Plan) { p.Doc().People = nil }))
	undone, _ = free.Undone()
	assert.Empty(t, undone)
	assert.False(t, free.Asked)
	paint := In(small(t, func(p *plan.Plan) { p.People()[0].Trades, p.People()[1].Trades = "paint", "glue, paint" }))
	undone, why = paint.Undone()
	assert.Equal(t, "wire:a", undone[0].Key)
	assert.Equal(t, "wants somebody for wiring", why[0])
}

// In the timetable of the demo and of careless plans nothing comes before what it waits
// for, and the same plan gives the same timetable.
func TestTimetablesHold(t *testing.T) {
	for seed := range uint64(12) {
		p := demo.Apiary(today).In(shop.Kept)
		if seed > 0 {
			p = wirings.Random(seed)
		}
		w := work.Do(p, shop.Kept, today)
		x, again := In(w), In(work.Do(p.Clone(), shop.Kept, today))
		require.Nil(t, x.Loop)
		require.Equal(t, x.Answer, again.Answer)
		at := map[*Task]int{}
		for i, r := range x.Row {
			at[r] = i
		}
		for i, r := range x.Row {
			if !x.Slots[i].Placed() {
				continue
			}
			assert.GreaterOrEqual(t, x.Latest[i], x.Slots[i].Start(), r.Key)
			for _, l := range r.After {
				if k, left := at[l.Task]; left {
					assert.LessOrEqual(t, x.Slots[k].Free, x.Slots[i].Start(), "%s after %s", r.Key, l.Task.Key)
				}
			}
		}
		assert.LessOrEqual(t, x.Bound, x.End)
	}
}

// What may happen is worked out afresh: a day lost is never sooner, one more never later, cold
// and damp never sooner; nothing is changed by asking.
func TestWhatIf(t *testing.T) {
	w := work.Do(demo.Apiary(today), shop.Kept, today)
	was := string(w.Plan.Encode())
	cases := map[string]Case{}
	for _, c := range Cases(w) {
		cases[c.What] = c
	}
	assert.Equal(t, was, string(w.Plan.Encode()))
	for _, what := range []string{"Tomorrow is lost: nobody comes", "Ola is away for a week",
		"Gear motor for the sunflowers comes three days later", "The air is damp, 85 %"} {
		require.Contains(t, cases, what)
		assert.GreaterOrEqual(t, cases[what].Later, 0, what)
	}
	assert.Positive(t, cases["Gear motor for the sunflowers comes three days later"].Later, "all waits for it")
	assert.Positive(t, cases["Without Ola"].Lacks, "what takes two")
	// without the late parcel it is the crew that counts
	q := w.Plan.Clone()
	q.Doc().Deliveries = nil
	base := In(work.Do(q, shop.Kept, today))
	for _, c := range Cases(work.Do(q, shop.Kept, today)) {
		assert.Equal(t, base.End+c.Later, c.End, c.What)
		if strings.HasPrefix(c.What, "Without") {
			assert.True(t, c.Lacks > 0 || c.Later >= 0, c.What)
		}
	}
}

// An edit that cannot change the order of work leaves it as it was worked out; each that can
// has it worked out anew: of every kind of element it stands on, and of the opening.
func TestATimetableIsTakenOverWhileItStands(t *testing.T) {
	p := demo.Apiary(today).In(shop.Kept)
	w := work.Do(p, shop.Kept, today)
	was := In(w)
	after := func(change func(p *plan.Plan)) *Timetable {
		q := p.Clone()
		change(q)
		next, err := work.DoFrom(w, nil, q, shop.Kept, today)
		require.NoError(t, err)
		return In(next)
	}
	for what, change := range map[string]func(p *plan.Plan){
		"a note":    func(p *plan.Plan) { p.Doc().Notes = append(p.Notes(), plan.Note{ID: "n", On: "prop:gate", Text: "x"}) },
		"the shelf": func(p *plan.Plan) { p.Doc().Shelf = nil },
	} {
		assert.Same(t, was, after(change), what)
	}
	for what, change := range map[string]func(p *plan.Plan){
		"the opening": func(p *plan.Plan) { p.Doc().Display.Opens = "2026-12-01" },
		"the climate": func(p *plan.Plan) { p.Doc().Display.RH = 20 },
		"a prop":      func(p *plan.Plan) { p.Props()[0].Stage = "glued" },
		"a solid":     func(p *plan.Plan) { *p.Solid("riser-box") = p.Solid("riser-box").Set("h", measure.Len("9 in")) },
		"a joint":     func(p *plan.Plan) { p.Doc().Joints = p.Joints()[1:] },
		"a waiver":    func(p *plan.Plan) { p.Doc().Waivers = nil }, // it may be of a rule of order
		"a stack":     func(p *plan.Plan) { p.Doc().Finishes = p.Finishes()[1:] },
		"a device":    func(p *plan.Plan) { p.Device("jar-3").Proven = !p.Device("jar-3").Proven },
		"a scene":     func(p *plan.Plan) { p.Doc().Scenes, p.Doc().Triggers = nil, nil },
		"a person":    func(p *plan.Plan) { p.People()[0].Hours = "mon 9-10" },
		"a job":       func(p *plan.Plan) { p.Doc().Jobs = nil },
		"a delivery":  func(p *plan.Plan) { p.Doc().Deliveries = nil },
	} {
		got := after(change)
		assert.NotSame(t, was, got, what)
		q := p.Clone()
		change(q)
		afresh := In(work.Do(q, shop.Kept, today))
		assert.Equal(t, afresh.Answer, got.Answer, what)
		assert.Equal(t, afresh.Deadline, got.Deadline, what)
	}
}

// The order of work and its timetable, at demo size and 20 times it.
func BenchmarkOrder(b *testing.B) {
	for name, n := range map[string]int{"demo": 1, "20x": 20} {
		w := work.Do(wirings.Times(demo.Apiary(today).In(shop.Kept), n), shop.Kept, today)
		b.Run("tasks/"+name, func(b *testing.B) {
			b.ReportAllocs()
			for b.Loop() {
				Of(w)
			}
		})
		b.Run("timetable/"+name, func(b *testing.B) {
			b.ReportAllocs()
			for b.Loop() {
				shop.Kept.Bench().Close()
				scheduled(w)
			}
		})
	}
}

// A rule that is overruled for a task, with a reason, is not waited for there, and is
// everywhere else.
func TestARuleIsOverruled(t *testing.T) {
	waits := func(o *Order, key, code string) bool {
		return slices.ContainsFunc(o.Task(key).After, func(l Link) bool { return l.Rule.Code == code })
	}
	before := Of(small(t))
	require.True(t, waits(before, "wire:a", "coat-before-wire"))
	after := Of(small(t, func(p *plan.Plan) {
		p.Doc().Waivers = []plan.Waiver{{ID: "order-coat-before-wire@wire:a", Reason: "we mask", By: "Ola"}}
	}))
	assert.False(t, waits(after, "wire:a", "coat-before-wire"))
	assert.True(t, waits(after, "mount:L2", "body-before-mechanism"))
	assert.Equal(t, len(before.Tasks), len(after.Tasks))
}

// A prop in the cold dries as slowly as if the whole workshop were cold, and another does
// not.
func TestAPlacesAir(t *testing.T) {
	wait := func(change func(p *plan.Plan)) int { return Of(small(t, change)).Task("coat:a-box:1:1").Wait }
	warm := wait(func(*plan.Plan) {})
	own := wait(func(p *plan.Plan) { p.Props()[0].Temp, p.Props()[0].RH = measure.Must[measure.CelsiusKind]("12 C"), 85 })
	all := wait(func(p *plan.Plan) {
		p.Doc().Display.Temp, p.Doc().Display.RH = measure.Must[measure.CelsiusKind]("12 C"), 85
	})
	assert.Greater(t, own, warm)
	assert.Equal(t, all, own)
}

// What guests cannot make out from the path is told where it is filled: far off only.
func TestWorkThatNobodySees(t *testing.T) {
	told := func(down string) bool {
		w := small(t, func(p *plan.Plan) {
			p.Doc().Walkways = []plan.Walkway{{ID: "w", Name: "Path", Kind: "path", Through: "0 ft, 0 ft; 60 ft, 0 ft"}}
			p.Doc().Plots = []plan.Plot{{ID: "a", Prop: p.Props()[0].ID, X: measure.Len("30 ft"), Y: measure.Len(down)}}
		})
		for _, x := range Of(w).Tasks {
			if x.Kind == "fill" && strings.Contains(strings.Join(x.Steps, " "), "can be left out") {
				return true
			}
		}
		return false
	}
	assert.True(t, told("40 ft"), "0.29 mm a metre: over 1 mm from 11.3 ft on")
	assert.False(t, told("8 ft"))
}

// In a workshop that has the day's air a wait is as long as it would be were that the
// workshop's; where nothing is forecast, or a prop has a place of its own, it stays.
func TestTheDaysAir(t *testing.T) {
	wait := func(change func(p *plan.Plan)) int {
		w := small(t, change)
		for _, x := range In(w).Row {
			if x.Key == "coat:a-box:2:1" {
				return x.Wait
			}
		}
		t.Fatal("no such task")
		return 0
	}
	cold := measure.Must[measure.CelsiusKind]("12 C")
	forecast := func(p *plan.Plan) {
		for d := range 40 {
			day := today.AddDate(0, 0, d).Format(time.DateOnly)
			p.Doc().Forecasts = append(p.Forecasts(), plan.Forecast{ID: day, On: day, Temp: cold, RH: 80})
		}
	}
	told := func(change func(p *plan.Plan)) (n int) {
		for _, x := range In(small(t, change)).Row {
			n += strings.Count(strings.Join(x.Steps, " "), ", 12 C and 80 %, its wait is")
		}
		return n
	}
	assert.Zero(t, told(forecast))
	assert.Greater(
		t,
		told(func(p *plan.Plan) { p.Doc().Display.Airy = true; forecast(p) }),
		3,
		"each wait that is another says so",
	)
	plain := wait(func(*plan.Plan) {})
	as := wait(func(p *plan.Plan) { p.Doc().Display.Temp, p.Doc().Display.RH = cold, 80 })
	require.Greater(t, as, 2*plain)
	assert.InDelta(t, as, wait(func(p *plan.Plan) { p.Doc().Display.Airy = true; forecast(p) }), 1)
	assert.Equal(t, plain, wait(forecast), "the workshop is heated")
	assert.Equal(t, plain, wait(func(p *plan.Plan) { p.Doc().Display.Airy = true }), "nothing is forecast")
	assert.Equal(t, plain, wait(func(p *plan.Plan) {
		p.Doc().Display.Airy = true
		p.Props()[0].Temp, p.Props()[0].RH = measure.Must[measure.CelsiusKind]("21 C"), 50
		forecast(p)
	}), "it dries in the warm room")
}

// Every wait of a finished timetable is that of its own hours, by the formulas of the glues and coats
// (the deficit of vapour; double per 10 C colder for what cures), whatever days it falls on.
func TestWaitsAreThoseOfTheirOwnHours(t *testing.T) {
	air := []struct{ temp, rh float64 }{{12, 80}, {21, 50}, {28, 30}, {8, 90}, {17, 65}}
	w := small(t, func(p *plan.Plan) {
		p.Doc().Display.Airy = true
		for d := range 60 {
			day := today.AddDate(0, 0, d).Format(time.DateOnly)
			a := air[d%len(air)]
			p.Doc().Forecasts = append(p.Forecasts(), plan.Forecast{ID: day, On: day,
				Temp: measure.Of[measure.CelsiusKind](a.temp), RH: int(a.rh)})
		}
	})
	tt := In(w)
	deficit := func(temp, rh float64) float64 { // Alduchov and Eskridge 1996
		return 6.1094 * math.Exp(17.625*temp/(temp+243.04)) * (1 - rh/100)
	}
	looked := 0
	for i, x := range tt.Row {
		if !strings.HasPrefix(x.Key, "coat:a-box") && !strings.HasPrefix(x.Key, "fill:") || !tt.Slots[i].Placed() {
			continue // no water in it
		}
		left, n := x.drying[0].wait, 0
		for at := tt.Slots[i].End(); left > 1e-9; at++ {
			a := air[at/calendar.Day%len(air)]
			slow := math.Min(6, math.Max(.5, deficit(21, 50)/deficit(a.temp, a.rh)))
			left -= 1 / slow
			n++
		}
		assert.InDelta(t, n, tt.Slots[i].Free-tt.Slots[i].End(), 1, x.Key)
		assert.Equal(t, tt.Slots[i].Free-tt.Slots[i].End(), x.Wait, x.Key)
		looked++
	}
	assert.Greater(t, looked, 2)
	// what is done already dried in the air of its own hours as well
	done := Of(small(t, func(p *plan.Plan) {
		p.Doc().Display.Airy = true
		p.Doc().Forecasts = append(p.Forecasts(), plan.Forecast{ID: "f", On: today.Format(time.DateOnly),
			Temp: measure.Of[measure.CelsiusKind](12), RH: 80})
		p.Doc().Jobs = append(p.Jobs(), plan.Job{ID: "j", Task: "coat:a-box:1:1", State: "done",
			At: today.Add(7 * time.Hour).Format(plan.Moment)})
	})).Task("coat:a-box:1:1")
	slow := deficit(21, 50) / deficit(12, 80)
	assert.InDelta(t, 7*60+done.drying[0].wait*slow, float64(done.Free), 2)
}

// A can that says "within an hour, or after two days" (as cans say; from memory): the second
// coat begins in that hour, whatever else is to be done and however short the evenings are;
// gone by, it waits the two days.
func TestACansWindow(t *testing.T) {
	enamel := func(p *plan.Plan) {
		p.Finishes()[0].Layers = []plan.Layer{{Coat: "masonry", Coats: 1}, {Coat: "enamel", Coats: 2}}
	}
	for _, hours := range []string{"mon-sun 9-17", "mon-sun 18-19:30", "mon-sun 20-21"} {
		w := small(t, enamel, func(p *plan.Plan) { p.Doc().People = p.People()[:1]; p.People()[0].Hours = hours })
		in := In(w)
		var one, two int
		for i, x := range in.Row {
			switch x.Key {
			case "coat:a-box:2:1":
				one = i
			case "coat:a-box:2:2":
				two = i
			}
		}
		require.True(t, in.Slots[one].Placed() && in.Slots[two].Placed(), hours)
		assert.GreaterOrEqual(t, in.Slots[two].Start()-in.Slots[one].End(), in.Row[one].Wait, hours)
		assert.LessOrEqual(t, in.Slots[two].Start()-in.Slots[one].End(), 60, hours)
	}
	// the coat under it is another: no window
	assert.Zero(t, Of(small(t, enamel)).Task("coat:a-box:2:1").After[0].Within)
	done := func(at string) *order {
		w := small(t, enamel, func(p *plan.Plan) {
			p.Doc().Jobs = []plan.Job{{ID: "j", Task: "coat:a-box:2:1", State: "done", At: at}}
		})
		in := In(w)
		for i, x := range in.Row {
			if x.Key == "coat:a-box:2:2" {
				return &order{in, i, x}
			}
		}
		return nil
	}
	gone := done("2026-09-19 12:00")
	link := gone.x.After[len(gone.x.After)-1]
	assert.True(t, link.Missed())
	assert.GreaterOrEqual(t, gone.in.Slots[gone.i].Start(), 24*60+12*60, "48 h after noon of the day before")
	open := done("2026-09-20 08:50")
	assert.False(t, open.x.After[len(open.x.After)-1].Missed())
	// gel keeps six hours for its first ply
	o := Of(laidUp(t))
	for _, l := range o.Task("lay:a-laminate").After {
		if l.Rule.Code == "gel-before-plies" {
			assert.Equal(t, 360, l.Within)
		}
	}
}

// order is a task in its timetable.
type order struct {
	in *Timetable
	i  int
	x  *Task
}

// A task in parts takes what it took in all, part after part, its wait behind the last; all
// that came before it comes before the first part, all that comes after it after the last.
func TestATaskInParts(t *testing.T) {
	whole := Of(small(t))
	w := small(t, func(p *plan.Plan) { p.Doc().Jobs = []plan.Job{{ID: "j", Task: "glue:a-box", Parts: 3}} })
	o := Of(w)
	hands := 0
	for n, key := range []string{"glue:a-box", "glue:a-box/2", "glue:a-box/3"} {
		x := o.Task(key)
		require.NotNil(t, x, key)
		assert.Equal(t, fmt.Sprintf("Glue Box, part %d of 3", n+1), x.Name)
		hands += x.Hands
		assert.InDelta(t, whole.Task("glue:a-box").Hands/3, x.Hands, 1)
		assert.Equal(t, n == 2, x.Wait > 0)
		for m := range n {
			assert.Contains(t, after(x), []string{"glue:a-box", "glue:a-box/2"}[m]+" by parts-in-order")
		}
	}
	assert.Equal(t, whole.Task("glue:a-box").Hands, hands)
	assert.Contains(t, after(o.Task("glue:a-box")), "fit:a-box by fit-before-glue")
	assert.Contains(t, after(o.Task("fill:a-box")), "glue:a-box/3 by glue-before-fill")
	// one part is done: the others are left
	w = small(t, func(p *plan.Plan) {
		p.Doc().Jobs = []plan.Job{{ID: "j", Task: "glue:a-box", Parts: 2, State: "done", At: "2026-09-19 20:00"}}
	})
	assert.True(t, Of(w).Task("glue:a-box").Done)
	assert.False(t, Of(w).Task("glue:a-box/2").Done)
	in := In(w)
	assert.Nil(t, in.Loop)
}

// Tasks done together take what both took, wait for all that each waited for, and what came
// after either comes after both; two that wait for each other through a third are told as
// the ring they are.
func TestTasksTogether(t *testing.T) {
	apart := Of(small(t))
	w := small(t, func(p *plan.Plan) { p.Doc().Jobs = []plan.Job{{ID: "j", Task: "coat:a-panel:1:1", With: "fit:a-box"}} })
	o := Of(w)
	both := o.Task("fit:a-box")
	assert.Same(t, both, o.Task("coat:a-panel:1:1"))
	assert.Equal(t, apart.Task("fit:a-box").Hands+apart.Task("coat:a-panel:1:1").Hands, both.Hands)
	assert.Equal(t, max(apart.Task("fit:a-box").Wait, apart.Task("coat:a-panel:1:1").Wait), both.Wait)
	assert.Len(t, o.Tasks, len(apart.Tasks)-1)
	assert.Len(t, both.Merged, 1)
	for _, key := range []string{"join:a-panel-a-box", "glue:a-box", "wire:a"} {
		assert.Contains(t, strings.Join(after(o.Task(key)), " "), "fit:a-box", key)
	}
	for _, x := range o.Tasks {
		for _, l := range x.After {
			assert.Same(t, l.Task, o.Task(l.Task.Key), "nothing waits for what is no more")
			assert.NotSame(t, x, l.Task)
		}
	}
	assert.Nil(t, In(w).Loop)
	// what is done or left out, on either side, stays by itself; so does what names nothing
	for _, jobs := range [][]plan.Job{
		{{ID: "j", Task: "coat:a-panel:1:1", With: "fit:a-box", State: "done", At: "2026-09-19 20:00"}},
		{{ID: "j", Task: "coat:a-panel:1:1", With: "fit:a-box"},
			{ID: "k", Task: "fit:a-box", State: "done", At: "2026-09-19 20:00"}},
		{{ID: "j", Task: "coat:a-panel:1:1", With: "fit:a-box", State: "left out", Why: "no"}},
		{{ID: "j", Task: "coat:a-panel:1:1", With: "fit:a-box"}, {ID: "k", Task: "fit:a-box", State: "left out", Why: "no"}},
		{{ID: "j", Task: "coat:a-panel:1:1", With: "fit:nothing"}},
	} {
		o := Of(small(t, func(p *plan.Plan) { p.Doc().Jobs = jobs }))
		assert.Len(t, o.Tasks, len(apart.Tasks), "%v", jobs)
		assert.Empty(t, o.Task("fit:a-box").Merged)
	}
	// three in one go, said in a ring: no task is lost
	o = Of(small(t, func(p *plan.Plan) {
		p.Doc().Jobs = []plan.Job{
			{ID: "j", Task: "coat:a-panel:1:1", With: "fit:a-box"},
			{ID: "k", Task: "fit:a-box", With: "cut:a"},
			{ID: "l", Task: "cut:a", With: "coat:a-panel:1:1"},
		}
	}))
	assert.Len(t, o.Tasks, len(apart.Tasks)-2)
	assert.Len(t, o.Task("cut:a").Merged, 2)
	assert.Same(t, o.Task("cut:a"), o.Task("coat:a-panel:1:1"))
	ring := small(t, func(p *plan.Plan) { p.Doc().Jobs = []plan.Job{{ID: "j", Task: "fit:a-box", With: "fill:a-box"}} })
	assert.NotEmpty(t, In(ring).Loop, "it is glued between the two")
}

// What waits for one task twice keeps the narrower window, whichever was said first; two done
// together keep the window of the one that has it, and the crew of the one that takes more.
func TestAWindowIsKept(t *testing.T) {
	a, plain, closes := &Task{Key: "a"}, &Rule{Code: "plain"}, &Rule{Code: "closes"}
	links := []Link{
		{Task: a, Rule: plain},
		{Task: a, Rule: closes, Within: 60, Again: 100},
		{Task: a, Rule: plain, Within: 90, Again: 200},
	}
	for _, turn := range [][]int{{0, 1, 2}, {0, 2, 1}, {1, 0, 2}, {1, 2, 0}, {2, 0, 1}, {2, 1, 0}} {
		b := &Task{}
		for _, i := range turn {
			b.wait(links[i])
		}
		assert.Equal(t, []Link{{Task: a, Rule: closes, Within: 60, Again: 200}}, b.After, "%v", turn)
	}
	one, two := &Task{Key: "one"}, &Task{Key: "two", People: 2}
	one.After, two.After = links[:1], links[1:2]
	o := &builder{
		Work: small(t),
		o:    &Order{Tasks: []*Task{a, one, two}, by: map[string]*Task{"a": a, "one": one, "two": two}},
	}
	o.Plan.Doc().Jobs = []plan.Job{{ID: "j", Task: "two", With: "one"}}
	o.merge()
	assert.Equal(t, []*Task{a, one}, o.o.Tasks)
	assert.Equal(t, links[1:2], one.After)
	assert.Equal(t, 2, one.People)
}

// A better order that was kept is set out from again: all is over no later than it promised,
// whatever was tried before; an edit that takes tasks away leaves the rest of it standing.
func TestABetterOrderIsKept(t *testing.T) {
	p := wirings.Times(demo.Apiary(today).In(shop.Kept), 3)
	p.Doc().People = p.People()[:1]
	w := work.Do(p, shop.Kept, today)
	in := In(w)
	look := in.Better()
	better := false
	for range 40 {
		better = look.Step(10) || better
	}
	assert.Equal(t, 400, look.Tries())
	assert.Contains(t, look.Says(), "400 orders tried: all is over ")
	q := p.Clone()
	q.Doc().Display.Turns = look.Turns()
	require.NoError(t, q.Validate())
	kept := In(work.Do(q, shop.Kept, today))
	assert.True(t, kept.NoWorse(in))
	if better {
		assert.False(t, in.NoWorse(kept), "it promised to be better")
	}
	assert.Equal(t, kept.Slots, In(work.Do(q.Clone(), shop.Kept, today)).Slots, "same plan, same answer")
	q.Doc().Joints = nil
	q.Doc().Display.Turns += " glue:gone"
	less := In(work.Do(q, shop.Kept, today))
	assert.Len(t, less.Slots, len(less.Row))
}

// What is blacked out inside is so after its seams are glued and before its wires go in, and
// waits until that is dry.
func TestBlackingOut(t *testing.T) {
	o := Of(small(t, func(p *plan.Plan) { p.Solids()[0].Blacked = true }))
	x := o.Task("black:a-box")
	require.NotNil(t, x)
	assert.Contains(t, after(x), "glue:a-box by glue-before-black")
	assert.Contains(t, after(o.Task("wire:a")), "black:a-box by black-before-wire")
	assert.Contains(t, after(o.Task("close:a-box")), "black:a-box by black-before-wire")
	assert.Equal(t, 60, x.Wait, "at 21 C and 50 %")
	assert.Nil(t, Of(small(t)).Task("black:a-box"))
	assert.Contains(t, strings.Join(o.Task("fit:a-box").Steps, " "), "up, front, left and right")
}

// Equal parts are cut in one, pairs too; pipe that is lit loses its print; a prop with
// neither hears nothing of it.
func TestWhatIsCutTogether(t *testing.T) {
	steps := func(change func(p *plan.Plan)) string {
		return strings.Join(Of(small(t, change)).Task("cut:a").Steps, " ")
	}
	plain := steps(func(p *plan.Plan) {
		p.Doc().Solids = p.Solids()[:1]
		p.Doc().Joints = nil
		p.Doc().Finishes = p.Finishes()[:1]
	})
	assert.NotContains(t, plain, "Pin equal parts")
	assert.NotContains(t, plain, "Sand the print")
	twice := steps(func(p *plan.Plan) { p.Solids()[1] = p.Solids()[1].Set("copies", 3) })
	assert.Contains(t, twice, "Pin equal parts of Panel on each other")
	lit := steps(func(p *plan.Plan) {
		p.Doc().Solids = append(
			p.Solids(),
			plan.Solid{ID: "tube", Prop: "a", Name: "Tube", Kind: "pipe", Stock: "pvc1", Lit: true,
				Form: form.Pipe{Lengths: "2@20in"}},
		)
	})
	assert.Contains(t, lit, "Sand the print off the pipe of Tube")
}

// A coat's edge stays wet as long as its carrier does in that air; what takes longer is done
// in sections of that.
func TestAWetEdge(t *testing.T) {
	wet := func(change func(p *plan.Plan)) (int, string) {
		x := Of(small(t, change)).Task("coat:a-box:1:1")
		for _, timer := range x.Timers {
			if timer.Name == "keep a wet edge" {
				return timer.Seconds, strings.Join(x.Steps, " ")
			}
		}
		return 0, ""
	}
	water, steps := wet(func(*plan.Plan) {})
	assert.Equal(t, 600, water, "21 C and 50 %")
	assert.Contains(t, steps, "In sections of 10 min", "a box of 20 in takes longer")
	solvent, _ := wet(func(p *plan.Plan) { p.Finishes()[0].Layers[0].Coat = "enamel" })
	assert.Equal(t, 240, solvent)
	humid, _ := wet(func(p *plan.Plan) { p.Doc().Display.RH = 80 })
	assert.InDelta(t, 600*bond.WaitFactor("", "water", 21, 80), humid, 1)
	assert.Greater(t, humid, water)
	heat, _ := wet(func(p *plan.Plan) { p.Finishes()[0].Layers[0].Coat = "heatseal" })
	assert.Zero(t, heat)
}

// What is glued waits until it may be handled: as long as the slowest of its joints, not as long
// as it is clamped; a coat as long as its own can says until the next, the last until it may be
// handled; the next is on before its window closes.
func TestWaitsAreThoseOfTheCans(t *testing.T) {
	w := small(t, func(p *plan.Plan) {
		p.Finishes()[0].Layers = []plan.Layer{{Coat: "masonry", Coats: 1}, {Coat: "enamel", Coats: 2}}
	})
	o := Of(w)
	glued, coated := 0, 0
	for _, x := range o.Tasks {
		if x.Kind != "glue" && x.Kind != "join" {
			continue
		}
		most, clamped := 0.0, 0.0
		for _, about := range x.About {
			if id, ok := strings.CutPrefix(about, "joint:"); ok {
				most = math.Max(most, w.Joints()[id].Handling/60)
				clamped = math.Max(clamped, w.Joints()[id].Clamp/60)
			}
		}
		if most > clamped {
			glued++
		}
		assert.Equal(t, int(math.Ceil(most)), x.Wait, x.Key)
	}
	assert.Positive(t, glued, "some are clamped for less")
	judged := w.Finishes()[w.Plan.Finishes()[0].ID]
	id := w.Plan.Finishes()[0].ID
	first, last := o.Task("coat:"+id+":2:1"), o.Task("coat:"+id+":2:2")
	require.NotNil(t, first)
	require.NotNil(t, last)
	assert.Equal(t, int(math.Ceil(judged.Between[1]/60)), first.Wait)
	assert.Equal(t, int(math.Ceil(judged.Waits[1]/60)), last.Wait)
	assert.Greater(t, last.Wait, first.Wait)
	c := w.Lib.Coats["enamel"]
	for _, link := range last.After {
		if link.Task == first {
			coated++
			assert.Equal(t, int(c.Window.Value()/60)-first.Wait, link.Within, "from when it is on")
		}
	}
	assert.Equal(t, 1, coated)
}

// What was logged corrects what is to come, but never more than four times either way.
func TestALoggedTimeCorrectsWithinBounds(t *testing.T) {
	for took, want := range map[string]float64{"100 h": 4, "1 min": .25} {
		o := Of(small(t, func(p *plan.Plan) {
			p.Doc().Jobs = append(p.Jobs(), plan.Job{ID: "j", Task: "coat:a-box:1:1", State: "done",
				Took: measure.Must[measure.DurationKind](took), At: today.Format(plan.Moment)})
		}))
		assert.InDelta(t, want, o.Rates["coat"].Factor, 1e-9, took)
	}
}

// Nothing that sets is put down before half an hour at it, and nothing at all before its set-up
// has paid: whatever the evenings, only the last piece of a task is shorter.
func TestNothingIsPutDownWithGlueOpen(t *testing.T) {
	for _, hours := range []string{"mon-sun 18-18:25, mon-sun 19-20", "mon-sun 9-9:12, mon-sun 10-10:40"} {
		in := In(small(t, func(p *plan.Plan) { p.Doc().People = p.People()[:1]; p.People()[0].Hours = hours }))
		looked := 0
		for i, x := range in.Row {
			pieces := in.Slots[i].Pieces
			if x.Hands == 0 || len(pieces) == 0 {
				continue
			}
			least := 10
			if slices.Contains([]string{"glue", "join", "coat", "fill"}, x.Kind) {
				least, looked = 30, looked+1
			}
			left := x.Hands
			for _, s := range pieces {
				assert.GreaterOrEqual(t, s.End-s.Start, min(least, left), "%s of %d min: %v", x.Key, x.Hands, pieces)
				left -= s.End - s.Start
			}
		}
		assert.Greater(t, looked, 3)
	}
}

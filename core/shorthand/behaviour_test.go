package shorthand

import (
	"fmt"
	"strings"
	"testing"
	"time"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/show"
	"zapbarn/demo"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

func staged() *plan.Plan {
	p := plan.New("x", "X", "in", "").In(shop.Kept)
	p.Doc().Props = []plan.Prop{{ID: "a", Name: "A"}, {ID: "b", Name: "B"}}
	p.Doc().Devices = []plan.Device{
		{ID: "S1", Prop: "a", Kind: "supply", Name: "S1", Product: "ps12-5"},
		{ID: "K1", Prop: "a", Kind: "switch", Name: "Arm up", From: "S1", Driven: true},
		{ID: "K2", Prop: "a", Kind: "switch", Name: "Fog", From: "S1", Driven: true},
		{ID: "K3", Prop: "a", Kind: "switch", Name: "Hum player", From: "S1", Driven: true},
		{ID: "L1", Prop: "a", Kind: "lamp", Name: "Red eyes", From: "K3", Product: "puck12"},
	}
	p.Doc().Inputs = []plan.Input{{ID: "beam", Prop: "a", Name: "Path beam", Kind: "beam"}}
	return p
}

func behave(t require.TestingT, p *plan.Plan, text string) *plan.Plan {
	e, err := ReadBehaviour(p, "a", text)
	require.NoError(t, err, text)
	q, err := p.Apply(e)
	require.NoError(t, err, text)
	require.NoError(t, q.Validate(), text)
	return q
}

// The example of the brief, with a length for what has none: it lasts as long as the rest.
func TestBehaviourIsRead(t *testing.T) {
	p := behave(t, staged(), "when beam, if ready: arm up 0.8s, fog 2s at 0.3s, hum; then rest 12s")
	require.Len(t, p.Triggers(), 1)
	assert.Equal(t, "12s", p.Triggers()[0].Rest.String())
	assert.Equal(t, "one-shot", p.Triggers()[0].Latch)
	var told []string
	for _, c := range p.Scenes()[0].Cues {
		told = append(told, fmt.Sprintf("%s %g+%g", c.Channel, c.Start.Value(), c.Length.Value()))
	}
	assert.Equal(t, []string{"K1 0+0.8", "K2 0.3+2", "K3 0+2.3"}, told)
	text := WriteBehaviour(p, "a")
	assert.Equal(
		t,
		"when Path beam, if ready, run Path beam scene: Arm up 0.8s, Hum player 2.3 s, Fog 2s at 0.3 s; rest 12s",
		text,
	)
	e, err := ReadBehaviour(p, "a", text)
	require.NoError(t, err)
	assert.Empty(t, e.Changes, "what it wrote says what there is")
}

func TestBehaviourSaysAll(t *testing.T) {
	p := behave(t, staged(), strings.Join([]string{
		"when Path beam, if ready, while shut, run Open: arm up 2s, red eyes flicker 70% 4s; then fog 1s; " +
			"state open; rest 5 s",
		"after 30s in open, if ready, run Shut: fog 1s; state shut",
		"when stop button, stops, run Open",
		"when Open ends, if ready, run Sigh: hum ebb 2s",
		"every 10 min, restarts, run Chime: hum 1s; lasts 4s",
		"when power, if ready, run Wake: red eyes fade 3s",
		"when big knob, toggles, run Sigh",
		"always arm up and fog never together",
	}, "\n"))
	require.Len(t, p.Triggers(), 7)
	require.Len(t, p.Promises(), 1)
	kinds := map[string]bool{}
	for _, x := range p.Inputs() {
		kinds[x.Kind] = true
	}
	for _, k := range []string{"beam", "button", "knob", "timer", "scene ends", "power"} {
		assert.True(t, kinds[k], k)
	}
	assert.Equal(t, "K3", p.Scenes()[0].Cues[1].Channel, "red eyes hang behind it")
	assert.Equal(t, 70, p.Scenes()[0].Cues[1].Level)
	assert.Equal(t, 4.0, p.Scenes()[0].Cues[2].Start.Value(), "then: when all before it are over")
	require.NoError(t, p.Machine(nil).Check())
	text := WriteBehaviour(p, "a")
	e, err := ReadBehaviour(p, "a", text)
	require.NoError(t, err, text)
	assert.Empty(t, e.Changes, text)
	// what is said no more goes, with what stood on it alone; wired inputs stay
	q := behave(t, p, "when Path beam, if ready, run Open: arm up 2s")
	assert.Len(t, q.Triggers(), 1)
	assert.Len(t, q.Scenes(), 1)
	assert.Empty(t, q.Promises())
	assert.NotNil(t, q.Input("beam"))
	assert.Len(t, q.Inputs(), 3, "beam, button and knob are wired")
}

func TestBehaviourPointsAtTheWord(t *testing.T) {
	for text, want := range map[string]string{
		"when beam, if redy: fog 2s":                           "if redy|is not understood",
		"when beam: smoke 2s":                                  "smoke|is no switch that scenes drive",
		"when beam: fog 2s at noon":                            "noon|is no time",
		"when door: fog 2s":                                    "door|is no input of this prop",
		"when beam: fog 2s; rest soon":                         "soon|is no time",
		"when beam: fog 120% 2s":                               "fog 120% 2s|cannot be",
		"fog 2s when beam":                                     "fog 2s when beam|begin with when",
		"when beam, if ready":                                  "beam, if ready|say what happens",
		"when beam: fog 2s\nwhen Sleep ends: fog 1s":           "Sleep ends|there is no scene",
		"always the fog is thick":                              "the fog is thick|is not understood",
		"always fog never longer than tea":                     "fog never longer than tea|is no time",
		"after 30s: fog 1s":                                    "30s|say after how long in which state",
		"when beam: fog 2s\nevery now and then: hum 1s":        "now and then|is no time",
		"when beam: fog 2s\nalways moon is on while fog is on": "moon is on while fog is on|nothing here is called",
	} {
		_, err := ReadBehaviour(staged(), "a", text)
		var e *NotationError
		require.ErrorAs(t, err, &e, text)
		word, why, _ := strings.Cut(want, "|")
		assert.Equal(t, word, e.Word, text)
		assert.Contains(t, e.Why, why, text)
		if e.Long > 0 {
			assert.Equal(t, word, text[e.At:e.At+e.Long], text)
		}
		assert.Equal(t, 1+strings.Count(text[:e.At], "\n"), e.Line, text)
	}
}

// On every prop of the demo, and on any behaviour drawn by seed: what is written is read
// as no change, and read into an empty plan it plays the same.
func TestNotationStaysInStep(t *testing.T) {
	p := demo.Apiary(time.Date(2026, 9, 20, 0, 0, 0, 0, time.UTC)).In(shop.Kept)
	for _, x := range p.Props() {
		text := WriteBehaviour(p, x.ID)
		e, err := ReadBehaviour(p, x.ID, text)
		require.NoError(t, err, text)
		assert.Empty(t, e.Changes, text)
	}
	rapid.Check(t, func(t *rapid.T) {
		p := staged()
		d := func(name string, most int) measure.Duration {
			return measure.Of[measure.DurationKind](float64(rapid.IntRange(1, most).Draw(t, name)) / 10)
		}
		for i := range rapid.IntRange(1, 4).Draw(t, "scenes") {
			s := plan.Scene{ID: fmt.Sprintf("s%d", i), Prop: "a", Name: fmt.Sprintf("Scene %d", i)}
			for range rapid.IntRange(1, 4).Draw(t, "cues") {
				s.Cues = append(s.Cues, plan.Cue{Channel: rapid.SampledFrom([]string{"K1", "K2", "K3"}).Draw(t, "ch"),
					Start: measure.Of[measure.DurationKind](
						float64(rapid.IntRange(0, 60).Draw(t, "at")) / 10,
					), Length: d("long", 50),
					Shape: string(
						rapid.SampledFrom(show.Shapes).Draw(t, "shape"),
					), Level: rapid.IntRange(0, 99).Draw(t, "level")})
			}
			p.Doc().Scenes = append(p.Scenes(), s)
			tr := plan.Trigger{ID: fmt.Sprintf("t%d", i), Input: "beam", Scene: s.ID,
				Latch: string(rapid.SampledFrom(show.Latches).Draw(t, "latch")), Rest: d("rest", 90),
				While: rapid.SampledFrom([]string{"", "open", "shut"}).Draw(t, "while"),
				Then:  rapid.SampledFrom([]string{"", "open", "shut"}).Draw(t, "then")}
			if tr.Latch == "reset" {
				tr.Latch = "set"
			}
			p.Doc().Triggers = append(p.Triggers(), tr)
		}
		require.NoError(t, p.Validate())
		text := WriteBehaviour(p, "a")
		e, err := ReadBehaviour(p, "a", text)
		require.NoError(t, err, text)
		require.Empty(t, e.Changes, text)
		q := behave(t, staged(), text)
		stim := append(show.Press("beam", 500, 300), show.Press("beam", 4000, 2000)...)
		a, b := p.Machine(nil).Run(stim, 20_000), q.Machine(nil).Run(stim, 20_000)
		for _, ch := range []string{"K1", "K2", "K3"} {
			require.Equal(t, a.Spans(ch), b.Spans(ch), text)
		}
	})
}

func TestBehaviourByTheLine(t *testing.T) {
	p := staged()
	for _, line := range []string{"when path beam, if ready, run Boo: fog 2s; rest 12 s", "every 5 min, if ready, run Boo",
		"always fog never longer than 8 s", "mechanism lid Cover 2 lb motor L1"} {
		r, err := Read(p, shop.Kept, "a", line)
		require.NoError(t, err, line)
		q, err := p.Apply(r.Edit)
		require.NoError(t, err, line)
		require.NoError(t, q.Validate(), line)
		p = q
	}
	require.Len(t, p.Mechanisms(), 1)
	m := p.Mechanisms()[0]
	assert.Equal(t, "K3", m.Up, "what its motor hangs behind drives it")
	assert.InDelta(t, .907, m.Mass.Value(), .001)
	assert.Empty(t, m.Lacks())
	_, err := Read(p, shop.Kept, "a", "when path beam, if ready: fgo 2s")
	assert.ErrorContains(t, err, "fgo")
}

func TestPiecesAreMergedAndPerformed(t *testing.T) {
	p := behave(t, staged(), "when beam, if ready, run Gaze: red eyes 4s\nwhen bell button, if ready, run Laugh: "+
		"arm up 1s, red eyes 1s at 1s")
	p.Doc().Clips = []plan.Clip{{ID: "voice", Prop: "a", Name: "Old voice",
		Long: measure.Must[measure.DurationKind]("2 s"),
		Wave: "0000zzzz0000zzzz"}}
	say := func(line string) *plan.Scene {
		r, err := Read(p, shop.Kept, "a", line)
		require.NoError(t, err, line)
		q, err := p.Apply(r.Edit)
		require.NoError(t, err, line)
		require.NoError(t, q.Validate(), line)
		_, id, _ := strings.Cut(r.Select, ":")
		return q.Scene(id)
	}
	both := say("merge Gaze with Laugh wins as Gaze and laugh")
	require.NotNil(t, both)
	assert.Equal(t, "Gaze and laugh", both.Name)
	assert.Equal(
		t,
		"K3 at 0 s for 1 s; K1 at 0 s for 1 s; K3 at 1 s for 1 s; K3 at 2 s for 2 s",
		WriteCues(both.Cues),
	)
	assert.Equal(t, 6.0, say("merge Gaze with Laugh waits as Late").Cues[2].Start.Value()+1)
	talk := say("perform fog by old voice in Talk")
	assert.Equal(t, "K2 at 0.5 s for 0.5 s 100%; K2 at 1.5 s for 0.5 s 100%", WriteCues(talk.Cues))
	for line, want := range map[string]string{"merge Gaze": "which two scenes",
		"merge Gaze with Sleep":  "no scene \"Sleep\"",
		"perform fog by thunder": "no sound", "perform moon by old voice": "is no switch"} {
		_, err := Read(p, shop.Kept, "a", line)
		assert.ErrorContains(t, err, want, line)
	}
}

// A sentence as people say it: what a switch feeds for the switch, no comma, no colon.
func TestASentenceAsItIsSaid(t *testing.T) {
	for text, want := range map[string]string{
		"when beam, if ready: eyes 4s":               "K3",
		"when beam runs: red eyes 4s":                "K3",
		"when beam, fog 2s at 1s":                    "K2",
		"when beam, if ready run Boo: fog 2s":        "K2",
		"when path beam, restarts, fog 2s; rest 5 s": "K2",
	} {
		p := behave(t, staged(), text)
		require.Len(t, p.Scenes(), 1, text)
		assert.Equal(t, want, p.Scenes()[0].Cues[0].Channel, text)
	}
	p := behave(t, staged(), "when beam, if ready run Boo: fog 2s\nalways eyes never longer than 5 s")
	q, err := p.Promise("x", p.Promises()[0].Says)
	require.NoError(t, err)
	assert.Equal(t, show.Term{Kind: "channel", ID: "K3"}, q.A)
	r, err := Read(staged(), shop.Kept, "a", "motion sensor runs spook")
	require.NoError(t, err)
	assert.Contains(t, r.Text, "motion")
}

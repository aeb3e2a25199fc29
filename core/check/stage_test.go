package check

import (
	"testing"

	"zapbarn/core/form"
	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/shorthand"
	"zapbarn/core/work"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Nothing is red while one is still sketching: a prop typed from nothing raises no
// stop and no fix of what is only not planned yet.
func TestASketchIsNotRed(t *testing.T) {
	p := plan.New("x", "X", "in", "2026-10-09").In(shop.Kept)
	p.Doc().Display.Outdoors = true
	prop := ""
	for _, line := range []string{"prop lantern 30 in tall", "box 12 x 12 x 20 xps1 lid bottom", "box 10 x 10 x 4 xps1",
		"supply 12v 2a", "fuse 1a on S1", "run 18awg 12 ft on F1", "lamp puck12 on W1", "button runs glow"} {
		got, err := shorthand.Read(p, shop.Kept, prop, line)
		require.NoError(t, err, line)
		p, err = p.Apply(got.Edit)
		require.NoError(t, err, line)
		prop = p.Props()[0].ID
		for _, s := range snags(t, p) {
			assert.Less(t, s.Level, Fix, "%s: %s", line, s.Title)
			assert.NotContains(t, []string{"unjoined", "seams-open", "uncoated-foam"}, s.Code, line)
		}
	}
	p.Props()[0].Stage = "cut" // it claims more now, so more is asked of it
	codes := map[string]Level{}
	for _, s := range snags(t, p) {
		codes[s.Code] = max(codes[s.Code], s.Level)
	}
	assert.Equal(t, Mind, codes["unjoined"])
	assert.Equal(t, Mind, codes["uncoated-foam"])
	assert.Equal(t, Fix, codes["known-size"])
}

// Parts that are too large already are a mistake in a sketch as well; a trade that
// is begun is asked about at once.
func TestASketchIsAskedAboutWhatIsBegun(t *testing.T) {
	p := clean()
	p.Props()[0].Stage = ""
	p.Doc().Display.Outdoors = true
	p.Props()[0].Known = measure.Len("8 in") // it stands 10 in
	s := find(snags(t, p), "known-size", "")
	require.NotNil(t, s)
	assert.Equal(t, Fix, s.Level)
	p.Doc().Joints = p.Joints()[:1]
	assert.NotNil(t, find(snags(t, p), "seams-open", ""), "joints are planned: the rest is missed")
	p.Doc().Joints = nil
	assert.Nil(t, find(snags(t, p), "unjoined", ""))

	body := plan.NewSolid("a", "Body", "xps1", form.Panel{W: measure.Len("9 in"), H: measure.Len("9 in"), Copies: 1})
	body.ID = "body"
	p.Doc().Solids, p.Doc().Finishes = append(p.Solids(), body), nil
	assert.Nil(t, find(snags(t, p), "uncoated-foam", ""))
	p.Doc().Finishes = []plan.Finish{{ID: "f", Solid: "box", Layers: []plan.Layer{{Coat: "latex", Coats: 1}}}}
	assert.NotNil(t, find(snags(t, p), "uncoated-foam", "solid:body"), "coats are begun: the next is missed")
}

// The stage follows what is done, until it is said by hand.
func TestStageFollowsTheWork(t *testing.T) {
	p := plan.New("x", "X", "in", "").In(shop.Kept)
	p.Doc().Props = []plan.Prop{{ID: "a", Name: "A"}}
	at := func() plan.Stage { return work.Do(p, shop.Kept, today).StageOf(&p.Props()[0]) }
	assert.Equal(t, plan.Idea, at())
	p.Doc().Solids = []plan.Solid{plan.NewSolid("a", "Leaf", "xps1", form.Panel{W: measure.Len("20 in")})}
	p.Solids()[0].ID = "leaf"
	assert.Equal(t, plan.Idea, at(), "it lacks its height")
	p.Solids()[0] = p.Solids()[0].Set("h", measure.Len("30 in")).Set("copies", 2)
	assert.Equal(t, plan.Drawn, at())
	w := work.Do(p, shop.Kept, today)
	e, err := w.CutSheet(w.Sheets()[0], 0)
	require.NoError(t, err)
	p, err = p.Apply(e)
	require.NoError(t, err)
	assert.Equal(t, plan.Cut, at())
	p.Props()[0].Stage = "wired"
	assert.Equal(t, plan.Wired, at())
	assert.Equal(t, "wired", plan.Wired.String())
	p.Props()[0].Stage = "gone"
	assert.ErrorContains(t, p.Validate(), `stage: "gone" is not known`)
}

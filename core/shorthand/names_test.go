package shorthand

import (
	"strings"
	"testing"

	"zapbarn/core/plan"
	"zapbarn/demo"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Whatever a thing is called, it is found by its name: commas, apostrophes, case and
// spaces, written as on the screen or carelessly.
func TestAnythingIsFoundByItsName(t *testing.T) {
	for _, name := range []string{"Skep, small", "Keeper's hand", "Keeper’s left hand, outer", "Box no 2", "A  wide one"} {
		p := plan.New("x", "X", "in", "").In(shop.Kept)
		p.Doc().Props = []plan.Prop{{ID: "a", Name: "A"}}
		for _, line := range []string{"box 10 x 10 x 10", "box 6 x 6 x 6 beside"} {
			r, err := Read(p, shop.Kept, "a", line)
			require.NoError(t, err)
			p, err = p.Apply(r.Edit)
			require.NoError(t, err)
		}
		p.Solids()[0].Name = name
		id := p.Solids()[0].ID
		for _, said := range []string{name, strings.ToUpper(name), strings.ReplaceAll(name, " ", "   "),
			strings.ReplaceAll(name, "’", "'"), strings.ReplaceAll(name, ", ", ",")} {
			for line, want := range map[string]string{
				said + " height 12":                  id,
				"coat " + said + " latex":            id,
				"remove " + said:                     id,
				"hole 1 in in " + said + " front":    id,
				"rename " + said + " to another one": id,
			} {
				r, err := Read(p, shop.Kept, "a", line)
				require.NoError(t, err, line)
				assert.Contains(t, string(r.Edit.Changes[0].Before)+r.Edit.Changes[0].ID, want, line)
			}
		}
	}
}

// What a line makes is called as it says at its end, whether its verb knows names or not; what
// else is wrong with the line is what is said of it.
func TestWhatIsMadeIsCalled(t *testing.T) {
	p := plan.New("x", "X", "in", "").In(shop.Kept)
	p.Doc().Props = []plan.Prop{{ID: "a", Name: "A"}}
	for _, line := range []string{
		"supply 12v 5a called Big one, new",
		"fuse 3a on S1 called Guard",
		"driven switch on F1 called Gate",
		"run 18awg 12ft on K1 called Long lead",
		"lamp motor12 on W1 called Flapper",
		"strip 2m strip12 on F1 called Edge",
		"pixels 1m 60/m 5v on F1 called Row",
		"converter 5v 3a on F1 called Small one",
		"controller 3.3v on F1 called Brain",
		"connector 3a on W1 at 2 ft called Plug in the neck",
		"battery 4 aa called Pack",
		"box 10 x 10 x 10 xps1 called Chest",
	} {
		r, err := Read(p, shop.Kept, "a", line)
		require.NoError(t, err, line)
		q, err := p.Apply(r.Edit)
		require.NoError(t, err, line)
		kind, id, _ := strings.Cut(r.Select, ":")
		made, _ := q.Get(kind, id)
		_, name, _ := strings.Cut(line, " called ")
		assert.Equal(t, name, plan.NameOf(made), line)
		if kind == "device" {
			assert.Contains(t, r.Text, ", called "+name)
		}
		p = q
	}
	r, err := Read(p, shop.Kept, "a", "6 pucks on K1 22awg 10 ft called Big eyes")
	require.NoError(t, err)
	q, err := p.Apply(r.Edit)
	require.NoError(t, err)
	eyes := 0
	for _, d := range q.Devices() {
		if strings.HasPrefix(d.Name, "Big eyes ") {
			eyes++
			assert.Equal(t, "puck12", d.Product, "as the line says")
		}
	}
	assert.Equal(t, 6, eyes)
	for line, name := range map[string]string{
		"2 jars flicker on K1 22awg 3 ft": "Jar 1", "2 pucks on K1 22awg 3 ft": "Puck 1", "2 jars on K1 22awg 3 ft": "Jar 1",
		"2 lamps puck12 on K1 22awg 3 ft": "Lamp 1", "2 flicker12 on K1 22awg 3 ft": "Lamp 1",
	} {
		r, err = Read(p, shop.Kept, "a", line)
		require.NoError(t, err, line)
		q, err = p.Apply(r.Edit)
		require.NoError(t, err)
		assert.Equal(t, name, q.Devices()[len(q.Devices())-2].Name, line)
	}
	r, err = Read(p, shop.Kept, "a", "6 strips on K1 10 ft")
	require.NoError(t, err)
	assert.Equal(t, "6 times: lamp L9, LED strip 12 V, 60/m, amber, 10 ft on K1", r.Text, "each of that length")
	for line, says := range map[string]string{
		"lamp gearmotor12 on K1 called Flapper":  "could be gear12",
		"lamp puck99 on K1":                      "the shop has no “puck99”; it has puck12",
		"box 10 x 10 x 10 xps7":                  "the shop has no “xps7”; it has xps1",
		"6 candles puck99 on K1 10 ft":           `the shop has no lamp "puck99"`,
		"6 candles fliker12 on K1 10 ft":         "did you mean: 6 candles flicker12 on K1 10 ft",
		"always K1 never longer than 8 s called": "is no time",
		"fuse 3a on S9 called Guard":             `there is no device "S9"`,
		"6 stri on K1 22awg 10 ft":               "is not understood", // a strip has a length of its own
		"row Chest x3 every 30 in called Three":  "called",            // which of them?
	} {
		_, err := Read(p, shop.Kept, "a", line)
		assert.ErrorContains(t, err, says, line)
	}
}

// A name of several words, or with a number in it, never catches a line that makes something;
// and a device of such a name can be what something hangs on.
func TestANameCatchesNoLineThatMakes(t *testing.T) {
	p := demo.Apiary(today).In(shop.Kept)
	say := func(line string) (*Reading, error) {
		r, err := Read(p, shop.Kept, "riser", line)
		if err == nil {
			q, err := p.Apply(r.Edit)
			require.NoError(t, err, line)
			p = q
		}
		return r, err
	}
	for _, line := range []string{"box 20 x 20 x 20 xps1 called Box 2", "run 18awg 2 ft on S2 called Lid power",
		"disc 24 in xps1 called Disc 24", "run 18awg 3 ft on S2 called Fuse 3a run"} {
		_, err := say(line)
		require.NoError(t, err, line)
	}
	before := string(p.Encode())
	_, err := say("box 2 x 4")
	assert.Error(t, err, "two sizes make no box, and move none")
	assert.Equal(t, before, string(p.Encode()))
	r, err := say("box 2 x 4 x 3 acrylic3")
	require.NoError(t, err)
	assert.Contains(t, r.Text, `box, 2" wide, 4" deep, 3" tall`)
	r, err = say("disc 24 in xps1")
	require.NoError(t, err)
	assert.Contains(t, r.Text, `disc, 24" across`)
	r, err = say("lamp puck12 on Lid power at 1 ft")
	require.NoError(t, err)
	assert.Contains(t, r.Text, "on W")
	r, err = say("fuse 3a on Lid power")
	require.NoError(t, err)
	assert.Contains(t, r.Text, "fuse F")
	r, err = say("box 2 height 30")
	require.NoError(t, err, "its field is still set by its name")
	assert.Contains(t, r.Text, "Box 2")
	r, err = say("fuse 3a run length 5 ft")
	require.NoError(t, err)
	assert.Contains(t, r.Text, "Fuse 3a run")
}

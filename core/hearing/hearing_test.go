package hearing

import (
	"regexp"
	"strings"
	"testing"

	"zapbarn/core/plan"
	"zapbarn/core/wiring"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// shelf is a display with a prop, a bookcase, a head and a supply.
func shelf(t *testing.T) (*plan.Plan, string) {
	p := plan.New("x", "X", "in", "2026-10-31").In(shop.Kept)
	prop := ""
	for _, line := range []string{"prop Potion shelf 40 in tall", "box 36 x 10 x 40 ply1/2 called Bookcase",
		"modelled 6 x 7 x 8 skin 3/8 lightclay called Skull", "supply 12v 5a"} {
		h := Hear(p, shop.Kept, prop, line)
		require.Equal(t, Done, h.Answer, "%s: %s", line, h.Why)
		q, err := p.Apply(h.Reading.Edit)
		require.NoError(t, err, line)
		p, prop = q, q.Props()[0].ID
	}
	return p, prop
}

// What is said in a builder's words is taken as the quick line's own, all of it; the same in any
// order, in words for numbers, and with units as they are said.
func TestSaidInOnesOwnWords(t *testing.T) {
	p, prop := shelf(t)
	for line, as := range map[string]string{
		"a bookcase 36 in wide 40 in tall 10 in deep half inch plywood": "box 36 in x 10 in x 40 in ply1/2 called Bookcase",
		"bookcase half inch plywood 10 in deep 36 in wide 40 in tall":   "box 36 in x 10 in x 40 in ply1/2 called Bookcase",
		"24 tombstones 24 x 36 2 in foam":                               "panel 24 x 36 xps2 x24 called Tombstone",
		"fourteen tombstones 2 ft x 3 ft of two inch pink foam":         "panel 2 ft x 3 ft xps2 x14 called Tombstone",
		"toe pincher coffin 18 x 12 x 48 1/4 ply":                       "box 18 x 12 x 48 ply1/4 called Toe pincher coffin",
		"12 jars 4 in wide 6 in tall glass $1.75 each":                  "bought jar 4 in x 6 in glass x12 $1.75 called Jars",
		"a dozen glass jars 4 x 6":                                      "bought jar 4 x 6 glass x12 called Jars",
		"a clay raven 6 x 7 x 8":                                        "modelled 6 x 7 x 8 lightclay called Raven",
		"a clay mannequin 6 x 7 x 8":                                    "modelled 6 x 7 x 8 lightclay called Mannequin",
		"6 tombstones 24-inch x 36-inch pink-foam":                      "panel 24 in x 36 in xps1 x6 called Tombstone",
		"paint the skull with latex two coats":                          "coat Skull latex 2",
		"coat bookcase with masonry sealer":                             "coat Bookcase masonry",
		"24v 10a power supply":                                          "supply 24v 10a",
		"a supply of 12 volts 2 amps":                                   "supply 12v 2a",
		"6 green leds":                                                  "6 green leds on S1",
		"wiper motor 12v":                                               "lamp wiper12 on S1",
		"archway 8 ft wide 4 ft rise 24 in deep 1/8 plywood":            "arch 8 ft wide 4 ft rise 24 in deep ply1/8",
		"pipe 9@8ft 7@6ft 1 1/2 pvc":                                    "pipe 9@8ft 7@6ft pvc1.5",
		"a step mat starts the glow":                                    "mat runs glow",
	} {
		h := Hear(p, shop.Kept, prop, line)
		require.Equal(t, Done, h.Answer, "%s: %s; left %v of %s", line, h.Why, h.Left, h.As)
		if h.As != "" { // else the quick line has it as it stands
			assert.Equal(t, as, h.As, line)
		}
		_, err := p.Apply(h.Reading.Edit)
		assert.NoError(t, err, line)
	}
}

// What is there decides: a thing of the mains goes into the only outlet, an input works the driven
// switch it names for as long as it says; how many boxes is left over, since one is made at a time.
func TestWhatIsThereDecides(t *testing.T) {
	p, prop := shelf(t)
	assert.Equal(t, Refused, Hear(p, shop.Kept, prop, "fog machine 400 watts").Answer, "there is no outlet")
	for _, line := range []string{"outlet porch 15a 120v guarded", "driven switch on S1", "mat runs glow"} {
		h := Hear(p, shop.Kept, prop, line)
		require.Equal(t, Done, h.Answer, "%s: %s", line, h.Why)
		q, err := p.Apply(h.Reading.Edit)
		require.NoError(t, err, line)
		p = q
	}
	h := Hear(p, shop.Kept, prop, "fog machine 400 watts")
	require.Equal(t, Done, h.Answer, h.Why)
	assert.Equal(t, []string{"plugged into Porch"}, h.Assumed)
	h = Hear(p, shop.Kept, prop, "step mat fires K1 for 6 s then rests 20 s")
	require.Equal(t, Done, h.Answer, "%s %v %s", h.Why, h.Left, h.As)
	assert.Equal(t, "when mat: K1 6 s; rest 20 s", h.As)
	h = Hear(p, shop.Kept, prop, "12 merlons 24 x 18 x 12 2 inch foam")
	assert.Equal(t, Offered, h.Answer)
	assert.Equal(t, []string{"12"}, h.Left)
	assert.Equal(t, "box 24 x 18 x 12 xps2 called Merlon", h.As)
	two := Hear(p, shop.Kept, prop, "outlet shed 15a 120v guarded")
	require.Equal(t, Done, two.Answer, two.Why)
	q, err := p.Apply(two.Reading.Edit)
	require.NoError(t, err)
	assert.NotEqual(t, Done, Hear(q, shop.Kept, prop, "fog machine 400 watts").Answer, "which of the two outlets?")
	h = Hear(p, shop.Kept, prop, "two fog machines 400 w each")
	assert.NotEqual(t, Done, h.Answer, "two are not one")
}

// A napkin is heard line by line, each on what the ones before left, all of it or none.
func TestANapkin(t *testing.T) {
	p := plan.New("x", "X", "in", "2026-10-31").In(shop.Kept)
	napkin := "prop Potion shelf 40 in tall\nbookcase 36 in wide 40 in tall 10 in deep half inch plywood\n# sweets\n" +
		"a dozen glass jars 4 x 6 $1.75 each\n24v 10a power supply\nwiper motor 12v on S1\npaint the bookcase with latex"
	r, lines := All(p, shop.Kept, "", napkin)
	require.NotNil(t, r, "%+v", lines)
	require.Len(t, lines, 6)
	q, err := p.Apply(r.Edit)
	require.NoError(t, err)
	assert.Len(t, q.Solids(), 2)
	assert.Len(t, q.Devices(), 2)
	assert.Len(t, q.Finishes(), 1)
	for _, s := range q.Solids() {
		assert.Equal(t, "potion-shelf", s.Prop)
	}
	r, lines = All(p, shop.Kept, "", napkin+"\npaint the bookcase with bone latex")
	assert.Nil(t, r)
	assert.ErrorContains(t, lines[6].Err, "nothing was made of “bone”")
}

// What was not said and is taken is said back.
func TestWhatIsAssumedIsSaidBack(t *testing.T) {
	p, prop := shelf(t)
	h := Hear(p, shop.Kept, prop, "tombstone 24 x 36")
	require.Equal(t, Done, h.Answer)
	assert.Contains(t, h.Text(), `assumed: XPS board 1"`)
	h = Hear(p, shop.Kept, prop, "wiper motor")
	assert.Contains(t, h.Text(), "assumed: fed by S1")
	h = Hear(p, shop.Kept, prop, "wiper motor on S1")
	assert.Empty(t, h.Assumed)
}

// builds are lines of six builds as builders say them, and of ours: most are not understood yet.
// None of them may be taken for something else.
var builds = strings.Split(strings.TrimSpace(`
fourteen panels 4 ft x 8 ft of 2 inch pink foam
12 merlons 24 x 18 x 12 2 inch foam
frame each panel with 1x3 pine
rope 40 ft of 3/8 nylon
two pulleys 3 in
winch motor lifts portcullis 35 lb 7 ft in 6 s
remote button raises portcullis
castle wall sealed with masonry sealer then two coats of grey latex
4 sandbags 50 lb on castle wall
two torches 12v flicker on the towers
box 900 x 300 x 2100 18 mm plywood
5 shelves 860 x 280 18 mm ply
maglock 280 kg 12v on the door
8 relay board 5v
2 m of rgb strip under the altar top
zombie torso of pvc and expanding foam 24 x 18 x 30
wiper motor 12v shakes the zombie
12v 7ah sla battery
mat fires groundbreaker for 6 s then rests 20 s
green flood 10w led
24 tombstones 24 x 36 2 in foam
100 solar spots 5 lumens
hide the battery in a toe pincher coffin 18 x 12 x 48 1/4 ply
bought rocking chair 600 x 900 x 1100 mm 9 kg
skull head 3d printed 180 mm pla 4 perimeters 15 % infill
pir sensor 5 m starts the chair for 20 s then rests 40 s
12 rocks eps 24 x 18 x 16
pump 800 gph 12v runs a spitter from the mouth
eyes two 3w red leds
jaw servo 25 kg
2 eye holes in skull
16 gauge wire 6 ft
10 zombies on S1
pipe 4@8ft 1 1/2
paint the skull with bone latex two coats
`), "\n")

var digits = regexp.MustCompile(`\d+`)

// No line is done of which a word is left over, and every number of a line that is done is in what
// was read, or in what was made.
func TestNothingIsTakenForSomethingElseInSilence(t *testing.T) {
	p, prop := shelf(t)
	done := 0
	for _, line := range builds {
		h := Hear(p, shop.Kept, prop, line)
		if h.Answer != Done {
			assert.NotEmpty(t, h.Trouble(), line)
			assert.NotEmpty(t, h.Note, "%s can be kept as it was said", line)
			if h.Answer == Offered {
				assert.NotEmpty(t, h.Left, line)
			}
			continue
		}
		done++
		assert.Empty(t, h.Left, line)
		made := h.As + h.Says
		for _, c := range h.Reading.Edit.Changes {
			made += string(c.After)
		}
		said := words(line)
		for _, w := range said {
			for _, n := range digits.FindAllString(w.num, -1) {
				assert.Contains(t, made, n, "%s: %s", line, h.Says)
			}
		}
	}
	assert.GreaterOrEqual(t, done, 3)
	for _, line := range []string{"tombstone -3 x 5", "tombstone 24 x -36", "coffin 0 x 0 x 0 1/4 ply",
		"99999 jars 4 x 6 glass",
		"jar 4000 ft x 6 ft glass", "a supply of 500 volts 2 amps", "tombstone 24 x", "clay 6 x 7", "paint the", "a", ""} {
		assert.NotEqual(t, Done, Hear(p, shop.Kept, prop, line).Answer, "%q cannot be made", line)
	}
	for line, never := range map[string]string{"10 zombies on S1": "lamp", "2 eye holes in skull": "lamp",
		"16 gauge wire 6 ft": "lamp", "4 sandbags 50 lb on castle wall": "lamp"} {
		h := Hear(p, shop.Kept, prop, line)
		if h.Answer != Done {
			continue
		}
		q, err := p.Apply(h.Reading.Edit)
		require.NoError(t, err)
		for _, d := range q.Devices() {
			assert.False(t, d.Is(wiring.Load), "%s became a %s: %s", line, never, h.Says)
		}
	}
}

// A number takes the unit behind it; a number word is a number; a fraction joins its whole.
func TestWordsAndNumbers(t *testing.T) {
	for line, want := range map[string]string{
		"half inch plywood": "1/2 in|plywood", "12 volts": "12 v", "1 1/2 in": "1 1/2 in", "4'": "4 ft",
		"3/4\" ply":      "3/4 in|ply",
		"twelve merlons": "12|merlons", "2x4": "2|x|4", "6 seconds": "6 s", "a dozen": "a|12", "12v 5 amps": "12 v|5 a",
		"half a wall": "half|a|wall", "36in": "36 in",
	} {
		var got []string
		for _, w := range words(line) {
			got = append(got, w.text)
		}
		assert.Equal(t, want, strings.Join(got, "|"), line)
	}
}

package nest

import (
	"encoding/json"
	"fmt"
	"math"
	"math/rand/v2"
	"os"
	"testing"

	"github.com/stretchr/testify/require"
)

// packSet is a set of rectangles for both packers.
type packSet struct {
	Name  string       `json:"name"`
	W     float64      `json:"w"`
	H     float64      `json:"h"`
	Kerf  float64      `json:"kerf"`
	Parts [][2]float64 `json:"parts"`
}

// packSets are sets of shop sizes: sheets cut up at random, and free mixtures
// of large and small parts.
func packSets() (out []packSet) {
	for k := range 30 {
		s := packSet{Name: fmt.Sprintf("cut up %d", k), W: 1219, H: 2438}
		for _, p := range knownToFit(16+4*(k%10), 2+k%4, uint64(100+k)) {
			s.Parts = append(s.Parts, [2]float64{math.Round(p.W*100) / 100, math.Round(p.H*100) / 100})
		}
		out = append(out, s)
	}
	r := rand.New(rand.NewPCG(5, 5))
	for k := range 30 {
		s := packSet{Name: fmt.Sprintf("mixture %d", k), W: 1206, H: 2425, Kerf: 3}
		for range 20 + 3*(k%10) {
			a, b := 150+900*r.Float64(), 100+700*r.Float64()
			s.Parts = append(s.Parts, [2]float64{math.Round(a), math.Round(b)})
		}
		out = append(out, s)
	}
	return out
}

// Against a general-purpose packer from the npm registry (its name and version
// stand in testdata/packer.json, written by make compare-packer): never more
// sheets than it, and fewer in all.
func TestAgainstAGeneralPacker(t *testing.T) {
	sets := packSets()
	b, err := json.Marshal(sets)
	require.NoError(t, err)
	if os.Getenv("UPDATE") != "" {
		require.NoError(t, os.WriteFile("testdata/sets.json", append(b, '\n'), 0o644))
	}
	was, err := os.ReadFile("testdata/sets.json")
	require.NoError(t, err)
	require.JSONEq(t, string(b), string(was), "the sets changed; run make compare-packer")
	var theirs struct {
		Packer string
		Sets   []struct {
			Name   string
			Sheets int
			Stock  float64 // mm2, the emptiest sheet up to one straight cut-off line
		}
	}
	b, err = os.ReadFile("testdata/packer.json")
	require.NoError(t, err)
	require.NoError(t, json.Unmarshal(b, &theirs))
	require.Len(t, theirs.Sets, len(sets))
	us, them, bound := 0, 0, 0
	ours, their, area := 0.0, 0.0, 0.0
	for i, s := range sets {
		require.Equal(t, s.Name, theirs.Sets[i].Name)
		var parts []Part
		for _, p := range s.Parts {
			parts = append(parts, Part{W: p[0], H: p[1], Turn: true})
		}
		o := Options{Kerf: s.Kerf, Seed: 1, Tries: 300}
		l := Sheets(parts, []Stock{{"s", s.W, s.H, -1}}, o)
		checkLayout(t, parts, l, o)
		require.LessOrEqual(t, len(l.Sheets), theirs.Sets[i].Sheets, "%s: more sheets than %s", s.Name, theirs.Packer)
		us, them = us+len(l.Sheets), them+theirs.Sets[i].Sheets
		bound += int(math.Ceil(l.Used / (s.W * s.H)))
		ours, their, area = ours+l.Used/yield(parts, l), their+theirs.Sets[i].Stock, area+l.Used
	}
	t.Logf(
		"%d sheets against %d of %s, %d by area alone; stock used %.1f %% less; wasted %.0f %% less",
		us,
		them,
		theirs.Packer,
		bound,
		100*(1-ours/their),
		100*(1-(ours-area)/(their-area)),
	)
	require.LessOrEqual(t, us, them)
	require.LessOrEqual(t, ours-area, 0.75*(their-area), "a quarter less wasted")
}

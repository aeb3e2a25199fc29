package stock

import (
	"testing"

	"zapbarn/core/measure"

	"github.com/stretchr/testify/assert"
)

// ASTM D1785 schedule 40: OD and minimum wall in inches; bore by subtraction.
func TestPipeTable(t *testing.T) {
	for id, w := range map[string][3]float64{
		"pvc1/2": {.840, .109, .622}, "pvc3/4": {1.050, .113, .824}, "pvc1": {1.315, .133, 1.049},
		"pvc1.25": {1.660, .140, 1.380}, "pvc1.5": {1.900, .145, 1.610},
		"pvc2": {2.375, .154, 2.067}, "pvc2.5": {2.875, .203, 2.469}, "pvc3": {3.500, .216, 3.068},
		"pvc4": {4.500, .237, 4.026},
	} {
		m := Shop.Materials[id]
		assert.InDelta(t, w[0], m.OD.Value()/25.4, 1e-9, id)
		assert.InDelta(t, w[1], m.Wall.Value()/25.4, 1e-9, id)
		assert.InDelta(t, w[2], m.Bore()/25.4, 1e-9, id)
	}
	// Fits worked by hand.
	assert.InDelta(t, .295, (Shop.Materials["pvc1.5"].Bore()-Shop.Materials["pvc1"].OD.Value())/25.4, 1e-9)
	assert.Greater(t, Shop.Materials["pvc1.25"].OD.Value(), Shop.Materials["pvc1.5"].Bore())
}

// Solid copper at 20 C, mOhm per metre: wire tables to ASTM B258 and IEC 60028.
func TestWireTable(t *testing.T) {
	for awg, mohm := range map[int]float64{10: 3.277, 12: 5.211, 14: 8.286, 16: 13.17, 18: 20.95, 20: 33.31, 22: 52.96,
		24: 84.22, 26: 133.9, 28: 212.9} {
		assert.InEpsilon(t, mohm, 1000*CopperOhmsPerMetre(measure.AWGArea(awg), 20), 5e-4, "%d AWG", awg)
	}
	// NEC chapter 9 table 8, ohm per 1000 ft at 75 C, stranded uncoated: strands
	// lie at an angle, so up to 2.5 % above the solid wire computed here.
	for awg, ohm := range map[int]float64{18: 7.95, 16: 4.99, 14: 3.14, 12: 1.98, 10: 1.24} {
		got := CopperOhmsPerMetre(measure.AWGArea(awg), 75) * 304.8
		assert.Less(t, got, ohm)
		assert.InEpsilon(t, ohm, got, 0.025, "%d AWG", awg)
	}
	assert.Equal(t, 10.0, CordAmpacity(18))
	assert.Equal(t, 3.0, Ampacity(measure.AWGArea(22)))
	assert.Equal(t, 5.0, Ampacity(1.0), "1 mm2 lies between 18 and 16 AWG")
	assert.Zero(t, Ampacity(.01))
}

func TestE24(t *testing.T) { // IEC 60063
	for r, want := range map[float64]float64{445: 470, 470: 470, 471: 510, 95: 100, 0.9: .91, 10: 10, 9100: 9100,
		9200: 10000} {
		assert.InEpsilon(t, want, E24Above(r), 1e-9, "%g", r)
	}
}

func TestEveryEntryIsComplete(t *testing.T) {
	for id, m := range Shop.Materials {
		assert.NotEmpty(t, m.Name, id)
		assert.Greater(t, m.Density, 0.0, id)
		assert.Contains(t, []string{"ok", "softens", "crazes", "core", "dissolves"}, m.Solvent, id)
		switch m.Form {
		case "sheet":
			assert.Greater(t, m.Sheet[0].Value()*m.Sheet[1].Value()*m.Thick.Value(), 0.0, id)
		case "pipe":
			assert.Greater(t, m.Bore()*m.Length.Value(), 0.0, id)
		case "modelled", "filament":
			assert.Greater(t, m.Unit, 0.0, id)
		case "laminate":
			assert.Greater(t, m.Pot.Value(), 60.0, id)
		default:
			assert.Equal(t, "bought", m.Form, id)
		}
	}
	for id, g := range Shop.Glues {
		assert.NotEmpty(t, g.Undo, id)
		assert.NotEmpty(t, g.Prep, id)
		assert.True(t, g.Shelf.IsZero() || g.Test != "", "%s can grow old: say how to test it", id)
	}
	for id, c := range Shop.Coats {
		assert.NotEmpty(t, c.Role, id)
		assert.Greater(t, c.Recoat.Value(), 0.0, id)
	}
	for id, l := range Shop.Lamps {
		assert.Greater(t, l.Amps, 0.0, id)
	}
}

// A laminate's density follows from its glass (2540 kg/m3) and its resin (1200 of
// polyester, 1150 of epoxy, cured): values from memory, of any table of plastics.
func TestLaminatesWeighWhatTheyHold(t *testing.T) {
	resin := map[string]float64{"glassmat": 1200, "glasscloth": 1150}
	n := 0
	for id, m := range Shop.Materials {
		if m.Form != "laminate" {
			continue
		}
		n++
		assert.InEpsilon(t, 1/(m.Glass/2540+(1-m.Glass)/resin[id]), m.Density, .001, id)
		assert.InEpsilon(t, m.Fibre/m.Glass/m.Density*1000, m.Thick.Value(), .06, id)
	}
	assert.Equal(t, 2, n)
}

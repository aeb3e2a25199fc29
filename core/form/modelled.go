package form

import (
	"fmt"
	"math"
	"strings"

	"zapbarn/core/measure"
	"zapbarn/core/pattern"
	"zapbarn/core/words"
)

// Modelled is a rounded body built up by hand over an armature.
type Modelled struct {
	W    measure.Length `json:"w,omitzero" label:"Width" grip:"across"`
	D    measure.Length `json:"d,omitzero" label:"Depth"`
	H    measure.Length `json:"h,omitzero" label:"Height" grip:"up"`
	Skin measure.Length `json:"skin,omitzero" label:"Thickness over armature" scale:"no"`
}

var _ = register(
	Kind{
		Name:    "modelled",
		Title:   "Modelled body",
		Form:    "modelled",
		Stock:   "lightclay",
		Piles:   true,
		Flat:    true,
		Blank:   Modelled{},
		Read:    readModelled,
		Example: "modelled 8 x 9 x 11 skin 3/8 lightclay",
		Press: Press{
			17,
			"clay",
			"modelled 8 x 9 x 11 in skin 1/2 in lightclay",
			"modelled 200 x 230 x 280 skin 12 lightclay",
			"M6 14Q4 4 15 3Q27 4 25 15Q24 24 15 24Q7 24 6 14Z",
			"M10 12q2 -2 4 0M17 12q2 -2 4 0M12 18q3 2 6 0",
		},
	},
)

// Lay reckons what it takes.
func (m Modelled) Lay(on On) (*pattern.Shape, error) {
	if err := need("w", m.W, "d", m.D, "h", m.H); err != nil {
		return nil, err
	}
	return laid(
		pattern.Modelled{
			W:       m.W.Value(),
			D:       m.D.Value(),
			H:       m.H.Value(),
			Skin:    m.Skin.Value(),
			Density: on.Stock.Density,
			Unit:    on.Stock.Unit,
		},
		"width",
		"w",
		"depth",
		"d",
		"height",
		"h",
	)
}

// Order is armature first, thin layers after.
func (m Modelled) Order(Parts) []string {
	return []string{
		"Armature first, a skin smaller all round, with something for the first layer to hold to.",
		"Layers no thicker than it dries through; the next when the last is firm.",
		"Sand and seal when it is dry to the core.",
	}
}

// How long modelling takes, minutes, and how thick a layer is that dries through (typical, from
// memory; foam clay is left alone for 12 to 24 h, since it slumps when it is handled sooner).
const (
	ArmatureSqm = 90.0 // a square metre of armature bent, filled and wrapped
	ModelLitre  = 25.0 // a litre modelled by hand
	SprayLitre  = 1.0  // a litre of foam sprayed
	CarveSqm    = 60.0 // a square metre of cured foam carved
)

// buildup is how one sort of what is built up behaves.
type buildup struct {
	name    string
	layer   float64 // mm that dries through
	dries   float64 // minutes a layer
	carrier string
	litre   float64 // minutes a litre
	steps   []string
	caution []string
}

// buildups are what bodies are built up of, by the family of the stock: common practice, no source.
var buildups = map[string]buildup{
	"eva": {"foam clay", 12, 24 * 60, "water", ModelLitre, []string{
		"Knead it warm; press each layer onto the last while that is tacky.",
		"Leave it alone until it is firm: it slumps when it is handled sooner.",
	}, nil},
	"paper": {"papier-mache", 6, 24 * 60, "water", ModelLitre, []string{
		"Mix pulp and water by weight as the bag says, stiff enough to stay where it is put.",
		"The next layer when this one rings dry and is no longer cold to the hand.",
	}, nil},
	"filler": {"filler", 3, 4 * 60, "water", 2 * ModelLitre, []string{"Thin layers, each sanded when it is dry."},
		[]string{"Dust mask when it is sanded."}},
	"pufoam": {"expanding foam", 50, 8 * 60, "", SprayLitre, []string{
		"Mist what it goes on, and the air; half fill what it must fill, it swells for an hour.",
		"Carve when it is cured through and no longer sticky inside.",
	}, []string{"Gloves, goggles and moving air: it sticks to skin and its vapour sensitizes. No flame."}},
}

// Make is the armature, then as many layers as dry through, each with its wait; the tubs, bags or
// cans of it, and what the armature is of.
func (m Modelled) Make(on On, s *pattern.Shape) Making {
	k, known := buildups[on.Stock.Family]
	if !known {
		k = buildups["paper"]
		k.name = on.Stock.Name
	}
	volume, sqm := figure(s, "volume"), s.Outside/1e6
	deep := m.Skin.Value()
	if deep == 0 { // solid: to its middle
		deep = min(m.W.Value(), m.D.Value(), m.H.Value()) / 2
	}
	layers := max(1, int(math.Ceil(deep/k.layer-1e-9)))
	out := Making{}
	if m.Skin.Value() > 0 {
		out.Jobs = append(out.Jobs, Job{ID: "armature", Name: "Armature of %s", Tool: "pliers",
			Takes:    []Takes{{"square metres of armature", sqm, ArmatureSqm}},
			Steps:    []string{"A skin smaller all round than the body, with something for the first layer to hold to."},
			Cautions: []string{"Cut-proof gloves and goggles: wire mesh springs and cuts."}})
		out.Goods = append(out.Goods, Good{What: "bought:wire mesh", Name: "Wire mesh for armatures", Unit: "m2", Use: sqm,
			Spare: .2, Pack: 3, In: "roll of 3 m2", Price: 18, Lead: 1, How: "the body's outside"})
	}
	for n := range layers {
		j := Job{
			ID: fmt.Sprintf("layer-%d", n+1), Name: fmt.Sprintf("Layer %d of %d of %s on %%s", n+1, layers, k.name),
			Takes: []Takes{{"litres built up", volume / float64(layers), k.litre}}, Wait: k.dries, Carrier: k.carrier,
			Steps: k.steps, Cautions: k.caution,
		}
		if layers == 1 {
			j.Name = "Model %s in " + k.name
		}
		out.Jobs = append(out.Jobs, j)
	}
	if on.Stock.Family == "pufoam" {
		out.Jobs = append(out.Jobs, Job{ID: "carve", Name: "Carve %s", Tool: "knife",
			Takes:    []Takes{{"square metres carved", sqm, CarveSqm}},
			Steps:    []string{"Rough with a saw, then a knife, then a rasp; look at it from all sides before it is coated."},
			Cautions: []string{"Cut-proof glove, goggles and a dust mask."}})
	}
	_, pack, _ := strings.Cut(on.Stock.Name, ", ")
	out.Goods = append(out.Goods, Good{What: "material:" + on.Stock.ID, Name: on.Stock.Name, Unit: "L", Use: volume,
		Spare: .1,
		Pack:  on.Stock.Unit, In: pack, Price: on.Stock.Price, Lead: 1, How: "the volume to model"})
	return out
}

func readModelled(w *words.Words) (Form, string, error) {
	m := Modelled{Skin: w.After("skin")}
	dims, err := w.Exactly(3, "a modelled body takes width x depth x height")
	if err != nil {
		return nil, "", err
	}
	m.W, m.D, m.H = dims[0], dims[1], dims[2]
	text := fmt.Sprintf("modelled body, %s x %s, %s tall", w.Say(m.W), w.Say(m.D), w.Say(m.H))
	if m.Skin.IsZero() {
		return m, text + ", solid", nil
	}
	return m, text + ", " + w.Say(m.Skin) + " over an armature", nil
}

// Package stock knows the materials, glues, coats, wire, lamps and supplies a
// shop works with: their properties and where each value is from. It decides
// nothing; the domain packages derive their verdicts from these properties.
package stock

import (
	"bytes"
	_ "embed"
	"encoding/json"
	"fmt"
	"sort"

	"zapbarn/core/measure"
	"zapbarn/core/memo"
	"zapbarn/core/source"
)

// Material is a stock that parts are cut from, or a bought thing glued to.
type Material struct {
	ID       string            `json:"id"`
	Name     string            `json:"name"`
	Family   string            `json:"family"` // xps, eva, wood, pvc, ...
	Form     string            `json:"form"`   // sheet, pipe, bought, modelled, laminate or filament
	Sheet    [2]measure.Length `json:"sheet"`  // short and long side
	Thick    measure.Length    `json:"thick"`
	Neck     measure.Length    `json:"neck"`    // the narrowest a cut-out should be left (from memory, typical)
	Nominal  string            `json:"nominal"` // pipe trade size
	OD       measure.Length    `json:"od"`
	Wall     measure.Length    `json:"wall"`
	Length   measure.Length    `json:"length"`
	Density  float64           `json:"density"` // kg/m3
	Softens  float64           `json:"softens"` // Celsius; 0 does not
	Solvent  string            `json:"solvent"` // what a solvent carrier does: ok, softens, crazes, core, dissolves
	Breathes bool              `json:"breathes"`
	Flexible bool              `json:"flexible"`
	LowE     bool              `json:"lowEnergy"` // few glues hold (PE, PP)
	Thin     bool              `json:"thin"`
	Clear    bool              `json:"clear"`
	Conducts bool              `json:"conducts"`
	Burns    bool              `json:"burns"`
	Grain    string            `json:"grain"` // "", wood or flutes
	Texture  string            `json:"texture"`
	Price    float64           `json:"price"`
	Unit     float64           `json:"unit"`     // litres that a tub or can of it makes
	Fibre    float64           `json:"fibre"`    // kg/m2 of one ply of mat or cloth, dry
	Glass    float64           `json:"glass"`    // share of a cured ply's mass that is fibre
	Hardener float64           `json:"hardener"` // share of the resin's mass
	Pot      measure.Duration  `json:"pot"`      // from mixing until it gels
	Entered  string            `json:"-"`        // date of a builder's own entry
}

// Foam reports whether solvents eat the material itself.
func (m Material) Foam() bool { return m.Solvent == "dissolves" }

// Bore is a pipe's inside diameter in mm: OD - 2 wall (ASTM D1785 minimum wall).
func (m Material) Bore() float64 { return m.OD.Value() - 2*m.Wall.Value() }

// From is where the material's sizes are from.
func (m Material) From() source.Source {
	if m.Family == "pvc" && m.Entered == "" {
		return source.Std("ASTM D1785, schedule 40: outside diameter and minimum wall")
	}
	return m.Known("size, density")
}

// Glue is an adhesive or other way to join, by its properties.
type Glue struct {
	ID   string `json:"id"`
	Name string `json:"name"`
	// evaporates, contact, moisture, twopart, instant, melt, weld, tape, mechanical
	Cure       string           `json:"cure"`
	Carrier    string           `json:"carrier"` // water, solvent, none
	Contact    bool             `json:"contact"` // both faces dry before they meet
	Gap        bool             `json:"gap"`     // fills gaps
	Flexible   bool             `json:"flexible"`
	Brittle    bool             `json:"brittle"`
	Fogs       bool             `json:"fogs"`
	FoamUnsafe bool             `json:"foamUnsafe"`
	NoPaint    bool             `json:"unpaintable"`
	LowOK      bool             `json:"lowOK"`  // holds low-energy plastics
	Hot        float64          `json:"hot"`    // applied at, Celsius
	Creeps     float64          `json:"creeps"` // softens again at, Celsius
	Only       []string         `json:"only"`   // families it is for
	MinTemp    float64          `json:"minTemp"`
	Open       measure.Duration `json:"open"`
	Clamp      measure.Duration `json:"clamp"`
	Handling   measure.Duration `json:"handling"`
	Full       measure.Duration `json:"full"`
	Shelf      measure.Duration `json:"shelf"` // from opened; zero keeps
	Undo       string           `json:"undo"`
	Prep       []string         `json:"prep"`
	Cautions   []string         `json:"cautions"`
	Test       string           `json:"test"` // how to try an old one
	Pack       float64          `json:"pack"` // how much a pack holds: sticks of a melt, mm of a tape or tie, else mL
	PackName   string           `json:"packName"`
	Price      float64          `json:"price"` // of a pack
	Entered    string           `json:"-"`     // date of a builder's own entry
}

// Coat is a finish product, by its properties.
type Coat struct {
	ID          string           `json:"id"`
	Name        string           `json:"name"`
	Carrier     string           `json:"carrier"` // water, solvent, heat
	Role        string           `json:"role"`    // seal, prime, colour, weather, clear, tint
	Finish      string           `json:"finish"`  // matte, satin, gloss
	Barrier     float64          `json:"barrier"` // share of a solvent-proof barrier one coat gives
	Flexible    bool             `json:"flexible"`
	Translucent bool             `json:"translucent"`
	Outdoor     bool             `json:"outdoor"`
	Glaze       bool             `json:"glaze"`   // beads on a closed surface
	Thirsty     bool             `json:"thirsty"` // drinks the next coat
	Heat        float64          `json:"heat"`
	Coats       int              `json:"coats"`    // thin coats wanted
	Coverage    float64          `json:"coverage"` // m2 per litre
	MinTemp     float64          `json:"minTemp"`
	Recoat      measure.Duration `json:"recoat"`
	Window      measure.Duration `json:"window"` // its own next coat goes on no later than this
	Again       measure.Duration `json:"again"`  // or, that missed, no sooner than this
	Handling    measure.Duration `json:"handling"`
	Full        measure.Duration `json:"full"`
	Cautions    []string         `json:"cautions"`
	Pack        float64          `json:"pack"` // litres in a pack
	PackName    string           `json:"packName"`
	Price       float64          `json:"price"` // of a pack
}

// Lamp is a load: what it draws and how it behaves.
type Lamp struct {
	ID   string `json:"id"`
	Name string `json:"name"`
	// prewired, led, resistive, strip, pixels, motor, servo, coil, power, amplifier, sensor
	Kind      string         `json:"kind"`
	Volts     float64        `json:"volts"`
	Amps      float64        `json:"amps"`    // at rated volts; per LED in a strip, per pixel at full white
	Vf        float64        `json:"vf"`      // forward drop of the whole string
	Idle      float64        `json:"idle"`    // amps per pixel, dark; of a servo, holding still
	Columns   int            `json:"columns"` // of a matrix
	Rows      int            `json:"rows"`
	Scan      int            `json:"scan"`     // of its rows that are lit one after another; the others with them
	Bits      int            `json:"bits"`     // of each colour that it is shown with
	Clock     float64        `json:"clock"`    // Hz that they are shifted at (from memory, typical)
	Stall     float64        `json:"stall"`    // amps of a motor held still at rated volts, and as it starts
	Peak      float64        `json:"peak"`     // amps of an amplifier at its loudest
	Torque    float64        `json:"torque"`   // N m of a motor or servo at stall
	Free      float64        `json:"free"`     // turns a minute that it makes with no load
	FreeAmps  float64        `json:"freeAmps"` // amps meanwhile
	Holds     bool           `json:"holds"`    // its gear cannot be turned back by the load
	Sweep     float64        `json:"sweep"`    // degrees that a servo turns at most
	Loud      float64        `json:"loud"`     // dB at 1 m, of what makes sound
	Makes     string         `json:"makes"`    // fog or sound, besides what it draws
	Max       float64        `json:"max"`      // volts that it bears at most; a tenth above its own where not given
	Min       float64        `json:"min"`      // volts below which a screen or an amplifier goes off
	Starts    float64        `json:"starts"`   // seconds from power until it shows or sounds
	PerMetre  float64        `json:"perMetre"`
	Cut       int            `json:"cut"`    // LEDs per cut segment
	Copper    float64        `json:"copper"` // ohm per metre of one rail of the strip
	Lead      measure.Length `json:"lead"`   // factory lead, one way
	LeadGauge measure.Gauge  `json:"leadGauge"`
	Colour    string         `json:"colour"`
	Laser     string         `json:"laser"` // its class, by IEC 60825-1; "" is none
	Price     float64        `json:"price"` // of one, or of a metre of a strip
}

// Supply is a power supply of the shop's list.
type Supply struct {
	ID    string  `json:"id"`
	Name  string  `json:"name"`
	Volts float64 `json:"volts"`
	Amps  float64 `json:"amps"`
	Price float64 `json:"price"`
}

// SupplyResistance is the source resistance in ohms assumed for a regulated
// supply of the given rating: 1 % of its volts lost at full load.
func SupplyResistance(volts, amps float64) float64 {
	if volts <= 0 || amps <= 0 {
		return 0.05
	}
	return max(0.001, 0.01*volts/amps)
}

// SupplyResistanceFrom is the source of SupplyResistance.
var SupplyResistanceFrom = source.FromMemory("regulated supplies sag about 1 % at full load")

// Library is everything the shop knows, by ID.
type Library struct {
	Materials map[string]Material
	Glues     map[string]Glue
	Coats     map[string]Coat
	Lamps     map[string]Lamp
	Supplies  map[string]Supply
	base      *Library // that a plan's own entries were laid over
	bench     *memo.Bench
}

//go:embed data/materials.json
var materialsJSON []byte

//go:embed data/glues.json
var gluesJSON []byte

//go:embed data/coats.json
var coatsJSON []byte

//go:embed data/lamps.json
var lampsJSON []byte

//go:embed data/supplies.json
var suppliesJSON []byte

// Shop is the library the program ships with.
var Shop = load()

func load() *Library {
	return &Library{
		Materials: read(materialsJSON, func(m Material) string { return m.ID }),
		Glues:     read(gluesJSON, func(g Glue) string { return g.ID }),
		Coats:     read(coatsJSON, func(c Coat) string { return c.ID }),
		Lamps:     read(lampsJSON, func(l Lamp) string { return l.ID }),
		Supplies:  read(suppliesJSON, func(s Supply) string { return s.ID }),
	}
}

func read[T any](data []byte, id func(T) string) map[string]T {
	var list []T
	dec := json.NewDecoder(bytes.NewReader(data))
	dec.DisallowUnknownFields()
	if err := dec.Decode(&list); err != nil {
		panic(fmt.Sprintf("stock: embedded data: %v", err))
	}
	m := make(map[string]T, len(list))
	for _, t := range list {
		m[id(t)] = t
	}
	return m
}

// IDs lists the keys of a part of the library in order.
func IDs[T any](m map[string]T) []string {
	ids := make([]string, 0, len(m))
	for id := range m {
		ids = append(ids, id)
	}
	sort.Strings(ids)
	return ids
}

// Shines is whether a lamp gives light.
func (l Lamp) Shines() bool {
	switch l.Kind {
	case "prewired", "led", "resistive", "strip", "pixels":
		return true
	}
	return false
}

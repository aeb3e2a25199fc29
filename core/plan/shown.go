package plan

// Shown is where elements of a kind are looked at and edited.
type Shown struct {
	Place string // one of the eight places
	Way   string // of the place; "" for the one it begins with
	Whole bool   // of the whole display: no prop need be open
}

// shown is the one table of which kind is shown where. A kind that is not in it has no place of
// its own: a note, a photo or a waiver is shown with what it is about, a stocked count with its need.
var shown = map[string]Shown{
	"display":   {Place: "barn", Whole: true},
	"good":      {Place: "barn", Way: "shop", Whole: true},
	"prop":      {Place: "bench"},
	"solid":     {Place: "bench"},
	"joint":     {Place: "bench", Way: "joints"},
	"finish":    {Place: "bench", Way: "joints"},
	"lot":       {Place: "bench", Way: "joints"},
	"picture":   {Place: "bench", Way: "picture"},
	"offcut":    {Place: "bench", Way: "sheets"},
	"layout":    {Place: "bench", Way: "sheets"},
	"device":    {Place: "loom"},
	"outlet":    {Place: "loom", Way: "power"},
	"plug":      {Place: "loom", Way: "power"},
	"reading":   {Place: "loom", Way: "prove"},
	"mechanism": {Place: "rehearsal", Way: "motion"},
	"scene":     {Place: "rehearsal"},
	"input":     {Place: "rehearsal"},
	"trigger":   {Place: "rehearsal"},
	"promise":   {Place: "rehearsal"},
	"clip":      {Place: "rehearsal"},
	"person":    {Place: "calendar", Way: "crew", Whole: true},
	"delivery":  {Place: "calendar", Way: "crew", Whole: true},
	"job":       {Place: "calendar", Way: "crew", Whole: true},
	"plot":      {Place: "yard", Whole: true},
	"wall":      {Place: "yard", Whole: true},
	"walkway":   {Place: "yard", Whole: true},
	"fixture":   {Place: "yard", Whole: true},
	"cord":      {Place: "yard", Whole: true},
	"viewpoint": {Place: "yard", Whole: true},
	"sketch":    {Place: "yard", Whole: true},
	"forecast":  {Place: "yard", Way: "wind", Whole: true},
	"stocked":   {Place: "stores", Whole: true},
	"tried":     {Place: "walkdown", Way: "cards", Whole: true},
	"night":     {Place: "walkdown", Way: "nights", Whole: true},
	"incident":  {Place: "walkdown", Way: "nights", Whole: true},
	"ticked":    {Place: "walkdown", Way: "nights", Whole: true},
}

// ShownIn is where elements of a kind are shown; false where that is with something else.
func ShownIn(kind string) (Shown, bool) {
	s, ok := shown[kind]
	return s, ok
}

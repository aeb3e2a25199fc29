package formats

import (
	"archive/zip"
	_ "embed"
	"io"
	"slices"
	"sort"
	"strconv"
	"strings"
	"text/template"

	"zapbarn/core/show"
	"zapbarn/core/work"
)

//go:embed program/program.cpp.tmpl
var programText string

//go:embed program/hardware.h
var hardwareText string

var programTemplate = template.Must(template.New("program").Parse(programText))

// Wired is a contact or an output of a controller and the pin it is on.
type Wired struct {
	ID, Name string
	Out      bool
	Pin      int
}

// Controller is the behaviour of a prop, or of all, as one controller runs it.
type Controller struct {
	Name    string
	Machine show.Machine
	Pins    []Wired
	work    *work.Work
}

// firstPin is where pins are given out from; the two below carry the board's own port.
const firstPin = 2

// ControllerOf is what a prop's controller runs: its triggers, all that they work, and
// what that starts in turn; of the whole display with no prop. Pins that nobody chose are
// given out in order. An error says that there is nothing to run.
func ControllerOf(w *work.Work, prop string) (*Controller, error) {
	if w.ShowErr() != nil {
		return nil, w.ShowErr()
	}
	c := &Controller{Name: w.Plan.Display().Name, work: w}
	all := w.Machine()
	scenes := map[string]bool{}
	mine := func(id string) bool {
		in := w.Plan.Input(id)
		return prop == "" || in != nil && (in.Prop == prop || scenes[in.Scene])
	}
	if x := w.Plan.Prop(prop); x != nil {
		c.Name += ", " + x.Name
	}
	for range all.Triggers { // until nothing more is started by what is in it
		for _, t := range all.Triggers {
			if mine(t.Input) {
				scenes[t.Scene] = true
			}
		}
	}
	c.Machine.State = all.State
	for _, t := range all.Triggers {
		if mine(t.Input) {
			c.Machine.Triggers = append(c.Machine.Triggers, t)
		}
	}
	if len(c.Machine.Triggers) == 0 {
		return nil, empty(
			"prop",
			"nothing starts anything here yet; say such as when mat, if ready: glow 5s",
		)
	}
	c.takes(all, scenes)
	c.pins()
	return c, nil
}

// takes are the scenes, with the inputs of its triggers and the outputs of the scenes, that
// a controller has of a whole machine.
func (c *Controller) takes(all show.Machine, scenes map[string]bool) {
	inputs, channels := map[string]bool{}, map[string]bool{}
	for _, t := range c.Machine.Triggers {
		inputs[t.Input] = true
	}
	for _, s := range all.Scenes {
		if !scenes[s.ID] {
			continue
		}
		c.Machine.Scenes = append(c.Machine.Scenes, s)
		for _, q := range s.Cues {
			channels[q.Channel] = true
		}
	}
	for _, i := range all.Inputs {
		if inputs[i.ID] {
			c.Machine.Inputs = append(c.Machine.Inputs, i)
		}
	}
	for _, x := range all.Channels {
		if channels[x.ID] {
			c.Machine.Channels = append(c.Machine.Channels, x)
		}
	}
	for _, m := range all.Movers { // the world that its limit switches see
		if channels[m.Up] || channels[m.Down] {
			c.Machine.Movers = append(c.Machine.Movers, m)
		}
	}
}

// pins gives each contact and output its pin.
func (c *Controller) pins() {
	taken := map[int]bool{}
	for _, i := range c.Machine.Inputs {
		if in := c.work.Plan.Input(i.ID); i.Kind == show.Contact {
			c.Pins = append(c.Pins, Wired{i.ID, in.Name, false, in.Pin})
			taken[in.Pin] = true
		}
	}
	for _, ch := range c.Machine.Channels {
		d := c.work.Device(ch.ID)
		c.Pins = append(c.Pins, Wired{ch.ID, d.Name, true, d.Pin})
		taken[d.Pin] = true
	}
	next := firstPin
	for i := range c.Pins {
		if c.Pins[i].Pin > 0 {
			continue
		}
		for taken[next] {
			next++
		}
		c.Pins[i].Pin, taken[next] = next, true
	}
}

func (c *Controller) pin(id string) int {
	for _, p := range c.Pins {
		if p.ID == id {
			return p.Pin
		}
	}
	return 0
}

// Program writes the controller's program, a file of C++ with its tables.
func (c *Controller) Program(out io.Writer) error {
	t := &tables{Controller: c}
	data := row{"Name": c.Name, "FirstState": t.state(c.Machine.State)}
	data["Inputs"], data["Channels"], data["Scenes"], data["Triggers"] = t.inputs(), t.channels(), t.scenes(), t.triggers()
	data["Cues"], data["Nevers"], data["States"] = t.cues, t.nevers, t.states // as those came to it
	return programTemplate.Execute(out, data)
}

// row is a line of a table of the program.
type row map[string]any

// tables are the program's tables being written: they name each other by number.
type tables struct {
	*Controller
	states []string
	cues   []row
	nevers int // how many channels one may not be on with, at most; 1 at least
}

func (t *tables) scene(id string) int {
	return slices.IndexFunc(t.Machine.Scenes, func(s show.Scene) bool { return s.ID == id })
}

// state is a state by its number; none is any.
func (t *tables) state(name string) string {
	if name == "" {
		return "ANY"
	}
	n := slices.Index(t.states, name)
	if n < 0 {
		n = len(t.states)
		t.states = append(t.states, name)
	}
	return strconv.Itoa(n)
}

func (t *tables) inputs() (out []row) {
	kind := map[show.Source]string{
		show.Contact: "CONTACT",
		show.Timer:   "TIMER",
		show.Began:   "BEGAN",
		show.Ended:   "ENDED",
		show.Power:   "POWER",
	}
	for _, i := range t.Machine.Inputs {
		out = append(
			out,
			row{"Kind": kind[i.Kind], "Pin": t.pin(i.ID), "Closed": i.Closed, "MinPulse": i.MinPulse,
				"HoldOff": i.HoldOff, "Every": i.Every, "State": t.state(i.State), "Scene": t.scene(i.Scene),
				"Name": plainComment(t.work.Plan.Input(i.ID).Name)},
		)
	}
	return out
}

func (t *tables) channels() (out []row) {
	m := t.Machine
	never := make([][]string, len(m.Channels))
	t.nevers = 1
	for i, a := range m.Channels {
		for k, b := range m.Channels {
			if i != k && (a.Never == b.ID || b.Never == a.ID) {
				never[i] = append(never[i], strconv.Itoa(k))
			}
		}
		t.nevers = max(t.nevers, len(never[i]))
	}
	wins := map[show.Contention]string{
		show.Highest:  "HIGHEST",
		show.Latest:   "LATEST",
		show.Priority: "PRIORITY",
	}
	for i, ch := range m.Channels {
		for len(never[i]) < t.nevers {
			never[i] = append(never[i], "NONE")
		}
		out = append(
			out,
			row{"Pin": t.pin(ch.ID), "Wins": wins[ch.Rule], "Never": strings.Join(never[i], ", "),
				"Name": plainComment(t.work.Device(ch.ID).Name)},
		)
	}
	return out
}

// scenes are the scenes; their cues stand in one list.
func (t *tables) scenes() (out []row) {
	for _, s := range t.Machine.Scenes {
		from := len(t.cues)
		name := plainComment(t.work.Plan.Scene(s.ID).Name)
		for _, q := range s.Cues {
			level := q.Level
			if level == 0 {
				level = 100
			}
			shape := strings.ToUpper(string(q.Shape))
			if shape == "" {
				shape = "STEADY"
			}
			channel := slices.IndexFunc(t.Machine.Channels, func(c show.Channel) bool { return c.ID == q.Channel })
			t.cues = append(
				t.cues,
				row{"Channel": channel, "Start": q.Start, "Length": q.Length, "Shape": shape,
					"Level": level, "Name": name + ": " + plainComment(t.work.Device(q.Channel).Name)},
			)
		}
		out = append(out, row{"First": from, "End": len(t.cues), "Length": s.Duration(), "Name": name})
	}
	return out
}

func (t *tables) triggers() (out []row) {
	p := t.work.Plan
	for _, x := range t.Machine.Triggers {
		input := slices.IndexFunc(t.Machine.Inputs, func(i show.Input) bool { return i.ID == x.Input })
		latch := strings.ToUpper(strings.ReplaceAll(string(x.Latch), "-", "_"))
		out = append(
			out,
			row{"Input": input, "Scene": t.scene(x.Scene), "Latch": latch, "Rest": x.Rest,
				"While": t.state(x.While), "Then": t.state(x.Then),
				"Name": plainComment(p.Input(x.Input).Name + " works " + p.Scene(x.Scene).Name)},
		)
	}
	return out
}

// plainComment is a name as it may stand behind two slashes.
func plainComment(s string) string {
	return strings.Map(func(r rune) rune {
		if r == '\\' || r == '\n' || r == '\r' || r == '?' {
			return ' '
		}
		return r
	}, s)
}

// ProgramZIP is the program, the board's header and the table of pins.
func ProgramZIP(out io.Writer, w *work.Work, prop string) error {
	c, err := ControllerOf(w, prop)
	if err != nil {
		return err
	}
	z := zip.NewWriter(out)
	for _, f := range []struct {
		name  string
		write func(io.Writer) error
	}{
		{"program.cpp", c.Program},
		{"hardware.h", func(o io.Writer) error { _, err := io.WriteString(o, hardwareText); return err }},
		{"pins.csv", c.PinsCSV},
	} {
		o, err := z.Create(f.name)
		if err == nil {
			err = f.write(o)
		}
		if err != nil {
			return err
		}
	}
	return z.Close()
}

// PinsCSV is the table of pins.
func (c *Controller) PinsCSV(out io.Writer) error {
	rows := [][]any{{"pin", "what", "way"}}
	pins := append([]Wired(nil), c.Pins...)
	sort.SliceStable(pins, func(i, j int) bool { return pins[i].Pin < pins[j].Pin })
	for _, p := range pins {
		way := "in, contact to ground"
		if p.Out {
			way = "out, to a driver board"
		}
		rows = append(rows, []any{p.Pin, p.Name, way})
	}
	return writeCSV(out, rows)
}

package formats

import (
	"archive/zip"
	_ "embed"
	"encoding/csv"
	"io"
	"sort"
	"strconv"
	"strings"
	"text/template"

	"zapbarn/core/measure"
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
	if w.ShowErr != nil {
		return nil, w.ShowErr
	}
	c := &Controller{Name: w.Plan.Display.Name, work: w}
	all := w.Machine
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
		return nil, measure.Bad(
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
	m := c.Machine
	at := func(n int, is func(int) bool) int {
		for i := range n {
			if is(i) {
				return i
			}
		}
		return -1
	}
	scene := func(id string) int { return at(len(m.Scenes), func(i int) bool { return m.Scenes[i].ID == id }) }
	channel := func(id string) int { return at(len(m.Channels), func(i int) bool { return m.Channels[i].ID == id }) }
	input := func(id string) int { return at(len(m.Inputs), func(i int) bool { return m.Inputs[i].ID == id }) }
	var states []string
	state := func(name string) string {
		if name == "" {
			return "ANY"
		}
		n := at(len(states), func(i int) bool { return states[i] == name })
		if n < 0 {
			n = len(states)
			states = append(states, name)
		}
		return strconv.Itoa(n)
	}
	first := state(m.State)
	type row map[string]any
	data := row{"Name": c.Name}
	var inputs, channels, cues, scenes, triggers []row
	nevers := 1
	never := make([][]string, len(m.Channels))
	for i, a := range m.Channels {
		for k, b := range m.Channels {
			if i != k && (a.Never == b.ID || b.Never == a.ID) {
				never[i] = append(never[i], strconv.Itoa(k))
			}
		}
		nevers = max(nevers, len(never[i]))
	}
	kind := map[show.Source]string{
		show.Contact: "CONTACT",
		show.Timer:   "TIMER",
		show.Began:   "BEGAN",
		show.Ended:   "ENDED",
		show.Power:   "POWER",
	}
	for _, i := range m.Inputs {
		inputs = append(
			inputs,
			row{"Kind": kind[i.Kind], "Pin": c.pin(i.ID), "Closed": i.Closed, "MinPulse": i.MinPulse,
				"HoldOff": i.HoldOff, "Every": i.Every, "State": state(i.State), "Scene": scene(i.Scene),
				"Name": plainComment(c.work.Plan.Input(i.ID).Name)},
		)
	}
	wins := map[show.Contention]string{
		show.Highest:  "HIGHEST",
		show.Latest:   "LATEST",
		show.Priority: "PRIORITY",
	}
	for i, ch := range m.Channels {
		for len(never[i]) < nevers {
			never[i] = append(never[i], "NONE")
		}
		channels = append(
			channels,
			row{"Pin": c.pin(ch.ID), "Wins": wins[ch.Rule], "Never": strings.Join(never[i], ", "),
				"Name": plainComment(c.work.Device(ch.ID).Name)},
		)
	}
	for _, s := range m.Scenes {
		from := len(cues)
		name := plainComment(c.work.Plan.Scene(s.ID).Name)
		for _, q := range s.Cues {
			level := q.Level
			if level == 0 {
				level = 100
			}
			shape := strings.ToUpper(string(q.Shape))
			if shape == "" {
				shape = "STEADY"
			}
			cues = append(
				cues,
				row{"Channel": channel(q.Channel), "Start": q.Start, "Length": q.Length, "Shape": shape,
					"Level": level, "Name": name + ": " + plainComment(c.work.Device(q.Channel).Name)},
			)
		}
		scenes = append(scenes, row{"First": from, "End": len(cues), "Length": s.Duration(), "Name": name})
	}
	for _, t := range m.Triggers {
		latch := strings.ToUpper(strings.ReplaceAll(string(t.Latch), "-", "_"))
		triggers = append(
			triggers,
			row{"Input": input(t.Input), "Scene": scene(t.Scene), "Latch": latch, "Rest": t.Rest,
				"While": state(
					t.While,
				), "Then": state(t.Then), "Name": plainComment(c.work.Plan.Input(t.Input).Name + " works " +
					c.work.Plan.Scene(t.Scene).Name)},
		)
	}
	data["Inputs"], data["Channels"], data["Cues"] = inputs, channels, cues
	data["Scenes"], data["Triggers"] = scenes, triggers
	data["Nevers"], data["FirstState"], data["States"] = nevers, first, states
	return programTemplate.Execute(out, data)
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
	x := csv.NewWriter(out)
	rows := [][]string{{"pin", "what", "way"}}
	pins := append([]Wired(nil), c.Pins...)
	sort.SliceStable(pins, func(i, j int) bool { return pins[i].Pin < pins[j].Pin })
	for _, p := range pins {
		way := "in, contact to ground"
		if p.Out {
			way = "out, to a driver board"
		}
		rows = append(rows, []string{strconv.Itoa(p.Pin), p.Name, way})
	}
	if err := x.WriteAll(rows); err != nil {
		return err
	}
	return x.Error()
}

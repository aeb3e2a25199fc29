package form

import (
	"fmt"
	"regexp"
	"strings"

	"zapbarn/core/measure"
	"zapbarn/core/pattern"
	"zapbarn/core/words"
)

// Pipe is a list of pieces of pipe, bare or side by side in a comb.
type Pipe struct {
	Sides   int    `json:"sides,omitempty" label:"In a comb, a row"`
	Lengths string `json:"lengths,omitempty" max:"4000" label:"Lengths" wide:"yes"` // 6@44in 4@60in
}

var _ = register(
	Kind{
		Name:    "pipe",
		Title:   "Pipe to length",
		Form:    "pipe",
		Stock:   "pvc1",
		Nick:    "pvc",
		Blank:   Pipe{},
		Read:    readPipe,
		Example: "pipe 6@44in 4@60in 1.5",
		Press: Press{
			14,
			"pipe",
			"pipe 2@48in 2@24in 1",
			"pipe 2@1200mm 2@600mm 1",
			"M6 24V4H9V24ZM13 24V4H16V24ZM20 24V12H23V24Z",
			"",
		},
	},
)

// Lay lays out the pieces.
func (p Pipe) Lay(on On) (*pattern.Shape, error) {
	cuts, err := Cuts(p.Lengths)
	if err != nil {
		return nil, err
	}
	if len(cuts) == 0 {
		return nil, &Missing{[]string{"lengths"}}
	}
	return laid(pattern.Pipes{Cuts: cuts, OD: on.Stock.OD.Value(), Row: p.Sides, Bore: on.Stock.Bore()})
}

// Order is dry first.
func (p Pipe) Order(Parts) []string {
	return []string{
		"Cut, deburr inside and out, and mark each length before the next is cut.",
		"Dry-fit the frame flat on the floor; glue only what need not come apart.",
	}
}

func (p Pipe) stretched(by func(measure.Length) measure.Length, _ float64) Form {
	cuts, err := Cuts(p.Lengths)
	if err != nil || cuts == nil {
		return p
	}
	var out []string
	for _, c := range cuts {
		l := by(measure.Of[measure.LengthKind](c.Length))
		out = append(out, fmt.Sprintf("%d@%s", c.Count, oneWord(l)))
	}
	p.Lengths = strings.Join(out, " ")
	return p
}

var mixedNumber = regexp.MustCompile(`(\d) (\d+/)`)

// oneWord writes a length as a word of the list: 6ft2-1/2in.
func oneWord(l measure.Length) string {
	return strings.ReplaceAll(mixedNumber.ReplaceAllString(l.String(), "$1-$2"), " ", "")
}

// Cuts reads a pipe list as written: 6@44in 4@60in.
func Cuts(text string) ([]pattern.Cut, error) {
	var out []pattern.Cut
	bad := func() error {
		return measure.Bad("lengths", "%q is not understood; write such as 6@44in 4@60in", text)
	}
	for _, w := range strings.Fields(strings.ReplaceAll(text, ",", " ")) {
		count, l, ok := strings.Cut(w, "@")
		if !ok {
			return nil, bad()
		}
		n := 0
		for _, r := range count {
			if r < '0' || r > '9' || n > 10_000 {
				return nil, bad()
			}
			n = n*10 + int(r-'0')
		}
		length, err := measure.Parse[measure.LengthKind](strings.ReplaceAll(l, "_", " "))
		if err != nil {
			return nil, bad()
		}
		out = append(out, pattern.Cut{Name: strings.ReplaceAll(l, "_", " "), Length: length.Value(), Count: n})
	}
	return out, nil
}

// readPipe takes a list of count@length, or plain lengths: 6 ft 2 in is one piece. One
// that is said to be so long is all there is; x3 says how many of each.
func readPipe(w *words.Words) (Form, string, error) {
	var list, rest []string
	for _, x := range w.List {
		if strings.Contains(x, "@") {
			list = append(list, x)
		} else {
			rest = append(rest, x)
		}
	}
	plain := &words.Words{List: rest, Metric: w.Metric}
	one := plain.Take("long", "tall", "high")
	copies := plain.Copies()
	dims := plain.Sizes()
	if err := plain.None(); err != nil {
		return nil, "", err
	}
	if one && len(dims)+len(list) != 1 {
		return nil, "", fmt.Errorf("one length is said by name, but there is another; write such as 6@44in 4@60in")
	}
	if copies > 1 && len(list) > 0 {
		return nil, "", fmt.Errorf("x%d beside a count; write such as 6@44in 4@60in", copies)
	}
	for _, l := range dims {
		list = append(list, fmt.Sprintf("%d@%s", copies, oneWord(l)))
	}
	p := Pipe{Lengths: strings.Join(list, " ")}
	cuts, err := Cuts(p.Lengths)
	if err != nil {
		return nil, "", err
	}
	n := 0
	for _, c := range cuts {
		n += c.Count
	}
	if n == 0 {
		return nil, "", fmt.Errorf("a pipe list takes count@length")
	}
	return p, words.Count(n, "piece") + " of pipe: " + p.Lengths, nil
}

// Package hearing takes what a builder says in their own words and puts it as a line that the quick
// line knows. It never takes a line for something in silence: where a word of it is left over, the
// line is only offered, with the words that nothing was made of.
package hearing

import (
	"regexp"
	"strings"
)

// numberWords are numbers as they are said.
var numberWords = map[string]string{
	"one": "1", "two": "2", "three": "3", "four": "4", "five": "5", "six": "6", "seven": "7", "eight": "8", "nine": "9",
	"ten": "10", "eleven": "11", "twelve": "12", "thirteen": "13", "fourteen": "14", "fifteen": "15", "sixteen": "16",
	"eighteen": "18", "twenty": "20", "thirty": "30", "forty": "40", "fifty": "50", "hundred": "100", "dozen": "12",
	"couple": "2", "pair": "2", "half": "1/2", "quarter": "1/4",
}

// units are the units as they are said, and as the quick line writes them. Those that are marked
// with a dash are written close to their number.
var units = map[string]string{
	"inch": "in", "inches": "in", "in": "in", `"`: "in", "foot": "ft", "feet": "ft", "ft": "ft", "mm": "mm", "millimetres": "mm",
	"millimeters": "mm", "cm": "cm", "centimetres": "cm", "centimeters": "cm", "metre": "m", "metres": "m", "meters": "m",
	"volt": "-v", "volts": "-v", "v": "-v", "amp": "-a", "amps": "-a", "a": "-a", "watt": "-w", "watts": "-w", "w": "-w",
	"second": "s", "seconds": "s", "sec": "s", "secs": "s", "s": "s", "minute": "min", "minutes": "min", "min": "min",
	"pound": "lb", "pounds": "lb", "lb": "lb", "lbs": "lb", "kg": "kg",
}

// fillers are words that say nothing by themselves.
var fillers = map[string]bool{"a": true, "an": true, "the": true, "of": true, "some": true, "my": true, "our": true,
	"please": true, "each": true, "about": true, "made": true, "from": true, "with": true,
	"is": true, "are": true, "sheet": true, "sheets": true, "in": true}

// ofSheet are words that a thickness stands before.
var ofSheet = map[string]bool{"ply": true, "plywood": true, "luan": true, "acrylic": true, "plexi": true, "foam": true}

var (
	closeUnit    = regexp.MustCompile(`^(\$?\d[\d./]*)(in|inch|inches|"|ft|feet|foot|'|mm|cm|m|v|volt|volts|a|amp|amps|w|watts?|s|sec|lbs?|kg)$`)
	crossedSizes = regexp.MustCompile(`^(\d[\d./]*)x(\d[\d./]*)$`)
	number       = regexp.MustCompile(`^\d+(\.\d+)?(/\d+)?$`)
	priced       = regexp.MustCompile(`^\$\d+(\.\d+)?$`)
)

// word is a word of a line, or a number with its unit.
type word struct {
	text string // in small letters: tombstone, 36 in, 12v
	num  string // of a number: 36, 1/2, 1 1/2
	unit string // in, ft, v, a, w, s, lb, kg; "" for a bare one
	used bool
}

// size is a number as the quick line writes it.
func (w *word) size() string {
	if w.unit == "" {
		return w.num
	}
	return w.num + " " + w.unit
}

// plainSigns are the signs that stand for plainer ones, or for nothing.
var plainSigns = strings.NewReplacer("”", `"`, "“", `"`, "’", "'", ",", " ", ";", " ", "×", " x ", "–", "-")

// hyphened are words that are written together: pink-foam, 36-inch. A minus before a number stays.
var hyphened = regexp.MustCompile(`([a-z0-9])-([a-z])`)

// words takes a line apart: number words become numbers, numbers take the unit behind them, and a
// fraction behind a whole number joins it.
func words(line string) (out []*word) {
	line = hyphened.ReplaceAllString(plainSigns.Replace(strings.ToLower(line)), "$1 $2")
	var list []string
	for _, x := range strings.Fields(line) {
		x = strings.Trim(x, ".:!?()")
		if m := closeUnit.FindStringSubmatch(x); m != nil {
			unit := m[2]
			if unit == "a" {
				unit = "amp" // it stands close to its number: no article
			}
			list = append(list, m[1], unit)
			continue
		}
		if m := crossedSizes.FindStringSubmatch(x); m != nil {
			list = append(list, m[1], "x", m[2])
			continue
		}
		if x != "" {
			list = append(list, x)
		}
	}
	for i := 0; i < len(list); i++ {
		x := list[i]
		share := x == "half" || x == "quarter" // of a unit, or a word like others
		if n, ok := numberWords[x]; ok && (!share || i+1 < len(list) && list[i+1] != "a" && units[list[i+1]] != "") {
			x = n
		}
		if !number.MatchString(x) {
			out = append(out, &word{text: x})
			continue
		}
		w := &word{num: x}
		if i+1 < len(list) && strings.Contains(list[i+1], "/") && number.MatchString(list[i+1]) &&
			!strings.Contains(x, "/") &&
			(i+2 == len(list) || !ofSheet[list[i+2]]) { // 48 1/4 ply is 48 of a quarter inch
			i++
			w.num += " " + list[i]
		}
		if i+1 < len(list) {
			if u, ok := units[list[i+1]]; ok && !(list[i+1] == "a" && i+2 < len(list) && !known(list[i+2])) {
				i++
				w.unit = strings.TrimPrefix(u, "-")
			} else if list[i+1] == "'" {
				i++
				w.unit = "ft"
			}
		}
		w.text = w.size()
		out = append(out, w)
	}
	return out
}

// known is whether a word may follow an ampere: an article before a noun is none.
func known(x string) bool {
	_, unit := units[x]
	return number.MatchString(x) || unit || supplies[x]
}

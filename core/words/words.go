// Package words takes a typed phrase apart: flags, sizes, sizes before or after
// a word, counts. It knows how builders put numbers into a line, and nothing of
// what they mean.
package words

import (
	"fmt"
	"regexp"
	"strconv"
	"strings"

	"zapbarn/core/measure"
)

// Words is a phrase of which something is still to be understood.
type Words struct {
	List   []string
	Metric bool // bare numbers are millimetres
}

// bare is the unit of a number that has none.
func (w *Words) bare() string {
	if w.Metric {
		return "mm"
	}
	return "in"
}

// Say writes a length the display's way.
func (w *Words) Say(l measure.Length) string { return measure.Tape(l.Value(), w.Metric) }

// cut takes words from..to out.
func (w *Words) cut(from, to int) {
	w.List = append(append([]string(nil), w.List[:from]...), w.List[to:]...)
}

// Take takes a flag out, and says whether it was there.
func (w *Words) Take(flags ...string) bool {
	for i, x := range w.List {
		for _, f := range flags {
			if strings.EqualFold(x, f) {
				w.cut(i, i+1)
				return true
			}
		}
	}
	return false
}

// OneOf takes the first of some words that is there, or gives the one that
// stands when none is.
func (w *Words) OneOf(def string, choices ...string) string {
	for _, c := range choices {
		if w.Take(c) {
			return c
		}
	}
	return def
}

// Known takes the first word that a list knows, in small letters.
func (w *Words) Known(def string, known func(string) bool) string {
	for i, x := range w.List {
		if low := strings.ToLower(x); known(low) {
			w.cut(i, i+1)
			return low
		}
	}
	return def
}

var copyWord = regexp.MustCompile(`^[x×](\d{1,6})$`)

// Copies takes a count such as x3; 1 when there is none.
func (w *Words) Copies() int {
	for i, x := range w.List {
		if m := copyWord.FindStringSubmatch(strings.ToLower(x)); m != nil {
			n, _ := strconv.Atoi(m[1])
			w.cut(i, i+1)
			return n
		}
	}
	return 1
}

// Count takes a whole number before a word, such as 6 sides; def when the word
// is not there. The error names what stands there instead.
func (w *Words) Count(def int, marks ...string) (int, error) {
	for i, x := range w.List {
		for _, mark := range marks {
			if i == 0 || !strings.EqualFold(x, mark) {
				continue
			}
			n, err := strconv.Atoi(w.List[i-1])
			if err != nil || n < 0 || n > 1_000_000 {
				return 0, fmt.Errorf("%q %s: write a whole number before it", w.List[i-1], mark)
			}
			w.cut(i-1, i+1)
			return n, nil
		}
	}
	return def, nil
}

// Before takes the length that stands before a word, and the word.
func (w *Words) Before(marks ...string) measure.Length {
	for i, x := range w.List {
		for _, mark := range marks {
			if !strings.EqualFold(x, mark) {
				continue
			}
			for n := min(longest, i); n >= 1; n-- {
				if l, used := LengthAt(w.List, i-n, w.bare()); used == n {
					w.cut(i-n, i+1)
					return l
				}
			}
		}
	}
	return measure.Length{}
}

// After takes the length that stands after a word, and the word.
func (w *Words) After(marks ...string) measure.Length {
	for i, x := range w.List {
		for _, mark := range marks {
			if !strings.EqualFold(x, mark) {
				continue
			}
			if l, n := LengthAt(w.List, i+1, w.bare()); n > 0 {
				w.cut(i, i+1+n)
				return l
			}
		}
	}
	return measure.Length{}
}

// twoLengths is feet, then inches that would make a foot or more: two sizes, one
// after the other, such as 4 ft 20 in.
var twoLengths = regexp.MustCompile(`(?i)(ft|feet|foot|')\s+(1[2-9]|[2-9]\d|\d{3,})(\D|$)`)

var times = regexp.MustCompile(`^\d+[x×]$`)

var lengthUnit = regexp.MustCompile(`(?i)^(?:in|ft|mm|cm|m|inch|inches|feet|foot|"|')$`)

// longest is the most words a length has: 6 ft 2 1/2 in.
const longest = 5

// LengthAt is the length that begins at a word, with all that is part of it, and how many
// words it has; none where no length begins. Bare numbers are in bare ("in" or "mm").
func LengthAt(list []string, i int, bare string) (l measure.Length, used int) {
	for n := 1; n <= longest && i+n <= len(list); n++ {
		joined := strings.Join(list[i:i+n], " ")
		if n > 1 && twoLengths.MatchString(joined) {
			break
		}
		if n > 2 && i+n < len(list) && digit(list[i+n-1]) && lengthUnit.MatchString(list[i+n]) {
			continue // 6 ft 4 of 6 ft 4 ft
		}
		if got, err := measure.ParseLengthIn(joined, bare); err == nil {
			l, used = got, n
		}
	}
	return l, used
}

func digit(word string) bool { return word[0] >= '0' && word[0] <= '9' }

// Sizes takes the dimensions out, joined by x, to or by; what is left is none.
// "26 1/2" stays one dimension.
func (w *Words) Sizes() (dims []measure.Length) {
	var rest []string
	for i := 0; i < len(w.List); i++ {
		x := w.List[i]
		if strings.EqualFold(x, "x") || strings.EqualFold(x, "to") || strings.EqualFold(x, "by") {
			continue
		}
		if !digit(x) && x[0] != '.' || times.MatchString(x) {
			rest = append(rest, x)
			continue
		}
		best, used := LengthAt(w.List, i, w.bare())
		if used == 0 {
			rest = append(rest, x)
			continue
		}
		dims, i = append(dims, best), i+used-1
	}
	w.List = rest
	return dims
}

// Exactly takes so many sizes, and refuses whatever else is left; want says what
// the phrase takes.
func (w *Words) Exactly(n int, want string) ([]measure.Length, error) {
	dims := w.Sizes()
	if err := w.None(); err != nil {
		return nil, err
	}
	if len(dims) != n {
		return nil, fmt.Errorf("%s, %d sizes read", want, len(dims))
	}
	return dims, nil
}

// None refuses what was not understood.
func (w *Words) None() error {
	if len(w.List) > 0 {
		return fmt.Errorf("%q is not understood", strings.Join(w.List, " "))
	}
	return nil
}

// Count is "1 disc" or "3 discs".
func Count(n int, one string) string {
	if n == 1 {
		return "1 " + one
	}
	if strings.HasSuffix(one, "x") || strings.HasSuffix(one, "s") || strings.HasSuffix(one, "ch") ||
		strings.HasSuffix(one, "sh") {
		one += "e"
	}
	return fmt.Sprintf("%d %ss", n, one)
}

// Whose is a name with what says that something is its own: Gate's, Eyes'.
func Whose(name string) string {
	if strings.HasSuffix(strings.ToLower(name), "s") {
		return name + "'"
	}
	return name + "'s"
}

// Few is the first few of a list in words, and how many more there are.
func Few(list []string, most int) string {
	if len(list) > most {
		return strings.Join(list[:most], ", ") + fmt.Sprintf(" and %d more", len(list)-most)
	}
	return strings.Join(list, ", ")
}

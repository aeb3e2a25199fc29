package shorthand

import (
	"fmt"
	"regexp"
	"slices"
	"sort"
	"strings"
	"unicode"

	"zapbarn/core/form"
	"zapbarn/core/measure"
	"zapbarn/core/stock"
)

// entry is a thing of the shop by its name.
type entry struct{ id, name string }

// entriesFor are what the shop has for a verb: a form's own stock, glues to glue
// with, coats to coat with, lamps and supplies.
func entriesFor(verb string, lib *stock.Library) (out []entry) {
	k, isForm := form.Of(verb)
	switch {
	case isForm:
		for id, m := range lib.Materials {
			if m.Form == k.Form {
				out = append(out, entry{id, m.Name})
			}
		}
	case verb == "glue" || verb == "bottle":
		for id, g := range lib.Glues {
			out = append(out, entry{id, g.Name})
		}
	case verb == "coat" || verb == "coats" || verb == "paint":
		for id, c := range lib.Coats {
			out = append(out, entry{id, c.Name})
		}
	case verb == "pane" || verb == "offcut":
		for id, m := range lib.Materials {
			if m.Form == "sheet" {
				out = append(out, entry{id, m.Name})
			}
		}
	case slices.Contains(feeds, verb) || number.MatchString(verb): // 12 jars flicker12
		for id, l := range lib.Lamps { // strips have verbs of their own, for they need their length
			if long := l.Kind == "strip" || l.Kind == "pixels"; long == (verb == "strip" || verb == "pixels") {
				out = append(out, entry{id, l.Name})
			}
		}
	case verb == "supply":
		for id, s := range lib.Supplies {
			out = append(out, entry{id, s.Name})
		}
	}
	sort.Slice(out, func(i, j int) bool { return out[i].id < out[j].id })
	return out
}

// feeds are the verbs that take a lamp.
var feeds = []string{"lamp", "lamps", "strip", "pixels", "motor", "servo", "leds"}

// spoken are words that are no part of a shop's name, though they may stand in one.
var spoken = []string{"tall", "wide", "deep", "high", "long", "lid", "bottom", "with", "called", "inch", "inches",
	"feet", "foot", "sides", "right", "left", "front", "back", "side", "half", "spare", "pair", "open", "flat", "sheet",
	"wire", "wires", "wired", "gauge", "cable", "cord"}

// wordsOf are a name's words in small letters.
func wordsOf(name string) []string {
	return strings.FieldsFunc(strings.ToLower(name), func(r rune) bool {
		return !unicode.IsLetter(r) && !unicode.IsDigit(r) && r != '/' && r != '.'
	})
}

// matching are the entries whose names hold every one of some words, or words that
// begin so.
func matching(list []entry, said []string) (out []entry) {
	for _, e := range list {
		own := wordsOf(e.name)
		all := true
		for _, w := range said {
			w = strings.TrimSuffix(strings.Trim(strings.ToLower(w), `"'`), "s")
			all = all && len(w) > 0 &&
				slices.ContainsFunc(own, func(o string) bool { return strings.HasPrefix(o, w) })
		}
		if all {
			out = append(out, e)
		}
	}
	return out
}

// letters is true of a word of three letters or more that is no spoken one.
func letters(w string) bool {
	n := 0
	for _, r := range w {
		if unicode.IsLetter(r) {
			n++
		} else if r != '-' {
			return false
		}
	}
	return n >= 3 && !slices.Contains(spoken, strings.ToLower(w))
}

// byName writes the shop's short name where a line has its long one, or enough of
// it: box 12 x 12 x 9 clear acrylic. It is for a line that was not understood; the
// error lists what the words could mean. No change is nil.
func byName(verb string, line []string, lib *stock.Library) ([]string, error) {
	list := entriesFor(verb, lib)
	for _, w := range line[1:] {
		said := slices.ContainsFunc(list, func(e entry) bool { return strings.EqualFold(e.id, w) })
		if said && !strings.HasPrefix(verb, "coat") { // of coats there may be more
			return nil, nil // it is said already: something else was not understood
		}
	}
	for from := 1; from < len(line); from++ {
		if !letters(line[from]) || strings.EqualFold(line[from], line[0]) {
			continue
		}
		most := min(4, len(line)-from)
		for n := most; n > 0; n-- {
			said := line[from : from+n]
			if n > 1 && strings.EqualFold(said[n-1], "x") {
				continue
			}
			got := matching(list, said)
			if len(got) > 1 { // one whose name is no more than was said
				if i := slices.IndexFunc(got, func(e entry) bool { return len(wordsOf(e.name)) == n }); i >= 0 {
					got = got[i : i+1]
				}
			}
			if at, one := thickness(line, from, got); one != "" { // 1/2 plywood, 3 mm eva
				if goesOn(line, at, from) { // 60 1/2 plywood is 60 of half an inch, or 60 1/2
					return nil, &unsure{line, from, n, got, one, at}
				}
				return slices.Concat(line[:at], []string{one}, line[from+n:]), nil
			}
			switch {
			case len(got) == 1:
				return slices.Concat(line[:from], []string{got[0].id}, line[from+n:]), nil
			case len(got) > 1:
				return nil, &unsure{line, from, n, got, "", 0}
			}
		}
	}
	for i, w := range line[1:] {
		like, other := kin(list, strings.ToLower(w))
		switch {
		case len(like) > 0:
			return nil, &unsure{line, i + 1, 1, like, "", 0}
		case len(other) > 0:
			return nil, fmt.Errorf("the shop has no “%s”; it has %s", w, listed(other))
		}
	}
	return nil, nil
}

// kin are the entries that a word like a short name may have been meant for: those of its
// figures with some of its letters, as gearmotor12 has gear12 and motor12; and others of its
// letters, as xps7 has xps1 and xps2, which are another thing.
func kin(list []entry, w string) (like, other []entry) {
	of := func(w string) (name, size string) {
		size = figures(w)
		return strings.TrimRight(w, "0123456789./"), size
	}
	name, size := of(w)
	if len(name) < 3 || size == "" || name+size != w {
		return nil, nil
	}
	for _, e := range list {
		switch n, s := of(e.id); {
		case n == name:
			other = append(other, e)
		case s == size && len(n) > 3 && strings.Contains(name, n):
			like = append(like, e)
		}
	}
	return like, other
}

// thickness is the one of several things of the shop that has the number before its name in
// it, and where that number begins in the line: 1/2 plywood, 2 1/2 in pvc, 3 mm eva. It is
// "" where no number is, or not one thing has it.
func thickness(line []string, from int, got []entry) (at int, one string) {
	end, u := from, ""
	if unit.MatchString(line[end-1]) {
		end, u = end-1, strings.ToLower(line[end-1])
	}
	for _, n := range []int{2, 1} { // 2 1/2 before 1/2
		at = end - n
		if len(got) < 2 || at < 2 || strings.EqualFold(line[at-1], "x") { // 10 x 5 mm is a size
			continue
		}
		m := thick.FindStringSubmatch(strings.ToLower(strings.Join(line[at:end], " ") + u))
		if m == nil {
			continue
		}
		same := slices.DeleteFunc(slices.Clone(got), func(e entry) bool {
			own := wordsOf(e.name)
			return !holds(own, strings.Fields(m[1])) || slices.Contains(own, "mm") != (m[2] == "mm")
		})
		slices.SortStableFunc(same, func(a, b entry) int { return len(wordsOf(a.name)) - len(wordsOf(b.name)) })
		if len(same) == 1 || len(same) > 1 && len(wordsOf(same[0].name)) < len(wordsOf(same[1].name)) {
			return at, same[0].id // a sheet before the roll of the same
		}
	}
	return 0, ""
}

// thick is a thickness or a bore as it is said.
var thick = regexp.MustCompile(`^((?:\d+ )?\d+/\d+|\d[\d.]*)(mm|in|inch|inches|"|)$`)

// holds is true of a name with a number in it, and not as part of one: 1/2, but not 2 1/2.
func holds(own, figure []string) bool {
	for i := range own {
		end := i + len(figure)
		if end > len(own) || !slices.Equal(own[i:end], figure) {
			continue
		}
		more := end < len(own) && fraction.MatchString(own[end])
		less := i > 0 && fraction.MatchString(figure[0]) && whole.MatchString(own[i-1])
		if !more && !less {
			return true
		}
	}
	return false
}

// goesOn is true of a number that may be the end of the one before: 60 1/2, 6 ft 2 in.
func goesOn(line []string, at, from int) bool {
	before := strings.ToLower(line[at-1])
	feet := strings.HasSuffix(before, "'") || strings.HasSuffix(before, "ft") || before == "feet" || before == "foot"
	return whole.MatchString(before) && strings.Contains(line[at], "/") ||
		feet && (from-at > 1 || strings.HasSuffix(line[at], `"`) ||
			strings.HasSuffix(strings.ToLower(line[at]), "in"))
}

// unsure is words of a line that could mean several things of the shop.
type unsure struct {
	line    []string
	from, n int
	list    []entry
	thick   string // the one whose thickness the number before may be
	at      int    // where that number begins
}

func (u *unsure) Error() string {
	said := strings.Join(u.line[u.from:u.from+u.n], " ")
	return fmt.Sprintf("“%s” could be %s; write one of them", said, listed(u.list))
}

// lines are the line with each of them said.
func (u *unsure) lines() (out []string) {
	if u.thick != "" {
		out = append(out, strings.Join(slices.Concat(u.line[:u.at], []string{u.thick}, u.line[u.from+u.n:]), " "))
	}
	for _, e := range u.list[:min(8, len(u.list))] {
		out = append(out, strings.Join(slices.Concat(u.line[:u.from], []string{e.id}, u.line[u.from+u.n:]), " "))
	}
	return out
}

// listed names some entries, with what is written for each.
func listed(list []entry) string {
	var out []string
	for _, e := range list[:min(8, len(list))] {
		out = append(out, e.id+" ("+measure.Uncapital(e.name)+")")
	}
	if n := len(list) - 8; n > 0 {
		out = append(out, fmt.Sprintf("%d more", n))
	}
	return strings.Join(out, ", ")
}

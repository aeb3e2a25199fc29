package shorthand

import (
	"regexp"
	"slices"
	"strings"

	"zapbarn/core/stock"
)

// What people say is put into the line's own words, step by step, when the line as it
// stands is not understood: "add a hexagon", "10x10x10", "6 ft wide". Nothing is guessed:
// what comes out is read like any other line, and said before it is done.

// fillers are words before a thing that say nothing of it.
var fillers = []string{
	"add",
	"a",
	"an",
	"the",
	"make",
	"build",
	"new",
	"put",
	"place",
	"please",
	"create",
	"draw",
	"some",
}

// synonyms are other words for a verb, one or two of them, in the line's words.
var synonyms = map[string]string{
	"sphere": "ball", "globe": "ball", "beehive": "hive", "mound": "hive", "cylinder": "tube", "drum": "tube",
	"crate": "box", "chest": "box", "coffin": "box", "sheet": "panel", "plank": "panel", "slab": "panel", "plate": "panel",
	"circle": "disc", "disk": "disc", "round": "disc", "cutout": "silhouette", "cut-out": "silhouette", "spike": "pyramid",
	"pole": "pipe", "post": "pipe", "rod": "pipe", "sail": "cloth", "drape": "cloth",
	"light": "lamp", "led": "lamp led",
	"bulb": "lamp bulb", "spotlight": "lamp", "motor": "lamp motor", "servo": "lamp servo",
	"solenoid": "lamp solenoid", "pump": "lamp pump", "speaker": "lamp speaker",
	"power": "supply", "psu": "supply", "adapter": "supply", "adaptor": "supply", "transformer": "supply",
	"power supply": "supply", "wire": "run", "cable": "run", "cord": "run", "led strip": "strip",
	"light strip": "strip", "pressure mat": "mat", "doormat": "mat", "light beam": "beam", "push button": "button",
	"socket": "outlet", "erase": "remove", "paint": "coat", "seal": "coat", "join": "glue",
	"stick": "glue",
	"drill": "hole", "text": "letters", "sign": "letters", "opening": "window", "hatch": "door", "recess": "pocket",
	"duplicate": "copy", "call": "rename", "batteries": "battery", "microcontroller": "controller", "remark": "note",
}

// sidedNames are prisms by their name.
var sidedNames = map[string]string{
	"triangle": "3", "square": "4", "pentagon": "5", "hexagon": "6", "octagon": "8",
}

var (
	joined = regexp.MustCompile(`(?i)^\d[\d./]*(?:["']|in|ft|mm|cm|m)?(?:[x×]\d[\d./]*(?:["']|in|ft|mm|cm|m)?)+$`)
	times  = regexp.MustCompile(`[x×]`)
	unit   = regexp.MustCompile(`(?i)^(?:in|ft|mm|cm|m|inch|inches|feet|foot|"|')$`)
	number = regexp.MustCompile(`^\d[\d./]*(?:["']|in|ft|mm|cm|m)?$`)
)

// plainly are the lines that a line may have meant, the nearest to it first.
func plainly(list []string, lib *stock.Library) (out [][]string) {
	now := slices.Clone(list)
	add := func(next []string) {
		if next != nil && !slices.Equal(next, now) {
			now = next
			out = append(out, now)
		}
	}
	add(unfilled(now))
	add(bareNouns(now))
	add(joinUnits(now))
	add(countedFirst(now))
	add(nounFirst(now, lib))
	add(plugged(now))
	add(grown(now))
	add(without(now, "coat", "with"))
	add(without(now, "paint", "with"))
	add(apartSizes(now))
	add(inLineWords(now))
	add(ofStock(now, lib))
	add(sided(now))
	add(cubed(now))
	return out
}

// cubed is a box as wide as deep as high.
func cubed(list []string) []string {
	if !strings.EqualFold(list[0], "cube") || len(list) < 2 || !number.MatchString(list[1]) {
		return list
	}
	n := 2
	if len(list) > 2 && unit.MatchString(list[2]) {
		n = 3
	}
	size := list[1:n]
	return slices.Concat([]string{"box"}, size, []string{"x"}, size, []string{"x"}, size, list[n:])
}

// unitWords are units written out, by how the line writes them behind a number.
var unitWords = map[string]string{
	"volt": "v", "volts": "v", "v": "v", "amp": "a", "amps": "a", "ampere": "a", "amperes": "a", "a": "a", "watt": "w",
	"watts": "w", "w": "w", "awg": "awg", "gauge": "awg", "ga": "awg", "milliamp": "ma", "milliamps": "ma", "ma": "ma",
}

var digits = regexp.MustCompile(`^\d[\d.]*$`)

// joinUnits writes 12 volt as 12v, 18 gauge as 18awg.
func joinUnits(list []string) (out []string) {
	for i := 0; i < len(list); i++ {
		w := list[i]
		if digits.MatchString(w) && i+1 < len(list) {
			if u := unitWords[strings.ToLower(list[i+1])]; u != "" {
				w, i = w+u, i+1
			}
		}
		out = append(out, w)
	}
	return out
}

// numberWords are counts written out.
var numberWords = map[string]string{
	"two": "2", "three": "3", "four": "4", "five": "5", "six": "6", "seven": "7", "eight": "8", "nine": "9", "ten": "10",
	"twelve": "12",
}

var rated = regexp.MustCompile(`(?i)^\d[\d./]*(?:v|a|ma|w|awg)$`)

// countedFirst puts how many, or how strong, behind what it is: three posts 4 ft is post
// 4 ft x3, 2a fuse on S1 is fuse 2a on S1.
func countedFirst(list []string) []string {
	if len(list) < 2 {
		return list
	}
	n := list[0]
	if w := numberWords[strings.ToLower(n)]; w != "" {
		n = w
	}
	what := inLineWords(list[1:])
	verb := strings.ToLower(what[0])
	if !known(verb) {
		verb = singular(verb)
	}
	switch {
	case !known(verb):
		return list
	case rated.MatchString(n):
		return slices.Concat([]string{verb, n}, what[1:])
	case !digits.MatchString(n) || strings.Contains(n, "."):
		return list
	}
	return slices.Concat([]string{verb}, what[1:], []string{"x" + n})
}

// known is true of a verb of the line, by any of its own words.
func known(verb string) bool {
	_, ok := verbs[verb]
	return ok || aliases[verb] != nil
}

// singular is one of what a word says several of.
func singular(word string) string {
	if one, ok := strings.CutSuffix(word, "ies"); ok {
		return one + "y"
	}
	return strings.TrimSuffix(word, "s")
}

// nounFirst puts what it is before its sizes: 2 in hole in box is hole 2 in in box.
func nounFirst(list []string, lib *stock.Library) []string {
	if !number.MatchString(list[0]) {
		return list
	}
	for i := 1; i < len(list); i++ {
		w := strings.ToLower(list[i])
		if number.MatchString(w) || unit.MatchString(w) || w == "x" || lib.Materials[w].ID != "" {
			continue
		}
		if what := inLineWords(list[i:]); known(strings.ToLower(what[0])) {
			return slices.Concat(what[:1], list[:i], what[1:])
		}
		break
	}
	return list
}

// plugged is a load that is said into an outlet.
func plugged(list []string) []string {
	if strings.EqualFold(list[0], "plug") ||
		!slices.ContainsFunc(list, func(w string) bool { return strings.EqualFold(w, "into") }) {
		return list
	}
	return slices.Concat([]string{"plug"}, list)
}

// without is a line of a verb less a word that says nothing in it.
func without(list []string, verb, word string) []string {
	if !strings.EqualFold(list[0], verb) {
		return list
	}
	return slices.DeleteFunc(slices.Clone(list), func(w string) bool { return strings.EqualFold(w, word) })
}

// grows are words by which a thing is made larger or smaller.
var grows = []string{"wider", "narrower", "taller", "shorter", "higher", "lower", "deeper", "longer", "shallower"}

// grown is a thing made larger by as much as is said before: frame 2 in taller is frame
// taller by 2 in.
func grown(list []string) []string {
	n := len(list) - 1
	if n < 2 || !slices.Contains(grows, strings.ToLower(list[n])) {
		return list
	}
	at := n
	for at > 1 && (unit.MatchString(list[at-1]) || number.MatchString(list[at-1])) {
		at--
	}
	if at == n {
		return list
	}
	return slices.Concat(list[:at], []string{list[n], "by"}, list[at:n])
}

// unfilled is a line without what says nothing.
func unfilled(list []string) []string {
	for len(list) > 1 && slices.Contains(fillers, strings.ToLower(list[0])) {
		list = list[1:]
	}
	return list
}

// articles are what stands before a thing that is there: remove the box.
var articles = []string{"the", "my", "that", "this"}

// texts are words that what follows them is not the line's own, but to be written.
var texts = []string{"says", "called", "as", "note", "to"}

// bareNouns is a line without its articles.
func bareNouns(list []string) (out []string) {
	for i, w := range list {
		if slices.Contains(texts, strings.ToLower(w)) {
			return append(out, list[i:]...)
		}
		if i == 0 || !slices.Contains(articles, strings.ToLower(w)) {
			out = append(out, w)
		}
	}
	return out
}

// apartSizes writes 10x10x10 as 10 x 10 x 10.
func apartSizes(list []string) (out []string) {
	for _, w := range list {
		if !joined.MatchString(w) {
			out = append(out, w)
			continue
		}
		for i, n := range times.Split(w, -1) {
			if i > 0 {
				out = append(out, "x")
			}
			out = append(out, n)
		}
	}
	return out
}

// inLineWords says the first word, or two, by the line's own.
func inLineWords(list []string) []string {
	for n := min(2, len(list)); n > 0; n-- {
		said := strings.ToLower(strings.Join(list[:n], " "))
		to, ok := synonyms[said]
		if !ok && n == 1 {
			to, ok = synonyms[strings.TrimSuffix(said, "s")]
		}
		if ok {
			return slices.Concat(strings.Fields(to), list[n:])
		}
	}
	if len(list) == 1 && joined.MatchString(list[0]) {
		return slices.Concat([]string{"box"}, list)
	}
	return list
}

// ofStock begins a line that begins with a material, or with sizes, with the form one
// makes of it: a panel of a sheet, a box of three sizes.
func ofStock(list []string, lib *stock.Library) []string {
	sizes := 0
	for _, w := range list {
		if number.MatchString(w) {
			sizes++
		}
	}
	first := list[0]
	if number.MatchString(first) && len(list) > 2 {
		switch sizes {
		case 2:
			return slices.Concat([]string{"panel"}, list)
		case 3:
			return slices.Concat([]string{"box"}, list)
		}
	}
	if _, verb := verbs[strings.ToLower(first)]; verb || aliases[strings.ToLower(first)] != nil || sizes == 0 {
		return list
	}
	for id, m := range lib.Materials {
		named := letters(first) && len(matching([]entry{{id, m.Name}}, []string{first})) > 0
		if m.Form == "sheet" && (id == first || named) {
			return slices.Concat([]string{"panel"}, list[1:], list[:1])
		}
	}
	return list
}

// sided is a prism by its name: a hexagon is a tower of six sides as wide above as below.
func sided(list []string) []string {
	n, ok := sidedNames[strings.ToLower(list[0])]
	if !ok || len(list) < 2 {
		return list
	}
	return slices.Concat([]string{"tower", n, "sides"}, list[1:])
}

// meantStock is a line with a misspelt short name or word of the shop set right, for the
// builder to take; "" when none is near.
func meantStock(verb string, list []string, lib *stock.Library) string {
	entries := entriesFor(verb, lib)
	for i := 1; i < len(list); i++ {
		w := strings.ToLower(list[i])
		if len(w) < 4 || number.MatchString(w) || slices.Contains(spoken, w) || unit.MatchString(w) {
			continue
		}
		best, least := "", 5 // two letters
		known := false
		for _, e := range entries {
			for _, o := range append(wordsOf(e.name), e.id) {
				known = known || o == singular(w) || strings.HasPrefix(o, w)
				if d := apart(w, o); d > 0 && d < least && len(o) > 3 && figures(w) == figures(o) {
					best, least = e.id, d
					if o != e.id {
						best = o
					}
				}
			}
		}
		if !known && best != "" {
			return strings.Join(slices.Concat(list[:i], []string{best}, list[i+1:]), " ")
		}
	}
	return ""
}

// figures are a word's digits and strokes: a thickness is never taken for a misspelt one.
func figures(w string) string {
	return strings.Map(func(r rune) rune {
		if r >= '0' && r <= '9' || r == '/' || r == '.' {
			return r
		}
		return -1
	}, w)
}

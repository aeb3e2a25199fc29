package check

import "strings"

// does is a verb after a name: of one thing, or of several, as its last word shows.
func does(name, one, several string) string {
	words := strings.Fields(strings.ToLower(name))
	if len(words) == 0 {
		return one
	}
	last := words[len(words)-1]
	if !strings.HasSuffix(last, "s") || strings.HasSuffix(last, "'s") {
		return one
	}
	for _, end := range []string{"ss", "us", "is"} { // glass, cactus, chassis
		if strings.HasSuffix(last, end) {
			return one
		}
	}
	return several
}

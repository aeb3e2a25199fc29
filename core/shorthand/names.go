package shorthand

import (
	"regexp"
	"slices"
	"strings"

	"zapbarn/core/plan"
)

// plainName is a name whose words can mean nothing else on the line.
var plainName = regexp.MustCompile(`^[A-Za-z][A-Za-z ,'-]*$`)

// lineWords are words that the line reads for itself.
var lineWords = []string{
	"in", "on", "through", "up", "right", "left", "says", "called", "corners", "deep", "with", "to", "and", "as",
}

// NameFor is what a solid is called on the line: its name where that means it and
// nothing else, else its ID.
func NameFor(p *plan.Plan, s *plan.Solid) string {
	if !plainName.MatchString(s.Name) {
		return s.ID
	}
	for _, w := range nameWords(strings.ToLower(s.Name)) {
		if slices.Contains(lineWords, w) {
			return s.ID
		}
	}
	for i := range p.Solids() {
		if o := &p.Solids()[i]; o.ID != s.ID && sameName(o.Name, s.Name) {
			return s.ID
		}
	}
	return s.Name
}

// nameWords are a name's words as the line has them: a comma is a word of its own.
func nameWords(name string) []string {
	return strings.Fields(strings.NewReplacer(",", " , ", "’", "'", "‘", "'").Replace(name))
}

// sameName is whether two names are one: case, spaces and the kind of apostrophe never
// matter.
func sameName(a, b string) bool {
	return strings.EqualFold(strings.Join(nameWords(a), " "), strings.Join(nameWords(b), " "))
}

package measure

import "strings"

// OneOf refuses a choice that is none of those there are.
func OneOf(field, value string, choices ...string) error {
	for _, c := range choices {
		if value == c {
			return nil
		}
	}
	return Bad(field, "%q is not known; choose %s", value, strings.Join(choices, ", "))
}

// InList refuses a name that a part of the shop does not have.
func InList[T any](field, value string, m map[string]T, example string) error {
	if _, ok := m[value]; ok {
		return nil
	}
	if value == "" {
		return Bad(field, "is empty; choose such as %s", example)
	}
	return Bad(field, "the shop has no %q; choose such as %s", value, example)
}

// Within refuses a length that is given and out of a sensible range in mm.
func Within(field string, l Length, low, high float64) error {
	if l.IsZero() {
		return nil
	}
	if l.Value() < low || l.Value() > high {
		return Bad(field, "%s is out of range; write %s to %s", l, Run(low, false), Run(high, false))
	}
	return nil
}

// Named refuses an empty name.
func Named(name string) error {
	if strings.TrimSpace(name) == "" {
		return Bad("name", "is empty; write what it is called")
	}
	return nil
}

// First is the first of some errors.
func First(errs ...error) error {
	for _, e := range errs {
		if e != nil {
			return e
		}
	}
	return nil
}

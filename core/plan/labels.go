package plan

import (
	"strings"

	"zapbarn/core/measure"
)

// Labels are what fields of a kind are called on its ticket, in small letters.
func Labels(kind string, fields []string) (out []string) {
	k, err := kindNamed(kind)
	if err != nil {
		return fields
	}
	for _, f := range fields {
		label := f
		for i := range k.typ.NumField() {
			t := k.typ.Field(i)
			if name, _, _ := strings.Cut(t.Tag.Get("json"), ","); name == f && t.Tag.Get("label") != "" {
				label = measure.Uncapital(t.Tag.Get("label"))
			}
		}
		out = append(out, label)
	}
	return out
}

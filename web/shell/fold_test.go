package shell

import (
	"testing"

	"zapbarn/core/check"
	"zapbarn/core/plan"

	"github.com/stretchr/testify/assert"
)

// Four equal snags are told once with a count; three, other props, levels and
// rules and waived ones stand by themselves, in their order; none is lost.
func TestFolded(t *testing.T) {
	of := func(id, code, prop string, l check.Level) SnagView {
		return SnagView{Snag: check.Snag{Title: id, Code: code, Prop: prop, Level: l}}
	}
	waived := of("w", "unfed", "shelf", check.Mind)
	waived.Waived = &plan.Waiver{}
	list := []SnagView{
		of("1", "unfed", "shelf", check.Mind),
		of("2", "drop", "shelf", check.Fix),
		of("3", "unfed", "shelf", check.Mind),
		waived,
		of("4", "unfed", "shelf", check.Stop),
		of("5", "unfed", "shelf", check.Mind),
		of("6", "unfed", "gate", check.Mind),
		of("7", "drop", "shelf", check.Fix),
		of("8", "unfed", "shelf", check.Mind),
		of("9", "drop", "shelf", check.Fix),
	}
	ids := func(l []SnagView) (out []string) {
		for _, v := range l {
			out = append(out, v.Title)
		}
		return
	}
	got := Folded(list)
	assert.Equal(t, []string{"1", "2", "w", "4", "6", "7", "9"}, ids(got))
	assert.Equal(t, []string{"3", "5", "8"}, ids(got[0].Like))
	assert.Empty(t, got[1].Like)
}

package plan

import (
	"strings"

	"zapbarn/core/measure"
)

// Waiver lets one snag stand, with a reason and a name.
type Waiver struct {
	ID     string `json:"id" max:"120"`    // code@where of the snag
	Level  string `json:"level,omitempty"` // up to which it may stand: what gets worse comes back
	Reason string `json:"reason" max:"500"`
	By     string `json:"by" max:"40"`
}

var waiverKind = listed(kind{name: "waiver", most: 2000}, func(p *Plan) *[]Waiver { return &p.doc.Waivers })

func (x *Waiver) Key() string    { return x.ID }
func (x *Waiver) Called() string { return "waiver of " + x.ID }

func (x *Waiver) valid(c checks) error {
	if err := measure.OneOf("level", x.Level, "", "note", "mind", "fix", "stop"); err != nil {
		return err
	}
	if strings.TrimSpace(x.Reason) == "" {
		return measure.Bad("reason", "is empty; say why this snag may stand")
	}
	return nil
}

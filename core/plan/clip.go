package plan

import (
	"math"
	"strings"

	"zapbarn/core/measure"
	"zapbarn/core/sound"
)

// Clip is a piece of sound that a switch plays: what it comes to, not the sound itself.
type Clip struct {
	ID      string           `json:"id"`
	Prop    string           `json:"prop" ref:"prop,needed"`
	Name    string           `json:"name" max:"80" label:"Name"`
	Channel string           `json:"channel,omitempty" ref:"device" label:"Played by" choose:"driven"`
	Long    measure.Duration `json:"long,omitzero" label:"Lasts"`
	Loop    bool             `json:"loop,omitempty" label:"Plays on, over and over"`
	Turned  string           `json:"turned,omitempty" label:"Its screen stands" choose:"|upright|on its side|upside down"`
	Peak    float64          `json:"peak"` // dB below full scale
	RMS     float64          `json:"rms"`
	Loud    float64          `json:"loud"`                                        // LUFS
	Guests  measure.Length   `json:"guests,omitzero" label:"Guests stand at"`     // from its speaker
	Fence   measure.Length   `json:"fence,omitzero" label:"Neighbours' fence at"` // from its speaker
	Wave    string           `json:"wave,omitempty" max:"300"`                    // its outline, 0 to z
}

var clipKind = listed(kind{name: "clip", most: 400, again: func(v any, c *copying) string {
	x := v.(*Clip)
	x.ID = c.fresh("clip", c.prop+"-"+x.Name)
	return x.ID
}}, func(p *Plan) *[]Clip { return &p.doc.Clips })

func (x *Clip) Key() string    { return x.ID }
func (x *Clip) Called() string { return x.Name }

func (x *Clip) valid(c checks) error {
	if d := c.wires.Device(x.Channel); x.Channel != "" && (d == nil || !d.Driven) {
		return measure.Bad("channel", "%s is not a switch that scenes drive", x.Channel)
	}
	level := func(field string, v float64) error {
		if v > 20 || v < -200 {
			return measure.Bad(field, "%g dB cannot be; a clip is between -200 and 20 dB of full scale", v)
		}
		return nil
	}
	for _, r := range x.Wave {
		if !strings.ContainsRune(heights, r) {
			return measure.Bad("wave", "has a letter that is no height: %q", r)
		}
	}
	return measure.First(
		measure.Named(x.Name),
		measure.OneOf("turned", x.Turned, "", "upright", "on its side", "upside down"),
		level("peak", x.Peak),
		level("rms", x.RMS),
		level("loud", x.Loud),
		seconds("long", x.Long, 7200),
		measure.Within("guests", x.Guests, 0, 100*metre),
		measure.Within("fence", x.Fence, 0, 1000*metre),
	)
}

// heights are the letters that a clip's outline is written with.
const heights = "0123456789abcdefghijklmnopqrstuvwxyz"

// Outline writes a wave's heights, 0 to 1.
func Outline(wave []float64) string {
	var b strings.Builder
	for _, v := range wave {
		b.WriteByte(heights[max(0, min(len(heights)-1, int(v*float64(len(heights)))))])
	}
	return b.String()
}

// Heights reads an outline back.
func (x *Clip) Heights() (out []float64) {
	for _, r := range x.Wave {
		out = append(out, float64(strings.IndexRune(heights, r))/float64(len(heights)-1))
	}
	return out
}

// ClipOf is what a measured piece of sound is in a plan.
func ClipOf(c sound.Clip) Clip {
	two := func(v float64) float64 { return math.Round(v*100) / 100 }
	floor := func(v float64) float64 {
		if v < -200 {
			return -200
		}
		return two(v)
	}
	return Clip{Long: measure.Of[measure.DurationKind](two(c.Seconds)), Peak: floor(c.Peak), RMS: floor(c.RMS),
		Loud: floor(c.Loud), Wave: Outline(c.Wave)}
}

// ClipOn is the clip that a channel plays, or nil.
func (p *Plan) ClipOn(channel string) *Clip {
	for i := range p.Clips() {
		if p.Clips()[i].Channel == channel && channel != "" {
			return &p.Clips()[i]
		}
	}
	return nil
}

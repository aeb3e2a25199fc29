package work

import (
	"fmt"
	"math"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/sound"
	"zapbarn/core/source"
	"zapbarn/core/wiring"
)

// Heard is a clip where it is heard.
type Heard struct {
	Of      *plan.Clip
	Known   bool    // what sounds is known
	Source  float64 // dB at 1 m while it plays
	Guests  float64 // dB at the guests
	Fence   float64
	AtGuest float64 // m
	AtFence float64 // m; 0 when nobody said
}

// guestAt is how far from what sounds a guest is taken to stand when nobody said, m.
const guestAt = 3

// fullSine is what a sine at full scale has, dB: what a speaker's level is told for.
const fullSine = -3.01

// Heard is how loud a clip is: its speaker's level at full drive less what the clip is
// below a full sine, falling with the distance.
func (w *Work) Heard(x *plan.Clip) Heard {
	h := Heard{Of: x, AtGuest: x.Guests.Value() / 1000, AtFence: x.Fence.Value() / 1000}
	w.inYard(&h)
	for i := range w.Plan.Devices() {
		d := &w.Plan.Devices()[i]
		l := w.Lib.Lamps[d.Product]
		if l.Makes != "sound" {
			continue
		}
		if w.Feeds(x.Channel, d.ID) {
			h.Known, h.Source = true, l.Loud+x.RMS-fullSine
			h.Guests = sound.Fall(h.Source, h.AtGuest)
			if h.AtFence > 0 {
				h.Fence = sound.Fall(h.Source, h.AtFence)
			}
			return h
		}
	}
	return h
}

// inYard takes from where a clip's prop is set out how far guests and the fence are from it,
// where nobody said.
func (w *Work) inYard(h *Heard) {
	if len(w.Plan.Plots()) > 0 && (h.AtGuest == 0 || h.AtFence == 0) {
		y := w.Yard()
		if s := y.Of(h.Of.Prop); s != nil {
			if h.AtGuest == 0 && !math.IsInf(s.Near, 1) {
				h.AtGuest = math.Max(1, s.Near) // nearer than a metre nobody holds an ear to it
			}
			if far := y.Fence(s.Box.At); h.AtFence == 0 && far > 0 {
				h.AtFence = math.Max(1, far)
			}
		}
	}
	if h.AtGuest == 0 {
		h.AtGuest = guestAt
	}
}

// Decibels is how loud all that sounds is where a guest stands: each falls 6 dB with every
// doubling of the distance (inverse square), and their powers add up. 0 when nothing sounds.
func (w *Work) Decibels(now *wiring.State) float64 {
	var levels []float64
	for i := range w.Plan.Devices() {
		d := &w.Plan.Devices()[i]
		l := w.Lib.Lamps[d.Product]
		if !d.Is(wiring.Load) || l.Makes != "sound" || !now.Readings[d.ID].Works() {
			continue
		}
		at, far := l.Loud, float64(guestAt)
		for k := range w.Plan.Clips() { // what it plays, where that is known
			if h := w.Heard(&w.Plan.Clips()[k]); h.Known && w.Feeds(h.Of.Channel, d.ID) {
				at, far = h.Source, h.AtGuest
			}
		}
		levels = append(levels, sound.Fall(at, far))
	}
	if len(levels) == 0 {
		return 0
	}
	return sound.Together(levels...)
}

// clips keeps what is known of each.
func (w *Work) clips() {
	db := func(v float64) string { return measure.Decimal(v, 1) + " dB" }
	for i := range w.Plan.Clips() {
		x := &w.Plan.Clips()[i]
		of := func(what string) source.Key { return source.KeyOf("clip", x.ID, what) }
		full := source.Exact("its own samples")
		w.keep(
			of("peak"),
			source.Num("Peak", x.Peak, "dB", db(x.Peak)).With("20 log of the largest sample / full scale",
				x.Name, db(x.Peak), full),
		)
		w.keep(
			of("rms"),
			source.Num("RMS", x.RMS, "dB", db(x.RMS)).With("10 log of the mean square / full scale", x.Name,
				db(x.RMS), full),
		)
		w.keep(of("loud"), source.Num("As it is heard", x.Loud, "LUFS", measure.Decimal(x.Loud, 1)+" LUFS").With(
			"weighted as the ear does, blocks of 0.4 s, silence left out", x.Name, measure.Decimal(x.Loud, 1)+" LUFS",
			source.Std("ITU-R BS.1770")))
		h := w.Heard(x)
		if !h.Known {
			continue
		}
		fall := source.Std("inverse square: 6 dB with each doubling of the distance")
		w.keep(of("guests"), source.Num("At the guests", h.Guests, "dB", db(h.Guests)).With(
			"L = L at 1 m + RMS + 3.01 - 20 log d",
			fmt.Sprintf("%s - 20 log %s", db(h.Source), measure.Decimal(h.AtGuest, 2)), db(h.Guests), fall,
			source.FromMemory("speaker's level at 1 m; its data sheet comes first")))
		if h.AtFence > 0 {
			w.keep(
				of("fence"),
				source.Num("At the fence", h.Fence, "dB", db(h.Fence)).With("L = L at 1 m + RMS + 3.01 - 20 log d",
					fmt.Sprintf("%s - 20 log %s", db(h.Source), measure.Decimal(h.AtFence, 2)), db(h.Fence), fall),
			)
		}
		hours := sound.Bears(h.Guests)
		w.keep(
			of("bears"),
			source.Num("An ear bears it", hours*3600, "s", measure.Span(min(24, hours)*3600)+" a day").With(
				"8 h / 2^((L - 85) / 3)", db(h.Guests), measure.Span(min(24, hours)*3600), source.Std("NIOSH 98-126")),
		)
	}
}

// Feeds is whether a device hangs behind another.
func (w *Work) Feeds(from, id string) bool {
	for d := w.Device(id); d != nil; d = w.Device(d.From) {
		if d.From == from && from != "" {
			return true
		}
	}
	return false
}

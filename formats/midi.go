package formats

import (
	"io"
	"slices"
	"sort"

	"zapbarn/core/measure"
	"zapbarn/core/show"
	"zapbarn/core/work"

	"gitlab.com/gomidi/midi/v2"
	"gitlab.com/gomidi/midi/v2/smf"
)

// lowestNote is the note of the first output; each next is one higher.
const lowestNote = 36

// MIDI is a Standard MIDI File of a prop's scenes, one track each, for those who run on
// it: a note for each output from when a cue begins until it ends, as loud as its level.
// At 120 beats a minute a beat has 500 ticks, so that a tick is a millisecond.
func MIDI(out io.Writer, w *work.Work, prop string) error {
	var channels []string
	for i := range w.Plan.Devices() {
		if d := &w.Plan.Devices()[i]; d.Driven && (prop == "" || d.Prop == prop) {
			channels = append(channels, d.ID)
		}
	}
	note := map[string]uint8{}
	for i, id := range channels {
		if lowestNote+i > 127 {
			return measure.Bad("prop", "92 outputs are the most that have a note each; take one prop at a time")
		}
		note[id] = uint8(lowestNote + i)
	}
	s := smf.New()
	s.TimeFormat = smf.MetricTicks(500)
	var head smf.Track
	head.Add(0, smf.MetaTempo(120))
	for _, id := range channels {
		head.Add(0, smf.MetaText(w.Device(id).Name+" is note "+measure.Decimal(float64(note[id]), 0)))
	}
	head.Close(0)
	if err := s.Add(head); err != nil {
		return err
	}
	none := true
	for _, sc := range w.Machine().Scenes {
		if own := w.Plan.Scene(sc.ID); prop != "" && own.Prop != prop {
			continue
		}
		if err := s.Add(track(w, sc, note)); err != nil {
			return err
		}
		none = false
	}
	if none {
		return empty("prop", "it has no scenes yet; say such as when mat, if ready: glow 5s")
	}
	_, err := s.WriteTo(out)
	return err
}

// track is one scene.
func track(w *work.Work, sc show.Scene, note map[string]uint8) smf.Track {
	type change struct {
		at  int
		on  bool
		msg midi.Message
	}
	var all []change
	of := map[string][]show.Cue{}
	var channels []string
	for _, q := range sc.Cues {
		if _, ok := note[q.Channel]; !ok {
			continue // another prop's
		}
		if q.Level == 0 {
			q.Level = 100
		}
		if of[q.Channel] == nil {
			channels = append(channels, q.Channel)
		}
		of[q.Channel] = append(of[q.Channel], q)
	}
	for _, ch := range channels {
		for _, q := range sounding(of[ch]) {
			all = append(all, change{q.Start, true, midi.NoteOn(0, note[ch], uint8(max(1, q.Level*127/100)))},
				change{q.Start + q.Length, false, midi.NoteOff(0, note[ch])})
		}
	}
	sort.SliceStable(all, func(i, j int) bool {
		if all[i].at != all[j].at {
			return all[i].at < all[j].at
		}
		return !all[i].on && all[j].on // what ends makes room first
	})
	var t smf.Track
	t.Add(0, smf.MetaTrackSequenceName(w.Plan.Scene(sc.ID).Name))
	last := 0
	for _, c := range all {
		t.Add(uint32(c.at-last), c.msg)
		last = c.at
	}
	t.Close(uint32(max(0, sc.Duration()-last)))
	return t
}

// sounding are the notes of one output's cues: never two at once. Where cues lie over each other
// it is one note, as loud as the loudest of them, begun anew where that changes.
func sounding(cues []show.Cue) (out []show.Cue) {
	var edges []int
	for _, q := range cues {
		edges = append(edges, q.Start, q.Start+q.Length)
	}
	slices.Sort(edges)
	edges = slices.Compact(edges)
	var was map[int]bool // the cues that lasted until this edge
	for k := 1; k < len(edges); k++ {
		from, to := edges[k-1], edges[k]
		level, now, goesOn := 0, map[int]bool{}, false
		for i, q := range cues {
			if q.Start <= from && to <= q.Start+q.Length {
				level, now[i], goesOn = max(level, q.Level), true, goesOn || was[i]
			}
		}
		was = now
		switch n := len(out); {
		case level == 0:
		case goesOn && out[n-1].Level == level && out[n-1].Start+out[n-1].Length == from:
			out[n-1].Length += to - from
		default:
			out = append(out, show.Cue{Start: from, Length: to - from, Level: level})
		}
	}
	return out
}

package wiring

import (
	"fmt"
	"strings"

	"zapbarn/core/circuit"
	"zapbarn/core/measure"
)

// Chain is one data line: pixel strips one after the other, as their
// controller counts them.
type Chain struct {
	Controller string
	Pin        int
	Strips     []ChainStrip
	Pixels     int
	Copies     []string // other chains on the same pin: the same picture
	Shifter    bool
	Damper     bool
	Bulk       bool
	Rate       float64 // frame rate, Hz, at most
}

// ChainStrip is a strip in its chain, its pixels numbered from 1.
type ChainStrip struct {
	Device      string
	Name        string
	First, Last int
	Lead        measure.Length // of the data wire to it
}

// Chains lists the data lines whose controllers stand in a prop, or whose
// pixels do, in the order of the plan.
func (s Set) Chains(prop string) (out []Chain) {
	after := map[string][]*Device{}
	for i := range s.Devices {
		if d := &s.Devices[i]; d.Data != "" {
			after[d.Data] = append(after[d.Data], d)
		}
	}
	var follow func(c Chain, d *Device)
	follow = func(c Chain, d *Device) {
		n := Segments(d, s.Lib)
		c.Strips = append(
			append([]ChainStrip(nil), c.Strips...),
			ChainStrip{d.ID, d.Name, c.Pixels + 1, c.Pixels + n, d.DataLead},
		)
		c.Pixels += n
		if len(after[d.ID]) == 0 || len(c.Strips) > len(s.Devices) {
			out = append(out, c)
			return
		}
		for _, k := range after[d.ID] {
			follow(c, k)
		}
	}
	for i := range s.Devices {
		by := &s.Devices[i]
		if !by.Is(Controller) {
			continue
		}
		for _, d := range after[by.ID] {
			if by.Prop == prop || d.Prop == prop {
				follow(Chain{Controller: by.ID, Pin: d.Pin, Shifter: d.Shifter, Damper: d.Damper, Bulk: d.Bulk}, d)
			}
		}
	}
	for i := range out {
		c := &out[i]
		c.Rate = 1 / circuit.PictureTime(c.Pixels)
		for k := range out {
			if o := out[k]; k != i && o.Controller == c.Controller && o.Pin == c.Pin {
				c.Copies = append(c.Copies, o.Strips[0].Name)
			}
		}
	}
	return out
}

// String says a chain in the order the data runs.
func (c Chain) String() string {
	parts := []string{fmt.Sprintf("%s pin %d", c.Controller, c.Pin)}
	for _, x := range c.Strips {
		parts = append(parts, fmt.Sprintf("%s (%d to %d)", x.Name, x.First, x.Last))
	}
	return strings.Join(parts, " > ")
}

// Parts are what is fitted for a chain, in words; "" when nothing is.
func (c Chain) Parts() string {
	var out []string
	if c.Shifter {
		out = append(out, "level shifter at the pin")
	}
	if c.Damper {
		out = append(out, "330 ohm at the first pixel")
	}
	if c.Bulk {
		out = append(out, "1000 uF across the feed, minus to minus")
	}
	if len(c.Copies) > 0 {
		out = append(out, "shows the same as "+strings.Join(c.Copies, ", "))
	}
	return strings.Join(out, "; ")
}

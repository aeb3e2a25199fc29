package pattern

import "fmt"

// Order is the short order in which a solid is put together, by its kind and
// its panels: common practice, no source.
func (s *Shape) Order(kind string) []string {
	n := 0
	have := map[string]bool{}
	split := false
	for _, p := range s.Panels {
		n += p.Copies
		have[p.ID] = true
		for _, e := range p.Edges {
			split = split || e.Name == "seam"
		}
	}
	var out []string
	if split {
		out = append(out, "Join the pieces of each large part first, flat on the bench, ticks to ticks.")
	}
	say := func(text ...string) { out = append(out, text...) }
	switch kind {
	case "box":
		say("Dry-fit all of it with tape; the ticks of neighbours meet.")
		if have["bottom"] || have["bottom-1"] {
			say("Glue the bottom into the front, then both sides to bottom and front.")
		} else {
			say("Glue both sides to the front.")
		}
		say("Glue the back on; check that both diagonals are equal before it grabs.")
		if have["lid"] || have["lid-1"] {
			say("Lid last, when what belongs inside is in and proven.")
		}
	case "tower":
		say(fmt.Sprintf("Lay the %d faces outside up, edges touching, ticks to ticks; tape across every seam.", n), "Turn them over, glue into the open bevels, fold round and tape the last seam.", "Set it on a flat floor and measure the diagonals before it grabs.")
	case "gores":
		say(fmt.Sprintf("Join the %d gores in pairs from the middle tick to both ends.", n), "Pairs to quarters, quarters to halves.", "The two halves last, the closing seam where nobody looks.")
	case "cone", "wrap":
		say("Bend it round warm or over a table's edge, outside out.", "Close the seam from the middle to both ends, ticks to ticks.")
	case "rings":
		say(fmt.Sprintf("Stack the %d rings from the bottom up, glue and a weight after every third.", n), "Rasp from the outside in when all is dry.")
	case "slices", "mesh":
		say(fmt.Sprintf("Glue the %d slices from 1 upwards, pins and middle marks over each other.", n), "Weigh it down and wait, then carve; what was left for carving only goes away.")
	case "boards":
		say("Lay the boards side by side, seams tight, and glue the braces over the seams behind.", "Draw the circle with the string when the glue holds, and cut it in one go.")
	case "outline":
		if n > 1 {
			say("Stack pieces that must be alike and sand their edges together.")
		}
		say("Round the edges, then back what is narrow with a strip.")
	case "disc", "panel":
		say("Cut, number it on the inside, and ease the edges with a rasp.")
	case "pipe":
		say("Cut, deburr inside and out, and mark each length before the next is cut.", "Dry-fit the frame flat on the floor; glue only what need not come apart.")
	}
	return out
}

package draw

import (
	"fmt"
	"math"
	"slices"
	"strings"
)

// All words of a drawing are placed by one routine when it is closed: what is turned (the
// dimensions) stays, and the rest keeps its place unless it would run into what stands
// there already. Then it goes a line or more up or down, with a leader to where it
// belongs; what reaches over the drawing's edge is drawn in, and shortened where it must.

// label is a text of a drawing before it has its place.
type label struct {
	class, anchor string
	x, y          float64
	text          string
	turned        float64 // degrees; those that are turned stay
	halo          bool    // the outline of the one that follows
}

// box is what a label covers.
type box struct{ left, top, right, bottom float64 }

func (b box) hits(o box) bool {
	x := math.Min(b.right, o.right) - math.Max(b.left, o.left)
	y := math.Min(b.bottom, o.bottom) - math.Max(b.top, o.top)
	return x > 1 && y > 0.15*math.Min(b.bottom-b.top, o.bottom-o.top)
}

// letterWidths are how wide letters of the drawings' font are, in its size; a little
// more than they are.
func letterWidth(r rune) float64 {
	switch {
	case strings.ContainsRune("il.,;:'|!jI ", r):
		return 0.31
	case strings.ContainsRune("frt()/\"[]-", r):
		return 0.42
	case strings.ContainsRune("mwMW@%", r):
		return 0.92
	case r >= 'A' && r <= 'Z':
		return 0.69
	case r > 0x2E80: // as wide as high
		return 1
	}
	return 0.59
}

// size is a label's letter height, by its class.
func (l label) size() float64 {
	switch {
	case strings.Contains(l.class, "head"):
		return 16
	case strings.Contains(l.class, "tapetext"):
		return 10.5
	}
	return 13
}

// wide is how wide a text is.
func (l label) wide() float64 {
	w := 0.0
	for _, r := range l.text {
		w += letterWidth(r)
	}
	if strings.Contains(l.class, "lbl") || strings.Contains(l.class, "head") {
		w *= 1.06
	}
	return w * l.size()
}

// covers is the label's box.
func (l label) covers() box {
	w, h := l.wide(), l.size()
	if l.turned != 0 {
		s, c := math.Sincos(l.turned * math.Pi / 180)
		hw, hh := (math.Abs(w*c)+math.Abs(h*s))/2, (math.Abs(w*s)+math.Abs(h*c))/2
		x, y := l.x+s*h*0.35, l.y-c*h*0.35
		return box{x - hw, y - hh, x + hw, y + hh}
	}
	left := l.x
	switch l.anchor {
	case "middle":
		left -= w / 2
	case "end":
		left -= w
	}
	return box{left, l.y - 0.95*h, left + w, l.y + 0.27*h}
}

// lineGap is how far a label is moved at a time, in its own height.
const lineGap = 1.2

// placed gives each label its place within a drawing so large; the answers are in order.
func placed(all []label, w, h float64) (out []string) {
	out = make([]string, len(all))
	var taken []box
	for i, l := range all {
		if l.turned != 0 {
			out[i] = l.svg()
			if !l.halo {
				taken = append(taken, l.covers())
			}
		}
	}
	for i, l := range all {
		if l.turned != 0 {
			continue
		}
		l = l.within(w)
		if l.halo && i+1 < len(all) && all[i+1].text == all[i].text { // goes where its text will go
			continue
		}
		moved, leader := l.free(taken, h)
		taken = append(taken, moved.covers())
		out[i] = leader + moved.svg()
		if i > 0 && all[i-1].halo && all[i-1].text == l.text {
			back := moved
			back.class = all[i-1].class
			out[i-1] = back.svg()
		}
	}
	return out
}

// within draws a label in from the drawing's edges; what is wider than it is shortened.
func (l label) within(w float64) label {
	if w <= 0 {
		return l
	}
	r := []rune(l.text)
	for len(r) > 4 && l.wide() > w-8 {
		r = r[:len(r)-1]
		l.text = strings.TrimRight(string(r), " ,") + "…"
	}
	b := l.covers()
	if b.left < 2 {
		l.x += 2 - b.left
	} else if b.right > w-2 {
		l.x -= b.right - (w - 2)
	}
	return l
}

// free is the label where nothing stands, nearest to its own place, and the leader that
// shows where it belongs when that is a line or more away.
func (l label) free(taken []box, h float64) (label, string) {
	hit := func(l label) bool {
		b := l.covers()
		if h > 0 && (b.top < 0 || b.bottom > h) && l.y != 0 {
			return true
		}
		for _, t := range taken {
			if b.hits(t) {
				return true
			}
		}
		return false
	}
	if own := l.covers(); h > 0 && (own.top < 0 || own.bottom > h) || !hit(l) {
		return l, ""
	}
	for k := 1; k <= 8; k++ {
		for _, way := range []float64{1, -1} {
			to := l
			to.y += way * float64(k) * lineGap * l.size()
			if hit(to) {
				continue
			}
			b, x := to.covers(), l.x
			x = math.Max(b.left+4, math.Min(b.right-4, x))
			from, end := b.top, l.y
			if way < 0 {
				from, end = b.bottom, l.y-0.8*l.size()
			}
			return to, fmt.Sprintf(`<line class="leadto" x1="%s" y1="%s" x2="%s" y2="%s"/>`, n(x), n(from), n(x), n(end))
		}
	}
	return l, ""
}

func (l label) svg() string {
	if l.turned != 0 {
		return fmt.Sprintf(
			`<text class="%s" text-anchor="middle" transform="translate(%s %s) rotate(%s)">%s</text>`,
			l.class, n(l.x), n(l.y), n(l.turned), esc(l.text),
		)
	}
	return fmt.Sprintf(
		`<text class="%s" text-anchor="%s" x="%s" y="%s">%s</text>`, l.class, l.anchor, n(l.x), n(l.y), esc(l.text))
}

// say keeps a label for its place to be found, and marks where it is written.
func (c *Canvas) say(l label) {
	l.halo = slices.Contains(strings.Fields(l.class), "halo")
	if strings.TrimSpace(l.text) == "" {
		return
	}
	fmt.Fprintf(&c.b, "\x00%d\x00", len(c.labels))
	c.labels = append(c.labels, l)
}

// drawn is what was drawn, with all words in their places.
func (c *Canvas) drawn() string {
	parts := strings.Split(c.b.String(), "\x00")
	if len(c.labels) == 0 {
		return strings.Join(parts, "")
	}
	words := placed(c.labels, c.W, c.H)
	var b strings.Builder
	for i, p := range parts {
		if i%2 == 0 {
			b.WriteString(p)
			continue
		}
		var k int
		if _, err := fmt.Sscan(p, &k); err == nil {
			b.WriteString(words[k])
		}
	}
	return b.String()
}

package show

// Spans is when a channel was on.
func (t Trace) Spans(channel string) []Span {
	var out []Span
	open := -1
	for _, e := range t.Events {
		if e.Who != channel {
			continue
		}
		if e.What == "on" {
			open = e.At
		} else if e.What == "off" && open >= 0 {
			if e.At > open {
				out = append(out, Span{open, e.At})
			}
			open = -1
		}
	}
	if open >= 0 && t.Until > open {
		out = append(out, Span{open, t.Until})
	}
	return out
}

// On reports whether a channel is on at a moment (its end not counted).
func (t Trace) On(channel string, at int) bool {
	for _, s := range t.Spans(channel) {
		if at >= s.From && at < s.To {
			return true
		}
	}
	return false
}

// Moments is every time at which a channel goes on or off, in order, from 0.
func (t Trace) Moments() []int {
	out := []int{0}
	for _, e := range t.Events {
		if (e.What == "on" || e.What == "off") && e.At != out[len(out)-1] {
			out = append(out, e.At)
		}
	}
	return out
}

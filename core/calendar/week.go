package calendar

import (
	"fmt"
	"regexp"
	"strconv"
	"strings"
	"time"

	"zapbarn/core/measure"
)

// Week is when somebody is there: by weekday, minutes of the day, in order.
type Week [7][]Span

var weekdays = []string{"sunday", "monday", "tuesday", "wednesday", "thursday", "friday", "saturday"}

var hours = regexp.MustCompile(`^(\d{1,2})(?::(\d{2}))?-(\d{1,2})(?::(\d{2}))?$`)

// ParseWeek reads hours as they are written: "mon-fri 18:00-21:30, sat sun 10-18". Days
// that are not named are free. The error names what would be accepted.
func ParseWeek(text string) (w Week, err error) {
	bad := func(word string) error {
		return measure.Bad("hours", "%q is not understood; write such as mon-fri 18-21:30, sat sun 10-18", word)
	}
	var days []int
	fresh := true // the next day begins a new group
	for _, word := range strings.Fields(strings.NewReplacer(",", " ", ";", " ", "–", "-").Replace(strings.ToLower(text))) {
		if m := hours.FindStringSubmatch(word); m != nil {
			s, ok := spanOf(m)
			if !ok || len(days) == 0 {
				return Week{}, bad(word)
			}
			for _, d := range days {
				if n := len(w[d]); n > 0 && w[d][n-1].End > s.Start {
					return Week{}, measure.Bad("hours", "%s has hours that overlap", weekdays[d])
				}
				w[d] = append(w[d], s)
			}
			fresh = true
			continue
		}
		if fresh {
			days, fresh = nil, false
		}
		from, to, several := strings.Cut(word, "-")
		a, b := dayNamed(from), dayNamed(to)
		if a < 0 || several && b < 0 {
			return Week{}, bad(word)
		}
		if !several {
			b = a
		}
		for d := a; ; d = (d + 1) % 7 {
			days = append(days, d)
			if d == b {
				break
			}
		}
	}
	if !fresh {
		return Week{}, bad(text)
	}
	return w, nil
}

func spanOf(m []string) (s Span, ok bool) {
	at := func(h, min string) int {
		hh, _ := strconv.Atoi(h)
		mm, _ := strconv.Atoi("0" + min)
		if hh > 24 || mm > 59 {
			return -1
		}
		return hh*60 + mm
	}
	s = Span{at(m[1], m[2]), at(m[3], m[4])}
	return s, s.Start >= 0 && s.End <= 24*60 && s.Start < s.End
}

// dayNamed is a weekday by its first letters, three at least, Sunday 0, or -1.
func dayNamed(word string) int {
	for i, d := range weekdays {
		if len(word) >= 3 && strings.HasPrefix(d, word) {
			return i
		}
	}
	return -1
}

// IsDay reports that a word begins hours: a weekday, or several.
func IsDay(word string) bool {
	first, _, _ := strings.Cut(strings.ToLower(word), "-")
	return dayNamed(first) >= 0
}

// IsHours reports that a word is hours of a day, such as 18-21:30.
func IsHours(word string) bool { return hours.MatchString(strings.Trim(word, ",;")) }

// Spans are the times of some days from a first one on, in minutes from its midnight, off
// days left out.
func (w Week) Spans(first time.Time, days int, off map[string]bool) (out []Span) {
	for n := range days {
		d := first.AddDate(0, 0, n)
		if off[d.Format(time.DateOnly)] {
			continue
		}
		for _, s := range w[d.Weekday()] {
			s.Start, s.End = s.Start+n*Day, s.End+n*Day
			if k := len(out); k > 0 && out[k-1].End == s.Start { // past midnight and on
				out[k-1].End = s.End
				continue
			}
			out = append(out, s)
		}
	}
	return out
}

// Clock writes a minute of the day: 18:30.
func Clock(minute int) string {
	m := ((minute % Day) + Day) % Day
	return fmt.Sprintf("%d:%02d", m/60, m%60)
}

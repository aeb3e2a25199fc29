package calendar

import "math"

// Drying is a wait that the air makes longer or shorter, day by day.
type Drying struct {
	Wait float64   // minutes, in the air it was planned in
	Slow []float64 // by day from the first: how many times longer it takes in that day's air; beyond, once
}

// slow is of a day.
func (d Drying) slow(day int) float64 {
	if day < 0 || day >= len(d.Slow) {
		return 1
	}
	return d.Slow[day]
}

// From is how many minutes it waits that begins at one: what dries in each of its hours, by
// that day's air, until all of it has.
func (d Drying) From(at int) int {
	left, now := d.Wait, float64(at)
	for left > 0 {
		day := int(math.Floor(now / Day))
		slow, room := d.slow(day), float64(day+1)*Day-now
		if left*slow <= room || day >= len(d.Slow) {
			now += left * slow
			break
		}
		left -= room / slow
		now = float64(day+1) * Day
	}
	return int(math.Ceil(now - float64(at) - 1e-6))
}

// least is the shortest it can be on any day.
func (d Drying) least() int {
	fast := 1.0
	for _, s := range d.Slow {
		fast = math.Min(fast, s)
	}
	return int(d.Wait * fast)
}

// WaitFrom is how many minutes a task waits whose hands are off it at one.
func (t Task) WaitFrom(at int) int {
	if len(t.Drying) == 0 {
		return t.Wait
	}
	long := 0
	for _, d := range t.Drying {
		long = max(long, d.From(at))
	}
	return long
}

// leastWait is the shortest wait there is on any day.
func (t Task) leastWait() int {
	if len(t.Drying) == 0 {
		return t.Wait
	}
	long := 0
	for _, d := range t.Drying {
		long = max(long, d.least())
	}
	return long
}

// latestEnd is the last minute at which hands may come off it for its wait to be over by one;
// it is known that they may at from. What begins to dry later is never dry before.
func (t Task) latestEnd(from, over int) int {
	to := over - t.leastWait()
	for from < to {
		if mid := (from + to + 1) / 2; mid+t.WaitFrom(mid) <= over {
			from = mid
		} else {
			to = mid - 1
		}
	}
	return from
}

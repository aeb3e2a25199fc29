package calendar

import (
	"fmt"
	"math"
	"math/rand/v2"
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

var always = []Span{{0, 1 << 20}}

// crewOf are people who are always there.
func crewOf(n int) []Person {
	out := make([]Person, n)
	for i := range out {
		out[i].There = always
	}
	return out
}

// The Reliable Construction Co. (Hillier and Lieberman, Introduction to Operations
// Research, project management with PERT/CPM; from memory): 44 weeks, critical
// A B C E F J L N, and the slacks of the others.
func TestATextbookCriticalPath(t *testing.T) {
	weeks := map[string]int{
		"A": 2,
		"B": 4,
		"C": 10,
		"D": 6,
		"E": 4,
		"F": 5,
		"G": 7,
		"H": 9,
		"I": 7,
		"J": 8,
		"K": 4,
		"L": 5,
		"M": 2,
		"N": 6,
	}
	after := map[string]string{
		"B": "A",
		"C": "B",
		"D": "C",
		"E": "C",
		"F": "E",
		"G": "D",
		"H": "EG",
		"I": "C",
		"J": "FI",
		"K": "J",
		"L": "J",
		"M": "H",
		"N": "KL",
	}
	const names = "ABCDEFGHIJKLMN"
	p := Problem{Crew: crewOf(14)}
	for _, n := range names {
		task := Task{Work: weeks[string(n)]}
		for _, a := range after[string(n)] {
			task.After = append(task.After, int(a-'A'))
		}
		p.Tasks = append(p.Tasks, task)
	}
	s := NewSearch(p, 1)
	got := s.Best()
	assert.Equal(t, 44, got.End)
	assert.Equal(t, 44, got.Bound)
	assert.True(t, s.Proven())
	critical, slack := "", map[string]int{}
	for i, at := range Latest(p, got) {
		if slack[names[i:i+1]] = at - got.Slots[i].Start(); at == got.Slots[i].Start() {
			critical += names[i : i+1]
		}
	}
	assert.Equal(t, "ABCEFJLN", critical)
	assert.Equal(
		t,
		map[string]int{"A": 0, "B": 0, "C": 0, "D": 4, "E": 0, "F": 0, "G": 4, "H": 4, "I": 2, "J": 0, "K": 1,
			"L": 0, "M": 4, "N": 0},
		slack,
	)
}

// Worked by hand: one person, evenings from 18:00 to 21:00. A coat takes an hour and dries
// eight; gluing takes four hours, an evening and an hour of the next; a mix that sets is not
// begun when the evening is too short for it.
func TestAnEveningByHand(t *testing.T) {
	week, err := ParseWeek("mon-sun 18-21")
	require.NoError(t, err)
	monday := time.Date(2026, 9, 21, 0, 0, 0, 0, time.UTC)
	me := Person{There: week.Spans(monday, 14, nil)}
	p := Problem{Crew: []Person{me}, Tasks: []Task{
		{Work: 240}, // glue
		{Work: 60, Wait: 8 * 60, After: []int{0}},      // coat
		{Work: 60, After: []int{1}},                    // second coat
		{Work: 90, Whole: true, After: []int{2}},       // a mix that sets
		{Work: 121, Whole: true, After: []int{3}},      // another, for which an hour and a half is too short
		{Work: 30, From: 10 * Day, After: []int{4}},    // what comes by post
		{Work: 181, Whole: true},                       // longer than any evening
		{Work: 5, After: []int{6}},                     // and what waits for that
		{Work: 5, Trade: "welding"},                    // what everybody can who names no trade
		{Work: 10, People: 2},                          // what takes two
		{Work: 0, Wait: 60, From: 3 * Day, After: nil}, // a wait alone
	}}
	got := NewSearch(p, 1).Best()
	at := func(day, h, m int) int { return day*Day + h*60 + m }
	assert.Equal(t, []Span{{at(0, 18, 0), at(0, 21, 0)}, {at(1, 18, 0), at(1, 19, 0)}}, got.Slots[0].Pieces)
	assert.Equal(t, []Span{{at(1, 19, 0), at(1, 20, 0)}}, got.Slots[1].Pieces)
	assert.Equal(t, at(2, 4, 0), got.Slots[1].Free)
	assert.Equal(t, at(2, 18, 0), got.Slots[2].Start())
	assert.Equal(t, []Span{{at(2, 19, 0), at(2, 20, 30)}}, got.Slots[3].Pieces)
	assert.Equal(t, []Span{{at(3, 18, 0), at(3, 20, 1)}}, got.Slots[4].Pieces)
	assert.Equal(t, at(10, 18, 0), got.Slots[5].Start())
	assert.Equal(t, "wants somebody", got.Slots[6].Lacks)
	assert.Equal(t, "waits for what cannot be done", got.Slots[7].Lacks)
	assert.True(t, got.Slots[8].Placed())
	assert.Equal(t, "wants 2 people at once", got.Slots[9].Lacks)
	assert.Equal(t, []Span{{3 * Day, 3 * Day}}, got.Slots[10].Pieces)
	assert.Equal(t, at(10, 18, 30), got.End)
	late := Latest(p, got)
	assert.Equal(t, at(10, 18, 0), late[5])
	// by hand: the post comes Thursday week 18:00, so the mix may wait until 18:59 the evening before
	assert.Equal(t, at(9, 18, 59), late[4])
	assert.Equal(t, -1, late[6])
}

// Who is there when is read as it is written, and refused by what is wrong.
func TestHoursAreRead(t *testing.T) {
	monday := time.Date(2026, 9, 21, 0, 0, 0, 0, time.UTC)
	for text, want := range map[string]string{
		"mon-fri 18:00-21:30, sat sun 10-18": "[{1080 1290} {2520 2730} {3960 4170} {5400 5610} " +
			"{6840 7050} {7800 8280} {9240 9720}]",
		"Mon 9-12 13-17":      "[{540 720} {780 1020}]",
		"sat-mon 8-9":         "[{480 540} {7680 7740} {9120 9180}]",
		"mon tue 0-24":        "[{0 2880}]",
		"Wednesday 9:05-9:06": "[{3425 3426}]",
		"":                    "[]",
	} {
		w, err := ParseWeek(text)
		require.NoError(t, err, text)
		assert.Equal(t, want, fmt.Sprint(w.Spans(monday, 7, nil)), text)
	}
	for _, text := range []string{"mon", "18-21", "mon 21-18", "mon 9-25", "mon 9-9", "moon 9-10", "mon-xy 9-10",
		"mon 9:60-10",
		"mon 9-12 11-13", "mon 9-10 tue", "sunny 9-10", "mo 9-10"} {
		_, err := ParseWeek(text)
		assert.ErrorContains(t, err, "hours", text)
	}
	w, _ := ParseWeek("mon-sun 10-11")
	assert.Len(t, w.Spans(monday, 7, map[string]bool{"2026-09-23": true, "2026-10-23": true}), 6)
	assert.Equal(t, "18:05", Clock(2*Day+18*60+5))
}

// A loop is told as it runs: each waits for the next.
func TestALoopIsFound(t *testing.T) {
	p := Problem{Tasks: []Task{{}, {After: []int{0, 3}}, {After: []int{1}}, {After: []int{2, 0}}, {After: []int{3}}}}
	loop := p.Loop()
	require.Len(t, loop, 3)
	for k, i := range loop {
		assert.Contains(t, p.Tasks[loop[(k+1)%3]].After, i)
	}
	p.Tasks[1].After = []int{0}
	assert.Nil(t, p.Loop())
}

// drawn is a problem: people with evenings and trades, tools, waits and posts.
func drawn(t *rapid.T) Problem {
	n := rapid.IntRange(1, 14).Draw(t, "n")
	var p Problem
	for range rapid.IntRange(1, 3).Draw(t, "crew") {
		var who Person
		if rapid.Bool().Draw(t, "some") {
			who.Trades = rapid.SliceOfNDistinct(rapid.SampledFrom([]string{"wire", "paint"}), 1, 2, rapid.ID[string]).
				Draw(t, "t")
		}
		at := 0
		for range 60 {
			at += rapid.IntRange(10, 300).Draw(t, "gap")
			end := at + rapid.IntRange(20, 240).Draw(t, "there")
			who.There = append(who.There, Span{at, end})
			at = end
		}
		p.Crew = append(p.Crew, who)
	}
	for i := range n {
		x := Task{
			Work:   rapid.IntRange(0, 120).Draw(t, "work"),
			People: rapid.IntRange(1, 2).Draw(t, "people"),
			Trade:  rapid.SampledFrom([]string{"", "", "wire", "paint"}).Draw(t, "trade"),
			Tool:   rapid.SampledFrom([]string{"", "", "saw", "gun"}).Draw(t, "tool"),
			Wait:   rapid.SampledFrom([]int{0, 0, 30, 600}).Draw(t, "wait"),
			From:   rapid.SampledFrom([]int{0, 0, 0, 900}).Draw(t, "from"),
			Whole:  rapid.IntRange(0, 3).Draw(t, "whole") == 0,
		}
		for a := range i {
			if rapid.IntRange(0, 4).Draw(t, "after") == 0 {
				x.After = append(x.After, a)
				if rapid.IntRange(0, 3).Draw(t, "window") == 0 {
					x.Within = append(x.Within, Window{a, rapid.SampledFrom([]int{0, 40, 700}).Draw(t, "within")})
				}
			}
		}
		p.Tasks = append(p.Tasks, x)
	}
	return p
}

// holds checks that a schedule keeps to its problem.
func holds(t require.TestingT, p Problem, s Schedule) {
	end := 0
	taken := map[string][]Span{}
	for i, x := range p.Tasks {
		slot := s.Slots[i]
		if !slot.Placed() {
			assert.NotEmpty(t, slot.Lacks)
			continue
		}
		work := 0
		for _, piece := range slot.Pieces {
			work += piece.End - piece.Start
			for _, w := range slot.Who {
				if piece.End > piece.Start {
					assert.NotEmpty(t, common(p.Crew[w].There, []Span{piece}), "not there")
					assert.Equal(t, []Span{piece}, common(p.Crew[w].There, []Span{piece}), "there all the while")
				}
			}
		}
		assert.Equal(t, x.Work, work, "all of its work")
		assert.Len(t, slot.Who, max(1, x.People))
		assert.True(t, !x.Whole || len(slot.Pieces) == 1, "in one go")
		assert.GreaterOrEqual(t, slot.Start(), x.From)
		assert.Equal(t, slot.End()+x.Wait, slot.Free)
		for _, w := range slot.Who {
			assert.True(t, p.Crew[w].Can(x.Trade))
			taken[fmt.Sprint(w)] = append(taken[fmt.Sprint(w)], Span{slot.Start(), slot.End()})
		}
		if x.Tool != "" {
			taken[x.Tool] = append(taken[x.Tool], Span{slot.Start(), slot.End()})
		}
		for _, a := range x.After {
			require.True(t, s.Slots[a].Placed(), "it waits for what has no place")
			assert.GreaterOrEqual(t, slot.Start(), s.Slots[a].Free, "after what it waits for")
		}
		for _, w := range x.Within {
			assert.LessOrEqual(t, slot.Start(), s.Slots[w.After].Free+w.Minutes, "its window has closed")
		}
		end = max(end, slot.Free)
	}
	assert.Equal(t, end, s.End)
	for what, list := range taken {
		for i, a := range list {
			for _, b := range list[i+1:] {
				assert.Empty(t, common([]Span{a}, []Span{b}), "two at once: "+what)
			}
		}
	}
}

// No schedule breaks an order, a person's hours, a tool, a go; none is over before the
// bound; the same seed gives the same; latest starts are never before the starts, and to
// begin that late still does.
func TestSchedulesHold(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := drawn(t)
		require.Nil(t, p.Loop())
		s := NewSearch(p, 7)
		first := s.Best()
		holds(t, p, first)
		got := s.Run(30)
		holds(t, p, got)
		assert.LessOrEqual(t, left(got), left(first), "no task is dropped for an earlier end")
		if left(got) == left(first) {
			assert.LessOrEqual(t, got.End, first.End)
		}
		assert.LessOrEqual(t, got.Bound, got.End)
		assert.Equal(t, got, NewSearch(p, 7).Run(30), "same seed, same answer")
		some := false
		for i, at := range Latest(p, got) {
			if !got.Slots[i].Placed() {
				assert.Equal(t, -1, at)
				continue
			}
			assert.GreaterOrEqual(t, at, got.Slots[i].Start())
			some = some || at == got.Slots[i].Start()
		}
		assert.True(t, some || got.End == 0, "something is critical")
		// a problem is named by all of it
		q := p
		q.Tasks = append([]Task(nil), p.Tasks...)
		assert.Equal(t, p.Sum(), q.Sum())
		x := &q.Tasks[rapid.IntRange(0, len(q.Tasks)-1).Draw(t, "which")]
		switch rapid.IntRange(0, 7).Draw(t, "what") {
		case 7:
			x.Within = append(slices.Clone(x.Within), Window{0, 5})
		case 0:
			x.Work++
		case 1:
			x.People++
		case 2:
			x.Wait++
		case 3:
			x.From++
		case 4:
			x.Whole = !x.Whole
		case 5:
			x.Tool += "x"
		case 6:
			x.Trade += "x"
		}
		assert.NotEqual(t, p.Sum(), q.Sum())
	})
}

// A window by hand: evenings from 18:00 to 21:00. What comes before takes an hour and a half;
// the first coat would be on at 20:30 and the second could go on from 21:00 to 22:00, when
// nobody is there: so both wait for the next evening. With the window open until then only
// the second does; with one that is never open they have no place.
func TestAWindowByHand(t *testing.T) {
	p := Problem{
		Crew: []Person{{There: []Span{{1080, 1260}, {Day + 1080, Day + 1260}, {2*Day + 1080, 2*Day + 1260}}}},
		Tasks: []Task{{Work: 90, Whole: true}, {Work: 60, Wait: 30, Whole: true, After: []int{0}},
			{Work: 60, Whole: true, After: []int{1}, Within: []Window{{1, 60}}}},
	}
	s := NewSearch(p, 1).Run(50)
	assert.Equal(
		t,
		[]int{1080, Day + 1080, Day + 1170},
		[]int{s.Slots[0].Start(), s.Slots[1].Start(), s.Slots[2].Start()},
	)
	p.Tasks[2].Within[0].Minutes = 21 * 60
	s = NewSearch(p, 1).Run(50)
	assert.Equal(t, []int{1080, 1170, Day + 1080}, []int{s.Slots[0].Start(), s.Slots[1].Start(), s.Slots[2].Start()})
	p.Tasks[2].Within[0].Minutes = 60
	p.Tasks[1].Wait = 9 * 60 // it is dry in the night
	s = NewSearch(p, 1).Run(50)
	assert.Equal(t, []string{"", Closes, Closes}, []string{s.Slots[0].Lacks, s.Slots[1].Lacks, s.Slots[2].Lacks})
	// what lies between two that a window ties is tied, too
	q := Problem{
		Tasks: []Task{{}, {After: []int{0}}, {After: []int{1, 0}, Within: []Window{{0, 5}}}, {After: []int{2}}},
	}
	assert.Equal(t, [][]int{{0, 1, 2}, {0, 1, 2}, {0, 1, 2}, nil}, q.chains())
}

// A chance of certain times is 0 or 1; of uncertain ones between, more with more time, and
// in the mean as a triangle has it.
func TestChance(t *testing.T) {
	p := Problem{Crew: crewOf(1), Tasks: []Task{{Work: 100}, {Work: 100, After: []int{0}}, {Work: 1, Wait: 5}}}
	s := NewSearch(p, 1).Best()
	got, _ := Chance(p, s, s.End, 1, 1, 50, 3)
	assert.Equal(t, 1.0, got)
	got, carries := Chance(p, s, s.End-1, 1, 1, 50, 3)
	assert.Equal(t, 0.0, got)
	assert.Equal(t, 50, carries[0])
	last := 0.0
	for _, by := range []int{150, 190, 210, 240, 290, 400} {
		got, _ = Chance(p, s, by, .8, 2, 400, 3)
		assert.GreaterOrEqual(t, got, last)
		last = got
	}
	assert.Equal(t, 1.0, last)
	// mean (a + m + c) / 3 and the median of a symmetric one (Kotz and van Dorp 2004)
	rng, total := rand.New(rand.NewPCG(1, 1)), 0.0
	for range 20_000 {
		total += triangular(rng.Float64(), .8, 1, 2)
	}
	assert.InDelta(t, 3.8/3, total/20_000, 0.005)
	assert.InDelta(t, 1, triangular(.5, .5, 1, 1.5), 1e-12)
	assert.InDelta(t, 1.5-math.Sqrt(.1*1*.5), triangular(.9, .5, 1, 1.5), 1e-12)
}

// A plan of three hundred tasks and three people, and ten times that.
func BenchmarkSearch(b *testing.B) {
	for _, n := range []int{30, 300, 3000} {
		rng := rand.New(rand.NewPCG(4, 4))
		week, _ := ParseWeek("mon-fri 18-21:30, sat sun 10-18")
		var p Problem
		for range 3 {
			p.Crew = append(
				p.Crew,
				Person{There: week.Spans(time.Date(2026, 9, 21, 0, 0, 0, 0, time.UTC), 2000, nil)},
			)
		}
		for i := range n {
			x := Task{Work: 10 + rng.IntN(120), Wait: []int{0, 0, 120, 600}[rng.IntN(4)], People: 1 + rng.IntN(5)/4}
			for range min(i, 2) {
				x.After = append(x.After, max(0, i-1-rng.IntN(12)))
			}
			p.Tasks = append(p.Tasks, x)
		}
		b.Run(fmt.Sprintf("first/%d", n), func(b *testing.B) {
			b.ReportAllocs()
			for b.Loop() {
				NewSearch(p, 1)
			}
		})
		b.Run(fmt.Sprintf("round/%d", n), func(b *testing.B) {
			b.ReportAllocs()
			s := NewSearch(p, 1)
			for b.Loop() {
				s.Run(1)
			}
		})
	}
}

// With an hour for two tasks of an hour, one is left out: the answer with more of them is
// the better one, however late, and the bound says nothing beyond it.
func TestMoreOfTheTasksComesFirst(t *testing.T) {
	some := Schedule{Slots: []Slot{{Pieces: []Span{{0, 60}}, Free: 60}, {}}, End: 60}
	all := Schedule{
		Slots: []Slot{{Pieces: []Span{{0, 60}}, Free: 60}, {Pieces: []Span{{600, 660}}, Free: 660}},
		End:   660,
	}
	assert.True(t, better(all, some))
	assert.False(t, better(some, all))
	p := Problem{Tasks: []Task{{Work: 60, People: 1}, {Work: 60, People: 1}},
		Crew: []Person{{There: []Span{{0, 60}}}}}
	got := NewSearch(p, 1).Run(50)
	assert.Equal(t, 1, left(got))
	assert.LessOrEqual(t, got.Bound, got.End)
	assert.False(t, NewSearch(p, 1).Proven())
}

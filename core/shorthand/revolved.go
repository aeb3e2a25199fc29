package shorthand

import (
	"fmt"
	"regexp"
	"strconv"
	"strings"

	"zapbarn/core/pattern"
	"zapbarn/core/plan"
)

var goreCount = regexp.MustCompile(`^n(\d{1,3})$`)

// profiled takes a profile's name and a count nN out of the words; n is -1
// when none was given.
func profiled(words []string, def string) (profile string, n int, rest []string) {
	profile, n = def, -1
	for _, w := range words {
		low := strings.ToLower(w)
		known := false
		for _, p := range pattern.ProfileNames() {
			if low == p {
				profile, known = p, true
			}
		}
		if m := goreCount.FindStringSubmatch(low); m != nil {
			n, _ = strconv.Atoi(m[1])
			known = true
		}
		if !known {
			rest = append(rest, w)
		}
	}
	return
}

func (r *reader) gores() (*Reading, error) {
	s := plan.Solid{Kind: "gores", Sides: 8}
	words := r.words[1:]
	s.Stock, words = r.stockIn(words, "eva10")
	s.Crease, words = take(words, "crease")
	var n int
	if s.Profile, n, words = profiled(words, "sphere"); n >= 0 {
		if s.Sides = n; n < 3 {
			return nil, fmt.Errorf("%d gores close no shape; write n3 or more", n)
		}
	}
	dims, rest, _ := r.sizes(words)
	if err := wantNone(rest); err != nil {
		return nil, err
	}
	if len(dims) != 2 {
		return nil, fmt.Errorf("gores take the widest place x the height")
	}
	s.W, s.H = dims[0], dims[1]
	return r.solid(s, fmt.Sprintf("%d gores, %s, %s across, %s tall", s.Sides, s.Profile, w(r, s.W), w(r, s.H)))
}

func (r *reader) slices() (*Reading, error) {
	s := plan.Solid{Kind: "slices"}
	words := r.words[1:]
	s.Stock, words = r.stockIn(words, "xps2")
	words, s.Wall = r.after(words, "wall")
	s.Profile, _, words = profiled(words, "dome")
	dims, rest, _ := r.sizes(words)
	if err := wantNone(rest); err != nil {
		return nil, err
	}
	if len(dims) != 2 {
		return nil, fmt.Errorf("slices take the widest place x the height")
	}
	s.W, s.H = dims[0], dims[1]
	return r.solid(s, fmt.Sprintf("%s in slices, %s across, %s tall", s.Profile, w(r, s.W), w(r, s.H)))
}

func (r *reader) cone() (*Reading, error) {
	s := plan.Solid{Kind: "cone"}
	words := r.words[1:]
	s.Stock, words = r.stockIn(words, "eva5")
	words, s.H = r.before(words, "tall")
	dims, rest, _ := r.sizes(words)
	if err := wantNone(rest); err != nil {
		return nil, err
	}
	if s.H.IsZero() || len(dims) < 1 || len(dims) > 2 {
		return nil, fmt.Errorf("a cone takes one or two sizes across and a height")
	}
	s.Low = dims[0]
	text := "cone, " + w(r, s.Low) + " across at the bottom, to a point"
	if len(dims) == 2 {
		s.High = dims[1]
		text = "cone, " + w(r, s.Low) + " across at the bottom, " + w(r, s.High) + " at the top"
	}
	return r.solid(s, text+", "+w(r, s.H)+" tall")
}

func (r *reader) wrapped() (*Reading, error) {
	s := plan.Solid{Kind: "wrap"}
	words := r.words[1:]
	s.Stock, words = r.stockIn(words, "eva5")
	words, s.Skin = r.after(words, "skin")
	dims, rest, _ := r.sizes(words)
	if err := wantNone(rest); err != nil {
		return nil, err
	}
	if len(dims) != 2 {
		return nil, fmt.Errorf("a wrap takes the tube's width x its height")
	}
	s.W, s.H = dims[0], dims[1]
	return r.solid(s, fmt.Sprintf("tube by wrap, %s across, %s tall", w(r, s.W), w(r, s.H)))
}

func (r *reader) boards() (*Reading, error) {
	s := plan.Solid{Kind: "boards"}
	words := r.words[1:]
	s.Stock, words = r.stockIn(words, "xps1")
	dims, rest, _ := r.sizes(words)
	if err := wantNone(rest); err != nil {
		return nil, err
	}
	if len(dims) != 1 {
		return nil, fmt.Errorf("a disc over boards takes one diameter")
	}
	s.W = dims[0]
	return r.solid(s, "disc over boards, "+w(r, s.W)+" across")
}

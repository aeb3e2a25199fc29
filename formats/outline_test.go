package formats

import (
	"bytes"
	"context"
	"fmt"
	"math"
	"strings"
	"testing"

	"zapbarn/core/pattern"

	"github.com/stretchr/testify/require"
)

func total(rings [][]pattern.Point) float64 {
	a := 0.0
	for _, r := range rings {
		a += pattern.Area(r)
	}
	return a
}

func TestSVGOutlinesAgainstClosedForms(t *testing.T) {
	for svg, want := range map[string]float64{
		`<rect x="10" y="5" width="40" height="30"/>`: 1200,
		`<circle cx="50" cy="50" r="30"/>`:            math.Pi * 900,
		`<ellipse cx="50" cy="50" rx="40" ry="20"/>`:  math.Pi * 800,
		`<polygon points="0,0 60,0 30,80"/>`:          2400,
		`<path d="M10 10h40v30h-40z"/>`:               1200,
		// area under a cubic: integral of y dx, by hand
		`<path d="M0 0 C0 40 60 40 60 0 Z"/>`:                                                  1440,
		`<path d="M20 50 A30 30 0 0 1 80 50 A30 30 0 0 1 20 50 Z"/>`:                           math.Pi * 900,
		`<g transform="rotate(30) translate(5 5) scale(2)"><rect width="10" height="10"/></g>`: 400,
		`<path d="M0 0h40v40h-40z M10 10h10v10h-10z"/>`:                                        1700, // both rings
		// an open line is no outline
		`<path d="M0 0L50 0"/><rect width="10" height="20"/>`: 200,
	} {
		r, err := Rings(
			context.Background(),
			[]byte(`<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 100 100">`+svg+`</svg>`),
		)
		require.NoError(t, err, svg)

		require.InEpsilon(t, want, total(r), 0.006, svg)
	}
}

func TestSVGStandsUpright(t *testing.T) {
	// a triangle with its point up on screen must have it up in the plan
	r, err := Rings(
		context.Background(),
		[]byte(
			`<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 100 100"><polygon points="10,90 90,90 50,10"/></svg>`,
		),
	)
	require.NoError(t, err)
	top := r[0][0]
	for _, q := range r[0] {
		if q.Y > top.Y {
			top = q
		}
	}
	low, high := math.Inf(1), math.Inf(-1)
	for _, q := range r[0] {
		low, high = math.Min(low, q.X), math.Max(high, q.X)
	}
	require.InDelta(t, (low+high)/2, top.X, 1e-6)
}

func dxf(entities string) []byte {
	return []byte(
		"0\nSECTION\n2\nENTITIES\n" + strings.ReplaceAll(
			strings.TrimSpace(entities),
			" ",
			"\n",
		) + "\n0\nENDSEC\n0\nEOF\n",
	)
}

func TestDXFOutlinesAgainstClosedForms(t *testing.T) {
	for text, want := range map[string]float64{
		"0 LWPOLYLINE 8 0 70 1 10 0 20 0 10 40 20 0 10 40 20 30 10 0 20 30": 1200,
		// two half circles
		"0 LWPOLYLINE 8 0 70 1 10 0 20 0 42 1 10 60 20 0 42 1":                    math.Pi * 900,
		"0 LWPOLYLINE 8 0 70 1 10 0 20 0 10 60 20 0 42 1 10 60 20 40 10 0 20 40":  2400 + math.Pi*200,
		"0 CIRCLE 8 0 10 5 20 5 40 30":                                            math.Pi * 900,
		"0 ARC 8 0 10 0 20 0 40 30 50 0 51 180 0 LINE 8 0 10 -30 20 0 11 30 21 0": math.Pi * 450,
		"0 LINE 8 0 10 0 20 0 11 40 21 0 0 LINE 8 0 10 40 20 30 11 40 21 0 0 LINE 8 0 10 40 20 30 11 0 21 30 0 LINE 8 0 " +
			"10 0 20 30 11 0 21 0": 1200,
		"0 ELLIPSE 8 0 10 5 20 5 11 30 21 40 40 0.5 41 0 42 6.283185307179586": math.Pi * 50 * 25,
		// a circle as a rational curve of nine control points
		"0 SPLINE 8 0 70 1 71 2 " +
			"40 0 40 0 40 0 40 1 40 1 40 2 40 2 40 3 40 3 40 4 40 4 40 4 " +
			"41 1 41 0.70710678 41 1 41 0.70710678 41 1 41 0.70710678 41 1 41 0.70710678 41 1 " +
			"10 30 20 0 10 30 20 30 10 0 20 30 10 -30 20 30 10 -30 20 0 10 -30 20 -30 10 0 20 -30 10 30 20 -30 " +
			"10 30 20 0": math.Pi * 900,
		// a parabola over its chord: two thirds of its box
		"0 SPLINE 8 0 71 2 40 0 40 0 40 0 40 1 40 1 40 1 10 0 20 0 10 30 20 60 10 60 20 0 " +
			"0 LINE 8 0 10 60 20 0 11 0 21 0": 2. / 3 * 60 * 30,
		"0 POLYLINE 8 0 70 1 0 VERTEX 10 0 20 0 0 VERTEX 10 40 20 0 0 VERTEX 10 40 20 30 0 SEQEND": 600,
	} {
		r, err := Rings(context.Background(), dxf(text))
		require.NoError(t, err, text)
		require.InEpsilon(t, want, total(r), 0.002, text)
	}
}

func TestOutlinesReadBackWhatWeWrite(t *testing.T) {
	s, err := pattern.Outline{
		Rings: [][]pattern.Point{
			{{X: 0}, {X: 40}, {X: 60, Y: 50}, {X: 20, Y: 90}, {X: -5, Y: 30}},
			pattern.Circle(25, 40, 20),
		},
		H:      900,
		T:      6,
		Copies: 1,
	}.Lay()
	require.NoError(t, err)
	p := s.Panels[0]
	_, hi := p.Bounds()
	f := &Flat{Title: "petal", W: hi.X, H: hi.Y}
	f.add(p, func(q pattern.Point) pattern.Point { return q })
	for name, write := range map[string]func(*Flat, *bytes.Buffer) error{"svg": func(f *Flat,
		b *bytes.Buffer) error {
		return f.SVG(b)
	}, "dxf": func(f *Flat, b *bytes.Buffer) error { return f.DXF(b) }} {
		var b bytes.Buffer
		require.NoError(t, write(f, &b))
		r, err := Rings(context.Background(), b.Bytes())
		require.NoError(t, err, name)
		back, err := pattern.Outline{Rings: r, H: 900, T: 6, Copies: 1}.Lay()
		require.NoError(t, err, name)
		require.Len(t, back.Panels, 1, name)
		require.InEpsilon(t, p.Area(), back.Panels[0].Area(), 1e-4, name)
	}
}

func TestOutlineFilesThatCannotBeRead(t *testing.T) {
	for text, want := range map[string]string{
		"":                                       "neither an SVG nor a DXF",
		"hello":                                  "neither an SVG nor a DXF",
		"<svg":                                   "",
		"<svg></svg>":                            "no closed outline",
		"<svg><path d='M0 0'/>":                  "",
		"<svg><path d='zzz'/></svg>":             "",
		"0\nSECTION\n2\nENTITIES\n0\nLINE\n10\n": "no closed outline",
		"SECTION\nx\ny":                          "no DXF as text",
		"<svg viewBox='0 0 9 9'><path d='M0 0L9 0L9 9'/></svg>": "no closed outline",
	} {
		_, err := Rings(context.Background(), []byte(text))
		require.Error(t, err, text)
		require.ErrorContains(t, err, want, text)
	}
}

func FuzzRings(f *testing.F) {
	f.Add([]byte(`<svg viewBox="0 0 9 9"><path d="M0 0A3 3 0 0 1 9 9z" transform="matrix(1 0 0 1 2 3)"/></svg>`))
	f.Add(dxf("0 LWPOLYLINE 8 0 70 1 10 0 20 0 42 1 10 60 20 0 42 1"))
	f.Fuzz(func(t *testing.T, data []byte) {
		r, err := Rings(context.Background(), data)
		if err == nil && len(r) == 0 {
			t.Fatal("no rings and no word of it")
		}
		_ = fmt.Sprint(r)
	})
}

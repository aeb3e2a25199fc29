package measure

import (
	"encoding/json"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Spellings a builder uses. Conversions are exact by definition (international
// inch 25.4 mm); gauges by ASTM B258.
func TestAsWritten(t *testing.T) {
	length := map[string]float64{
		`22`: 22 * Inch, `22"`: 22 * Inch, `22in`: 22 * Inch, `22 in`: 22 * Inch, `22 inches`: 22 * Inch, `22 IN`: 22 * Inch,
		`22.5`: 22.5 * Inch, `22 1/2`: 22.5 * Inch, `22 1/2"`: 22.5 * Inch, `22-1/2"`: 22.5 * Inch, `22½`: 22.5 * Inch,
		`22 ½ in`: 22.5 * Inch,
		`3/4`:     19.05, `3/4"`: 19.05, `¾"`: 19.05, `1 3/16 in`: 1.1875 * Inch, `.5 in`: 12.7, `0.295 in`: 7.493,
		`4'6"`: 54 * Inch, `4' 6"`: 54 * Inch, `4'6`: 54 * Inch, `4'-6"`: 54 * Inch, `4ft 6in`: 54 * Inch,
		`4 ft 6 1/2 in`: 54.5 * Inch, `4'`: 4 * Foot,
		`4 feet`: 4 * Foot, `5'9½"`: 69.5 * Inch, `4’ 6”`: 54 * Inch, `8ft`: 8 * Foot, `1 1/2 ft`: 1.5 * Foot, `1yd`: 914.4,
		`600mm`: 600, `600 mm`: 600, `60cm`: 600, `1.2m`: 1200, `1.2 m`: 1200, `1m 20cm`: 1200, `1 m 20`: 1200,
		`1m20cm5mm`: 1205, `5 mil`: .127, `-3/8"`: -9.525,
	}
	for text, want := range length {
		got, err := Parse[lengthKind](text)
		require.NoError(t, err, text)
		assert.InDelta(t, want, got.Value(), 1e-9, text)
		assert.Equal(t, text, got.String())
	}
	amp := map[string]float64{
		`350mA`:  .35,
		`350 mA`: .35,
		`20ma`:   .02,
		`5A`:     5,
		`5 amps`: 5,
		`0.5`:    .5,
		`250uA`:  250e-6,
	}
	volt := map[string]float64{`12V`: 12, `12 v`: 12, `3.3`: 3.3, `500mV`: .5}
	ohm := map[string]float64{
		`470`:     470,
		`4k7`:     4700,
		`2R2`:     2.2,
		`10k`:     10000,
		`1M`:      1e6,
		`0.1 ohm`: .1,
		`50 mohm`: .05,
		`2.2Ω`:    2.2,
	}
	gauge := map[string]float64{
		`18awg`:    AWGArea(18),
		`18 AWG`:   AWGArea(18),
		`AWG 18`:   AWGArea(18),
		`#18`:      AWGArea(18),
		`0.75 mm2`: .75,
		`1.5mm²`:   1.5,
	}
	secs := map[string]float64{
		`0.9s`:       .9,
		`350ms`:      .35,
		`5 min`:      300,
		`1h30`:       5400,
		`1 h 30 min`: 5400,
		`2 days`:     172800,
		`90`:         90,
		`2m30`:       150,
	}
	deg := map[string]float64{`45`: 45, `33.9°`: 33.9, `60 deg`: 60}
	temp := map[string]float64{`58 F`: 14.4444444444, `20 C`: 20, `-5C`: -5, `68°F`: 20}
	n := len(length)
	for _, c := range []struct {
		cases map[string]float64
		read  func(string) (float64, error)
	}{{amp, ampKind{}.read}, {volt, voltKind{}.read}, {ohm, ohmKind{}.read}, {gauge, gaugeKind{}.read},
		{secs, secondKind{}.read}, {deg, angleKind{}.read}, {temp, celsiusKind{}.read}} {
		n += len(c.cases)
		for text, want := range c.cases {
			got, err := c.read(text)
			require.NoError(t, err, text)
			assert.InDelta(t, want, got, 1e-9*math.Max(1, math.Abs(want)), text)
		}
	}
	assert.GreaterOrEqual(t, n, 60, "the issue asks for at least 60 spellings")
}

func TestRefusedWithWhatWouldBeAccepted(t *testing.T) {
	for _, text := range []string{``, `  `, `abc`, `12 parsecs`, `6"4'`, `1/0`, `4'x`, `--`, `1..2`, `1e9999`, `/4`, `3/`,
		`4'6"7`, `22 in in`, `5 mm 3 mm`, `NaN`} {
		_, err := Parse[lengthKind](text)
		require.Error(t, err, text)
		assert.Contains(t, err.Error(), `write a length such as 22 1/2"`)
	}
	_, err := Parse[lengthKind]("99999999999 ft")
	assert.ErrorContains(t, err, "can be built")
	for _, text := range []string{"99awg", "-1awg", "x", "0mm2"} {
		_, err := Parse[gaugeKind](text)
		assert.ErrorContains(t, err, "18 AWG")
	}
	_, err = Parse[celsiusKind]("-400 C")
	assert.Error(t, err)
}

func TestBareNumbersFollowTheDisplay(t *testing.T) {
	mm, err := ParseLengthIn("600", "mm")
	require.NoError(t, err)
	assert.Equal(t, 600.0, mm.Value())
	in, _ := ParseLengthIn("600 in", "mm")
	assert.Equal(t, 600*Inch, in.Value())
}

func TestWriting(t *testing.T) {
	for mm, want := range map[float64]string{571.5: `22 1/2"`, 25.4: `1"`, 19.05: `3/4"`, 100: `3.94"`, 0: `0"`,
		-9.525: `-3/8"`} {
		assert.Equal(t, want, Inches(mm))
	}
	assert.Equal(t, `3 15/16"`, Tape(100, false))
	assert.Equal(t, `100 mm`, Tape(100, true))
	assert.Equal(t, `9' 4"`, Run(112*Inch, false))
	for s, want := range map[float64]string{.35: "0.35 s", .02: "20 ms", 300: "5 min", 7800: "2 h 10 min", 7199: "2 h",
		172800: "2 days", -300: "-5 min", 3600: "1 h", 9.5 * 86400: "9.5 days", 10 * 86400: "10 days",
		12.4 * 86400: "12 days", 99: "99 s", 100: "1.7 min", .1: "0.1 s", 47.99 * 3600: "47 h 59 min"} {
		assert.Equal(t, want, Span(s))
	}
	assert.Equal(t, "20 mA", Amps(.02))
	assert.Equal(t, "1.86 A", Amps(1.86))
	assert.Equal(t, "18 AWG", gaugeKind{}.write(AWGArea(18)))
	assert.Equal(t, "470 ohm", Ohms(470))
	assert.Equal(t, "21.3 mohm", Ohms(.0213))
}

func TestJSONKeepsTheSpelling(t *testing.T) {
	in := struct{ W, Unset Length }{W: Len(`4'6"`)}
	b, err := json.Marshal(in)
	require.NoError(t, err)
	out := in
	require.NoError(t, json.Unmarshal(b, &out))
	assert.Equal(t, in, out)
	assert.True(t, out.Unset.IsZero())
	assert.Error(t, json.Unmarshal([]byte(`{"W":"sideways"}`), &out))
}

// AWG diameters, ASTM B258 table (mm).
func TestAWG(t *testing.T) {
	for n, d := range map[int]float64{10: 2.588, 18: 1.024, 22: .6438, 26: .4049, 36: .127} {
		assert.InDelta(t, d, AWGDiameter(n), d*5e-4)
	}
}

func FuzzParse(f *testing.F) {
	for _, s := range []string{`4'6"`, "22 1/2", "1h30", "4k7", "18awg", "½", "-"} {
		f.Add(s)
	}
	f.Fuzz(func(t *testing.T, s string) {
		for _, read := range []func(string) (float64, error){lengthKind{}.read, ampKind{}.read, ohmKind{}.read,
			gaugeKind{}.read, secondKind{}.read, angleKind{}.read, celsiusKind{}.read} {
			_, _ = read(s)
		}
		if w, err := Parse[lengthKind](s); err == nil {
			again, err := Parse[lengthKind](w.String())
			if err != nil || again != w {
				t.Fatalf("%q does not read back", s)
			}
		}
	})
}

// Every word for a time, against seconds by hand; a month is 30 days and a year 365.
func TestEveryWordForATime(t *testing.T) {
	for text, s := range map[string]float64{"250 ms": .25, "1 s": 1, "2 sec": 2, "3 secs": 3, "1 second": 1,
		"4 seconds": 4, "2 m": 120, "5 min": 300, "6 mins": 360, "1 minute": 60, "7 minutes": 420, "2 h": 7200,
		"1 hr": 3600, "2 hrs": 7200, "1 hour": 3600, "3 hours": 10800, "1 d": 86400, "1 day": 86400, "2 days": 172800,
		"1 week": 604800, "2 weeks": 1209600, "1 month": 2592000, "2 months": 5184000, "1 year": 31536000,
		"2 years": 63072000} {
		d, err := Parse[DurationKind](text)
		require.NoError(t, err, text)
		assert.Equal(t, s, d.Value(), text)
	}
}

package web

import (
	"bytes"
	"context"
	"encoding/binary"
	"encoding/json"
	"image"
	"image/png"
	"math"
	"net/http"
	"net/url"
	"testing"

	"zapbarn/core/plan"
	"zapbarn/core/work"
	"zapbarn/demo"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// howl is a second of a sine at half scale, as a WAV file has it.
func howl() []byte {
	const rate = 8000
	var out bytes.Buffer
	put := func(v any) { _ = binary.Write(&out, binary.LittleEndian, v) }
	out.WriteString("RIFF")
	put(uint32(36 + 2*rate))
	out.WriteString("WAVEfmt ")
	for _, v := range []any{uint32(16), uint16(1), uint16(1), uint32(rate), uint32(2 * rate), uint16(2), uint16(16)} {
		put(v)
	}
	out.WriteString("data")
	put(uint32(2 * rate))
	for i := range rate {
		put(int16(16383 * math.Sin(2*math.Pi*997*float64(i)/rate)))
	}
	return out.Bytes()
}

// A sound is measured and kept with what plays it; a cue list is read back; what is no
// sound and no list is refused in words, and changes nothing.
func TestSoundsAndCueListsComeIn(t *testing.T) {
	srv, st := opened(t)
	back := map[string]string{"back": apiary + "/rehearsal?prop=riser", "prop": "riser", "channel": "K12"}
	code, _ := sendFile(t, srv, apiary+"/clip", "Far howl.wav", howl(), back)
	require.Equal(t, http.StatusSeeOther, code)
	p, _, err := st.Load(context.Background(), "midnight-apiary")
	require.NoError(t, err)
	x := p.Clips()[len(p.Clips())-1]
	assert.Equal(t, "Far howl", x.Name)
	assert.Equal(t, "K12", x.Channel)
	assert.InDelta(t, 1, x.Long.Value(), .01)
	assert.InDelta(t, -6.02, x.Peak, .02)
	assert.InDelta(t, -9.03, x.RMS, .02)
	_, list, _ := got(t, srv, apiary+"/cues.csv?prop=riser")
	shorter := bytes.Replace([]byte(list), []byte("5.6 s"), []byte("4.5 s"), 1)
	code, _ = sendFile(t, srv, apiary+"/cuelist", "cues.csv", shorter, back)
	require.Equal(t, http.StatusSeeOther, code)
	q, _, err := st.Load(context.Background(), "midnight-apiary")
	require.NoError(t, err)
	assert.Equal(t, 4.5, q.Scene("glow").Cues[0].Length.Value())
	for path, c := range map[string]struct {
		data []byte
		want string
	}{
		"/clip?a": {[]byte("not a sound"), "is no WAV"}, "/clip?b": {howl()[:40], "file"},
		"/cuelist?a": {[]byte("hello"), "wants the columns"},
		"/cuelist?b": {[]byte("scene,channel,start,length\nMoon,K1,0 s,1 s"), "row 2"},
	} {
		code, body := sendFile(t, srv, apiary+path, "x.bin", c.data, back)
		assert.GreaterOrEqual(t, code, 400, path)
		assert.Contains(t, body, c.want, path)
	}
	after, _, err := st.Load(context.Background(), "midnight-apiary")
	require.NoError(t, err)
	assert.Equal(t, string(q.Encode()), string(after.Encode()))
}

// A text of behaviour is told of without being kept, at the letter where it is wrong.
func TestBehaviourIsReadAsTyped(t *testing.T) {
	srv, _ := opened(t)
	read := func(text string) (out map[string]any) {
		code, body := post(t, srv, apiary+"/behaviour/read", url.Values{"prop": {"gate"}, "text": {text}})
		require.Equal(t, 200, code)
		require.NoError(t, json.Unmarshal([]byte(body), &out), body)
		return out
	}
	got := read("when gate beam, if ready: gate bell 2s, moon 1s")
	assert.Equal(t, "moon", got["word"])
	assert.Equal(t, 40.0, got["at"])
	assert.Contains(t, got["why"], "is no switch that scenes drive")
	assert.Equal(t, 4.0, read("when gate beam, restarts, run Gate bell: gate bell player 3s")["changes"])
	code, body := post(t, srv, apiary+"/pivot", url.Values{"mechanism": {"gone"}, "x": {"1"}, "y": {"1"}})
	assert.GreaterOrEqual(t, code, 400)
	assert.NotContains(t, body, "goroutine")
}

// The pixels' picture is a PNG, a column a pixel; of what shows none there is none.
func TestPixelPicture(t *testing.T) {
	srv, _ := opened(t)
	code, body, h := got(t, srv, apiary+"/pixels.png?device=lettering")
	require.Equal(t, 200, code)
	assert.Equal(t, "image/png", h.Get("Content-Type"))
	assert.Equal(t, []byte{0, 0, 0, 72, 0, 0, 0, 100}, []byte(body)[16:24], "72 wide, 100 high")
	code, _, _ = got(t, srv, apiary+"/pixels.png?device=jar-3")
	assert.Equal(t, 404, code)
}

// A matrix of rows shows eyes: its picture is drawn, its refresh and its duty are told with
// their working, and it takes less in the Loom than all of it lit; what pixels show it does not.
func TestAMatrixShowsEyes(t *testing.T) {
	p := demo.Apiary(today).In(shop.Kept)
	p.Doc().Devices = append(p.Devices(), plan.Device{ID: "eyes", Prop: "comb", Kind: "lamp", Name: "Matrix eyes",
		From:    "W4",
		Product: "matrix5", Picture: "eyes", Colour: "honey"})
	require.NoError(t, p.Validate())
	w := work.Do(p, shop.Kept, today)
	assert.InDelta(t, 10e6/(64*16*15), w.Results().At("device", "eyes", "refresh").Value, 1e-6)
	assert.InDelta(t, 100./16, w.Results().At("device", "eyes", "duty").Value, 1e-9)
	assert.Less(t, w.All().Readings["eyes"].Amps, 2.0)
	assert.Greater(t, w.All().Readings["eyes"].Amps, .15)
	s := site(t, p)
	page := fetch(t, s, "/p/midnight-apiary/rehearsal?prop=comb").Body.String()
	assert.Contains(t, page, "shown whole 651 times a second")
	pic := fetch(t, s, "/p/midnight-apiary/pixels.png?device=eyes")
	assert.Equal(t, 200, pic.Code)
	img, err := png.Decode(pic.Body)
	require.NoError(t, err)
	assert.Equal(t, image.Pt(4*68, 2*36), img.Bounds().Size())
	q := p.Clone()
	q.Device("eyes").Picture = "swarm"
	assert.ErrorContains(t, q.Validate(), "a matrix shows eyes")
	q.Device("eyes").Picture, q.Device("cells").Picture = "eyes", "eyes"
	assert.ErrorContains(t, q.Validate(), "a matrix shows eyes")
}

package formats

import (
	"bytes"
	"io"

	"zapbarn/core/measure"
	"zapbarn/core/sound"

	"github.com/go-audio/wav"
)

// MostSound is how large a sound file may be: some four minutes in stereo.
const MostSound = 40 << 20

// WAV measures a sound file: its length, peak, RMS, loudness and outline. An error says
// what is wrong with the file.
func WAV(in io.Reader) (c sound.Clip, err error) {
	raw, err := io.ReadAll(io.LimitReader(in, MostSound+1))
	if err != nil {
		return c, err
	}
	if len(raw) > MostSound {
		return c, measure.Bad("file", "is larger than 40 MB; cut it shorter, or take one channel")
	}
	defer func() { // a reader that meets nonsense
		if recover() != nil {
			err = measure.Bad("file", "is no sound file that can be read; save it as WAV, 16 or 24 bit")
		}
	}()
	d := wav.NewDecoder(bytes.NewReader(raw))
	if !d.IsValidFile() || d.WavAudioFormat != 1 || d.NumChans < 1 || d.NumChans > 8 || d.BitDepth < 8 ||
		d.BitDepth > 32 {
		return c, measure.Bad("file", "is no WAV of 8 to 32 bit whole numbers; save it as WAV, 16 or 24 bit")
	}
	buf, err := d.FullPCMBuffer()
	if err != nil || buf == nil || len(buf.Data) < int(d.NumChans) {
		return c, measure.Bad("file", "has no sound in it")
	}
	full, mid := float64(int64(1)<<(d.BitDepth-1)), 0.0
	if d.BitDepth == 8 { // these are from 0 to 255
		mid = 128
	}
	n := int(d.NumChans)
	channels := make([][]float64, n)
	for i := 0; i+n <= len(buf.Data); i += n {
		for k := range channels {
			channels[k] = append(channels[k], (float64(buf.Data[i+k])-mid)/full)
		}
	}
	return sound.Measure(channels, float64(d.SampleRate)), nil
}

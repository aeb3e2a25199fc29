package formats

import (
	"context"
	"encoding/binary"
	"io"

	"zapbarn/core/measure"
	"zapbarn/core/sound"

	"github.com/go-audio/audio"
	"github.com/go-audio/wav"
)

// MostSound is how large a sound file may be: some four minutes in stereo.
const MostSound = 40 << 20

// the rates, in Hz, of a sound that is read.
const leastRate, mostRate = 1000, 384_000

// WAV measures a sound file: its length, peak, RMS, loudness and outline. It is read piece by
// piece, and never held whole. An error says what is wrong with the file.
func WAV(ctx context.Context, in io.ReadSeeker) (c sound.Clip, err error) {
	size, err := in.Seek(0, io.SeekEnd)
	if err != nil {
		return c, err
	}
	if size > MostSound {
		return c, measure.Bad("file", "is larger than 40 MB; cut it shorter, or take one channel")
	}
	long, err := samplesOf(in, size)
	if err != nil {
		return c, err
	}
	done, err := alone(ctx)
	if err != nil {
		return c, err
	}
	defer done()
	if _, err := in.Seek(0, io.SeekStart); err != nil {
		return c, err
	}
	defer func() { // a reader that meets nonsense
		if recover() != nil {
			err = measure.Bad("file", "is no sound file that can be read; save it as WAV, 16 or 24 bit")
		}
	}()
	d := wav.NewDecoder(in)
	if !d.IsValidFile() || d.WavAudioFormat != 1 || d.NumChans < 1 || d.NumChans > 8 || d.BitDepth < 8 ||
		d.BitDepth > 32 {
		return c, measure.Bad("file", "is no WAV of 8 to 32 bit whole numbers; save it as WAV, 16 or 24 bit")
	}
	if d.SampleRate < leastRate || d.SampleRate > mostRate {
		return c, measure.Bad("file", "says it has %d samples a second; %d to %d are read", d.SampleRate, leastRate, mostRate)
	}
	return measured(ctx, d, long)
}

// measured reads the samples, so many bytes of them, of a sound that begins well.
func measured(ctx context.Context, d *wav.Decoder, long int64) (c sound.Clip, err error) {
	none := measure.Bad("file", "has no sound in it")
	if err := d.FwdToPCM(); err != nil || d.PCMChunk == nil {
		return c, none
	}
	n := int(d.NumChans)
	m := sound.NewMeter(n, int(long)/(n*((int(d.BitDepth)-1)/8+1)), float64(d.SampleRate))
	full, mid := float64(int64(1)<<(d.BitDepth-1)), 0.0
	if d.BitDepth == 8 { // these are from 0 to 255
		mid = 128
	}
	frame, k := make([]float64, n), 0
	buf := &audio.IntBuffer{Data: make([]int, 1<<15)}
	for {
		got, err := d.PCMBuffer(buf)
		if err != nil {
			return c, none
		}
		if got <= 0 {
			break
		}
		for _, v := range buf.Data[:got] {
			frame[k] = (float64(v) - mid) / full
			if k++; k == n {
				m.Frame(frame)
				k = 0
			}
		}
		if err := ctx.Err(); err != nil {
			return c, err
		}
	}
	if c = m.Clip(); c.Seconds == 0 {
		return c, none
	}
	return c, nil
}

// samplesOf looks at the pieces of a RIFF file, before any is read: one that says it is
// longer than the file would be made room for. It tells how many bytes of samples there are;
// the last piece may be cut short, as a recorder that lost its power leaves it.
func samplesOf(in io.ReadSeeker, size int64) (long int64, err error) {
	const most = 1024 // pieces
	bad := measure.Bad("file", "is no WAV that can be read; save it as WAV, 16 or 24 bit")
	for at, n := int64(12), 0; at+8 <= size && n < most; n++ {
		var head struct {
			ID   [4]byte
			Size uint32
		}
		if _, err := in.Seek(at, io.SeekStart); err != nil {
			return 0, err
		}
		if err := binary.Read(in, binary.LittleEndian, &head); err != nil {
			return 0, err
		}
		long := int64(head.Size)
		if string(head.ID[:]) == "data" {
			return min(long, size-at-8), nil
		}
		if long > size-at-8 || string(head.ID[:]) == "fmt " && long > 64 {
			return 0, bad
		}
		at += 8 + long + long%2
	}
	return 0, bad
}

package standin

import (
	"context"
	"encoding/binary"
	"os"
	"os/exec"
	"path/filepath"
	"testing"

	"zapbarn/core/show"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

func packet() Packet {
	p := Packet{Source: "Midnight Apiary", Priority: 120, Sequence: 42, Universe: 7, Levels: []byte{255, 0, 128, 1}}
	copy(p.CID[:], "the apiary's CID")
	return p
}

// Another program's dissector of ANSI E1.31 reads a packet as it was meant.
func TestPacketsByAnotherDissector(t *testing.T) {
	tshark, err := exec.LookPath("tshark")
	if err != nil {
		if os.Getenv("ZAPBARN_NEED_TOOLS") != "" {
			t.Fatal("tshark is missing")
		}
		t.Skip("tshark is not here")
	}
	p := packet()
	p.Levels = append(p.Levels, make([]byte, 508)...) // a whole universe, as most send
	raw, err := p.Encode()
	require.NoError(t, err)
	file := filepath.Join(t.TempDir(), "one.pcap")
	require.NoError(t, os.WriteFile(file, capture(raw), 0o644))
	out, err := exec.Command(tshark, "-r", file, "-V", "--enable-heuristic", "acn", "-o", "acn.dmx_enable:TRUE").
		CombinedOutput()
	require.NoError(t, err, "%s", out)
	text := string(out)
	for _, want := range []string{"Ratified DMX Protocol (4)", "Source: Midnight Apiary", "Priority: 120", "Seq No: 42",
		"Universe: 7", "DMP Vector: Set Property (2)", "Count: 513", "Start Code: 0", "001-020: FF .. 80  1 .."} {
		assert.Contains(t, text, want)
	}
	assert.NotContains(t, text, "Malformed")
}

// capture is one packet as a capture file has it: libpcap's header, IPv4, UDP to the port
// of streaming ACN.
func capture(payload []byte) []byte {
	le, be := binary.LittleEndian, binary.BigEndian
	udp := make([]byte, 8+len(payload))
	be.PutUint16(udp[0:], 40000)
	be.PutUint16(udp[2:], Port)
	be.PutUint16(udp[4:], uint16(len(udp)))
	copy(udp[8:], payload)
	ip := make([]byte, 20)
	ip[0], ip[8], ip[9] = 0x45, 64, 17
	be.PutUint16(ip[2:], uint16(20+len(udp)))
	copy(ip[12:], []byte{127, 0, 0, 1, 127, 0, 0, 1})
	head := make([]byte, 24+16)
	le.PutUint32(head[0:], 0xa1b2c3d4)
	le.PutUint16(head[4:], 2)
	le.PutUint16(head[6:], 4)
	le.PutUint32(head[16:], 65535)
	le.PutUint32(head[20:], 101) // raw IP
	n := uint32(len(ip) + len(udp))
	le.PutUint32(head[32:], n)
	le.PutUint32(head[36:], n)
	return append(append(head, ip...), udp...)
}

// Offsets and vectors of the standard's table of a data packet, by hand.
func TestPacketLayout(t *testing.T) {
	raw, err := packet().Encode()
	require.NoError(t, err)
	assert.Len(t, raw, 130)
	assert.Equal(t, "ASC-E1.17\x00\x00\x00", string(raw[4:16]))
	assert.Equal(t, []byte{0x70, 114}, raw[16:18], "root layer: flags 7, length to the end")
	assert.Equal(t, []byte{0, 0, 0, 4}, raw[18:22])
	assert.Equal(t, []byte{0x70, 92}, raw[38:40])
	assert.Equal(t, []byte{0, 0, 0, 2}, raw[40:44])
	assert.Equal(t, byte(120), raw[108])
	assert.Equal(t, byte(42), raw[111])
	assert.Equal(t, []byte{0, 7}, raw[113:115])
	assert.Equal(t, []byte{0x70, 15, 2, 0xa1, 0, 0, 0, 1, 0, 5, 0}, raw[115:126])
	assert.Equal(t, []byte{255, 0, 128, 1}, raw[126:])
}

func TestPacketsReadBack(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := Packet{
			Source:   rapid.StringMatching(`[a-z ]{0,63}`).Draw(t, "name"),
			Priority: rapid.Byte().Draw(t, "priority"),
			Sequence: rapid.Byte().Draw(t, "seq"),
			Universe: rapid.Uint16Range(1, 63999).Draw(t, "universe"),
			Levels:   rapid.SliceOfN(rapid.Byte(), 1, 512).Draw(t, "levels"),
		}
		raw, err := p.Encode()
		require.NoError(t, err)
		back, err := Decode(raw)
		require.NoError(t, err)
		require.Equal(t, p, back)
		cut := rapid.IntRange(0, len(raw)-1).Draw(t, "cut")
		_, err = Decode(raw[:cut])
		require.Error(t, err, "one that is cut short is none")
	})
	for _, p := range []Packet{{Universe: 1}, {Levels: []byte{1}}, {Universe: 64000, Levels: []byte{1}},
		{Universe: 1, Levels: make([]byte, 513)}} {
		_, err := p.Encode()
		require.Error(t, err)
	}
	assert.True(t, InOrder(5, 6))
	assert.False(t, InOrder(6, 6))
	assert.False(t, InOrder(6, 5))
	assert.True(t, InOrder(250, 3), "it starts over")
	assert.True(t, InOrder(100, 70), "so far behind it is a new start")
}

func machine() show.Machine {
	cue := func(ch string, at, long int) show.Cue { return show.Cue{Channel: ch, Start: at, Length: long} }
	return show.Machine{
		Inputs:   []show.Input{{ID: "mat", MinPulse: 30}},
		Channels: []show.Channel{{ID: "glow"}, {ID: "fog"}},
		Scenes: []show.Scene{
			{ID: "s", Cues: []show.Cue{cue("glow", 0, 900), cue("fog", 200, 300), cue("fog", 600, 100)}},
		},
		Triggers: []show.Trigger{{ID: "t", Input: "mat", Scene: "s", Latch: show.OneShot}},
	}
}

func run(t *testing.T, f Faults) Echo {
	stim := append(show.Press("mat", 100, 200), show.Press("mat", 3000, 200)...)
	e, err := Run(context.Background(), machine(), stim, 6000, f)
	require.NoError(t, err)
	assert.Equal(t, 5, e.Triggers, "four contacts and the end")
	return e
}

// What comes back over the wire is what the simulator says.
func TestTheStandInEchoes(t *testing.T) {
	e := run(t, Faults{})
	tr := machine().Run(append(show.Press("mat", 100, 200), show.Press("mat", 3000, 200)...), 6000)
	assert.Equal(t, e.Sent, e.Came)
	assert.Equal(t, 12, e.Sent, "six changes of each run")
	for _, ch := range []string{"glow", "fog"} {
		assert.Equal(t, tr.Spans(ch), e.Spans(ch, 6000))
	}
	assert.Positive(t, e.Slowest)
}

func TestFaultsOnDemand(t *testing.T) {
	e := run(t, Faults{Lost: 40, Seed: 3})
	assert.Less(t, e.Came, e.Sent)
	assert.Positive(t, e.Came)
	again := run(t, Faults{Lost: 40, Seed: 3})
	assert.Equal(t, e.Changes, again.Changes, "the same seed loses the same packets")
	assert.Empty(t, run(t, Faults{Stuck: "mat"}).Changes, "an input that is stuck starts nothing")
	e = run(t, Faults{BrownOut: 500})
	assert.Equal(t, []show.Span{{From: 130, To: 500}, {From: 3030, To: 3930}}, e.Spans("glow", 6000))
	e = run(t, Faults{Lost: 100})
	assert.Zero(t, e.Came)
}

// Package standin is what stands in for a controller on the bench: a broker for triggers
// and status by MQTT, a controller that plays the behaviour, and lighting levels as
// streaming ACN, all on this machine only, with faults on demand.
package standin

import (
	"encoding/binary"
	"errors"
)

// Packet is one data packet of streaming ACN: the levels of a universe.
type Packet struct {
	CID      [16]byte // of the component that sends
	Source   string   // its name, 63 bytes at most
	Priority byte     // 0 to 200, 100 is usual
	Sequence byte
	Universe uint16 // 1 to 63999
	Levels   []byte // 1 to 512, each 0 to 255
}

// Port is where streaming ACN is received (ANSI E1.31).
const Port = 5568

// the parts of a data packet, in octets from its start, and their vectors: ANSI E1.31
const (
	rootLayer  = 16
	frameLayer = 38
	dmpLayer   = 115
	levelsAt   = 126
	vectorRoot = 4 // E1.31 data
	vectorData = 2 // a DMP set-property message carries levels
	dmpSet     = 2
)

var preamble = [16]byte{0, 0x10, 0, 0, 'A', 'S', 'C', '-', 'E', '1', '.', '1', '7', 0, 0, 0}

// Encode lays a packet out as ANSI E1.31 has it: root, framing and DMP layers, each with
// its length in the low twelve bits behind the flags 0x7, then a start code of 0 and the
// levels.
func (p Packet) Encode() ([]byte, error) {
	if len(p.Levels) < 1 || len(p.Levels) > 512 || p.Universe < 1 || p.Universe > 63999 ||
		len(p.Source) > 63 {
		return nil, errors.New("1 to 512 levels, a universe of 1 to 63999, a name of 63 bytes at most")
	}
	b := make([]byte, levelsAt+len(p.Levels))
	copy(b, preamble[:])
	length := func(at int) { binary.BigEndian.PutUint16(b[at:], 0x7000|uint16(len(b)-at)) }
	length(rootLayer)
	binary.BigEndian.PutUint32(b[18:], vectorRoot)
	copy(b[22:], p.CID[:])
	length(frameLayer)
	binary.BigEndian.PutUint32(b[40:], vectorData)
	copy(b[44:], p.Source)
	b[108] = p.Priority
	b[111] = p.Sequence
	binary.BigEndian.PutUint16(b[113:], p.Universe)
	length(dmpLayer)
	b[117], b[118] = dmpSet, 0xa1
	binary.BigEndian.PutUint16(b[121:], 1)
	binary.BigEndian.PutUint16(b[123:], uint16(1+len(p.Levels)))
	copy(b[levelsAt:], p.Levels)
	return b, nil
}

// Decode reads a packet. An error says what is not of the standard.
func Decode(b []byte) (p Packet, err error) {
	switch {
	case len(b) < levelsAt+1 || len(b) > levelsAt+512 || [16]byte(b[:16]) != preamble:
		return p, errors.New("this is no packet of streaming ACN")
	case binary.BigEndian.Uint32(b[18:]) != vectorRoot, binary.BigEndian.Uint32(b[40:]) != vectorData,
		b[117] != dmpSet:
		return p, errors.New("this is no data packet")
	case b[125] != 0:
		return p, errors.New("its start code is not that of levels")
	}
	for _, at := range []int{rootLayer, frameLayer, dmpLayer} {
		if n := binary.BigEndian.Uint16(b[at:]); n>>12 != 7 || int(n&0xfff) != len(b)-at {
			return p, errors.New("a layer's length is wrong")
		}
	}
	if n := int(binary.BigEndian.Uint16(b[123:])); n != len(b)-levelsAt+1 {
		return p, errors.New("the number of levels is wrong")
	}
	copy(p.CID[:], b[22:])
	name := b[44:108]
	for i, c := range name {
		if c == 0 {
			name = name[:i]
			break
		}
	}
	p.Source, p.Priority, p.Sequence = string(name), b[108], b[111]
	p.Universe = binary.BigEndian.Uint16(b[113:])
	p.Levels = append([]byte(nil), b[levelsAt:]...)
	return p, nil
}

// InOrder reports whether a sequence number is to be taken after another: one that is
// equal or up to 20 behind is late and dropped (ANSI E1.31, 6.7.2).
func InOrder(last, next byte) bool {
	d := int8(next - last)
	return d > 0 || d <= -20
}

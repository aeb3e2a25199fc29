package standin

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"log/slog"
	"math/rand/v2"
	"net"
	"sync"
	"time"

	"zapbarn/core/show"

	paho "github.com/eclipse/paho.mqtt.golang"
	mqtt "github.com/mochi-mqtt/server/v2"
	"github.com/mochi-mqtt/server/v2/hooks/auth"
	"github.com/mochi-mqtt/server/v2/listeners"
)

// Faults are what goes wrong on demand.
type Faults struct {
	Lost     int    // per cent of the lighting packets that never come
	Stuck    string // an input that does not close any more
	BrownOut int    // ms at which the controller starts anew; 0 is never
	Seed     uint64
}

// Change is one output at a new level, in the order it happened.
type Change struct {
	At      int // ms of the show
	Channel string
	Level   int // per cent
}

// Echo is what a run on the stand-in came to.
type Echo struct {
	Sent, Came int
	Slowest    time.Duration // of a packet, from its sending to its being read
	Changes    []Change      // as they were read off the packets
	Triggers   int           // messages that the controller took
}

// message is a contact as it goes by MQTT.
type message struct {
	At   int  `json:"at"` // ms of the show
	Down bool `json:"down"`
	End  bool `json:"end,omitempty"` // no more come: play until At
}

// Topic is where the contacts of an input are told.
func Topic(input string) string { return "zapbarn/in/" + input }

// StatusTopic is where the controller says that it is done.
const StatusTopic = "zapbarn/status"

// Broker starts a broker on this machine and says where; close it when done.
func Broker() (addr string, stop func() error, err error) {
	at, err := net.Listen("tcp", "127.0.0.1:0")
	if err != nil {
		return "", nil, err
	}
	s := mqtt.New(&mqtt.Options{Logger: slog.New(slog.DiscardHandler)})
	if err = s.AddHook(new(auth.AllowHook), nil); err == nil {
		if err = s.AddListener(listeners.NewNet("loopback", at)); err == nil {
			err = s.Serve()
		}
	}
	if err != nil {
		at.Close()
		return "", nil, err
	}
	return at.Addr().String(), s.Close, nil
}

func client(addr, id string) (paho.Client, error) {
	c := paho.NewClient(
		paho.NewClientOptions().AddBroker("tcp://" + addr).SetClientID(id).SetConnectTimeout(3 * time.Second),
	)
	t := c.Connect()
	if !t.WaitTimeout(3 * time.Second) {
		return nil, errors.New("the broker does not answer")
	}
	return c, t.Error()
}

// Run plays stimuli on the stand-in: each contact goes by MQTT to a controller that runs
// the machine, and each change of its outputs comes back as a packet of streaming ACN.
func Run(ctx context.Context, m show.Machine, stimuli []show.Stimulus, until int, f Faults) (e Echo, err error) {
	addr, stop, err := Broker()
	if err != nil {
		return e, err
	}
	defer func() { err = errors.Join(err, stop()) }()
	lights, err := net.ListenUDP("udp4", &net.UDPAddr{IP: net.IPv4(127, 0, 0, 1)})
	if err != nil {
		return e, err
	}
	defer lights.Close()
	heard := hear(lights)
	board, err := startBoard(addr, lights.LocalAddr().(*net.UDPAddr), m, f)
	if err != nil {
		return e, err
	}
	defer board.client.Disconnect(50)
	desk, err := client(addr, "desk")
	if err != nil {
		return e, err
	}
	defer desk.Disconnect(50)
	say := func(topic string, x message) error {
		b, err := json.Marshal(x)
		if err != nil {
			return err
		}
		t := desk.Publish(topic, 1, false, b)
		if !t.WaitTimeout(3 * time.Second) {
			return errors.New("the broker does not answer")
		}
		return t.Error()
	}
	for _, s := range stimuli {
		if err := say(Topic(s.Input), message{At: s.At, Down: s.Down}); err != nil {
			return e, err
		}
	}
	if err := say(Topic("end"), message{At: until, End: true}); err != nil {
		return e, err
	}
	select {
	case <-board.done:
	case <-ctx.Done():
		return e, ctx.Err()
	case <-time.After(10 * time.Second):
		return e, errors.New("the controller does not answer")
	}
	if board.err != nil {
		return e, board.err
	}
	e.Sent, e.Triggers = board.sent, board.took
	err = listen(heard.all(), board, m, &e)
	return e, err
}

// board is the controller that stands in.
type board struct {
	client paho.Client
	m      show.Machine
	f      Faults
	to     *net.UDPAddr
	lock   sync.Mutex
	stim   []show.Stimulus
	took   int
	sent   int
	moment []int       // of the show, by packet
	when   []time.Time // it was sent
	done   chan struct{}
	err    error
}

func startBoard(addr string, to *net.UDPAddr, m show.Machine, f Faults) (*board, error) {
	b := &board{m: m, f: f, to: to, done: make(chan struct{})}
	var err error
	if b.client, err = client(addr, "board"); err != nil {
		return nil, err
	}
	t := b.client.Subscribe("zapbarn/in/#", 1, func(_ paho.Client, x paho.Message) { b.heard(x) })
	if !t.WaitTimeout(3 * time.Second) {
		return nil, errors.New("the broker does not answer")
	}
	return b, t.Error()
}

// heard is a contact, or that no more come.
func (b *board) heard(x paho.Message) {
	b.lock.Lock()
	defer b.lock.Unlock()
	var got message
	if err := json.Unmarshal(x.Payload(), &got); err != nil {
		return // not ours
	}
	b.took++
	input := x.Topic()[len(Topic("")):]
	switch {
	case got.End:
		b.err = b.play(got.At)
		close(b.done)
	case input != b.f.Stuck:
		b.stim = append(b.stim, show.Stimulus{At: got.At, Input: input, Down: got.Down})
	}
}

// channels are a machine's outputs in the order of their slots.
func channels(m show.Machine) (ids []string, slot map[string]int) {
	slot = map[string]int{}
	for _, c := range m.Channels {
		slot[c.ID] = len(ids)
		ids = append(ids, c.ID)
	}
	return ids, slot
}

// play runs the machine and sends the levels at each change.
func (b *board) play(until int) error {
	stim := b.stim
	if b.f.BrownOut > 0 {
		stim = append(stim, show.Stimulus{At: b.f.BrownOut, Input: show.Mains},
			show.Stimulus{At: b.f.BrownOut + 1000, Input: show.Mains, Down: true})
	}
	conn, err := net.DialUDP("udp4", nil, b.to)
	if err != nil {
		return err
	}
	defer conn.Close()
	rng := rand.New(rand.NewPCG(b.f.Seed, 31))
	ids, slot := channels(b.m)
	if len(ids) == 0 || len(ids) > 512 {
		return errors.New("1 to 512 outputs go into one universe")
	}
	levels := make([]byte, 512) // a whole universe, as most dimmers want
	p := Packet{Source: "stand-in", Priority: 100, Universe: 1}
	send := func(at int) error {
		p.Levels = levels
		p.Sequence++
		raw, err := p.Encode()
		if err != nil {
			return err
		}
		b.sent++
		b.moment, b.when = append(b.moment, at), append(b.when, time.Now())
		if rng.IntN(100) < b.f.Lost {
			return nil // on the way, for ever
		}
		_, err = conn.Write(raw)
		time.Sleep(30 * time.Microsecond) // no socket's buffer is overrun
		return err
	}
	tr := b.m.Run(stim, until)
	for i, e := range tr.Events {
		n, ok := slot[e.Who]
		if !ok || e.What != "on" && e.What != "off" && e.What != "level" {
			continue
		}
		levels[n] = byte(e.Level * 255 / 100)
		if last := i+1 == len(tr.Events) || tr.Events[i+1].At != e.At; last || !more(tr.Events[i+1:], e.At, slot) {
			if err := send(e.At); err != nil {
				return err
			}
		}
	}
	return nil
}

// more is whether another output changes in the same moment.
func more(rest []show.Event, at int, slot map[string]int) bool {
	for _, e := range rest {
		if e.At != at {
			return false
		}
		if _, ok := slot[e.Who]; ok && (e.What == "on" || e.What == "off" || e.What == "level") {
			return true
		}
	}
	return false
}

// ear takes packets in as they come.
type ear struct {
	lock sync.Mutex
	got  []arrival
}

type arrival struct {
	raw []byte
	at  time.Time
}

// hear listens until its socket is closed.
func hear(lights *net.UDPConn) *ear {
	h := &ear{}
	go func() {
		for {
			raw := make([]byte, 1500)
			n, err := lights.Read(raw)
			if err != nil {
				return
			}
			h.lock.Lock()
			h.got = append(h.got, arrival{raw[:n], time.Now()})
			h.lock.Unlock()
		}
	}()
	return h
}

// all are the packets that came, once no more come.
func (h *ear) all() []arrival {
	for last := -1; ; {
		time.Sleep(40 * time.Millisecond)
		h.lock.Lock()
		n := len(h.got)
		h.lock.Unlock()
		if n == last {
			return h.got
		}
		last = n
	}
}

// listen reads the packets that came, as a dimmer would.
func listen(came []arrival, b *board, m show.Machine, e *Echo) error {
	ids, _ := channels(m)
	levels := make([]byte, len(ids))
	count, last := 0, byte(0)
	for _, a := range came {
		p, err := Decode(a.raw)
		if err != nil {
			return fmt.Errorf("a packet came that is none: %w", err)
		}
		if e.Came > 0 && !InOrder(last, p.Sequence) {
			continue
		}
		count += int(p.Sequence - last)
		last = p.Sequence
		e.Came++
		if count < 1 || count > len(b.moment) {
			return errors.New("a packet came that was never sent")
		}
		e.Slowest = max(e.Slowest, a.at.Sub(b.when[count-1]))
		for i, l := range p.Levels {
			if i < len(levels) && l != levels[i] {
				levels[i] = l
				e.Changes = append(e.Changes, Change{b.moment[count-1], ids[i], (int(l)*100 + 254) / 255})
			}
		}
	}
	return nil
}

// Spans is when a channel was on, by what was echoed.
func (e Echo) Spans(channel string, until int) (out []show.Span) {
	on := -1
	for _, c := range e.Changes {
		if c.Channel != channel {
			continue
		}
		if c.Level > 0 && on < 0 {
			on = c.At
		} else if c.Level == 0 && on >= 0 {
			out = append(out, show.Span{From: on, To: c.At})
			on = -1
		}
	}
	if on >= 0 {
		out = append(out, show.Span{From: on, To: until})
	}
	return out
}

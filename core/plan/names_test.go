package plan

import (
	"os"
	"regexp"
	"testing"

	"zapbarn/core/stock"
	"zapbarn/core/wiring"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// On the screen nothing is called by the ID of what it refers to: IDs are small letters
// with dashes, slashes and equals signs, names are not.
func TestNothingIsCalledByAnID(t *testing.T) {
	data, err := os.ReadFile("../../docs/examples/midnight-apiary.json")
	require.NoError(t, err)
	p, err := Decode(data)
	require.NoError(t, err)
	id := regexp.MustCompile(`[a-z0-9]+-[a-z0-9]+|/|=`)
	n := 0
	for _, kind := range []string{"joint", "finish", "trigger", "reading", "solid", "device", "prop", "scene"} {
		for _, e := range p.Elements(kind) {
			n++
			assert.NotRegexp(t, id, p.Name(e.Value), kind+" "+e.ID)
		}
	}
	assert.Greater(t, n, 100)
	for i := range p.Joints() {
		if j := &p.Joints()[i]; j.ID == "riser-back-right" {
			assert.Equal(t, "joint of Hive box back and Hive box right", p.Name(j))
		}
	}
}

// A lamp that becomes another is called by what it is then, unless it was named by hand;
// in one undo, and no two are called the same.
func TestNamesKeepUp(t *testing.T) {
	p := New("x", "X", "in", "")
	p.doc.Props = []Prop{{ID: "a", Name: "A"}}
	p.doc.Devices = []wiring.Device{
		{ID: "S1", Prop: "a", Kind: "supply", Name: "Supply S1", Product: "ps12-1"},
		{ID: "L1", Prop: "a", Kind: "lamp", Name: stock.Shop.Lamps["puck12"].Name, Product: "puck12", From: "S1"},
		{
			ID:      "L2",
			Prop:    "a",
			Kind:    "lamp",
			Name:    stock.Shop.Lamps["puck12"].Name + " 2",
			Product: "puck12",
			From:    "S1",
		},
		{ID: "L3", Prop: "a", Kind: "lamp", Name: "Eye", Product: "puck12", From: "S1"},
	}
	other := ""
	for _, id := range stock.IDs(stock.Shop.Lamps) {
		if l := stock.Shop.Lamps[id]; l.Kind == "motor" {
			other = id
		}
	}
	require.NotEmpty(t, other)
	name := stock.Shop.Lamps[other].Name
	for id, want := range map[string]string{"L1": name, "L2": name, "L3": "Eye"} {
		d := *p.Device(id)
		d.Product = other
		e := Edit{Changes: []Change{p.Put("device", id, d)}}
		before := string(e.Changes[0].After)
		q, err := p.Apply(p.Settled(e))
		require.NoError(t, err)
		assert.Equal(t, want, q.Device(id).Name, id)
		assert.Equal(t, before, string(e.Changes[0].After), "the edit itself is left alone")
	}
	d := *p.Device("L1")
	d.Product, d.Name = other, "Lid"
	q, err := p.Apply(p.Settled(Edit{Changes: []Change{p.Put("device", "L1", d)}}))
	require.NoError(t, err)
	assert.Equal(t, "Lid", q.Device("L1").Name, "said by hand at the same time")
	p.Devices()[3].Name, p.Devices()[3].Product = name, other
	d = *p.Device("L1")
	d.Product = other
	q, err = p.Apply(p.Settled(Edit{Changes: []Change{p.Put("device", "L1", d)}}))
	require.NoError(t, err)
	assert.Equal(t, name+" 2", q.Device("L1").Name)
}

package plan

import (
	"bytes"
	"encoding/json"
	"fmt"
	"strconv"
	"strings"

	"zapbarn/core/measure"
	"zapbarn/core/stock"
)

// formatName is what stands before a format's number.
const formatName = "zapbarn-plan/"

// upgrades turn an element of the format before into the next one's: the first
// takes format 1 to 2. They work on one element at a time, so that a file, a
// stored plan and its log of edits all go the same way, and leave as it is what
// they cannot read: Validate or Assemble speaks of that.
var upgrades = []func(kind string, body map[string]any){lidCounted}

// lidCounted: up to format 1 the height of a box left out its lid; outside is
// outside since.
func lidCounted(kind string, body map[string]any) {
	if kind != "solid" || body["kind"] != "box" || body["lid"] != true {
		return
	}
	text, _ := body["h"].(string)
	of, _ := body["stock"].(string)
	h, err := measure.Parse[measure.LengthKind](text)
	m, ok := stock.Shop.Materials[of]
	if err != nil || text == "" || !ok {
		return
	}
	mm := h.Value() + m.Thick.Value()
	written := measure.Inches(mm)
	if again, err := measure.Parse[measure.LengthKind](written); err != nil || strings.HasSuffix(text, "mm") ||
		again.Value()-mm > 1e-6 ||
		mm-again.Value() > 1e-6 {
		written = measure.Decimal(mm, 4) + " mm"
	}
	body["h"] = written
}

// Upgraded is an element as the newest format has it, when it was written in
// format from. What is not JSON stays as it is.
func Upgraded(kind string, raw json.RawMessage, from int) json.RawMessage {
	if from >= 1+len(upgrades) || len(raw) == 0 {
		return raw
	}
	var body map[string]any
	d := json.NewDecoder(bytes.NewReader(raw))
	d.UseNumber()
	if d.Decode(&body) != nil || body == nil {
		return raw
	}
	for _, up := range upgrades[max(1, from)-1:] {
		up(kind, body)
	}
	out, err := json.Marshal(body)
	if err != nil {
		return raw
	}
	return out
}

// formatOf reads a file's format: its number, or an error for one that is none
// or newer than this program.
func formatOf(text string) (int, error) {
	n, err := strconv.Atoi(strings.TrimPrefix(text, formatName))
	switch {
	case !strings.HasPrefix(text, formatName) || err != nil || n < 1:
		return 0, measure.Bad("format", "%q is not a plan; it must be %s", text, Format)
	case n > 1+len(upgrades):
		return 0, measure.Bad("format", "%q was written by a newer version; this one reads up to %s", text, Format)
	}
	return n, nil
}

// upgradeFile brings a plan file to the newest format.
func upgradeFile(data []byte) ([]byte, error) {
	var doc map[string]json.RawMessage
	var named string
	if json.Unmarshal(data, &doc) != nil || json.Unmarshal(doc["format"], &named) != nil {
		return data, nil // decodeFields says what is wrong
	}
	from, err := formatOf(named)
	if err != nil || from == 1+len(upgrades) {
		return data, err
	}
	for _, k := range kinds {
		list := listOf(k.name)
		var all []json.RawMessage
		if list == "" || json.Unmarshal(doc[list], &all) != nil {
			continue
		}
		for i := range all {
			all[i] = Upgraded(k.name, all[i], from)
		}
		if doc[list], err = json.Marshal(all); err != nil {
			return nil, fmt.Errorf("upgrading %s: %w", list, err)
		}
	}
	if doc["display"] != nil {
		doc["display"] = Upgraded("display", doc["display"], from)
	}
	doc["format"] = json.RawMessage(strconv.Quote(Format))
	return json.Marshal(doc)
}

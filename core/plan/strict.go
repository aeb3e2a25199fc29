package plan

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"io"

	"zapbarn/core/measure"

	"github.com/go-json-experiment/json/jsontext"
)

// soundJSON looks at a document before any of it is used: it must be one JSON value, as
// UTF-8, and no object may have a key twice (RFC 7493, I-JSON), for all but one of what it
// says would be lost without a word. An error names the line.
func soundJSON(data []byte) error {
	d := jsontext.NewDecoder(bytes.NewReader(data))
	if err := d.SkipValue(); err != nil {
		return unsound(data, d.InputOffset(), err)
	}
	if _, err := d.ReadToken(); !errors.Is(err, io.EOF) {
		return fmt.Errorf("not readable as JSON, line %d: something follows the end of the plan", lineAt(data,
			d.InputOffset()))
	}
	return nil
}

func unsound(data []byte, at int64, err error) error {
	bad, ok := errors.AsType[*jsontext.SyntacticError](err)
	if ok {
		at = bad.ByteOffset
	}
	line := lineAt(data, at)
	switch {
	case ok && errors.Is(bad.Err, jsontext.ErrDuplicateName):
		return measure.Bad("file", "line %d: %q is said twice in one object; keep one of the two", line,
			bad.JSONPointer.LastToken())
	case errors.Is(err, io.EOF), errors.Is(err, io.ErrUnexpectedEOF):
		return fmt.Errorf("not readable as JSON, line %d: it ends before its end; export it again", line)
	case ok && bad.Err != nil && bytes.Contains([]byte(bad.Err.Error()), []byte("UTF-8")):
		return measure.Bad("file", "line %d holds a letter that is not UTF-8; save the file as UTF-8", line)
	case ok:
		return fmt.Errorf("not readable as JSON, line %d: %v; write a plan as exported", line, bad.Err)
	}
	return fmt.Errorf("not readable as JSON, line %d: %v; write a plan as exported", line, err)
}

// lineAt is the line, from 1, of a place in a text.
func lineAt(data []byte, at int64) int {
	return 1 + bytes.Count(data[:min(int(at), len(data))], []byte("\n"))
}

// entriesOf are the entries of a JSON list, at most so many; none of them is read yet, and
// they share data's memory.
func entriesOf(data json.RawMessage, most int) (out []json.RawMessage, err error) {
	if string(data) == "null" {
		return nil, nil
	}
	d := jsontext.NewDecoder(bytes.NewReader(data))
	if open, err := d.ReadToken(); err != nil || open.Kind() != '[' {
		return nil, errors.New("must be a list in brackets []")
	}
	for d.PeekKind() != ']' {
		if len(out) == most {
			return nil, fmt.Errorf("has more than %d entries", most)
		}
		value, err := entry(d, data)
		if err != nil {
			return nil, errors.New("must be a list in brackets []")
		}
		out = append(out, value)
	}
	return out, nil
}

// mostMembers is how many fields any object of a plan may have: more than any has.
const mostMembers = 200

// members are the fields of a JSON object, none of them read yet.
func members(data json.RawMessage) (map[string]json.RawMessage, error) {
	if string(data) == "null" {
		return nil, nil
	}
	bad := errors.New("must be an object in braces {}")
	d := jsontext.NewDecoder(bytes.NewReader(data))
	if open, err := d.ReadToken(); err != nil || open.Kind() != '{' {
		return nil, bad
	}
	out := map[string]json.RawMessage{}
	for d.PeekKind() != '}' {
		if len(out) == mostMembers {
			return nil, fmt.Errorf("has more than %d fields; a plan has none so large", mostMembers)
		}
		name, err := d.ReadToken()
		if err != nil {
			return nil, bad
		}
		key := name.String()
		if out[key], err = entry(d, data); err != nil {
			return nil, bad
		}
	}
	return out, nil
}

// entry is the next value of a decoder of data, as a part of it.
func entry(d *jsontext.Decoder, data json.RawMessage) (json.RawMessage, error) {
	value, err := d.ReadValue()
	if err != nil {
		return nil, err
	}
	end := int(d.InputOffset())
	return data[end-len(value) : end : end], nil
}

// ReadList reads a JSON list of at most so many objects, each of its fields known. Errors
// name the line or the field.
func ReadList[T any](data []byte, most int) ([]T, error) {
	if err := soundJSON(data); err != nil {
		return nil, err
	}
	raw, err := entriesOf(data, most)
	if err != nil {
		return nil, err
	}
	list := make([]T, len(raw))
	for i, item := range raw {
		d := json.NewDecoder(bytes.NewReader(item))
		d.DisallowUnknownFields()
		if err := d.Decode(&list[i]); err != nil {
			return nil, fmt.Errorf("entry %d: %w", i+1, err)
		}
	}
	return list, nil
}

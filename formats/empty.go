package formats

import (
	"errors"

	"zapbarn/core/measure"
)

// Empty is that a print or file would hold nothing yet, and what to do first: no mistake of
// whoever asks for it.
type Empty struct{ cause error }

func (e *Empty) Error() string { return e.cause.Error() }

// Unwrap is the field it is about, with its words.
func (e *Empty) Unwrap() error { return e.cause }

// empty is that there is nothing to write yet, about a field.
func empty(field, format string, args ...any) error {
	return &Empty{measure.Bad(field, format, args...)}
}

// IsEmpty is whether an error says that there was nothing to write yet.
func IsEmpty(err error) bool {
	_, ok := errors.AsType[*Empty](err)
	return ok
}

package check

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

func TestDoes(t *testing.T) {
	for name, want := range map[string]string{
		"Sunflowers": "are", "Honey jars": "are", "Eyes": "are", "Jar 8": "is", "Glass": "is", "Cactus": "is",
		"Chassis":      "is",
		"Frames' glow": "is", "Keeper's": "is", "": "is", "Supply S2": "is",
	} {
		assert.Equal(t, want, does(name, "is", "are"), name)
	}
}

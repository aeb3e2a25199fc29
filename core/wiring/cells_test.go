package wiring

import (
	"testing"

	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
)

// Batteries in a row stay within extra-low voltage, which ends at 60 V (as every supply here).
func TestCellsEndAtSixtyVolts(t *testing.T) {
	of := func(cell string, n int) error {
		return cellsValid(&Device{Kind: "supply", Cell: cell, Cells: n}, Set{Lib: shop.Kept})
	}
	assert.NoError(t, of("aa", 40), "40 of 1.5 V")
	assert.NoError(t, of("sla7", 5), "60 V just are")
	assert.ErrorContains(t, of("sla7", 6), "60 V")
	assert.NoError(t, of("9v", 6))
	assert.ErrorContains(t, of("9v", 7), "63 V")
	assert.ErrorContains(t, of("aa", 41), "1 to 40")
	assert.ErrorContains(t, of("coal", 1), "aa or 9v")
}

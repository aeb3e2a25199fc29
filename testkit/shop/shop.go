// Package shop is the shop as tests use it: on one bench for all tests of a package, so that
// what one of them laid out is not laid out again by the next.
package shop

import (
	"zapbarn/core/memo"
	"zapbarn/core/stock"
)

// Kept is the list as it ships, on a bench.
var Kept = stock.Shop.On(memo.NewBench())

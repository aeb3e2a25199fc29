package testkit

import "os"

// Slow is whether the long kind of test is wanted: make slow.
func Slow() bool { return os.Getenv("ZAPBARN_SLOW") != "" }

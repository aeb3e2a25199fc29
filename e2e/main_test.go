package e2e

import (
	"os"
	"testing"

	"zapbarn/testkit"
)

func TestMain(m *testing.M) {
	code := m.Run()
	testkit.Quit()
	os.Exit(code)
}

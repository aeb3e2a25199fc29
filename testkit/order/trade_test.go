package order

import (
	"os"
	"os/exec"
	"regexp"
	"strings"
	"testing"

	"zapbarn/core/order"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// What docs/trade.md names beside a statement is there: each test, each rule of order and
// each snag's code; a line with nothing beside it says so.
func TestTheTradeIsHeld(t *testing.T) {
	data, err := os.ReadFile("../../docs/trade.md")
	require.NoError(t, err)
	text := string(data)
	out, err := exec.Command("grep", "-rhoE", "^func Test[A-Za-z0-9_]+", "--include=*_test.go",
		"../../core", "../../formats", "../../e2e", "../../web", "../../store", "../../standin").Output()
	require.NoError(t, err)
	tests := map[string]bool{}
	for _, l := range strings.Fields(strings.ReplaceAll(string(out), "func ", "")) {
		tests[l] = true
	}
	named := regexp.MustCompile("`(Test[A-Za-z0-9_]+)`").FindAllStringSubmatch(text, -1)
	assert.Greater(t, len(named), 30)
	for _, m := range named {
		assert.True(t, tests[m[1]], m[1])
	}
	codes := map[string]bool{}
	for _, r := range order.Rules() {
		codes[r.Code] = true
	}
	bond, err := exec.Command("cat", "../../core/bond/bond.go", "../../core/bond/coats.go").Output()
	require.NoError(t, err)
	for _, m := range regexp.MustCompile(`"([a-z-]+)"`).FindAllStringSubmatch(string(bond), -1) {
		codes["glue-"+m[1]], codes["coat-"+m[1]] = true, true
	}
	for _, m := range regexp.MustCompile("`((?:glue|coat)-[a-z-]+|[a-z]+-before-[a-z]+)`").FindAllStringSubmatch(text, -1) {
		assert.True(t, codes[m[1]], m[1])
	}
	for _, l := range strings.Split(text, "\n") {
		cells := strings.Split(l, "|")
		if len(cells) == 5 && !strings.Contains(l, "---") && strings.TrimSpace(cells[3]) == "" {
			assert.Regexp(t, "nothing|yet|only", cells[2], "say what is missing: %s", l)
		}
	}
}

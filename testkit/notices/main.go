// Command notices writes the licences of all modules that are built into the program, each with
// its text, and where those of fonts and scripts lie: go run ./testkit/notices bin/NOTICES.txt
package main

import (
	"bytes"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"sort"
	"strings"
)

// beside are what ships besides modules, and where its licence is.
const beside = `Fonts on screen: Atkinson Hyperlegible (web/shell/static/fonts/LICENSE-atkinson.txt), Zilla Slab
(web/shell/static/fonts/LICENSE-zilla-slab.txt), both SIL Open Font License 1.1.
Fonts in print: formats/fonts/LICENSE.
Scripts: Alpine.js and its morph plugin, MIT (web/shell/static/vendor/LICENSE-alpine.txt).
Style: made with Tailwind CSS, MIT (web/shell/static/vendor/LICENSE-tailwind.txt).
`

func main() {
	if len(os.Args) != 2 {
		fmt.Fprintln(os.Stderr, "usage: notices FILE")
		os.Exit(2)
	}
	if err := write(os.Args[1]); err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
}

func write(to string) error {
	list, err := exec.Command("go", "list", "-deps", "-f",
		"{{with .Module}}{{if not .Main}}{{.Path}}\t{{.Version}}\t{{.Dir}}{{end}}{{end}}", "./cmd/zapbarn").Output()
	if err != nil {
		return fmt.Errorf("go list: %w", err)
	}
	seen := map[string]bool{}
	for _, l := range strings.Split(string(list), "\n") {
		if strings.TrimSpace(l) != "" {
			seen[l] = true
		}
	}
	var modules []string
	for l := range seen {
		modules = append(modules, l)
	}
	sort.Strings(modules)
	var out bytes.Buffer
	fmt.Fprintf(&out, "What ships with Zap Barn, and under which terms.\n\n%s", beside)
	for _, l := range modules {
		part := strings.Split(l, "\t")
		text, err := licence(part[2])
		if err != nil {
			return fmt.Errorf("%s: %w", part[0], err)
		}
		fmt.Fprintf(&out, "\n%s\n%s %s\n\n%s\n", strings.Repeat("-", 78), part[0], part[1], strings.TrimSpace(text))
	}
	return os.WriteFile(to, out.Bytes(), 0o644)
}

// licence is the text of a module's licence files.
func licence(dir string) (string, error) {
	var all []string
	for _, name := range []string{"LICENSE*", "LICENCE*", "COPYING*", "License*", "NOTICE*"} {
		files, err := filepath.Glob(filepath.Join(dir, name))
		if err != nil {
			return "", err
		}
		for _, f := range files {
			text, err := os.ReadFile(f)
			if err != nil {
				continue // a folder of that name
			}
			all = append(all, strings.ReplaceAll(string(text), "\r\n", "\n"))
		}
	}
	if len(all) == 0 {
		return "", fmt.Errorf("no licence in %s", dir)
	}
	return strings.Join(all, "\n"), nil
}

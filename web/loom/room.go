// Package loom is the loom: one prop's wiring, proven, faults found in it, drills.
package loom

import (
	"embed"

	"zapbarn/web/shell"
)

//go:embed *.html
var templates embed.FS

//go:embed *.js
var scripts embed.FS

// Brings are its templates and scripts.
var Brings = shell.Brings{Room: "loom", Templates: templates, Scripts: scripts}

// Room answers what is asked of it.
type Room struct{ *shell.Site }

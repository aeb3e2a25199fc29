// Package bench is the bench: one prop as it is cut, glued, painted and printed.
package bench

import (
	"embed"

	"zapbarn/web/shell"
)

//go:embed *.html
var templates embed.FS

//go:embed *.js
var scripts embed.FS

// Brings are its templates and scripts.
var Brings = shell.Brings{Room: "bench", Templates: templates, Scripts: scripts}

// Room answers what is asked of it.
type Room struct{ *shell.Site }

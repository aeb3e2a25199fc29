// Package rehearsal is the rehearsal: what happens when something is pressed.
package rehearsal

import (
	"embed"

	"zapbarn/web/shell"
)

//go:embed *.html
var templates embed.FS

//go:embed *.js
var scripts embed.FS

// Brings are its templates and scripts.
var Brings = shell.Brings{Room: "rehearsal", Templates: templates, Scripts: scripts}

// Room answers what is asked of it.
type Room struct{ *shell.Site }

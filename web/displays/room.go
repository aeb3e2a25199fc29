// Package displays is the row of displays, and what is taken away of one.
package displays

import (
	"embed"

	"zapbarn/web/shell"
)

//go:embed *.html
var templates embed.FS

// Brings are its templates.
var Brings = shell.Brings{Room: "displays", Templates: templates}

// Room answers what is asked of it.
type Room struct{ *shell.Site }

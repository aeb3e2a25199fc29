// Package walkdown is the walkdown: everything that was found, done and looked for.
package walkdown

import (
	"embed"

	"zapbarn/web/shell"
)

//go:embed *.html
var templates embed.FS

// Brings are its templates.
var Brings = shell.Brings{Room: "walkdown", Templates: templates}

// Room answers what is asked of it.
type Room struct{ *shell.Site }

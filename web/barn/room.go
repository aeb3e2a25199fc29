// Package barn is the barn: all props of a display on their ground lines, and its shop.
package barn

import (
	"embed"

	"zapbarn/web/shell"
)

//go:embed *.html
var templates embed.FS

//go:embed *.js
var scripts embed.FS

// Brings are its templates and scripts.
var Brings = shell.Brings{Room: "barn", Templates: templates, Scripts: scripts}

// Room answers what is asked of it.
type Room struct{ *shell.Site }

// Package stores is the stores: what is needed against what is there, and the money.
package stores

import (
	"embed"

	"zapbarn/web/shell"
)

//go:embed *.html
var templates embed.FS

// Brings are its templates.
var Brings = shell.Brings{Room: "stores", Templates: templates}

// Room answers what is asked of it.
type Room struct{ *shell.Site }

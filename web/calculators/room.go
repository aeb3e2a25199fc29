// Package calculators is the calculators, and why each rule is one.
package calculators

import (
	"embed"

	"zapbarn/web/shell"
)

//go:embed *.html
var templates embed.FS

// Brings are its templates.
var Brings = shell.Brings{Room: "calculators", Templates: templates}

// Room answers what is asked of it.
type Room struct{ *shell.Site }

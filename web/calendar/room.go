// Package calendar is the calendar: the order of work in time.
package calendar

import (
	"embed"

	"zapbarn/web/shell"
)

//go:embed *.html
var templates embed.FS

//go:embed *.js
var scripts embed.FS

// Brings are its templates and scripts.
var Brings = shell.Brings{Room: "calendar", Templates: templates, Scripts: scripts}

// Room answers what is asked of it.
type Room struct{ *shell.Site }

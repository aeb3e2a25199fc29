package web

import "zapbarn/core/shorthand"

// Templates are the small props to start from.
func (p *barnView) Templates() []shorthand.Template { return shorthand.Templates }

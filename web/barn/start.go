package barn

import "zapbarn/core/shorthand"

// Templates are the small props to start from.
func (p *view) Templates() []shorthand.Template { return shorthand.Templates }

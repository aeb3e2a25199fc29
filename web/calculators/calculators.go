package calculators

import (
	"html/template"
	"net/http"

	"zapbarn/web/shell"

	"zapbarn/core/calc"
	"zapbarn/core/source"
	"zapbarn/web/draw"

	"github.com/gin-gonic/gin"
)

// List is every calculator as a form; the one asked for is run.
func (s Room) List(c *gin.Context) {
	type form struct {
		calc.Calculator
		Values  map[string]string
		Results []source.Result
		Error   string
		Draw    template.HTML
		Open    bool
	}
	var out []form
	for _, k := range calc.List() {
		f := form{Calculator: k, Values: map[string]string{}}
		for _, p := range k.Params {
			f.Values[p.Name] = p.Default
		}
		if c.Query("name") == k.Name {
			f.Open = true
			args := map[string]string{}
			for _, p := range k.Params {
				if v := c.Query(p.Name + "."); v != "" || c.Request.URL.Query().Has(p.Name+".") {
					args[p.Name], f.Values[p.Name] = v, v
				}
			}
			in, shape, rs, err := k.Lay(args, c.Query("units"))
			switch {
			case err != nil:
				f.Error = err.Error()
			case shape != nil:
				f.Draw = template.HTML(draw.Shape(shape))
			default:
				f.Draw = template.HTML(draw.Sum(k.Name, in.N, in.T))
			}
			f.Results = rs
		}
		if f.Open { // the one that was asked for comes first
			out = append([]form{f}, out...)
			continue
		}
		out = append(out, f)
	}
	s.Show(c, http.StatusOK, "calc.html",
		gin.H{"Forms": out, "Theme": shell.ThemeOf(c), "Title": "Calculators", "Back": "/calc"})
}

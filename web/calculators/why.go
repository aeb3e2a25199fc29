package calculators

import (
	"html/template"
	"net/http"
	"net/url"
	"strings"

	"zapbarn/web/shell"

	"zapbarn/core/calc"
	"zapbarn/core/check"
	"zapbarn/core/source"
	"zapbarn/web/draw"

	"github.com/gin-gonic/gin"
)

// WhyView is a rule explained, with its drawing.
type WhyView struct {
	check.Why
	Draw template.HTML
}

// Why explains one rule, or lists all of them.
func (s Room) Why(c *gin.Context) {
	code := strings.TrimPrefix(c.Param("code"), "/")
	data := gin.H{"Title": "Why", "Theme": shell.ThemeOf(c), "Back": ownPath(c.Query("back"))}
	calculator, isCalc := strings.CutPrefix(code, "calc-")
	if isCalc {
		one, ok := whyCalc(calculator)
		if !ok {
			s.Trouble(c, http.StatusNotFound, "No such calculator", "All of them are listed at /calc.")
			return
		}
		data["Title"], data["Calc"] = "Why: "+calculator, one
	} else if code == "" {
		var all []WhyView
		for _, w := range check.Whys() {
			all = append(all, WhyView{Why: w})
		}
		data["All"] = all
	} else {
		w, ok := check.WhyOf(code)
		if !ok {
			s.Trouble(c, http.StatusNotFound, "No such snag", "Nothing is called "+code+". All of them are listed at /why.")
			return
		}
		data["Title"] = "Why: " + w.Code
		data["One"] = WhyView{w, template.HTML(draw.Why(w.Picture))}
	}
	s.Show(c, http.StatusOK, "why.html", data)
}

// ownPath is a path of this site to go back to, or "".
func ownPath(back string) string {
	if strings.HasPrefix(back, "/p/") && !strings.HasPrefix(back, "//") {
		return back
	}
	return ""
}

// CalcView is a calculator explained, with its example worked out.
type CalcView struct {
	calc.Why
	Name, Doc, Href string
	Draw            template.HTML
	Results         []source.Result
}

func whyCalc(name string) (v CalcView, ok bool) {
	c, err := calc.Named(name)
	if err != nil {
		return v, false
	}
	w, ok := calc.WhyOf(name)
	if !ok {
		return v, false
	}
	args := w.Args(c)
	q := url.Values{"name": {name}}
	for k, val := range args {
		q.Set(k+".", val)
	}
	v = CalcView{Why: w, Name: name, Doc: c.Doc, Href: "/calc?" + q.Encode() + "#" + name}
	in, shape, results, err := c.Lay(args, "in")
	switch {
	case err != nil:
		return v, true
	case shape != nil:
		v.Draw = template.HTML(draw.Shape(shape))
	default:
		v.Draw = template.HTML(draw.Sum(name, in.N, in.T))
	}
	v.Results = results
	return v, true
}

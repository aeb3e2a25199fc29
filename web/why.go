package web

import (
	"bytes"
	"html/template"
	"net/http"
	"strings"

	"zapbarn/core/check"
	"zapbarn/web/draw"

	"github.com/gin-gonic/gin"
)

// WhyView is a rule explained, with its drawing.
type WhyView struct {
	check.Why
	Draw template.HTML
}

// why explains one rule, or lists all of them.
func (s *Server) why(c *gin.Context) {
	code := strings.TrimPrefix(c.Param("code"), "/")
	data := gin.H{"Title": "Why", "Theme": themeOf(c), "Back": ownPath(c.Query("back"))}
	if code == "" {
		var all []WhyView
		for _, w := range check.Whys() {
			all = append(all, WhyView{Why: w})
		}
		data["All"] = all
	} else {
		w, ok := check.WhyOf(code)
		if !ok {
			s.trouble(c, http.StatusNotFound, "No such snag", "Nothing is called "+code+". All of them are listed at /why.")
			return
		}
		data["Title"] = "Why: " + w.Code
		data["One"] = WhyView{w, template.HTML(draw.Why(w.Picture))}
	}
	var b bytes.Buffer
	if err := s.pages.ExecuteTemplate(&b, "why.html", data); err != nil {
		panic(err)
	}
	c.Data(http.StatusOK, "text/html; charset=utf-8", b.Bytes())
}

// ownPath is a path of this site to go back to, or "".
func ownPath(back string) string {
	if strings.HasPrefix(back, "/p/") && !strings.HasPrefix(back, "//") {
		return back
	}
	return ""
}

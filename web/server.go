// Package web serves the barn: it puts the rooms together, each a folder with its handlers, the
// view its templates are given, templates, scripts and style, and lists their addresses. Handlers
// read the request, let core decide, and render; no handler writes a row by itself.
package web

import (
	"net/http"
	"time"

	"zapbarn/store"
	"zapbarn/web/barn"
	"zapbarn/web/bench"
	"zapbarn/web/calculators"
	"zapbarn/web/calendar"
	"zapbarn/web/displays"
	"zapbarn/web/loom"
	"zapbarn/web/rehearsal"
	"zapbarn/web/shell"
	"zapbarn/web/stores"
	"zapbarn/web/walkdown"
	"zapbarn/web/yard"

	"github.com/gin-gonic/gin"
)

func init() { gin.SetMode(gin.ReleaseMode) }

// Server serves one store by the rooms of the house.
type Server struct {
	*shell.Site
	barn        barn.Room
	bench       bench.Room
	loom        loom.Room
	rehearsal   rehearsal.Room
	yard        yard.Room
	calendar    calendar.Room
	stores      stores.Room
	walkdown    walkdown.Room
	displays    displays.Room
	calculators calculators.Room
}

// New makes a server; now tells the date that ages are judged by. It errs where the store does.
func New(s *store.Store, now func() time.Time) (*Server, error) {
	site, err := shell.New(s, now, barn.Brings, bench.Brings, loom.Brings, rehearsal.Brings, yard.Brings,
		calendar.Brings, stores.Brings, walkdown.Brings, displays.Brings, calculators.Brings)
	if err != nil {
		return nil, err
	}
	out := &Server{site, barn.Room{Site: site}, bench.Room{Site: site}, loom.Room{Site: site}, rehearsal.Room{Site: site},
		yard.Room{Site: site}, calendar.Room{Site: site}, stores.Room{Site: site}, walkdown.Room{Site: site},
		displays.Room{Site: site}, calculators.Room{Site: site}}
	site.Places = out.places()
	return out, nil
}

// Handler is the whole site.
func (s *Server) Handler() http.Handler {
	r := s.routes()
	protect := http.NewCrossOriginProtection()
	protect.SetDenyHandler(http.HandlerFunc(func(w http.ResponseWriter, _ *http.Request) {
		http.Error(w, "This form was sent from another site and was refused.", http.StatusForbidden)
	}))
	return protect.Handler(shell.LocalOnly(shell.HeadAsGet(r)))
}

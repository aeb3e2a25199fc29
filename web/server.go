package web

import (
	"context"
	"net/http"
	"runtime"
	"time"

	"zapbarn/store"

	"github.com/gin-gonic/gin"
)

func init() { gin.SetMode(gin.ReleaseMode) }

// New makes a server; now tells the date that ages are judged by.
func New(s *store.Store, now func() time.Time) (*Server, error) {
	secret, err := s.Secret(context.Background())
	if err != nil {
		return nil, err
	}
	token := formToken(secret)
	t, err := parsePages(token)
	if err != nil {
		return nil, err
	}
	return &Server{
		store:       s,
		token:       token,
		lib:         s.Shop(),
		now:         now,
		pages:       t,
		works:       newWorks(),
		held:        newPages(),
		search:      searches{of: map[string]*running{}, most: 2},
		workTime:    workTime,
		mendTime:    mendTime,
		first:       firstMends,
		patience:    patience,
		renderSlots: make(chan struct{}, max(2, runtime.GOMAXPROCS(0))),
	}, nil
}

// Handler is the whole site.
func (s *Server) Handler() http.Handler {
	r := s.routes()
	protect := http.NewCrossOriginProtection()
	protect.SetDenyHandler(http.HandlerFunc(func(w http.ResponseWriter, _ *http.Request) {
		http.Error(w, "This form was sent from another site and was refused.", http.StatusForbidden)
	}))
	return protect.Handler(localOnly(headAsGet(r)))
}

package shell

import (
	"context"
	"crypto/rand"
	"encoding/hex"
	"errors"
	"fmt"
	"log/slog"
	"net/http"
	"runtime/debug"
	"sync"

	"github.com/gin-contrib/requestid"
	"github.com/gin-gonic/gin"
)

// RequestID names a request, so that what a person is told can be found in the log.
var RequestID = requestid.New(requestid.WithGenerator(func() string {
	b := make([]byte, 5)
	_, _ = rand.Read(b)
	return hex.EncodeToString(b)
}))

// errPanic is a panic somewhere else than in the request itself; it is in the
// log already.
var errPanic = errors.New("panic while working the plan out")

// logged writes a panic to the log with its stack.
func logged(what any, plan string) error {
	slog.Error("panic", "plan", plan, "what", fmt.Sprint(what), "stack", string(debug.Stack()))
	return errPanic
}

// Recover turns a panic into a plain page; the trace goes to the log only.
func (s *Site) Recover(c *gin.Context) {
	defer func() {
		if r := recover(); r != nil {
			slog.Error("panic", "request", requestid.Get(c), "path", c.Request.URL.Path, "what", fmt.Sprint(r),
				"stack", string(debug.Stack()))
			s.broken(c)
			c.Abort()
		}
	}()
	c.Next()
}

// broken says that something went wrong on our side, and by which name it is
// in the log.
func (s *Site) broken(c *gin.Context) {
	s.Trouble(c, http.StatusInternalServerError, "Something broke here", "This is our fault, not yours. What was saved "+
		"is safe; go back and try again. In the log it is request "+requestid.Get(c)+".")
}

// HeadAsGet answers HEAD as GET; the server leaves the body out.
func HeadAsGet(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if r.Method == http.MethodHead {
			r = r.Clone(r.Context())
			r.Method = http.MethodGet
		}
		next.ServeHTTP(w, r)
	})
}

// OwnOnly refuses a request that another site makes a browser send: what it
// asks for computes, and nobody there may look at the answer anyway.
func OwnOnly(c *gin.Context) {
	if f := c.GetHeader("Sec-Fetch-Site"); f == "cross-site" || f == "same-site" {
		c.String(http.StatusForbidden, "This was asked for from another site and was refused.\n")
		c.Abort()
		return
	}
	c.Next()
}

// searches limits long searches: one a display, a few in all.
type searches struct {
	lock sync.Mutex
	of   map[string]*running
	most int
}

type running struct{ end context.CancelFunc }

// begin starts a search of a display; the one that ran there before ends, for
// it is the same builder who looks again. It is false when too many run.
func (x *searches) begin(ctx context.Context, plan string) (context.Context, func(), bool) {
	x.lock.Lock()
	defer x.lock.Unlock()
	if r := x.of[plan]; r != nil {
		r.end()
		delete(x.of, plan)
	}
	if len(x.of) >= x.most {
		return ctx, nil, false
	}
	ctx, cancel := context.WithCancel(ctx)
	mine := &running{cancel}
	x.of[plan] = mine
	return ctx, func() {
		cancel()
		x.lock.Lock()
		defer x.lock.Unlock()
		if x.of[plan] == mine {
			delete(x.of, plan)
		}
	}, true
}

package shell

import (
	"context"
	"encoding/json"
	"fmt"
	"net/http"
	"time"

	"github.com/gin-gonic/gin"
)

// Streamed opens a search of the plan that is answered as server-sent events, until the
// browser closes them or end is called; refused where too many are under way.
func (s *Site) Streamed(c *gin.Context) (ctx context.Context, end func(), ok bool) {
	ctx, end, ok = s.search.begin(c.Request.Context(), c.Param("plan"))
	if !ok {
		c.String(http.StatusTooManyRequests, "Other searches are under way; stop one of them first, or wait.\n")
		return ctx, nil, false
	}
	h := c.Writer.Header()
	h.Set("Content-Type", "text/event-stream")
	h.Set("Cache-Control", "no-store")
	h.Set("X-Accel-Buffering", "no")
	c.Status(http.StatusOK)
	return ctx, end, true
}

// told sends one event; false where it cannot be written.
func Sent(c *gin.Context, event any) bool {
	b, err := json.Marshal(event)
	if err != nil {
		return false
	}
	fmt.Fprintf(c.Writer, "data: %s\n\n", b)
	c.Writer.Flush()
	return true
}

// SearchShows is how far apart a long search is told how far it is.
const SearchShows = 200 * time.Millisecond

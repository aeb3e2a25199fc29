package web

import (
	"bytes"
	"compress/gzip"
	"io"
	"net/http"
	"strconv"
	"strings"
	"sync"

	"zapbarn/core/memo"

	"github.com/gin-gonic/gin"
)

// pageKey names a page as one person sees it at one moment of its plan.
type pageKey struct {
	moment
	uri, theme, who string
	tour            int
}

// packed is a page, compressed once.
type packed []byte

// newPages keeps pages until their plan changes; then nobody asks for them any
// more, and they give way.
func newPages() *memo.Memo[pageKey, packed] {
	return memo.New[pageKey](pageBytes, func(p packed) int64 { return int64(len(p)) + 400 })
}

// packers are kept: each holds most of a megabyte. Their level takes half the time
// of the usual one, for a tenth more to send, and that over loopback.
var packers = sync.Pool{New: func() any {
	z, _ := gzip.NewWriterLevel(nil, 2)
	return z
}}

func pack(page []byte) packed {
	var b bytes.Buffer
	z, _ := packers.Get().(*gzip.Writer)
	z.Reset(&b)
	_, _ = z.Write(page) // to memory: cannot fail
	_ = z.Close()
	packers.Put(z)
	return b.Bytes()
}

// sendPage answers with a packed page, unpacked for who cannot do that.
func sendPage(c *gin.Context, code int, p packed) {
	h := c.Writer.Header()
	h.Set("Content-Type", "text/html; charset=utf-8")
	h.Add("Vary", "Accept-Encoding, Cookie")
	if strings.Contains(c.GetHeader("Accept-Encoding"), "gzip") {
		h.Set("Content-Encoding", "gzip")
		h.Set("Content-Length", strconv.Itoa(len(p)))
		c.Status(code)
		_, _ = c.Writer.Write(p)
		return
	}
	c.Status(code)
	z, err := gzip.NewReader(bytes.NewReader(p))
	if err == nil {
		_, _ = io.Copy(c.Writer, z)
	}
}

// kept answers a page that was rendered before and still stands.
func (s *Server) kept(c *gin.Context, k pageKey) bool {
	if c.Request.Method != http.MethodGet {
		return false
	}
	p, ok := s.held.Look(k)
	if ok {
		sendPage(c, http.StatusOK, p)
	}
	return ok
}

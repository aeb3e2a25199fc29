package shell

import (
	"crypto/rand"
	"crypto/sha256"
	"crypto/subtle"
	"encoding/hex"
	"net/http"
	"os/user"
	"strings"

	"zapbarn/store"

	"github.com/gin-gonic/gin"
)

// Each browser has a key of its own, made when it is first here: its edits are known by it,
// so that undo takes back one's own.
const KeyCookie, keySeconds = "me", 2 * 365 * 86400

// BrowserKey gives a browser that has none its key.
func BrowserKey(c *gin.Context) {
	if v, err := c.Cookie(KeyCookie); err != nil || len(v) != 32 {
		b := make([]byte, 16)
		_, _ = rand.Read(b) // cannot fail (crypto/rand, since Go 1.24)
		key := hex.EncodeToString(b)
		c.SetSameSite(http.SameSiteStrictMode)
		c.SetCookie(KeyCookie, key, keySeconds, "/", "", false, true)
	}
	c.Next()
}

// keyOf is the key of the browser that asks.
func keyOf(c *gin.Context) string {
	v, err := c.Cookie(KeyCookie)
	if err != nil || len(v) != 32 {
		return ""
	}
	return v
}

// Account is the name of whoever started the program: edits bear it until a browser gave
// another.
var Account = func() string {
	u, err := user.Current()
	if err != nil {
		return ""
	}
	return u.Username
}()

// Editor is who makes an edit.
func Editor(c *gin.Context) store.By {
	if who := whoOf(c); who != "" {
		return store.By{Who: who, Key: keyOf(c)}
	}
	return store.By{Who: Account, Key: keyOf(c)}
}

// EditorNamed is editor, under the name that a form gave.
func EditorNamed(c *gin.Context, who string) store.By {
	b := Editor(c)
	if who != "" {
		b.Who = who
	}
	return b
}

// formToken is what our forms bear: whoever knows it has read a page of this barn.
func formToken(secret string) string {
	sum := sha256.Sum256([]byte("form " + secret))
	return hex.EncodeToString(sum[:16])
}

// OwnForms refuses a change that does not come from a page of this site: a browser says so of
// itself (Sec-Fetch-Site, Origin; those are looked at before, by http.CrossOriginProtection);
// one that says nothing must send the token that our forms bear.
func (s *Site) OwnForms(c *gin.Context) {
	switch c.Request.Method {
	case http.MethodGet, http.MethodHead, http.MethodOptions:
		c.Next()
		return
	}
	if c.GetHeader("Sec-Fetch-Site") != "" || c.GetHeader("Origin") != "" {
		c.Next()
		return
	}
	token := c.GetHeader("X-Form-Token")
	if token == "" && strings.Contains(c.GetHeader("Content-Type"), "form") {
		token = c.PostForm("token")
	}
	if subtle.ConstantTimeCompare([]byte(s.token), []byte(token)) == 1 {
		c.Next()
		return
	}
	c.String(http.StatusForbidden, "This change does not come from a page of this barn and was refused. Open the page "+
		"again and send it once more.\n")
	c.Abort()
}

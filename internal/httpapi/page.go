package httpapi

import (
	"bytes"
	"io/fs"
	"net/http"
	"path"
	"strings"

	"github.com/gin-gonic/gin"
)

// noncePlace is what index.html has where the nonce goes.
const noncePlace = "__NONCE__"

// page serves the built files. Every other address outside /api is the page
// itself, which finds its own way.
func (s *server) page(files fs.FS) gin.HandlerFunc {
	index, err := fs.ReadFile(files, "index.html")
	built := err == nil
	assets := http.FileServerFS(files)
	return func(c *gin.Context) {
		name := strings.TrimPrefix(path.Clean(c.Request.URL.Path), "/")
		if strings.HasPrefix(name, "api/") || name == "api" {
			s.fail(c, bad(http.StatusNotFound, "Not there", "There is nothing at this address."))
			return
		}
		if c.Request.Method != http.MethodGet && c.Request.Method != http.MethodHead {
			s.fail(c, bad(http.StatusMethodNotAllowed, "Not done here", "This address does not take "+c.Request.Method+"."))
			return
		}
		if !built {
			s.fail(c, bad(http.StatusServiceUnavailable, "The page is not built", "Run make build, then start again."))
			return
		}
		if info, err := fs.Stat(files, name); err == nil && !info.IsDir() && name != "index.html" {
			c.Header("Cache-Control", cacheFor(name))
			c.Status(http.StatusOK)
			assets.ServeHTTP(c.Writer, c.Request)
			return
		}
		if strings.HasPrefix(name, "assets/") {
			s.fail(c, bad(http.StatusNotFound, "Not there", "There is no such file."))
			return
		}
		nonce := newNonce()
		c.Header("Content-Security-Policy", pagePolicy(nonce))
		c.Header("Cache-Control", "no-store")
		c.Data(http.StatusOK, "text/html; charset=utf-8", bytes.ReplaceAll(index, []byte(noncePlace), []byte(nonce)))
	}
}

// cacheFor lets files whose name carries their hash be kept.
func cacheFor(name string) string {
	if strings.HasPrefix(name, "assets/") {
		return "public, max-age=31536000, immutable"
	}
	return "no-cache"
}

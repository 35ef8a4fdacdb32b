package httpapi

import (
	"bytes"
	"io"
	"io/fs"
	"mime"
	"net/http"
	"path"
	"strconv"
	"strings"
	"time"

	"github.com/gin-gonic/gin"
)

// nonceMark is what index.html has where the nonce goes.
const nonceMark = "__NONCE__"

// accountMark is what it has where the account goes that asks: what the page keeps in
// the browser is kept for that one.
const accountMark = "__ACCOUNT__"

// contentTypes are those that package mime does not know on every machine.
var contentTypes = map[string]string{".wav": "audio/wav", ".webmanifest": "application/manifest+json"}

// workerFile is the service worker, which asks the server of itself: what it may do follows
// from the policy it comes with.
const (
	workerFile   = "worker.js"
	workerPolicy = "default-src 'none'; connect-src 'self'"
)

// page serves the built files. Every other address outside /api is the page
// itself, which finds its own way.
func (s *server) page(files fs.FS) gin.HandlerFunc {
	raw, err := fs.ReadFile(files, "index.html")
	index, built := string(raw), err == nil
	assets := http.FileServerFS(files)
	return func(c *gin.Context) {
		name := strings.TrimPrefix(path.Clean(c.Request.URL.Path), "/")
		if strings.HasPrefix(name, "api/") || name == "api" {
			s.fail(c, bad(http.StatusNotFound, "Not there", "There is nothing at this address."))
			return
		}
		if c.Request.Method != http.MethodGet {
			s.fail(c, bad(http.StatusMethodNotAllowed, "Not done here", "This address does not take "+c.Request.Method+"."))
			return
		}
		if !built {
			s.fail(c, bad(http.StatusServiceUnavailable, "The page is not built", "Run make build, then start again."))
			return
		}
		if info, err := fs.Stat(files, name); err == nil && !info.IsDir() && name != "index.html" {
			c.Header("Cache-Control", cacheFor(name))
			c.Header("Vary", "Accept-Encoding")
			if own := contentTypes[path.Ext(name)]; own != "" {
				c.Header("Content-Type", own)
			}
			if name == workerFile {
				c.Header("Content-Security-Policy", workerPolicy)
			}
			c.Status(http.StatusOK)
			if packed, encoding := packedFor(files, name, c.GetHeader("Accept-Encoding")); packed != nil {
				c.Header("Content-Encoding", encoding)
				if contentTypes[path.Ext(name)] == "" {
					c.Header("Content-Type", mime.TypeByExtension(path.Ext(name)))
				}
				http.ServeContent(c.Writer, c.Request, name, time.Time{}, packed)
				return
			}
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
		var inserted bytes.Buffer
		// Never fails: a buffer takes all.
		_, _ = strings.NewReplacer(nonceMark, nonce, accountMark, s.as(c).Account().String()).WriteString(&inserted, index)
		c.Data(http.StatusOK, "text/html; charset=utf-8", inserted.Bytes())
	}
}

// packedFor returns a built file as it was compressed at the build, in the best way
// that the client takes (RFC 9110, section 12.5.3); nil where there is none.
func packedFor(files fs.FS, name, accepts string) (io.ReadSeeker, string) {
	for _, way := range []struct{ encoding, ending string }{{"br", ".br"}, {"gzip", ".gz"}} {
		if !takes(accepts, way.encoding) {
			continue
		}
		if content, err := fs.ReadFile(files, name+way.ending); err == nil {
			return bytes.NewReader(content), way.encoding
		}
	}
	return nil, ""
}

// takes reports whether an Accept-Encoding names a way of coding and does not rule it
// out by a weight of zero.
func takes(accepts, encoding string) bool {
	for part := range strings.SplitSeq(accepts, ",") {
		name, weight, weighed := strings.Cut(part, ";")
		if !strings.EqualFold(strings.TrimSpace(name), encoding) {
			continue
		}
		q, err := strconv.ParseFloat(strings.TrimPrefix(strings.TrimSpace(weight), "q="), 64)
		return !weighed || err == nil && q > 0
	}
	return false
}

// cacheFor lets files whose name carries their hash be kept.
func cacheFor(name string) string {
	if strings.HasPrefix(name, "assets/") {
		return "public, max-age=31536000, immutable"
	}
	return "no-cache"
}

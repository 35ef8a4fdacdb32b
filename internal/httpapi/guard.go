package httpapi

import (
	"crypto/rand"
	"fmt"
	"net"
	"net/http"
	"net/url"
	"runtime/debug"
	"strings"
	"time"

	"github.com/gin-gonic/gin"
)

// maxBody is the largest request body, in bytes.
const maxBody = 1 << 20

func tooLarge(most int64) *problem {
	return bad(http.StatusRequestEntityTooLarge, "Too large", fmt.Sprintf("The request has more than %d bytes, which is the most.", most))
}

// logged writes one line a request: never a title, a note or a query.
func (s *server) logged(c *gin.Context) {
	begun := time.Now()
	c.Next()
	s.log.Info("request", "method", c.Request.Method, "path", c.FullPath(), "status", c.Writer.Status(),
		"took", time.Since(begun).Round(time.Microsecond))
}

// recovered turns a panic into a problem and keeps the trace for the log.
func (s *server) recovered(c *gin.Context) {
	defer func() {
		if p := recover(); p != nil {
			s.log.Error("panic", "value", p, "stack", string(debug.Stack()))
			if !c.Writer.Written() {
				s.fail(c, fmt.Errorf("panic: %v", p))
			}
		}
	}()
	c.Next()
}

// guarded refuses requests that a page of another site could have caused, and
// bounds what a body may hold.
func (s *server) guarded(c *gin.Context) {
	h := c.Writer.Header()
	h.Set("X-Content-Type-Options", "nosniff")
	h.Set("Referrer-Policy", "no-referrer")
	h.Set("Cross-Origin-Opener-Policy", "same-origin")
	h.Set("Cross-Origin-Resource-Policy", "same-origin")
	h.Set("Content-Security-Policy", "default-src 'none'; frame-ancestors 'none'")
	r := c.Request
	if !loopbackHost(r.Host) {
		s.fail(c, bad(http.StatusMisdirectedRequest, "Not this server",
			"The Host of the request is not this machine. Use http://127.0.0.1 or http://localhost with the port."))
		return
	}
	if !sameOrigin(r) {
		s.fail(c, bad(http.StatusForbidden, "From another site",
			"The request comes from a page of another site, which may not read or change to-dos."))
		return
	}
	most := int64(maxBody)
	if r.Method == http.MethodPost && strings.HasSuffix(r.URL.Path, "/attachments") {
		most = maxFileBody
	}
	if r.URL.Path == "/api/calendars/file" {
		most = maxCalendarBody
	}
	if strings.HasPrefix(r.URL.Path, "/api/import") {
		most = maxImportBody
	}
	if r.ContentLength > most {
		c.Header("Connection", "close")
		s.fail(c, tooLarge(most))
		return
	}
	r.Body = http.MaxBytesReader(c.Writer, r.Body, most)
	c.Next()
}

// loopbackHost keeps out names that an attacker points at 127.0.0.1.
func loopbackHost(host string) bool {
	name, _, err := net.SplitHostPort(host)
	if err != nil {
		name = host
	}
	if len(name) > 2 && name[0] == '[' {
		name = name[1 : len(name)-1]
	}
	return strings.EqualFold(name, "localhost") || net.ParseIP(name).IsLoopback()
}

// sameOrigin reports whether every Origin is our own (RFC 6454, section 7): a scheme, a
// host and nothing more.
func sameOrigin(r *http.Request) bool {
	if site := r.Header.Get("Sec-Fetch-Site"); site == "cross-site" || site == "same-site" {
		return r.Method == http.MethodGet && r.Header.Get("Sec-Fetch-Mode") == "navigate"
	}
	for _, origin := range r.Header.Values("Origin") {
		u, err := url.Parse(origin)
		if err != nil || u.Scheme != "http" || !strings.EqualFold(u.Host, r.Host) || u.User != nil || u.Path+u.RawQuery+u.Fragment != "" {
			return false
		}
	}
	return true
}

// pagePolicy is the Content-Security-Policy of the page.
func pagePolicy(nonce string) string {
	return "default-src 'none'; script-src 'self'; style-src 'self' 'nonce-" + nonce + "'; img-src 'self' data:; " +
		"font-src 'self'; connect-src 'self'; manifest-src 'self'; media-src 'self'; worker-src 'self'; base-uri 'none'; form-action 'none'; frame-ancestors 'none'"
}

func newNonce() string { return rand.Text() }

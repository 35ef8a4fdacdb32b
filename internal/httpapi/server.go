// Package httpapi serves the Book over HTTP as the contract in api/ says, and
// the page beside it. It decodes, guards, calls app and encodes; it has no
// rules of its own.
package httpapi

import (
	"io/fs"
	"log/slog"
	"net"
	"net/http"
	"time"

	"github.com/gin-gonic/gin"
	"github.com/klauspost/compress/gzhttp"
	"github.com/klauspost/compress/gzip"

	"tincup/internal/app"
	"tincup/internal/httpapi/contract"
)

// packFrom is from how many bytes on an answer is compressed for those who take it so.
const packFrom = 2000

type server struct {
	app      *app.App
	actor    Actor
	log      *slog.Logger
	validate *validator
	spec     []byte
	patches  *patches
}

var _ contract.ServerInterface = (*server)(nil)

// New returns the handler of the whole server. page holds the built page, with
// index.html at its root; actor tells who asks.
func New(a *app.App, actor Actor, page fs.FS, log *slog.Logger) (http.Handler, error) {
	doc, err := contract.GetSpec()
	if err != nil {
		return nil, err
	}
	spec, err := doc.MarshalJSON()
	if err != nil {
		return nil, err
	}
	s := &server{app: a, actor: actor, log: log, spec: spec, patches: newPatches()}
	if s.validate, err = newValidator(doc); err != nil {
		return nil, err
	}
	a.RemakeWith(remake)
	gin.SetMode(gin.ReleaseMode)
	r := gin.New()
	r.HandleMethodNotAllowed = true
	r.RedirectTrailingSlash = false
	r.Use(s.logged, s.recovered, s.guarded, s.authorised)
	r.GET("/healthz", s.health)
	r.GET("/api/openapi.json", func(c *gin.Context) { c.Data(http.StatusOK, "application/json", s.spec) })
	contract.RegisterHandlersWithOptions(r, s, contract.GinServerOptions{
		Middlewares: []contract.MiddlewareFunc{func(c *gin.Context) {
			if err := s.validate.check(c); err != nil {
				s.fail(c, err)
			}
		}},
		ErrorHandler: func(c *gin.Context, err error, status int) {
			s.fail(c, bad(status, "Not a valid request", firstLine(err)+"."))
		},
	})
	r.NoMethod(func(c *gin.Context) {
		s.fail(c, bad(http.StatusMethodNotAllowed, "Not done here", "This address does not take "+c.Request.Method+"."))
	})
	r.NoRoute(s.page(page))
	packed, err := gzhttp.NewWrapper(gzhttp.MinSize(packFrom), gzhttp.CompressionLevel(gzip.BestSpeed), gzhttp.EnableZstd(false),
		gzhttp.ContentTypes([]string{"application/json", "application/problem+json", "text/html"}))
	if err != nil {
		return nil, err
	}
	return unhurried(withHead(plainHere(r, packed(r)))), nil
}

// plainHere answers those who ask on this machine itself as it is: to pack and to unpack takes them
// longer than the answer does. Who asks through a proxy is elsewhere.
func plainHere(plain, packed http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		host, _, err := net.SplitHostPort(r.RemoteAddr)
		if err == nil && net.ParseIP(host).IsLoopback() && r.Header.Get("Forwarded") == "" && r.Header.Get("X-Forwarded-For") == "" {
			plain.ServeHTTP(w, r)
			return
		}
		packed.ServeHTTP(w, r)
	})
}

// health says whether changes can be kept.
func (s *server) health(c *gin.Context) {
	if err := s.app.Present(); err != nil {
		s.fail(c, err)
		return
	}
	c.String(http.StatusOK, "ok\n")
}

// Serve answers on the listener until it is closed.
func Serve(l net.Listener, h http.Handler, log *slog.Logger) *http.Server {
	srv := &http.Server{
		Handler:           h,
		ReadHeaderTimeout: 5 * time.Second,
		ReadTimeout:       30 * time.Second,
		WriteTimeout:      sendWithin, // see unhurried
		IdleTimeout:       2 * time.Minute,
		MaxHeaderBytes:    64 << 10,
		ErrorLog:          slog.NewLogLogger(log.Handler(), slog.LevelWarn),
	}
	go func() {
		if err := srv.Serve(l); err != http.ErrServerClosed {
			log.Error("the server stopped", "error", err)
		}
	}()
	return srv
}

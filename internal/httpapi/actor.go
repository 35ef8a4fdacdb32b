package httpapi

import (
	"net/http"

	"github.com/gin-gonic/gin"

	"tincup/internal/app"
	"tincup/internal/core/book"
)

// Actor tells which account a request is from. An error is answered with its status.
type Actor func(*http.Request) (book.ID, error)

// OwnerAlone takes every request for the owner's: nobody signs in, and the server is
// reached from its own machine alone.
func OwnerAlone(a *app.App) Actor {
	owner := a.Owner().Account()
	return func(*http.Request) (book.ID, error) { return owner, nil }
}

// session is where a request keeps its *app.Session.
const session = "session"

// authorised finds out whose request it is, before anything is read or done.
func (s *server) authorised(c *gin.Context) {
	account, err := s.actor(c.Request)
	var as *app.Session
	if err == nil {
		if as, err = s.app.As(account); err != nil {
			err = bad(http.StatusForbidden, "No account", "Who asks has no account here.")
		}
	}
	if err != nil {
		s.fail(c, err)
		return
	}
	c.Set(session, as)
	c.Next()
}

// as is the App as the one who asks uses it.
func (s *server) as(c *gin.Context) *app.Session { return c.MustGet(session).(*app.Session) }

package httpapi

import (
	"context"
	"net/http"
)

// headKey marks requests that asked for a head alone.
type headKey struct{}

// withHead answers HEAD as GET is answered, without the body (RFC 9110, section
// 9.3.2): the server leaves out what is written to one who asked for the head.
func withHead(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if r.Method == http.MethodHead {
			r = r.WithContext(context.WithValue(r.Context(), headKey{}, true))
			r.Method = http.MethodGet
		}
		next.ServeHTTP(w, r)
	})
}

// headOnly reports whether no more than the head was asked for.
func headOnly(r *http.Request) bool { return r.Context().Value(headKey{}) != nil }

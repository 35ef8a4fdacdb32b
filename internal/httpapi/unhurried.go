package httpapi

import (
	"net/http"
	"time"
)

// sendWithin is how long one piece of an answer may take on its way to the client.
const sendWithin = 30 * time.Second

// unhurried lets a handler work for as long as it takes, where the server's own limit would count
// that too and cut the answer off: each write has sendWithin of its own.
func unhurried(h http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		own := &unhurriedWriter{ResponseWriter: w, control: http.NewResponseController(w)}
		// A writer without deadlines, as a recorder of tests, needs none lifted.
		_ = own.control.SetWriteDeadline(time.Time{})
		h.ServeHTTP(own, r)
		// The rest of a small answer is sent only after this.
		_ = own.control.SetWriteDeadline(time.Now().Add(sendWithin))
	})
}

// unhurriedWriter is a writer whose every write has a deadline of its own.
type unhurriedWriter struct {
	http.ResponseWriter
	control *http.ResponseController
}

// Unwrap gives http.ResponseController the writer beneath.
func (w *unhurriedWriter) Unwrap() http.ResponseWriter { return w.ResponseWriter }

func (w *unhurriedWriter) Write(p []byte) (int, error) {
	_ = w.control.SetWriteDeadline(time.Now().Add(sendWithin))
	return w.ResponseWriter.Write(p)
}

// Flush implements http.Flusher, which writers that wrap this one look for.
func (w *unhurriedWriter) Flush() {
	_ = w.control.SetWriteDeadline(time.Now().Add(sendWithin))
	_ = w.control.Flush()
}

package device

import (
	"context"
	_ "embed"
	"html/template"
	"net/http"
	"net/url"
)

//go:embed page.html
var pageText string

var page = template.Must(template.New("page").Parse(pageText))

// Page serves the device to a browser: a button for each place to walk to, and for each thing.
// Walks go on until ctx ends. A form that another site sends is refused.
func (d *Device) Page(ctx context.Context) http.Handler {
	mux := http.NewServeMux()
	mux.HandleFunc("GET /{$}", func(w http.ResponseWriter, r *http.Request) {
		places, err := d.Places(r.Context())
		at, walks := d.At()
		shown := struct {
			Places    []Place
			At, Walks string
			Trouble   string
		}{places, at.Words(), walks, r.URL.Query().Get("trouble")}
		if err != nil {
			shown.Trouble = err.Error()
		}
		w.Header().Set("Content-Type", "text/html; charset=utf-8")
		w.Header().Set("Content-Security-Policy", "default-src 'none'; style-src 'unsafe-inline'; form-action 'self'")
		_ = page.Execute(w, shown) // the browser has gone
	})
	act := func(path string, do func(*http.Request, Place) error) {
		mux.HandleFunc("POST "+path, func(w http.ResponseWriter, r *http.Request) {
			if origin, err := url.Parse(r.Header.Get("Origin")); err != nil || origin.Host != r.Host {
				http.Error(w, "This form was sent by another site.", http.StatusForbidden)
				return
			}
			p, err := d.Find(r.Context(), r.FormValue("place"))
			if err == nil {
				err = do(r, p)
			}
			back := "/"
			if err != nil {
				back += "?trouble=" + url.QueryEscape(err.Error())
			}
			http.Redirect(w, r, back, http.StatusSeeOther)
		})
	}
	act("/walk", func(_ *http.Request, p Place) error {
		go func() { _ = d.Walk(ctx, p) }() // what is wrong with the Tin Cup the page says when it is next read
		return nil
	})
	act("/connect", func(r *http.Request, p Place) error { return d.Connect(r.Context(), p, true) })
	act("/disconnect", func(r *http.Request, p Place) error { return d.Connect(r.Context(), p, false) })
	return mux
}

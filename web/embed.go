// Package web holds the built page.
package web

import (
	"embed"
	"io/fs"
)

//go:embed all:dist
var dist embed.FS

// Page returns the built page, with index.html at its root where it is built.
func Page() fs.FS {
	page, err := fs.Sub(dist, "dist/page")
	if err != nil {
		panic(err) // the path is a constant
	}
	return page
}

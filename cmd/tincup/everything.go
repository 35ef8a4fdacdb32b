package main

import (
	"bytes"
	"context"
	"fmt"
	"io"
	"net/http"

	"tincup/internal/app"
	"tincup/internal/formats/everything"
	"tincup/internal/httpapi"
	"tincup/internal/httpapi/contract"
)

// takeOutAll writes everything to a file, which is there once it is whole.
func (f *flags) takeOutAll(ctx context.Context, name string) error {
	return writeFile(name, func(out io.Writer) error {
		return f.on(ctx, func(a *app.App) error {
			return httpapi.WriteEverything(ctx, a.Owner(), out)
		}, func(address string) error {
			return download(ctx, "http://"+address+"/api/everything", out)
		})
	})
}

// download writes what a server answers with.
func download(ctx context.Context, address string, out io.Writer) error {
	req, err := http.NewRequestWithContext(ctx, http.MethodGet, address, nil)
	if err != nil {
		return err
	}
	res, err := http.DefaultClient.Do(req)
	if err != nil {
		return err
	}
	defer res.Body.Close()
	if res.StatusCode != http.StatusOK {
		return fmt.Errorf("the server answered %s", res.Status)
	}
	_, err = io.Copy(out, res.Body)
	return err
}

// moveInHere takes everything of a ZIP into the data file.
func moveInHere(ctx context.Context, a *app.App, text []byte, dry bool) (out contract.ImportPreview, err error) {
	archive, err := everything.Read(bytes.NewReader(text), int64(len(text)))
	if err != nil {
		return out, err
	}
	if dry {
		err = a.Owner().LookAtMoving(ctx, archive.Rows)
	} else {
		_, err = a.Owner().MoveIn(ctx, app.Request{Window: "tincup import"}, archive.Rows, archive, nil, nil)
	}
	return contract.ImportPreview{Format: "everything", New: len(archive.Rows.Todos)}, err
}

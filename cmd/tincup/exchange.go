package main

import (
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"net/http"
	"net/url"
	"os"
	"path/filepath"
	"strings"
	"time"

	"github.com/spf13/cobra"

	"tincup/internal/app"
	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/exchange"
	"tincup/internal/formats"
	"tincup/internal/formats/everything"
	"tincup/internal/httpapi/contract"
	"tincup/internal/store"
)

// maxImport is the largest file that comes in, in bytes; the server takes no larger one either.
const maxImport = 100 << 20

func importCommand() *cobra.Command {
	f := &flags{}
	var format, list string
	var dry, asJSON bool
	cmd := &cobra.Command{
		Use:   "import FILE",
		Short: "Bring to-dos in from a file",
		Long: `Import brings in the to-dos of a file, in one change that can be undone as one. A
to-do that is known already is changed field by field; what breaks a rule is left
out and named. Where a server has the data file open, it is asked to. Status 3
where something was left out.`,
		Example: `  tincup import --dry-run lamps.ics
  tincup import --list "Night Signals" lamps.ics`,
		Args: cobra.ExactArgs(1),
		RunE: func(cmd *cobra.Command, args []string) error {
			text, err := readAtMost(args[0], maxImport)
			if err != nil {
				return err
			}
			p, err := f.bringIn(cmd.Context(), filepath.Base(args[0]), text, format, list, dry)
			if err != nil {
				return err
			}
			if asJSON {
				if err := json.NewEncoder(os.Stdout).Encode(p); err != nil {
					return err
				}
			} else {
				printPreview(os.Stdout, p, dry)
			}
			if p.Refused > 0 {
				return errRefused
			}
			return nil
		},
	}
	cmd.Flags().StringVar(&format, "format", "", "the format: "+formats.Names()+"; without, it is told from the file")
	cmd.Flags().StringVar(&list, "list", "", "the list for what names none; without, the Cup")
	cmd.Flags().BoolVar(&dry, "dry-run", false, "say what would become of each, and keep nothing")
	cmd.Flags().BoolVar(&asJSON, "json", false, "say it as JSON")
	f.onFile(cmd)
	f.onTime(cmd)
	return cmd
}

// readAtMost reads a file of bounded size.
func readAtMost(path string, most int64) ([]byte, error) {
	file, err := os.Open(path)
	if err != nil {
		return nil, err
	}
	defer file.Close()
	text, err := io.ReadAll(io.LimitReader(file, most+1))
	if err == nil && int64(len(text)) > most {
		err = fmt.Errorf("%s has more than %d MB, which is the most", path, most>>20)
	}
	return text, err
}

// on runs f at the App that opens the data file, or g at the address of the process that holds it.
func (f *flags) on(ctx context.Context, here func(*app.App) error, there func(address string) error) error {
	path, err := f.path("tincup.db")
	if err != nil {
		return err
	}
	deadline := time.Now().Add(holderPatience)
	for {
		err := f.openFor(ctx, path, here)
		var held *store.HeldError
		if !errors.As(err, &held) {
			return explained(err)
		}
		if held.Holder.Address != "" {
			err = there(held.Holder.Address)
			var away *url.Error
			if !errors.As(err, &away) {
				return err
			}
		}
		if time.Now().After(deadline) {
			return explained(err)
		}
		time.Sleep(50 * time.Millisecond)
	}
}

func (f *flags) openFor(ctx context.Context, path string, do func(*app.App) error) error {
	settings, source, err := f.world()
	if err != nil {
		return err
	}
	f.quiet = true
	settings.Once = true
	a, err := app.Open(ctx, path, source, settings, f.logger())
	if err != nil {
		return err
	}
	return errors.Join(do(a), a.Close())
}

// named finds a list by its name; "" and cup are none.
func named(s *app.Session, name string) (id book.ID, err error) {
	if name == "" || strings.EqualFold(name, "cup") {
		return id, nil
	}
	err = fmt.Errorf("there is no list called “%s”", name)
	s.Read(func(b *book.Desk, _ day.Clock) {
		for _, l := range b.Lists() {
			if l.Listed() && strings.EqualFold(l.Name, name) {
				id, err = l.ID, nil
			}
		}
	})
	return id, err
}

func (f *flags) bringIn(ctx context.Context, file string, text []byte, format, list string, dry bool) (p contract.ImportPreview, err error) {
	key := app.NewID().String() // one key: whichever try arrives counts once
	err = f.on(ctx, func(a *app.App) error {
		p, err = bringInHere(ctx, a, file, text, format, list, dry)
		return err
	}, func(address string) error {
		q := url.Values{"name": {file}}
		if format != "" {
			q.Set("format", format)
		}
		if list != "" {
			lists, err := listsAt(ctx, address)
			if err != nil {
				return err
			}
			id, ok := lists[strings.ToLower(list)]
			if !ok && !strings.EqualFold(list, "cup") {
				return fmt.Errorf("there is no list called “%s”", list)
			}
			q.Set("list", id)
		}
		answer, err := ask(ctx, http.MethodPost, "http://"+address+"/api/import/look?"+q.Encode(), text, "")
		if err != nil {
			return err
		}
		if err := json.Unmarshal(answer, &p); err != nil || dry || p.New+p.Changed == 0 {
			return err
		}
		_, err = ask(ctx, http.MethodPost, "http://"+address+"/api/import?"+q.Encode(), text, key)
		return err
	})
	return p, err
}

func bringInHere(ctx context.Context, a *app.App, file string, text []byte, format, list string, dry bool) (out contract.ImportPreview, err error) {
	if everything.Is(text) {
		return moveInHere(ctx, a, text, dry)
	}
	codec, known := formats.Guess(file, text)
	if format != "" {
		codec, known = formats.Named(format)
	}
	if !known {
		return out, fmt.Errorf("%s is of no format that is known here: %s are", file, formats.Names())
	}
	s := a.Owner()
	into, err := named(s, list)
	if err != nil {
		return out, err
	}
	items, refused, err := codec.Read(text, s.World())
	var wrong *exchange.Error
	if errors.As(err, &wrong) && wrong.Line > 0 {
		err = fmt.Errorf("line %d: %w", wrong.Line, err)
	}
	if err != nil {
		return out, err
	}
	p, err := s.Look(ctx, items, refused, into, nil)
	if err == nil && !dry && p.New+p.Changed > 0 {
		_, err = s.BringIn(ctx, app.Request{Window: "tincup import"}, items, into, nil, nil)
	}
	out = contract.ImportPreview{Format: codec.Name, New: p.New, Changed: p.Changed, Same: p.Same, Refused: p.Refused, Says: p.Says}
	if p.Like > 0 {
		out.Like = &p.Like
	}
	if p.ToNotes > 0 {
		out.ToNotes = &p.ToNotes
	}
	if len(p.Passed) > 0 {
		passed := make([]contract.PassedProperty, len(p.Passed))
		for i, one := range p.Passed {
			passed[i] = contract.PassedProperty{Name: one.Name, Count: one.Count}
		}
		out.Passed = &passed
	}
	for _, r := range p.Rows {
		row := contract.ImportRow{What: contract.ImportRowWhat(r.What), Title: r.Title, Depth: r.Depth}
		if r.Line > 0 {
			row.Line = &r.Line
		}
		if r.Reason != "" {
			row.Reason = &r.Reason
		}
		if len(r.Remarks) > 0 {
			row.Remarks = &r.Remarks
		}
		out.Rows = append(out.Rows, row)
	}
	return out, err
}

// listsAt are the ids of a server's lists, by their names in small letters.
func listsAt(ctx context.Context, address string) (map[string]string, error) {
	answer, err := ask(ctx, http.MethodGet, "http://"+address+"/api/overview", nil, "")
	if err != nil {
		return nil, err
	}
	var o contract.Overview
	if err := json.Unmarshal(answer, &o); err != nil {
		return nil, err
	}
	ids := map[string]string{}
	for _, shelf := range o.Shelves {
		for _, l := range shelf.Lists {
			ids[strings.ToLower(l.Name)] = l.Id
		}
	}
	for _, v := range o.Views {
		ids["view "+strings.ToLower(v.Name)] = v.Id
	}
	return ids, nil
}

// ask asks a server. A refusal is in its own words.
func ask(ctx context.Context, method, address string, body []byte, key string) ([]byte, error) {
	ctx, cancel := context.WithTimeout(ctx, time.Minute)
	defer cancel()
	req, err := http.NewRequestWithContext(ctx, method, address, bytes.NewReader(body))
	if err != nil {
		return nil, err
	}
	if method == http.MethodPost {
		req.Header.Set("Content-Type", "application/octet-stream")
		req.Header.Set("Window-Id", "tincup import")
	}
	if key != "" {
		req.Header.Set("Idempotency-Key", key)
	}
	res, err := http.DefaultClient.Do(req)
	if err != nil {
		return nil, err
	}
	answer, err := io.ReadAll(res.Body)
	if err := errors.Join(err, res.Body.Close()); err != nil {
		return nil, err
	}
	if res.StatusCode >= 400 {
		var p contract.Problem
		if json.Unmarshal(answer, &p) != nil || p.Detail == "" {
			p.Detail = "the server answered " + res.Status
		}
		return nil, &refusal{p.Detail}
	}
	return answer, nil
}

func printPreview(w io.Writer, p contract.ImportPreview, dry bool) {
	for _, r := range p.Rows {
		at := ""
		if r.Line != nil {
			at = fmt.Sprintf("line %d: ", *r.Line)
		}
		if r.Reason != nil {
			fmt.Fprintf(w, "left out, %s“%s”: %s\n", at, r.Title, *r.Reason)
		}
		if r.Remarks != nil {
			for _, remark := range *r.Remarks {
				fmt.Fprintf(w, "%s“%s”: %s\n", at, r.Title, remark)
			}
		}
	}
	would := ""
	if dry {
		would = " would be"
	}
	fmt.Fprintf(w, "%d%s new, %d changed, %d the same, %d left out\n", p.New, would, p.Changed, p.Same, p.Refused)
	if p.Like != nil {
		fmt.Fprintf(w, "%d of the new look like one that is there, by title, list and due\n", *p.Like)
	}
	if p.ToNotes != nil {
		fmt.Fprintf(w, "%d could not be read as they stand, and go to the notes\n", *p.ToNotes)
	}
	if p.Passed != nil {
		for _, passed := range *p.Passed {
			fmt.Fprintf(w, "not taken over: %s in %d\n", passed.Name, passed.Count)
		}
	}
}

// Package everything writes all that an account has as one ZIP file, and reads it for an empty
// installation.
//
//	README.txt           what is in it, for people
//	to-dos.json          the to-dos as JSCalendar (RFC 8984), for other programs
//	history.csv          what was done, a sentence a row: at, says (RFC 4180)
//	book.json            every row, as the history of the data file has them: version, rows
//	files/HASH           the attached files, by the SHA-256 of their bytes
//	calendars/ID.ics     what was last read of each calendar (RFC 5545)
//
// Reading takes book.json and what it names of files and calendars, and nothing else: ids, order,
// the bin, what was ticked, rings, views and settings come back. What the history could undo does
// not. Nothing is ever written under a name that stands in the ZIP.
package everything

import (
	"archive/zip"
	"bytes"
	"context"
	"encoding/csv"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"path"
	"regexp"
	"slices"
	"strings"
	"time"

	"tincup/internal/core/book"
	"tincup/internal/core/exchange"
	"tincup/internal/formats/column"
	"tincup/internal/formats/jscal"
)

// version is that of book.json.
const version = 1

// What is read at most.
const (
	maxFiles   = 20 << 30 // bytes of attached files
	maxEntries = 200_000
	maxEvents  = 32 << 20 // bytes of a calendar
)

// Contents is what goes into a file.
type Contents struct {
	Made  time.Time
	Rows  *book.Change
	Items []exchange.Item
	World exchange.World
	// Said is what was done, the oldest first.
	Said []Sentence
	// Open opens an attached file by its hash. One that is not there is left out.
	Open func(hash string) (io.ReadCloser, error)
	// Calendars are the texts of calendars by their ids.
	Calendars map[book.ID][]byte
}

// Sentence is something that was done.
type Sentence struct {
	At   time.Time
	Says string
}

const readme = `Everything of a Tin Cup installation, made %s.

to-dos.json   the to-dos as JSCalendar (RFC 8984): other programs can read it
history.csv   what was done, a sentence a row
book.json     every row, from which Tin Cup makes the same again: tincup import FILE.zip
files/        the attached files, by the SHA-256 of their bytes
calendars/    the calendars as they were last read
`

type rowsFile struct {
	Version int             `json:"version"`
	Rows    json.RawMessage `json:"rows"`
}

// Write writes a file. Errors are the writer's, those of Open, or the context's.
func Write(ctx context.Context, out io.Writer, c Contents) error {
	z := zip.NewWriter(out)
	put := func(name string, text []byte) error {
		w, err := z.CreateHeader(&zip.FileHeader{Name: name, Method: zip.Deflate, Modified: c.Made})
		if err == nil {
			_, err = w.Write(text)
		}
		return err
	}
	rows, err := c.Rows.Pack()
	var packed, items []byte
	if err == nil {
		packed, err = json.Marshal(rowsFile{version, rows})
	}
	if err == nil {
		items, err = jscal.Format{}.Write(c.Items, c.World)
	}
	if err != nil {
		return err
	}
	for _, part := range []struct {
		name string
		text []byte
	}{
		{"README.txt", fmt.Appendf(nil, readme, c.Made.UTC().Format("2006-01-02 15:04 UTC"))},
		{"to-dos.json", items}, {"history.csv", history(c.Said)}, {"book.json", packed},
	} {
		if err := put(part.name, part.text); err != nil {
			return err
		}
	}
	for _, hash := range hashes(c.Rows) {
		if err := ctx.Err(); err != nil {
			return err
		}
		if err := attach(z, c, hash); err != nil {
			return err
		}
	}
	for _, d := range c.Rows.Calendars {
		if text := c.Calendars[d.After.ID]; text != nil {
			if err := put(calendarName(d.After.ID), text); err != nil {
				return err
			}
		}
	}
	return z.Close()
}

func attach(z *zip.Writer, c Contents, hash string) error {
	in, err := c.Open(hash)
	if err != nil || in == nil {
		return err
	}
	w, err := z.CreateHeader(&zip.FileHeader{Name: "files/" + hash, Method: zip.Deflate, Modified: c.Made})
	if err == nil {
		_, err = io.Copy(w, in)
	}
	return errors.Join(err, in.Close())
}

func calendarName(id book.ID) string { return "calendars/" + id.String() + ".ics" }

// hashes are those of the attached files, each once.
func hashes(rows *book.Change) (all []string) {
	for _, d := range rows.Todos {
		for _, a := range d.After.Attachments {
			all = append(all, a.Hash)
		}
	}
	slices.Sort(all)
	return slices.Compact(all)
}

func history(said []Sentence) []byte {
	var out bytes.Buffer
	w := csv.NewWriter(&out)
	w.UseCRLF = true
	rows := [][]string{{"at", "says"}}
	for _, s := range said {
		rows = append(rows, []string{s.At.UTC().Format(time.RFC3339), column.Safe(s.Says)})
	}
	_ = w.WriteAll(rows) // a buffer takes all
	return out.Bytes()
}

// Archive is a file that was opened.
type Archive struct {
	Rows *book.Change
	zip  map[string]*zip.File
}

var hashName = regexp.MustCompile(`^[0-9a-f]{64}$`)

func wrong(format string, args ...any) error {
	return &exchange.Error{Reason: fmt.Sprintf(format, args...)}
}

// ours reports whether an error is one of wrong.
func ours(err error) bool {
	var e *exchange.Error
	return errors.As(err, &e)
}

// Is reports whether a file begins as a ZIP does.
func Is(head []byte) bool { return bytes.HasPrefix(head, []byte("PK\x03\x04")) }

// Read opens a file and reads its rows. The error is an *exchange.Error, or the reader's.
func Read(in io.ReaderAt, size int64) (*Archive, error) {
	z, err := zip.NewReader(in, size)
	if err != nil {
		return nil, wrong("The file is no whole ZIP (%s). Take everything out once more.", err)
	}
	if len(z.File) > maxEntries {
		return nil, wrong("The ZIP has %d files; %d is the most.", len(z.File), maxEntries)
	}
	a := &Archive{zip: map[string]*zip.File{}}
	for _, f := range z.File {
		if clean := path.Clean(f.Name); path.IsAbs(clean) || clean == ".." || strings.HasPrefix(clean, "../") || strings.Contains(f.Name, `\`) {
			return nil, wrong("The ZIP holds a file that would climb out of it (%.80q). It was not made here.", f.Name)
		}
		if a.zip[f.Name] != nil {
			return nil, wrong("The ZIP holds %.80q twice.", f.Name)
		}
		a.zip[f.Name] = f
	}
	rows := a.zip["book.json"]
	if rows == nil {
		return nil, wrong("There is no book.json in the ZIP. Everything of an installation has one.")
	}
	text, err := rows.Open()
	if err != nil {
		return nil, wrong("book.json in the ZIP cannot be read: %s.", err)
	}
	a.Rows, err = readRows(text, min(int64(rows.CompressedSize64), size))
	if closing := text.Close(); err == nil && closing != nil {
		err = wrong("book.json in the ZIP cannot be read: %s.", closing)
	}
	if err != nil {
		return nil, err
	}
	var total int64
	for _, hash := range hashes(a.Rows) {
		if f := a.zip["files/"+hash]; f == nil || !hashName.MatchString(hash) {
			return nil, wrong("An attached file is missing in the ZIP: files/%.64s.", hash)
		} else if f.UncompressedSize64 > book.MaxAttachment {
			return nil, wrong("files/%s has %d MB; %d MB is the most.", hash, f.UncompressedSize64>>20, book.MaxAttachment>>20)
		} else if total += int64(f.UncompressedSize64); total > maxFiles {
			return nil, wrong("The attached files have more than %d GB.", maxFiles>>30)
		}
	}
	return a, nil
}

// text reads a file whole; no more than most bytes of it.
func (a *Archive) text(name string, most int64) ([]byte, error) {
	f := a.zip[name]
	if f == nil {
		return nil, wrong("There is no %s in the ZIP.", name)
	}
	in, err := f.Open()
	if err != nil {
		return nil, wrong("%s in the ZIP cannot be read: %s.", name, err)
	}
	text, err := io.ReadAll(io.LimitReader(in, most+1))
	if err := errors.Join(err, in.Close()); err != nil {
		return nil, wrong("%s in the ZIP cannot be read: %s.", name, err)
	}
	if int64(len(text)) > most {
		return nil, wrong("%s in the ZIP has more than %d MB when it is unpacked.", name, most>>20)
	}
	return text, nil
}

// Files are the hashes of the attached files.
func (a *Archive) Files() []string { return hashes(a.Rows) }

// Open opens an attached file.
func (a *Archive) Open(hash string) (io.ReadCloser, error) {
	in, err := a.zip["files/"+hash].Open()
	if err != nil {
		return nil, wrong("files/%s in the ZIP cannot be read: %s.", hash, err)
	}
	return in, nil
}

// Calendar is the text of a calendar; nil for none.
func (a *Archive) Calendar(id book.ID) ([]byte, error) {
	if a.zip[calendarName(id)] == nil {
		return nil, nil
	}
	return a.text(calendarName(id), maxEvents)
}

// Counts say how much there is of each kind, in words.
func (a *Archive) Counts() (all []string) {
	for _, kind := range []struct {
		n         int
		one, many string
	}{
		{len(a.Rows.Todos), "to-do", "to-dos, those that are done and in the bin among them"}, {len(a.Rows.Lists), "list", "lists"}, {len(a.Rows.Tags), "tag", "tags"},
		{len(a.Rows.People), "person", "people"}, {len(a.Rows.Places), "place", "places"}, {len(a.Rows.Views), "view of your own", "views of your own"},
		{len(a.Rows.Calendars), "calendar", "calendars"}, {len(hashes(a.Rows)), "attached file", "attached files"},
	} {
		switch {
		case kind.n == 1:
			all = append(all, "1 "+kind.one)
		case kind.n > 1:
			all = append(all, fmt.Sprintf("%d %s", kind.n, kind.many))
		}
	}
	if len(a.Rows.Settings) > 0 {
		all = append(all, "the settings")
	}
	return all
}

package everything

import (
	"encoding/json"
	"errors"
	"fmt"
	"io"

	"tincup/internal/core/book"
)

// Bounds of book.json, in bytes once it is unpacked. A ZIP can say very much in few
// bytes: what comes out is bounded by what went in.
const (
	maxRows = 1 << 30
	// leastRows is granted to any ZIP, and perPacked for each byte that book.json takes in it. Rows
	// of 100,000 to-dos that are nearly the same pack to one byte in thirty.
	leastRows = 16 << 20
	perPacked = 60
	// mostRows is how many rows there are of all kinds.
	mostRows = 500_000
	// maxRow is one row: notes of 64 KiB, each character escaped, are 400 kB.
	maxRow = 4 << 20
)

// errRowTooLarge says that a row takes more than maxRow.
var errRowTooLarge = errors.New("one row has more than 4 MB")

// rowReader reads book.json piece by piece and never holds more than one row of it as text.
type rowReader struct {
	in      io.Reader
	most    int64 // that come out, in bytes
	came    int64 // so far
	count   int   // of rows so far
	decoder *json.Decoder
}

// errTooMuch says that more comes out than may.
type errTooMuch struct{ most int64 }

func (e errTooMuch) Error() string { return fmt.Sprintf("more than %d MB come out of it", e.most>>20) }

// Read implements io.Reader for the decoder. It fails where too much has come, or where the row
// that is being read is too large.
func (r *rowReader) Read(p []byte) (int, error) {
	n, err := r.in.Read(p)
	if r.came += int64(n); r.came > r.most {
		return 0, errTooMuch{r.most}
	}
	if r.came-r.decoder.InputOffset() > maxRow {
		return 0, errRowTooLarge
	}
	return n, err
}

// readRows reads book.json; packed is how many bytes it takes in the ZIP.
func readRows(in io.Reader, packed int64) (*book.Change, error) {
	r := &rowReader{in: in, most: min(maxRows, leastRows+perPacked*packed)}
	r.decoder = json.NewDecoder(r)
	rows, is := (*book.Change)(nil), 0
	err := r.object(func(name string) (err error) {
		switch name {
		case "version":
			err = r.decoder.Decode(&is)
		case "rows":
			if is != version {
				return wrong("book.json in the ZIP is of version %d; this program reads version %d. Use a newer one.", is, version)
			}
			rows = &book.Change{}
			if err = r.rows(rows); err != nil && !ours(err) {
				err = wrong("The rows in book.json cannot be read: %s.", err)
			}
		default:
			err = r.pass()
		}
		return err
	})
	switch {
	case err == nil && is != version:
		err = wrong("book.json in the ZIP is of version %d; this program reads version %d. Use a newer one.", is, version)
	case err == nil && rows == nil:
		err = wrong("book.json in the ZIP has no rows.")
	case err != nil && !ours(err):
		err = wrong("book.json in the ZIP is no JSON that is known here: %s.", err)
	}
	return rows, err
}

func (r *rowReader) rows(c *book.Change) error {
	return r.object(func(name string) error {
		switch name {
		case "Todos":
			return rowsOf(r, &c.Todos)
		case "Notes":
			return rowsOf(r, &c.Notes)
		case "Lists":
			return rowsOf(r, &c.Lists)
		case "Sections":
			return rowsOf(r, &c.Sections)
		case "Shelves":
			return rowsOf(r, &c.Shelves)
		case "Tags":
			return rowsOf(r, &c.Tags)
		case "People":
			return rowsOf(r, &c.People)
		case "Views":
			return rowsOf(r, &c.Views)
		case "Settings":
			return rowsOf(r, &c.Settings)
		case "Calendars":
			return rowsOf(r, &c.Calendars)
		case "Rings":
			return rowsOf(r, &c.Rings)
		case "Places":
			return rowsOf(r, &c.Places)
		}
		return r.pass()
	})
}

// rowsOf reads an array of rows.
func rowsOf[T any](r *rowReader, into *[]book.Diff[T]) error {
	if err := r.delim('['); err != nil {
		return err
	}
	for r.decoder.More() {
		var row book.Diff[T]
		if err := r.decoder.Decode(&row); err != nil {
			return err
		}
		if r.count++; r.count > mostRows {
			return fmt.Errorf("there are more than %d", mostRows)
		}
		if row.After == nil {
			return fmt.Errorf("up to byte %d there is an entry without a row", r.decoder.InputOffset())
		}
		*into = append(*into, book.Diff[T]{After: row.After})
	}
	return r.delim(']')
}

// object reads an object, a member at a time.
func (r *rowReader) object(member func(name string) error) error {
	if err := r.delim('{'); err != nil {
		return err
	}
	for r.decoder.More() {
		token, err := r.decoder.Token()
		if err != nil {
			return err
		}
		name, _ := token.(string) // the decoder lets nothing else stand here
		if err := member(name); err != nil {
			return err
		}
	}
	return r.delim('}')
}

// pass passes over a value.
func (r *rowReader) pass() error {
	var value json.RawMessage
	return r.decoder.Decode(&value)
}

func (r *rowReader) delim(want json.Delim) error {
	token, err := r.decoder.Token()
	if err == nil && token != want {
		err = fmt.Errorf("at byte %d there is %v where %s is wanted", r.decoder.InputOffset(), token, want)
	}
	return err
}

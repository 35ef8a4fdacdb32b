package everything_test

import (
	"archive/zip"
	"bytes"
	"errors"
	"fmt"
	"io"
	"strings"
	"testing"
	"time"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/exchange"
	"tincup/internal/formats/everything"
)

// packed is a ZIP of some files, by their names in turn.
func packed(t testing.TB, parts ...string) []byte {
	t.Helper()
	var out bytes.Buffer
	z := zip.NewWriter(&out)
	for i := 0; i < len(parts); i += 2 {
		w, err := z.Create(parts[i])
		if err == nil {
			_, err = io.WriteString(w, parts[i+1])
		}
		if err != nil {
			t.Fatal(err)
		}
	}
	if err := z.Close(); err != nil {
		t.Fatal(err)
	}
	return out.Bytes()
}

func read(file []byte) (*everything.Archive, error) {
	return everything.Read(bytes.NewReader(file), int64(len(file)))
}

func TestWriteAndRead(t *testing.T) {
	hash := strings.Repeat("ab", 32)
	calendar := book.ID{7}
	rows := &book.Change{Kind: "move-in", Todos: []book.Diff[book.Todo]{{After: &book.Todo{ID: book.ID{1}, Title: "Count the lamps", Position: "e0V000",
		Attachments: []book.Attachment{{Name: "plan.txt", Hash: hash, Type: "text/plain", Size: 8}}}}},
		Calendars: []book.Diff[book.Calendar]{{After: &book.Calendar{ID: calendar, Name: "Rota"}}}}
	var out bytes.Buffer
	err := everything.Write(t.Context(), &out, everything.Contents{Made: time.Date(2026, 11, 24, 9, 10, 0, 0, time.UTC), Rows: rows,
		World: exchange.World{Zone: time.UTC}, Said: []everything.Sentence{{time.Unix(0, 0), "=Put in: “a, b”"}},
		Open:      func(hash string) (io.ReadCloser, error) { return io.NopCloser(strings.NewReader("the plan")), nil },
		Calendars: map[book.ID][]byte{calendar: []byte("BEGIN:VCALENDAR")}})
	if err != nil {
		t.Fatal(err)
	}
	a, err := read(out.Bytes())
	if err != nil {
		t.Fatal(err)
	}
	if got := a.Rows.Todos[0].After; got.Title != "Count the lamps" || got.Attachments[0].Hash != hash {
		t.Errorf("read as %+v", got)
	}
	in, err := a.Open(a.Files()[0])
	if err != nil {
		t.Fatal(err)
	}
	if text, err := io.ReadAll(in); string(text) != "the plan" {
		t.Errorf("the file is %q, %v", text, err)
	}
	if text, err := a.Calendar(calendar); string(text) != "BEGIN:VCALENDAR" {
		t.Errorf("the calendar is %q, %v", text, err)
	}
	if got := fmt.Sprint(a.Counts()); got != "[1 to-do 1 calendar 1 attached file]" {
		t.Errorf("it counts %s", got)
	}
	z, err := zip.NewReader(bytes.NewReader(out.Bytes()), int64(out.Len()))
	if err != nil {
		t.Fatal(err)
	}
	said, err := z.Open("history.csv")
	if err != nil {
		t.Fatal(err)
	}
	if text, err := io.ReadAll(said); string(text) != "at,says\r\n1970-01-01T00:00:00Z,\"'=Put in: “a, b”\"\r\n" {
		t.Errorf("history.csv is %q, %v", text, err)
	}
}

func TestReadRefuses(t *testing.T) {
	rows := `{"version":1,"rows":{"Revision":0,"Kind":"","Says":""}}`
	good := packed(t, "book.json", rows)
	if _, err := read(good); err != nil {
		t.Fatal(err)
	}
	attached := `{"version":1,"rows":{"Todos":[{"after":{"ID":"01936f00-0000-7000-8000-000000000001","Title":"a","Attachments":[{"Name":"x","Hash":"%s"}]}}]}}`
	for name, c := range map[string]struct {
		file []byte
		says string
	}{
		"cut off":                 {good[:len(good)-20], "no whole ZIP"},
		"empty":                   {nil, "no whole ZIP"},
		"another ZIP":             {packed(t, "letter.txt", "x"), "no book.json"},
		"a path that climbs out":  {packed(t, "book.json", rows, "../../etc/lamps", "x"), "climb out"},
		"an absolute path":        {packed(t, "book.json", rows, "/etc/lamps", "x"), "climb out"},
		"a path of backslashes":   {packed(t, "book.json", rows, `..\lamps`, "x"), "climb out"},
		"a name twice":            {packed(t, "book.json", rows, "book.json", rows), "twice"},
		"no JSON":                 {packed(t, "book.json", "{"), "no JSON"},
		"a version to come":       {packed(t, "book.json", `{"version":2}`), "version 2"},
		"rows of another kind":    {packed(t, "book.json", `{"version":1,"rows":[]}`), "cannot be read"},
		"an id that is none":      {packed(t, "book.json", `{"version":1,"rows":{"Todos":[{"after":{"ID":"x"}}]}}`), "cannot be read"},
		"a row that is none":      {packed(t, "book.json", `{"version":1,"rows":{"Todos":[{}]}}`), "an entry without a row"},
		"a row beyond all sizes":  {packed(t, "book.json", `{"version":1,"rows":{"Todos":[{"after":{"Title":"`+strings.Repeat("ring the framer ", 300_000)+`"}}]}}`), "one row has more than 4 MB"},
		"very much of nothing":    {packed(t, "book.json", `{"version":1,"rows":{"Todos":[`+strings.Repeat(" ", 90<<20)+`]}}`), "has more than 4 MB"},
		"very many rows":          {packed(t, "book.json", `{"version":1,"rows":{"Todos":[`+strings.Repeat(`{"after":{"Title":"a"}},`, 500_000)+`{"after":{}}]}}`), "more than 500000"},
		"more than it may":        {packed(t, "book.json", `{"version":1,"rows":{"Todos":[`+strings.Repeat(`{"after":{"Title":"`+strings.Repeat("a", 1<<20)+`"}},`, 30)+`{"after":{}}]}}`), "17 MB come out of it"},
		"a file that is not in":   {packed(t, "book.json", fmt.Sprintf(attached, strings.Repeat("0", 64))), "missing in the ZIP"},
		"a hash that is a path":   {packed(t, "book.json", fmt.Sprintf(attached, "a/b"), "files/a/b", "x"), "missing in the ZIP"},
		"a file beyond all sizes": {packed(t, "book.json", fmt.Sprintf(attached, strings.Repeat("0", 64)), "files/"+strings.Repeat("0", 64), strings.Repeat("0", 26<<20)), "25 MB is the most"},
	} {
		_, err := read(c.file)
		var wrong *exchange.Error
		if !errors.As(err, &wrong) || !strings.Contains(wrong.Reason, c.says) {
			t.Errorf("%s: %v; want %q", name, err, c.says)
		}
	}
}

// Whatever stands in book.json is refused, or leaves a Book that is sound.
func FuzzRows(f *testing.F) {
	const id, list = "01936f00-0000-7000-8000-000000000001", "01936f00-0000-7000-8000-000000000002"
	f.Add(`{"Todos":[{"after":{"ID":"` + id + `","Title":"a","Position":"e0V000"}}]}`)
	f.Add(`{"Todos":[{"after":{"ID":"` + id + `","Title":"a","List":"` + list + `","Position":"e0V000","Due":"2026-11-27T16:00","Reminders":["-PT30M"],"NotesSize":3}}],
		"Notes":[{"after":{"Todo":"` + id + `","Text":"abc"}}],"Shelves":[{"after":{"ID":"01936f00-0000-7000-8000-000000000003","Name":"S","Position":"e0V000"}}],
		"Lists":[{"after":{"ID":"` + list + `","Name":"L","Shelf":"01936f00-0000-7000-8000-000000000003","Colour":"","Position":"e0V000"}}]}`)
	f.Fuzz(func(t *testing.T, rows string) {
		a, err := read(packed(t, "book.json", `{"version":1,"rows":`+rows+`}`))
		if err != nil {
			return
		}
		b, desk := book.Alone(book.MemoryNotes{})
		clock := day.Clock{Now: time.Date(2026, 11, 24, 9, 10, 0, 0, time.UTC), Zone: time.UTC}
		n := byte(0)
		change, err := desk.Do(book.Env{Clock: clock, NewID: func() book.ID { n++; return book.ID{15: n} }}, book.MoveIn{Rows: a.Rows})
		if err != nil || change.Empty() {
			return
		}
		b.Apply(change)
		for _, fault := range desk.Faults(clock.Today()) {
			if fault.Gravity != book.Clash {
				t.Errorf("moved in with a fault: %s", fault.Says)
			}
		}
	})
}

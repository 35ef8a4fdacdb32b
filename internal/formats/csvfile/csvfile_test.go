package csvfile_test

import (
	"encoding/binary"
	"errors"
	"strings"
	"testing"
	"time"
	"unicode/utf16"

	"tincup/internal/core/book"
	"tincup/internal/core/exchange"
	"tincup/internal/formats/csvfile"
)

func read(t testing.TB, text string) ([]exchange.Item, []exchange.Refusal, error) {
	t.Helper()
	return csvfile.Format{}.Read([]byte(text), exchange.World{Zone: time.UTC})
}

// RFC 4180 section 2, its examples under a first row of ours: line ends at the end or not, quoted
// values with commas, line breaks and doubled quotes.
func TestExamplesOfTheStandard(t *testing.T) {
	for text, want := range map[string]string{
		"title,notes,place\r\naaa,bbb,ccc\r\nzzz,yyy,xxx\r\n":              "aaa/bbb/ccc zzz/yyy/xxx",
		"title,notes,place\r\naaa,bbb,ccc\r\nzzz,yyy,xxx":                  "aaa/bbb/ccc zzz/yyy/xxx",
		"title,notes,place\r\n\"aaa\",\"bbb\",\"ccc\"\r\nzzz,yyy,xxx":      "aaa/bbb/ccc zzz/yyy/xxx",
		"title,notes,place\r\n\"aaa\",\"b \r\nbb\",\"ccc\"\r\nzzz,yyy,xxx": "aaa/b \nbb/ccc zzz/yyy/xxx",
		"title,notes,place\r\n\"aaa\",\"b\"\"bb\",\"ccc\"":                 "aaa/b\"bb/ccc",
	} {
		items, refused, err := read(t, text)
		var got []string
		for _, i := range items {
			got = append(got, i.Todo.Title+"/"+i.Notes+"/"+i.Todo.Place)
		}
		if strings.Join(got, " ") != want || err != nil || len(refused) > 0 {
			t.Errorf("%q reads %q, %+v, %v; want %q", text, got, refused, err, want)
		}
	}
}

// What other programs write; no source.
func TestLenient(t *testing.T) {
	items, refused, err := read(t, "\xef\xbb\xbfTask;Due Date;Done;Labels;Nobody knows;Priority;Notes\n"+
		"Order board;27/11/2026;yes;#calls, suppliers;x;high;\n\nRing him;27.11.2026 16:00;no;;;;\"a\nb\"\n'=1+1;;;;;;'quoted'\n")
	if err != nil || len(refused) > 0 || len(items) != 3 {
		t.Fatalf("%+v, %+v, %v", items, refused, err)
	}
	a, b, c := items[0], items[1], items[2]
	if a.Todo.Title != "Order board" || a.Todo.Due.String() != "2026-11-27" || a.Todo.Status != book.Completed || strings.Join(a.Tags, " ") != "calls suppliers" || a.Todo.Priority != book.High || a.Line != 2 {
		t.Errorf("the first is %+v", a)
	}
	if b.Todo.Due.String() != "2026-11-27T16:00" || !b.Todo.Status.Open() || b.Notes != "a\nb" || b.Line != 4 {
		t.Errorf("the second is %+v", b)
	}
	if c.Todo.Title != "=1+1" || c.Notes != "'quoted'" {
		t.Errorf("the third is %+v", c)
	}
	if carried := strings.Join(a.Carries.Names(), " "); carried != "title notes status priority due tags" {
		t.Errorf("the columns tell of %s", carried)
	}
	for _, order := range []binary.AppendByteOrder{binary.LittleEndian, binary.BigEndian} {
		var text []byte
		for _, unit := range utf16.Encode([]rune("\ufefftitle\tplace\nété\tHölle\n")) {
			text = order.AppendUint16(text, unit)
		}
		if items, _, err := read(t, string(text)); err != nil || len(items) != 1 || items[0].Todo.Title != "été" || items[0].Todo.Place != "Hölle" {
			t.Errorf("UTF-16: %+v, %v", items, err)
		}
	}
}

func TestFormulasAreWrittenSafely(t *testing.T) {
	var items []exchange.Item
	titles := []string{"=HYPERLINK(1)", "+1", "-1", "@x", "'=1", "''x", "'plain", "x=1", "'", " =1+1", "\u00a0=1", "\u200b=1", "\ufeff@x", "＝1+1", " ＋1", "－1", "＠x", " '=1", " plain", "ж=1"}
	for _, title := range titles {
		items = append(items, exchange.Item{Incoming: book.Incoming{Under: -1, Todo: book.Todo{Title: title}}})
	}
	text, err := csvfile.Format{}.Write(items, exchange.World{})
	if err != nil {
		t.Fatal(err)
	}
	for line := range strings.Lines(string(text)) {
		if strings.ContainsAny(line[:1], "=+-@") {
			t.Errorf("a spreadsheet reckons %s", line)
		}
	}
	back, _, err := read(t, string(text))
	if err != nil || len(back) != len(titles) {
		t.Fatalf("%d come back, %v", len(back), err)
	}
	for i, title := range titles {
		if back[i].Todo.Title != strings.TrimSpace(title) { // which is what a to-do is called
			t.Errorf("%q comes back as %q", title, back[i].Todo.Title)
		}
	}
}

// A value that cannot be read does not take its row with it: it goes to the notes, and is told.
func TestWhatGoesToTheNotes(t *testing.T) {
	for row, want := range map[string]struct{ left, says string }{
		"A,31/02/2026,,,,,":                  {"Due: 31/02/2026", "there is no such date"},
		"A,,long,,,,":                        {"estimate: long", "a length such as 1h 30m"},
		"A,,,FREQ=HOURLY,,,":                 {"repeat: FREQ=HOURLY", "nothing comes round"},
		"A,,,,soon,,":                        {"reminders: soon", "is not a date"},
		"A,,,,,2026-12-24,,,more,":           {"more", "behind the last column"},
		"A,2026-11-27,,,,2026-12-24,":        {"start: 2026-12-24", "is after the due"},
		"A,soon,long,,,,":                    {"Due: soon\nestimate: long", "a date such as"},
		"A,,,,,,2026":                        {"Labels: 2026", "begins with a letter"},
		strings.Repeat("a", 501) + ",,,,,,":  {"title: " + strings.Repeat("a", 501), "has 501 characters"},
		"A,27/11/2026,1h 5m,,,2026-11-20,ok": {"", ""},
	} {
		items, refused, err := read(t, "title,Due,estimate,repeat,reminders,start,Labels\n"+row+"\n")
		if err != nil || len(items) != 1 || len(refused) > 0 {
			t.Fatalf("%s: %+v, %+v, %v", row, items, refused, err)
		}
		item := items[0]
		if item.Left != want.left || !strings.Contains(strings.ToLower(strings.Join(item.Remarks, " ")), want.says) || item.ToNotes != strings.Count(want.left, "\n")+min(len(want.left), 1) {
			t.Errorf("%s leaves %q, %d, and says %q", row, item.Left, item.ToNotes, item.Remarks)
		}
	}
}

func TestWhatIsRefused(t *testing.T) {
	for name, c := range map[string]struct {
		text string
		line int
		says string
	}{
		"nothing":                 {"", 1, "empty"},
		"no title":                {"a,b\n1,2\n", 1, "no column for the title"},
		"a quote left open":       {"title\n\"abc\n", 2, "not closed"},
		"a quote left open later": {"sep=;\ntitle\nabc\n\"abc\n", 4, "not closed"},
		"no text":                 {"title\nx\ncaf\xe9\x00\n", 1, "no text"},
	} {
		_, _, err := read(t, c.text)
		var wrong *exchange.Error
		if !errors.As(err, &wrong) || wrong.Line != c.line || !strings.Contains(wrong.Reason, c.says) {
			t.Errorf("%s: %+v, want line %d, %q", name, err, c.line, c.says)
		}
	}
}

func FuzzRead(f *testing.F) {
	f.Add("title,due,uid,under\nA,2026-11-27,a,\nB,,b,a\n")
	f.Add("Task;Labels\n\"x\ny\";#a #b\n")
	f.Fuzz(func(t *testing.T, text string) {
		items, _, err := read(t, text)
		if err != nil {
			return
		}
		out, err := csvfile.Format{}.Write(items, exchange.World{})
		if err != nil {
			t.Fatal(err)
		}
		if _, _, err := read(t, string(out)); err != nil {
			t.Fatalf("%v in %s", err, out)
		}
	})
}

package httpapi

import (
	"bytes"
	"encoding"
	"encoding/json"
	"strconv"
	"time"
	"unicode/utf8"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/plan"
	"tincup/internal/core/view"
	"tincup/internal/httpapi/contract"
)

// viewBody is a contract.View whose rows are written already: a view has two
// hundred of them, with next to nothing in most of their fields.
type viewBody struct {
	contract.View
	Groups []groupBody `json:"groups"`
}

type groupBody struct {
	contract.Group
	Rows []json.RawMessage `json:"rows"`
	ids  []book.ID         // of the rows
}

// addLoads says how full the days, weeks and months are that the groups stand for, and what
// happens on the days.
func (v *viewBody) addLoads(res *view.Result, oneKind bool, loads loadsOf, events func(day.Date) ([]plan.Happening, int), zone *time.Location) {
	for i, g := range res.Groups {
		load := encodeLoad(loads(g.Horizon), oneKind)
		v.Groups[i].Load = &load
		if g.Horizon.Precision() == day.Day {
			listed, more := events(g.Horizon.First())
			v.Groups[i].Events = orAbsent(plan.EventWords(listed, more, zone))
		}
	}
}

// addGives says what a new to-do needs to stand in the view.
func (v *viewBody) addGives(gives []view.Given) {
	if len(gives) == 0 {
		return
	}
	out := make([]contract.GivenHere, len(gives))
	for i, g := range gives {
		out[i] = contract.GivenHere{Field: contract.GivenHereField(g.Field), Value: g.Value, Text: g.Text}
	}
	v.Gives = &out
}

// bytes is what json.Marshal would make of it, which would read each row again.
func (v viewBody) bytes() ([]byte, error) {
	groups := v.Groups
	v.Groups = []groupBody{}
	size := 0
	for _, g := range groups {
		size += 300
		for _, r := range g.Rows {
			size += len(r) + 1
		}
	}
	out, err := appendOpen(make([]byte, 0, size+500), v)
	if err != nil {
		return nil, err
	}
	for i, g := range groups {
		if i > 0 {
			out = append(out, ',')
		}
		rows := g.Rows
		g.Rows = []json.RawMessage{}
		if out, err = appendOpen(out, g); err != nil {
			return nil, err
		}
		for j, r := range rows {
			if j > 0 {
				out = append(out, ',')
			}
			out = append(out, r...)
		}
		out = append(out, "]}"...)
	}
	return append(out, "]}"...), nil
}

// appendOpen writes an object whose last field is an empty array, and leaves both
// open: embedded fields are written before those of the struct itself.
func appendOpen(to []byte, object any) ([]byte, error) {
	text, err := json.Marshal(object)
	return append(to, bytes.TrimSuffix(text, []byte("]}"))...), err
}

// appendRow writes a contract.Row.
func appendRow(to []byte, b *book.Desk, r view.Row, found *contract.Found) []byte {
	w := writer{bytes: append(to, '{'), tagName: tagsOf(b)}
	w.name("todo")
	w.todo(r.Todo)
	w.bytes = append(w.bytes, '}')
	w.bool("late", r.Late)
	w.int("daysLate", int64(r.DaysLate))
	w.bool("dimmed", r.Dimmed)
	w.intIf("depth", int64(r.Depth))
	if len(r.Path) > 0 {
		w.any("path", r.Path)
	}
	if r.Progress.Total > 0 {
		w.any("progress", encodeProgress(r.Progress))
	}
	if s := r.Standing; s != nil {
		if s.Next != nil {
			w.any("next", titled(s.Next))
		} else {
			w.bool("noNext", true)
		}
		w.text("moved", s.Moved)
		w.intIf("quiet", int64(s.Quiet))
	}
	w.stringIf("why", r.Why)
	w.intIf("waited", int64(r.Waited))
	if found != nil {
		w.any("found", found)
	}
	return append(w.bytes, '}')
}

// todoJSON is a contract.Todo as JSON; more writes what stands behind its fields.
func todoJSON(tagName func(book.ID) string, t *book.Todo, more func(*writer)) json.RawMessage {
	w := writer{bytes: make([]byte, 0, 600), tagName: tagName}
	w.todo(t)
	more(&w)
	return append(w.bytes, '}')
}

// tagsOf names the tags that are at a desk.
func tagsOf(b *book.Desk) func(book.ID) string {
	return func(id book.ID) string {
		if tag, err := b.Tag(id); err == nil {
			return tag.Name
		}
		return ""
	}
}

// todo writes a to-do and leaves its object open.
func (w *writer) todo(t *book.Todo) {
	w.bytes = append(w.bytes, '{')
	w.text("id", t.ID)
	for i := range todoFields {
		todoFields[i].write(w, t)
	}
	w.text("created", t.Created)
	w.text("changed", t.Changed)
	w.int("revision", t.Revision)
}

func (w *writer) tags(ids []book.ID) {
	w.name("tags")
	w.bytes = append(w.bytes, '[')
	for _, id := range ids {
		if name := w.tagName(id); name != "" {
			w.comma('[')
			w.quote(name)
		}
	}
	w.bytes = append(w.bytes, ']')
}

// writer appends JSON. Methods ending in If leave out what is none.
type writer struct {
	bytes   []byte
	tagName func(book.ID) string
}

// comma writes a comma unless something has just begun.
func (w *writer) comma(begun byte) {
	if w.bytes[len(w.bytes)-1] != begun {
		w.bytes = append(w.bytes, ',')
	}
}

// name writes a name, which needs no escapes.
func (w *writer) name(name string) {
	w.comma('{')
	w.bytes = append(append(append(w.bytes, '"'), name...), `":`...)
}

func (w *writer) int(name string, n int64) {
	w.name(name)
	w.bytes = strconv.AppendInt(w.bytes, n, 10)
}

func (w *writer) intIf(name string, n int64) {
	if n > 0 {
		w.int(name, n)
	}
}

func (w *writer) bool(name string, is bool) {
	w.name(name)
	w.bytes = strconv.AppendBool(w.bytes, is)
}

func (w *writer) boolIf(name string, is bool) {
	if is {
		w.bool(name, true)
	}
}

func (w *writer) string(name, s string) {
	w.name(name)
	w.quote(s)
}

func (w *writer) stringIf(name, s string) {
	if s != "" {
		w.string(name, s)
	}
}

// quote writes a string; most need no escapes.
func (w *writer) quote(s string) {
	plain := utf8.ValidString(s)
	for i := range len(s) {
		c := s[i]
		// U+2028 and U+2029 begin with 0xE2; encoding/json escapes them, and what
		// HTML would take for a tag.
		plain = plain && c >= ' ' && c != '"' && c != '\\' && c != '<' && c != '>' && c != '&' && c != 0x7f && c != 0xE2
	}
	if !plain {
		packed, _ := json.Marshal(s) // a string always encodes
		w.bytes = append(w.bytes, packed...)
		return
	}
	w.bytes = append(append(append(w.bytes, '"'), s...), '"')
}

// texter is a value that is text outside.
type texter interface {
	encoding.TextMarshaler
	IsZero() bool
}

func (w *writer) text(name string, v texter) {
	w.name(name)
	w.bytes = append(w.bytes, '"')
	if a, ok := v.(encoding.TextAppender); ok {
		w.bytes, _ = a.AppendText(w.bytes) // what the Book holds has a text
	} else {
		text, _ := v.MarshalText()
		w.bytes = append(w.bytes, text...)
	}
	w.bytes = append(w.bytes, '"')
}

func (w *writer) textIf(name string, v texter) {
	if !v.IsZero() {
		w.text(name, v)
	}
}

func (w *writer) textOrNull(name string, v texter) {
	if v.IsZero() {
		w.name(name)
		w.bytes = append(w.bytes, "null"...)
		return
	}
	w.text(name, v)
}

// any writes what is rare enough to be left to encoding/json.
func (w *writer) any(name string, v any) {
	packed, err := json.Marshal(v)
	if err != nil { // plain data, which always encodes
		packed = []byte("null")
	}
	w.name(name)
	w.bytes = append(w.bytes, packed...)
}

package httpapi

import (
	"bytes"
	"encoding"
	"encoding/json"
	"strconv"
	"unicode/utf8"

	"tincup/internal/core/book"
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

// appendRow writes what encodeRow and json.Marshal would.
func appendRow(to []byte, b *book.Desk, r view.Row, found *contract.Found) []byte {
	w := writer{bytes: append(to, '{')}
	w.name("todo")
	w.todo(b, r.Todo)
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

func (w *writer) todo(b *book.Desk, t *book.Todo) {
	w.bytes = append(w.bytes, '{')
	w.text("id", t.ID)
	w.string("title", t.Title)
	w.bool("hasNotes", t.NotesSize > 0)
	w.textOrNull("list", t.List)
	w.string("status", t.Status.String())
	w.string("priority", t.Priority.String())
	w.textOrNull("start", t.Start)
	w.textOrNull("due", t.Due)
	w.textOrNull("plan", t.Plan)
	w.name("tags")
	w.bytes = append(w.bytes, '[')
	for _, id := range t.Tags {
		if tag, err := b.Tag(id); err == nil {
			w.comma('[')
			w.quote(tag.Name)
		}
	}
	w.bytes = append(w.bytes, ']')
	w.text("created", t.Created)
	w.text("changed", t.Changed)
	w.textOrNull("completed", t.Completed)
	w.textOrNull("deleted", t.Deleted)
	w.int("revision", t.Revision)
	w.textIf("parent", t.Parent)
	if t.Person.Role != book.NoRole {
		w.any("person", encodeInvolved(t.Person))
	}
	if t.Repeat != nil {
		w.any("repeat", encodeRepeat(t.Repeat))
	}
	w.textIf("record", t.Record)
	w.textIf("section", t.Section)
	w.textIf("handful", t.Handful)
	w.boolIf("isNote", t.IsNote)
	w.boolIf("inOrder", t.InOrder)
	if len(t.Attachments) > 0 {
		w.any("attachments", encodeAttachments(t.Attachments))
	}
	w.stringIf("outcome", t.Outcome)
	w.stringIf("place", t.Place)
	w.intIf("estimate", int64(t.Estimate))
	if len(t.Reminders) > 0 {
		w.any("reminders", reminderTexts(t.Reminders))
	}
	w.bytes = append(w.bytes, '}')
}

// writer appends JSON. Methods ending in If leave out what is none.
type writer struct{ bytes []byte }

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

package book

import (
	"encoding"
	"encoding/json"
	"fmt"
	"strconv"
)

// Pack writes the change as JSON, as json.Marshal would, but without looking at
// every field of every to-do: a change of many to-dos has thousands that say
// nothing.
func (c *Change) Pack() ([]byte, error) {
	rest := *c
	rest.Todos = nil
	head, err := json.Marshal(rest)
	if err != nil || len(c.Todos) == 0 {
		return head, err
	}
	p := packer{bytes: append(head[:len(head)-1], `,"Todos":[`...)}
	for i, d := range c.Todos {
		if i > 0 {
			p.bytes = append(p.bytes, ',')
		}
		p.bytes = append(p.bytes, '{')
		if d.Before != nil {
			p.todo("before", d.Before)
		}
		if d.After != nil {
			p.todo("after", d.After)
		}
		p.bytes = append(p.bytes, '}')
	}
	return append(p.bytes, "]}"...), p.err
}

// packer appends JSON; the first error stays.
type packer struct {
	bytes []byte
	err   error
}

// name writes a comma where one is due, and a name. Names need no escapes.
func (p *packer) name(name string) {
	if p.bytes[len(p.bytes)-1] != '{' {
		p.bytes = append(p.bytes, ',')
	}
	p.bytes = append(append(append(p.bytes, '"'), name...), `":`...)
}

func (p *packer) number(name string, n int64) {
	if n != 0 {
		p.name(name)
		p.bytes = strconv.AppendInt(p.bytes, n, 10)
	}
}

func (p *packer) flag(name string, set bool) {
	if set {
		p.name(name)
		p.bytes = append(p.bytes, "true"...)
	}
}

// text writes what is text outside, unless it is zero.
func (p *packer) text(name string, v interface {
	encoding.TextMarshaler
	IsZero() bool
}) {
	if v.IsZero() {
		return
	}
	p.name(name)
	p.bytes = append(p.bytes, '"')
	var err error
	if appender, ok := v.(encoding.TextAppender); ok {
		p.bytes, err = appender.AppendText(p.bytes)
	} else {
		var text []byte
		text, err = v.MarshalText()
		p.bytes = append(p.bytes, text...)
	}
	if err != nil && p.err == nil {
		p.err = err
	}
	p.bytes = append(p.bytes, '"')
}

// word writes one of a closed set of words, unless it is the first.
func (p *packer) word(name string, i uint8, word fmt.Stringer) {
	if i == 0 {
		return
	}
	p.name(name)
	p.bytes = append(append(append(p.bytes, '"'), word.String()...), '"')
}

// any writes what has a form of its own.
func (p *packer) any(name string, v any) {
	packed, err := json.Marshal(v)
	if err != nil && p.err == nil {
		p.err = err
	}
	p.name(name)
	p.bytes = append(p.bytes, packed...)
}

// ids writes ids, unless there are none.
func (p *packer) ids(name string, list []ID) {
	if len(list) == 0 {
		return
	}
	p.name(name)
	separator := byte('[')
	for _, id := range list {
		p.bytes = append(p.bytes, separator, '"')
		p.bytes, _ = id.AppendText(p.bytes) // never fails
		p.bytes = append(p.bytes, '"')
		separator = ','
	}
	p.bytes = append(p.bytes, ']')
}

// line writes a line of text; most need no escapes.
func (p *packer) line(name, s string) {
	for i := range len(s) {
		if c := s[i]; c < ' ' || c == '"' || c == '\\' || c >= 0x7f {
			p.any(name, s)
			return
		}
	}
	p.name(name)
	p.bytes = append(append(append(p.bytes, '"'), s...), '"')
}

// lineIfAny is line, unless there is none.
func (p *packer) lineIfAny(name, s string) {
	if s != "" {
		p.line(name, s)
	}
}

// anyOf is any of a list, unless it has none.
func (p *packer) anyOf(name string, n int, list any) {
	if n > 0 {
		p.any(name, list)
	}
}

func (p *packer) todo(name string, t *Todo) {
	p.name(name)
	p.bytes = append(p.bytes, '{')
	p.text("ID", t.ID)
	for i := range todoFields {
		todoFields[i].pack(p, t)
	}
	p.text("Created", t.Created)
	p.text("Changed", t.Changed)
	p.lineIfAny("UID", t.UID)
	p.text("RemindFrom", t.RemindFrom)
	p.number("Revision", t.Revision)
	p.bytes = append(p.bytes, '}')
}

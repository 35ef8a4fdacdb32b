package ics

import (
	"bytes"
	"fmt"
	"regexp"
	"strings"
	"unicode/utf8"

	"tincup/internal/core/exchange"
	"tincup/internal/formats/plaintext"
)

// line is a content line (section 3.1), with where it begins in its file.
type line struct {
	name   string // in capitals
	params map[string]string
	value  string
	number int
}

const (
	// maxDepth is how deep components may be nested; the standard needs three.
	maxDepth = 8
	// maxLine is how long an unfolded line may be, in bytes.
	maxLine = 1 << 20
)

// component is a part of a calendar, such as a VTODO.
type component struct {
	name   string
	lines  []line
	parts  []*component
	number int
}

// first returns the first line of a name; nil where there is none.
func (c *component) first(name string) *line {
	for i := range c.lines {
		if c.lines[i].name == name {
			return &c.lines[i]
		}
	}
	return nil
}

// text is the value of the first line of a name, without its escapes; "" where there is none.
func (c *component) text(name string) string {
	if l := c.first(name); l != nil {
		return unescape(l.value)
	}
	return ""
}

func wrong(number, column int, format string, args ...any) error {
	return &exchange.Error{Line: number, Column: column, Reason: fmt.Sprintf(format, args...)}
}

// parse reads the components at the top of a text. Errors are *exchange.Error.
func parse(text []byte) ([]*component, error) {
	// A line may be folded within a character (section 3.1): what is no UTF-8 once it is unfolded is
	// of another charset.
	if whole := folds.ReplaceAll(text, nil); !utf8.Valid(whole) || bytes.IndexByte(text, 0) >= 0 {
		decoded, err := plaintext.Decode(text)
		if err != nil {
			return nil, err
		}
		text = decoded
	}
	text = bytes.TrimPrefix(text, []byte("\xef\xbb\xbf"))
	var top []*component
	var open []*component
	rest, number := text, 0
	for len(rest) > 0 {
		var raw []byte
		begun := number + 1
		raw, rest, number = unfold(rest, number)
		if len(bytes.TrimSpace(raw)) == 0 {
			continue
		}
		if len(raw) > maxLine {
			return nil, wrong(begun, 0, "The line has %d bytes; %d is the most.", len(raw), maxLine)
		}
		l, column, ok := split(string(raw))
		l.number = begun
		if !ok {
			if len(top)+len(open) == 0 {
				return nil, wrong(begun, 1, "This is no iCalendar file: it does not begin with BEGIN:VCALENDAR.")
			}
			return nil, wrong(begun, column, "This is no line of iCalendar: a name, a colon and a value are wanted.")
		}
		switch l.name {
		case "BEGIN":
			if len(open) == maxDepth {
				return nil, wrong(begun, 1, "It stands within %d other parts; %d is the most.", maxDepth, maxDepth-1)
			}
			c := &component{name: strings.ToUpper(strings.TrimSpace(l.value)), number: begun}
			if len(open) > 0 {
				up := open[len(open)-1]
				up.parts = append(up.parts, c)
			} else {
				top = append(top, c)
			}
			open = append(open, c)
		case "END":
			name := strings.ToUpper(strings.TrimSpace(l.value))
			if len(open) == 0 || open[len(open)-1].name != name {
				return nil, wrong(begun, 1, "It ends %.40s, which is not open here. The file is damaged.", name)
			}
			open = open[:len(open)-1]
		default:
			if len(open) == 0 {
				return nil, wrong(begun, 1, "This is no iCalendar file: it does not begin with BEGIN:VCALENDAR.")
			}
			c := open[len(open)-1]
			c.lines = append(c.lines, l)
		}
	}
	if len(open) > 0 {
		return nil, wrong(number, 0, "The file is cut off: %s, begun in line %d, does not end.", open[len(open)-1].name, open[len(open)-1].number)
	}
	return top, nil
}

var folds = regexp.MustCompile(`\r?\n[ \t]`)

// unfold takes a line with those folded behind it off a text, and counts them.
func unfold(text []byte, number int) (whole, rest []byte, count int) {
	first, rest, _ := bytes.Cut(text, []byte("\n"))
	whole = bytes.TrimSuffix(first, []byte("\r"))
	number++
	copied := false
	for len(rest) > 0 && (rest[0] == ' ' || rest[0] == '\t') {
		var next []byte
		next, rest, _ = bytes.Cut(rest, []byte("\n"))
		if !copied {
			whole, copied = bytes.Clone(whole), true
		}
		whole = append(whole, bytes.TrimSuffix(next, []byte("\r"))[1:]...)
		number++
	}
	return whole, rest, number
}

// split parts a content line. column is where it goes wrong.
func split(s string) (l line, column int, ok bool) {
	quoted, from := false, 0
	key := ""
	for i := 0; i < len(s); i++ {
		c := s[i]
		switch {
		case c == '"':
			quoted = !quoted
		case quoted:
		case c == '=' && from > 0 && key == "":
			key, from = strings.ToUpper(s[from:i]), i+1
		case c == ';' || c == ':':
			part := s[from:i]
			switch {
			case l.name == "" && part == "", l.name != "" && key == "":
				return l, i + 1, false
			case l.name == "":
				l.name = strings.ToUpper(part)
			default:
				if l.params == nil {
					l.params = map[string]string{}
				}
				l.params[key] = unparam(part)
				key = ""
			}
			if from = i + 1; c == ':' {
				l.value = s[i+1:]
				return l, 0, true
			}
		}
	}
	return l, len(s) + 1, false
}

// unparam reads the value of a parameter (RFC 6868).
func unparam(s string) string {
	s = strings.Trim(s, `"`)
	if !strings.Contains(s, "^") {
		return s
	}
	return strings.NewReplacer("^n", "\n", "^'", `"`, "^^", "^").Replace(s)
}

func param(s string) string {
	return `"` + strings.NewReplacer("^", "^^", "\n", "^n", `"`, "^'").Replace(s) + `"`
}

// unescape reads a value of type TEXT (section 3.3.11).
func unescape(s string) string {
	if !strings.Contains(s, `\`) {
		return s
	}
	return strings.NewReplacer(`\\`, `\`, `\;`, ";", `\,`, ",", `\n`, "\n", `\N`, "\n").Replace(s)
}

func escape(s string) string {
	return strings.NewReplacer(`\`, `\\`, ";", `\;`, ",", `\,`, "\r\n", `\n`, "\n", `\n`, "\r", `\n`).Replace(s)
}

// list parts a value at its commas, save those that are escaped.
func list(s string) []string {
	var parts []string
	from := 0
	for i := 0; i < len(s); i++ {
		switch s[i] {
		case '\\':
			i++
		case ',':
			parts = append(parts, unescape(s[from:i]))
			from = i + 1
		}
	}
	return append(parts, unescape(s[from:]))
}

// writer writes content lines, folded after 75 bytes (section 3.1).
type writer struct{ bytes.Buffer }

func (w *writer) line(name, value string) {
	s := name + ":" + value
	for most := 75; len(s) > most; most = 74 {
		cut := most
		for cut > 1 && !utf8.RuneStart(s[cut]) {
			cut--
		}
		w.WriteString(s[:cut] + "\r\n ")
		s = s[cut:]
	}
	w.WriteString(s + "\r\n")
}

// text writes a line of text, if there is any.
func (w *writer) text(name, value string) {
	if value != "" {
		w.line(name, escape(value))
	}
}

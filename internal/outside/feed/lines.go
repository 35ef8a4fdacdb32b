package feed

import (
	"bytes"
	"strings"
)

const (
	// maxDepth is how deep components may be nested; RFC 5545 needs three.
	maxDepth = 8
	// maxHead is how long the name and parameters of a line may be, in bytes.
	maxHead = 4 << 10
	// maxValue is how long a value may be; longer ones are cut.
	maxValue = 64 << 10
)

var errNoCalendar = say("What is there is no calendar: it does not begin with BEGIN:VCALENDAR (RFC 5545).")

// unfolded returns the text with its folded lines whole (RFC 5545 section 3.1), or says why
// it is no calendar. Lines that are no content lines are left out.
func unfolded(text []byte) ([]byte, error) {
	text = bytes.TrimPrefix(text, []byte("\xef\xbb\xbf"))
	text = bytes.TrimLeft(text, " \t\r\n")
	if len(text) < 15 || !strings.EqualFold(string(text[:15]), "BEGIN:VCALENDAR") {
		if lower := bytes.ToLower(text[:min(len(text), 200)]); bytes.HasPrefix(lower, []byte("<")) {
			return nil, say("What is there is a web page and no calendar. Look for the address of the calendar itself; it often ends with .ics.")
		}
		return nil, errNoCalendar
	}
	var out, line bytes.Buffer
	out.Grow(len(text))
	var open []string
	number, begun := 0, 0
	end := func() error {
		defer line.Reset()
		head, value, ok := cut(line.Bytes())
		if !ok || len(head) > maxHead {
			return nil
		}
		switch name := strings.ToUpper(string(value)); strings.ToUpper(string(head)) {
		case "BEGIN":
			if open = append(open, name); len(open) > maxDepth {
				return say("Line %d begins a part within %d others, and %d is the most.", begun, len(open)-1, maxDepth-1)
			}
		case "END":
			if n := len(open); n == 0 || open[n-1] != name {
				return say("Line %d ends a part that is not open (“%.40s”). The calendar is damaged.", begun, name)
			}
			open = open[:len(open)-1]
		}
		out.Write(head)
		out.WriteByte(':')
		out.Write(bytes.ToValidUTF8(value[:min(len(value), maxValue)], []byte("\uFFFD")))
		out.WriteString("\r\n")
		return nil
	}
	for rest := text; len(rest) > 0; {
		var next []byte
		next, rest, _ = bytes.Cut(rest, []byte("\n"))
		next = bytes.TrimSuffix(next, []byte("\r"))
		number++
		if len(next) > 0 && (next[0] == ' ' || next[0] == '\t') {
			line.Write(next[1:])
			continue
		}
		if err := end(); err != nil {
			return nil, err
		}
		begun = number
		line.Write(next)
	}
	if err := end(); err != nil {
		return nil, err
	}
	if len(open) > 0 {
		return nil, say("The calendar is cut off: after line %d the part “%.40s” is still open.", number, open[len(open)-1])
	}
	return out.Bytes(), nil
}

// cut splits a content line at the colon that ends its parameters (RFC 5545 section 3.1).
// ok is false where the parameters are not well formed.
func cut(line []byte) (head, value []byte, ok bool) {
	quoted, from := false, 0
	for i, c := range line {
		switch {
		case c == '"':
			quoted = !quoted
		case quoted:
		case c == ';' || c == ':':
			// Of a parameter there is a name and a value; of a property a name.
			if part := line[from:i]; len(part) == 0 || from > 0 && bytes.IndexByte(part, '=') <= 0 {
				return nil, nil, false
			}
			if from = i + 1; c == ':' {
				return line[:i], line[i+1:], true
			}
		}
	}
	return nil, nil, false
}

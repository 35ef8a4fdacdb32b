package markdown

import (
	"bytes"
	"fmt"
	"slices"
	"strings"
	"unicode"

	"tincup/internal/core/book"
	"tincup/internal/core/capture"
	"tincup/internal/core/day"
	"tincup/internal/core/exchange"
)

// Format is the codec.
type Format struct{}

var _ exchange.Codec = Format{}

// Write implements exchange.Codec.
func (Format) Write(items []exchange.Item, world exchange.World) ([]byte, error) {
	w := writer{items: items, below: map[int][]int{}, env: world.Sentences}
	for i := range items {
		w.below[items[i].Under] = append(w.below[items[i].Under], i)
		w.know(&items[i])
	}
	section := ""
	for _, root := range w.below[-1] {
		switch is := items[root].Section; {
		case is == section:
		case is == "":
			w.blank()
			w.out.WriteString("---\n\n")
		default:
			w.blank()
			w.out.WriteString("## " + escaped(is) + "\n\n")
		}
		section = items[root].Section
		w.item(root, "", "- ")
	}
	w.legend()
	return w.out.Bytes(), nil
}

type writer struct {
	out   bytes.Buffer
	items []exchange.Item
	// below are the indices of what is under each item, -1 for what stands by itself.
	below map[int][]int
	// env has the names that the items speak of, so that sentences can; spoken are these alone.
	env    capture.Env
	spoken capture.Names
}

// kinds are the kinds of names that a legend has.
var kinds = []struct {
	name string
	of   func(*capture.Names) *[]string
}{
	{"list", func(n *capture.Names) *[]string { return &n.Lists }},
	{"person", func(n *capture.Names) *[]string { return &n.People }},
	{"place", func(n *capture.Names) *[]string { return &n.Places }},
}

// learn adds a name of a kind to those that are known.
func learn(known *capture.Names, kind, name string) {
	for _, k := range kinds {
		if names := k.of(known); k.name == kind && name != "" && !slices.Contains(*names, name) {
			*names = append(slices.Clip(*names), name)
		}
	}
}

// know takes note of the names that an item speaks of.
func (w *writer) know(item *exchange.Item) {
	for _, known := range []*capture.Names{&w.env.Names, &w.spoken} {
		learn(known, "list", item.List)
		learn(known, "person", item.Person)
		for _, r := range item.Todo.Reminders {
			learn(known, "place", r.Place)
		}
	}
}

// blank leaves a line free, where there is none.
func (w *writer) blank() {
	if w.out.Len() > 0 && !bytes.HasSuffix(w.out.Bytes(), []byte("\n\n")) {
		w.out.WriteByte('\n')
	}
}

// item writes an item and what is under it, behind what stands before all its lines and a mark.
func (w *writer) item(at int, indent, mark string) {
	item := w.items[at]
	inside := indent + strings.Repeat(" ", len(mark))
	if item.Under >= 0 { // it is where the item above it is
		item.List, item.Section = "", ""
	}
	sentence, read := w.say(&item)
	box := "[ ] "
	switch {
	case item.Todo.IsNote:
		box = ""
	case !item.Todo.Status.Open():
		box, read.Todo.Status = "[x] ", book.Completed
	}
	read.Section = item.Section // the heading says it
	read.Todo.InOrder = item.Todo.InOrder && len(w.below[at]) > 0
	w.out.WriteString(indent + mark + box + escaped(sentence) + comments(&item, &read) + "\n")
	if item.Notes != "" {
		w.blank()
		for line := range strings.Lines(item.Notes) {
			quoted := ">"
			if line = strings.TrimRight(line, "\r\n"); line != "" {
				quoted += " " + line
			}
			w.out.WriteString(inside + quoted + "\n")
		}
		if strings.HasSuffix(item.Notes, "\n") {
			w.out.WriteString(inside + ">\n")
		}
		w.out.WriteByte('\n')
	}
	for n, sub := range w.below[at] {
		mark := "- "
		if item.Todo.InOrder {
			mark = fmt.Sprintf("%d. ", n+1)
		}
		w.item(sub, inside, mark)
	}
}

// say says an item as a sentence, and what is read of it: as much as sentences can say.
func (w *writer) say(item *exchange.Item) (string, exchange.Item) {
	d := draftOf(item)
	if r := d.Repeat; r != nil && r.Rule.Count == 0 && !r.Current.IsZero() {
		now := *r // the next date says more than the first
		now.First, d.Repeat = r.Current, &now
	}
	for {
		sentence := capture.Say(d, w.env)
		said := capture.Read(sentence, w.env)
		switch {
		case d.List != "" && (said.List != d.List || said.Title != d.Title):
			d.List = ""
		case d.Person.Name != "" && (said.Person != d.Person || said.Title != d.Title):
			d.Person = capture.Person{}
		case len(d.Reminders) > 0 && said.Title != d.Title:
			d.Reminders = nil
		case len(said.Problems) > 0 && !forget(&d, said.Problems[0].Field):
			d = capture.Draft{Title: item.Todo.Title}
			said = d
			fallthrough
		case len(said.Problems) == 0:
			return sentence, itemOf(&said)
		}
	}
}

// forget leaves a field out of a draft, and tells whether it was there.
func forget(d *capture.Draft, field capture.Field) bool {
	before := *d
	switch field {
	case capture.FieldReminder:
		d.Reminders = nil
		return len(before.Reminders) > 0
	case capture.FieldRepeat, capture.FieldLead:
		d.Repeat = nil
		return before.Repeat != nil
	case capture.FieldStart:
		d.Start = day.Date{}
		return !before.Start.IsZero()
	case capture.FieldDue:
		d.Due = day.Moment{}
		return !before.Due.IsZero()
	case capture.FieldPlan:
		d.Plan = day.Horizon{}
		return !before.Plan.IsZero()
	}
	return false
}

// legend writes the names that the sentences speak of.
func (w *writer) legend() {
	var lines strings.Builder
	for _, kind := range kinds {
		for _, name := range *kind.of(&w.spoken) {
			lines.WriteString(kind.name + ": " + hold.Replace(name) + "\n")
		}
	}
	if lines.Len() > 0 {
		w.blank()
		w.out.WriteString("<!--\n" + lines.String() + "-->\n")
	}
}

// escaped is text that Markdown shows as it stands.
func escaped(s string) string {
	var b strings.Builder
	before := ' '
	rest := s
	for len(rest) > 0 {
		r := []rune(rest[:min(len(rest), 4)])[0]
		rest = rest[len(string(r)):]
		next := ' '
		for _, n := range rest {
			next = n
			break
		}
		if escapes(before, r, next) {
			b.WriteByte('\\')
		}
		b.WriteRune(r)
		before = r
	}
	return b.String()
}

// escapes reports whether a character between two others might be taken for markup.
func escapes(before, r, next rune) bool {
	switch r {
	case '\\':
		return next == ' ' || next < unicode.MaxASCII && (unicode.IsPunct(next) || unicode.IsSymbol(next))
	case '*', '`', '[', ']', '~':
		return true
	case '_':
		return !word(before) || !word(next)
	case '<':
		return next != ' '
	case '&':
		return next == '#' || word(next)
	case '#':
		return next == ' ' // the end of a heading
	}
	return false
}

func word(r rune) bool { return unicode.IsLetter(r) || unicode.IsNumber(r) }

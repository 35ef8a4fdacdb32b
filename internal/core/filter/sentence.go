package filter

import (
	"fmt"
	"slices"
	"strings"
	"unicode/utf8"

	"tincup/internal/core/book"
	"tincup/internal/core/question"
)

// Sentence says the filter in plain English, with the names that are in the
// Book; what is gone is said to be gone.
func (f Filter) Sentence(b *book.Desk) string {
	if f.Root() == nil {
		return "Everything."
	}
	return sentence(say(f.Root(), b, true))
}

// SentenceAmong says the filter of to-dos that are all of a sort, such as open.
func (f Filter) SentenceAmong(b *book.Desk, sort string) string {
	if f.IsZero() {
		return sentence("everything " + sort)
	}
	root := f.Root().Alone()
	return sentence(sort + ", and " + say(root, b, root.Kind == question.IsAll))
}

func sentence(s string) string {
	_, n := utf8.DecodeRuneInString(s)
	return strings.ToUpper(s[:n]) + s[n:] + "."
}

// say joins the nodes of a group; a group within another stands in brackets.
func say(n *question.Node, b *book.Desk, top bool) string {
	switch n.Kind {
	case question.IsTest:
		return sayTest(n.Test, b)
	case question.IsNot:
		if inner := n.Nodes[0]; inner.Kind == question.IsTest {
			return sayNot(inner.Test, b)
		}
		return "not " + say(n.Nodes[0], b, false)
	}
	if len(n.Nodes) == 0 {
		return map[question.NodeKind]string{question.IsAll: "everything", question.IsAny: "nothing"}[n.Kind]
	}
	if only := n.Alone(); only != n {
		return say(only, b, top)
	}
	joint := map[question.NodeKind]string{question.IsAll: ", and ", question.IsAny: ", or "}[n.Kind]
	parts := make([]string, len(n.Nodes))
	for i, sub := range n.Nodes {
		parts[i] = say(sub, b, false)
	}
	s := strings.Join(parts, joint)
	if top {
		return s
	}
	return "(" + s + ")"
}

func sayTest(t *question.Test, b *book.Desk) string { return specs[t.Field].say(t, b) }

// sayNot says that a test does not hold, without a double no.
func sayNot(t *question.Test, b *book.Desk) string {
	switch t.Op {
	case question.None:
		return specs[t.Field].some
	case question.No:
		yes := *t
		yes.Op = question.Yes
		return sayTest(&yes, b)
	}
	return "not " + sayTest(t, b)
}

func keep(w string, of ...string) string {
	if slices.Contains(of, w) {
		return w
	}
	return ""
}

// sayDate says a test on a day; verb is what happens then.
func sayDate(t *question.Test, verb string) string {
	switch t.Op {
	case question.Parked:
		return "parked"
	case question.Before:
		return verb + counting(t.Date, " before ", " earlier than ") + t.Date.Words()
	case question.After:
		return verb + counting(t.Date, " after ", " later than ") + t.Date.Words()
	case question.On:
		return verb + on(t.Date) + t.Date.Words()
	case question.WithinNext:
		return fmt.Sprintf("%s within the next %s", verb, days(t.Days))
	case question.WithinPast:
		return fmt.Sprintf("%s within the past %s", verb, days(t.Days))
	case question.Between:
		return verb + " from " + t.Date.Words() + " to " + t.To.Words()
	}
	return fmt.Sprintf("%s at a time from %s to %s", verb, t.From, t.Until)
}

func days(n int) string {
	if n == 1 {
		return "day"
	}
	return fmt.Sprintf("%d days", n)
}

// counting is how a word joins a day: days that are counted want another one.
func counting(w question.When, named, counted string) string {
	if n, ok := w.Days(); ok && n*n > 1 {
		return counted
	}
	return named
}

// on is what stands before a day: nothing where it is said from today.
func on(w question.When) string {
	if _, ok := w.Days(); ok {
		return " "
	}
	return " on "
}

func join(words []string, last string, say func(string) string) string {
	said := make([]string, len(words))
	for i, w := range words {
		said[i] = say(w)
	}
	if n := len(said); n > 1 {
		return strings.Join(said[:n-1], ", ") + " " + last + " " + said[n-1]
	}
	return said[0]
}

// names are those of what the test names by id; what is not there any more is
// said so.
func names(t *question.Test, b *book.Desk, last string) string {
	words := make([]string, len(t.IDs))
	for i, id := range t.IDs {
		words[i] = nameOf(b, t.Field, id)
	}
	return join(words, last, func(w string) string { return w })
}

// named finds the row that a field names by an id: what it is called, whether it is in
// the bin, and whether it is there at all.
func named(b *book.Desk, f question.Field, id book.ID) (name string, binned, there bool) {
	switch f {
	case question.List:
		if l, err := b.List(id); err == nil {
			return l.Name, !l.Deleted.IsZero(), true
		}
	case question.Shelf:
		if s, err := b.Shelf(id); err == nil {
			return s.Name, !s.Deleted.IsZero(), true
		}
	case question.Section:
		if s, err := b.Section(id); err == nil {
			return s.Name, false, true
		}
	case question.Tag:
		if t, err := b.Tag(id); err == nil {
			return t.Name, false, true
		}
	case question.Person:
		if p, err := b.Person(id); err == nil {
			return p.Name, false, true
		}
	}
	return "", false, false
}

func nameOf(b *book.Desk, f question.Field, id book.ID) string {
	name, binned, there := named(b, f, id)
	switch {
	case !there:
		return fmt.Sprintf("a %s that is gone", f)
	case binned:
		return fmt.Sprintf("“%s”, which is in the bin", name)
	}
	if strings.ContainsAny(name, ",()") || strings.Contains(name, " and ") || strings.Contains(name, " or ") {
		return "“" + name + "”"
	}
	return name
}

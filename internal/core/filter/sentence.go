package filter

import (
	"fmt"
	"slices"
	"strings"
	"unicode/utf8"

	"tincup/internal/core/book"
)

// Sentence says the filter in plain English, with the names that are in the
// Book; what is gone is said to be gone.
func (f Filter) Sentence(b *book.Desk) string {
	if f.root == nil {
		return "Everything."
	}
	return sentence(f.root.say(b, true))
}

// SentenceAmong says the filter of to-dos that are all of a sort, such as open.
func (f Filter) SentenceAmong(b *book.Desk, sort string) string {
	if f.IsZero() {
		return sentence("everything " + sort)
	}
	root := f.root.alone()
	return sentence(sort + ", and " + root.say(b, root.kind == isAll))
}

// alone goes down groups of one to what is in them.
func (n *node) alone() *node {
	for len(n.nodes) == 1 && n.kind != isNot {
		n = n.nodes[0]
	}
	return n
}

func sentence(s string) string {
	_, n := utf8.DecodeRuneInString(s)
	return strings.ToUpper(s[:n]) + s[n:] + "."
}

// say joins the nodes of a group; a group within another stands in brackets.
func (n *node) say(b *book.Desk, top bool) string {
	switch n.kind {
	case isTest:
		return n.test.say(b)
	case isNot:
		if inner := n.nodes[0]; inner.kind == isTest {
			return inner.test.sayNot(b)
		}
		return "not " + n.nodes[0].say(b, false)
	}
	if len(n.nodes) == 0 {
		return map[kind]string{isAll: "everything", isAny: "nothing"}[n.kind]
	}
	if only := n.alone(); only != n {
		return only.say(b, top)
	}
	joint := map[kind]string{isAll: ", and ", isAny: ", or "}[n.kind]
	parts := make([]string, len(n.nodes))
	for i, sub := range n.nodes {
		parts[i] = sub.say(b, false)
	}
	s := strings.Join(parts, joint)
	if top {
		return s
	}
	return "(" + s + ")"
}

func (t *Test) say(b *book.Desk) string { return t.spec.say(t, b) }

// sayNot says that a test does not hold, without a double no.
func (t *Test) sayNot(b *book.Desk) string {
	switch t.Op {
	case None:
		return t.spec.some
	case No:
		yes := *t
		yes.Op = Yes
		return yes.say(b)
	}
	return "not " + t.say(b)
}

func keep(w string, of ...string) string {
	if slices.Contains(of, w) {
		return w
	}
	return ""
}

// sayDate says a test on a day; verb is what happens then.
func (t *Test) sayDate(verb string) string {
	switch t.Op {
	case Parked:
		return "parked"
	case Before:
		return verb + t.Date.counted(" before ", " earlier than ") + t.Date.words()
	case After:
		return verb + t.Date.counted(" after ", " later than ") + t.Date.words()
	case On:
		return verb + t.Date.on() + t.Date.words()
	case WithinNext:
		return fmt.Sprintf("%s within the next %s", verb, days(t.Days))
	case WithinPast:
		return fmt.Sprintf("%s within the past %s", verb, days(t.Days))
	case Between:
		return verb + " from " + t.Date.words() + " to " + t.To.words()
	}
	return fmt.Sprintf("%s at a time from %s to %s", verb, t.From, t.Until)
}

func days(n int) string {
	if n == 1 {
		return "day"
	}
	return fmt.Sprintf("%d days", n)
}

// words says a day: "today", "3 days from today", "1 Dec 2026".
// counted is how a word joins a day: days that are counted want another one.
func (w When) counted(named, counted string) string {
	if w.relative && w.days*w.days > 1 {
		return counted
	}
	return named
}

// on is what stands before a day: nothing where it is said from today.
func (w When) on() string {
	if w.relative {
		return " "
	}
	return " on "
}

func (w When) words() string {
	switch {
	case !w.relative:
		return w.date.Words()
	case w.days == 0:
		return "today"
	case w.days == 1:
		return "tomorrow"
	case w.days == -1:
		return "yesterday"
	case w.days < 0:
		return fmt.Sprintf("%d days ago", -w.days)
	}
	return fmt.Sprintf("%d days from today", w.days)
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
func (t *Test) names(b *book.Desk, last string) string {
	words := make([]string, len(t.IDs))
	for i, id := range t.IDs {
		words[i] = nameOf(b, t.Field, id)
	}
	return join(words, last, func(w string) string { return w })
}

// named finds the row that a field names by an id: what it is called, whether it is in
// the bin, and whether it is there at all.
func named(b *book.Desk, f Field, id book.ID) (name string, binned, there bool) {
	switch f {
	case List:
		if l, err := b.List(id); err == nil {
			return l.Name, !l.Deleted.IsZero(), true
		}
	case Shelf:
		if s, err := b.Shelf(id); err == nil {
			return s.Name, !s.Deleted.IsZero(), true
		}
	case Section:
		if s, err := b.Section(id); err == nil {
			return s.Name, false, true
		}
	case Tag:
		if t, err := b.Tag(id); err == nil {
			return t.Name, false, true
		}
	case Person:
		if p, err := b.Person(id); err == nil {
			return p.Name, false, true
		}
	}
	return "", false, false
}

func nameOf(b *book.Desk, f Field, id book.ID) string {
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

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

func (t *Test) say(b *book.Desk) string {
	switch t.Field {
	case Text:
		return fmt.Sprintf("with “%s” in its title or notes", t.Text)
	case Place:
		if t.Op == None {
			return "without a place"
		}
		return fmt.Sprintf("with “%s” in its place", t.Text)
	case List:
		if t.Op == None {
			return "in no list"
		}
		return "in " + t.names(b, "or")
	case Shelf:
		return "on the shelf " + t.names(b, "or")
	case Section:
		if t.Op == None {
			return "in no section"
		}
		return "in the section " + t.names(b, "or")
	case Tag:
		switch t.Op {
		case None:
			return "untagged"
		case AllOf:
			return "tagged " + t.names(b, "and")
		case NoneOf:
			return "tagged none of " + t.names(b, "and")
		}
		return "tagged " + t.names(b, "or")
	case Person:
		if t.Op == None {
			return "with nobody"
		}
		return "with " + t.names(b, "or")
	case Role:
		words := map[string]string{"ask": "to ask someone", "waiting on": "waiting on someone", "for": "for someone"}
		return join(t.Words, "or", func(w string) string { return words[w] })
	case Priority:
		return "of " + join(t.Words, "or", func(w string) string {
			if w == "none" {
				return "no"
			}
			return w
		}) + " priority"
	case Status:
		return join(t.Words, "or", func(w string) string {
			return map[string]string{"needs-action": "not begun", "in-process": "begun"}[w] + keep(w, "completed", "cancelled")
		})
	case Kind:
		return join(t.Words, "or", func(w string) string { return "a " + w })
	case Estimate:
		switch t.Op {
		case AtMost:
			return fmt.Sprintf("taking at most %d min", t.Minutes)
		case AtLeast:
			return fmt.Sprintf("taking at least %d min", t.Minutes)
		}
		return "without an estimate"
	case Due, Start, Plan, Created, Completed:
		return t.sayDate()
	}
	yes := map[Field]string{Overdue: "overdue", Repeating: "repeating", Paused: "paused", HasSubtasks: "with subtasks",
		IsSubtask: "a subtask", NextAction: "a next action", Attachment: "with a file", InHandful: "in today's handful"}[t.Field]
	if t.Op == No {
		return "not " + yes
	}
	return yes
}

// someWords say that there is a value, where None says that there is none.
var someWords = map[Field]string{List: "in a list", Section: "in a section", Tag: "tagged", Person: "with somebody", Place: "with a place", Estimate: "with an estimate",
	Due: "with a due", Start: "with a start", Plan: "with a plan or parked", Completed: "completed or cancelled already"}

// sayNot says that a test does not hold, without a double no.
func (t *Test) sayNot(b *book.Desk) string {
	switch t.Op {
	case None:
		return someWords[t.Field]
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

func (t *Test) sayDate() string {
	verb := map[Field]string{Due: "due", Start: "starting", Plan: "planned", Created: "put in", Completed: "completed or cancelled"}[t.Field]
	switch t.Op {
	case None:
		return map[Field]string{Due: "without a due", Start: "without a start", Plan: "without a plan", Completed: "neither completed nor cancelled"}[t.Field]
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

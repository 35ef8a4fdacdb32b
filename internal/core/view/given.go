package view

import (
	"slices"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/question"
	"tincup/internal/core/term"
)

// Given is a value that a new to-do needs to stand in a subject. The Field is list, section,
// tag, person, place, plan, due, start, priority, concentration, status or kind.
type Given struct {
	Field question.Field
	// Value is the id of a list or section, the name of a tag or place, a date or horizon
	// (2026-12-01, 2026-W50), a word of the field, or of a person the id and the role with a
	// blank between.
	Value string
	// Text is the value as a person reads it.
	Text string
}

// giver is a Subject that says what a new to-do needs to stand in it.
type giver interface {
	gives(b *book.Desk, now moment) []Given
}

// Gives returns what a new to-do needs to stand in a subject, each field once but tags; none
// where the subject fixes nothing, or is not there.
func Gives(b *book.Desk, c day.Clock, of Subject) []Given {
	if g, ok := of.(giver); ok {
		return g.gives(b, at(c))
	}
	return nil
}

func (s InList) gives(b *book.Desk, _ moment) []Given {
	l, err := b.List(s.ID)
	if err != nil || !l.Archived.IsZero() {
		return nil
	}
	given := []Given{{question.List, l.ID.String(), l.Name}}
	if !l.With.IsZero() {
		given = append(given, involving(b, l.With, term.Ask)...)
	}
	return given
}

// gives returns the list of a shelf that has only one; of several the person is asked which.
func (s OnShelf) gives(b *book.Desk, now moment) []Given {
	var on []book.ID
	for _, l := range b.Lists() {
		if l.Shelf == s.ID && l.Listed() {
			on = append(on, l.ID)
		}
	}
	if len(on) != 1 {
		return nil
	}
	return InList{on[0]}.gives(b, now)
}

func (s WithTag) gives(b *book.Desk, _ moment) []Given {
	tag, err := b.Tag(s.ID)
	if err != nil {
		return nil
	}
	return []Given{{question.Tag, tag.Name, "#" + tag.Name}}
}

func (s WithPerson) gives(b *book.Desk, _ moment) []Given { return involving(b, s.ID, term.Ask) }

func (s AtPlace) gives(b *book.Desk, _ moment) []Given {
	p, err := b.Place(s.ID)
	if err != nil {
		return nil
	}
	return []Given{{question.Place, p.Name, p.Name}}
}

func (s OnRail) gives(*book.Desk, moment) []Given {
	if s.Cup.IsZero() {
		return nil
	}
	return []Given{{question.Plan, s.Cup.String(), s.Cup.Words()}}
}

func (s Own) gives(b *book.Desk, now moment) []Given {
	d, err := s.Definition(b)
	if err != nil {
		return nil
	}
	return d.gives(b, now)
}

// gives returns what the tests fix that all have to hold. Where two of them fix one field to
// different values, it is not given: no to-do has both.
func (d Definition) gives(b *book.Desk, now moment) []Given {
	var out []Given
	tests := mustHold(d.Filter.Root(), nil)
	role := term.Ask
	for _, t := range tests {
		if t.Field == question.Role && len(t.Words) == 1 {
			_ = role.UnmarshalText([]byte(t.Words[0])) // a word of the field, as it was parsed
		}
	}
	for _, t := range tests {
		out = append(out, fixes(t, role, b, now)...)
	}
	return slices.DeleteFunc(withoutTwice(out), func(g Given) bool {
		return g.Field != question.Tag && slices.ContainsFunc(out, func(o Given) bool {
			return o.Field == g.Field && o.Value != g.Value
		})
	})
}

// mustHold collects the tests that hold wherever the node does, as far as the groups of all
// and the groups of one say.
func mustHold(n *question.Node, tests []*question.Test) []*question.Test {
	switch {
	case n == nil:
	case n.Kind == question.IsTest:
		tests = append(tests, n.Test)
	case n.Kind == question.IsAll, n.Kind == question.IsAny && len(n.Nodes) == 1:
		for _, sub := range n.Nodes {
			tests = mustHold(sub, tests)
		}
	}
	return tests
}

// fixes returns the value that a test leaves to a field, none where it leaves several or one
// that a new to-do cannot have.
func fixes(t *question.Test, role term.Role, b *book.Desk, now moment) []Given {
	word := func(w, text string) []Given { return []Given{{t.Field, w, text}} }
	switch t.Op {
	case question.AnyOf, question.AllOf:
		if len(t.IDs)+len(t.Words) == 1 || t.Op == question.AllOf {
			return fixesNamed(t, role, b)
		}
	case question.Parked:
		return word(day.SomeTime().String(), day.SomeTime().Words())
	case question.On, question.Between, question.WithinNext, question.WithinPast:
		on, to := t.Span(now.today)
		dated := t.Field == question.Due || t.Field == question.Plan || t.Field == question.Start
		if on == to && dated {
			return word(on.String(), on.Words())
		}
	case question.Contains:
		if t.Field != question.Place {
			break
		}
		if p := b.PlaceNamed(t.Text); p != nil {
			return word(p.Name, p.Name)
		}
	}
	return nil
}

// fixesNamed returns what a test of ids or words leaves to its field.
func fixesNamed(t *question.Test, role term.Role, b *book.Desk) []Given {
	switch t.Field {
	case question.Priority, question.Concentration:
		if t.Words[0] == term.NoPriority.String() {
			return nil
		}
		return []Given{{t.Field, t.Words[0], t.Words[0]}}
	case question.Status:
		if t.Words[0] == term.InProcess.String() {
			return []Given{{t.Field, t.Words[0], "begun"}}
		}
	case question.Kind:
		if t.Words[0] == "note" {
			return []Given{{t.Field, t.Words[0], t.Words[0]}}
		}
	case question.List:
		return InList{t.IDs[0]}.gives(b, moment{})
	case question.Section:
		s, err := b.Section(t.IDs[0])
		if err != nil {
			return nil
		}
		return append(InList{s.List}.gives(b, moment{}), Given{question.Section, s.ID.String(), s.Name})
	case question.Person:
		return involving(b, t.IDs[0], role)
	case question.Tag:
		var out []Given
		for _, id := range t.IDs {
			out = append(out, WithTag{id}.gives(b, moment{})...)
		}
		return out
	}
	return nil
}

// involving gives a person in a role.
func involving(b *book.Desk, id book.ID, role term.Role) []Given {
	p, err := b.Person(id)
	if err != nil {
		return nil
	}
	return []Given{{question.Person, p.ID.String() + " " + role.String(), role.String() + " " + p.Name}}
}

// withoutTwice keeps each value once.
func withoutTwice(given []Given) []Given {
	var out []Given
	for _, g := range given {
		if !slices.Contains(out, g) {
			out = append(out, g)
		}
	}
	return out
}

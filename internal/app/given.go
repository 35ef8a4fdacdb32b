package app

import (
	"fmt"
	"strings"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/question"
	"tincup/internal/core/term"
	"tincup/internal/core/view"
)

// give sets what a sheet gives to what is put into it, each field unless the sentence has
// set it; tags come to those of the sentence. A subtask gets neither list nor section: it is
// in its parent's. Errors are *book.RuleError of the field given.
func give(c *book.Capture, given []view.Given) error {
	listed := !c.List.IsZero() || c.NewList != "" || !c.Parent.IsZero()
	for _, g := range given {
		if err := giveOne(c, g, listed); err != nil {
			return &book.RuleError{Field: "given", Reason: fmt.Sprintf("“%.60s” is not a %s: %v.", g.Value, g.Field, err)}
		}
	}
	return nil
}

// giveOne sets one field. Errors say what is wrong with its value.
func giveOne(c *book.Capture, g view.Given, listed bool) (err error) {
	text := []byte(g.Value)
	switch g.Field {
	case question.List:
		if !listed {
			c.List, err = term.ParseID(g.Value)
		}
	case question.Section:
		if !listed {
			c.Section, err = term.ParseID(g.Value)
		}
	case question.Tag:
		c.Tags = append(c.Tags, g.Value)
	case question.Place:
		c.Place = g.Value
	case question.Person:
		if c.Role == term.NoRole {
			err = givePerson(c, g.Value)
		}
	case question.Plan:
		if c.Plan.IsZero() {
			c.Plan, err = day.ParseHorizon(g.Value)
		}
	case question.Due:
		if c.Due.IsZero() {
			err = c.Due.UnmarshalText(text)
		}
	case question.Start:
		if c.Start.IsZero() {
			c.Start, err = day.ParseDate(g.Value)
		}
	case question.Priority:
		if c.Priority == term.NoPriority {
			err = c.Priority.UnmarshalText(text)
		}
	case question.Concentration:
		if c.Concentration == 0 {
			err = c.Concentration.UnmarshalText(text)
		}
	case question.Status:
		if c.Status == term.NeedsAction {
			err = c.Status.UnmarshalText(text)
		}
	case question.Kind:
		c.IsNote = c.IsNote || g.Value == "note"
	default:
		err = fmt.Errorf("nothing gives this field")
	}
	return err
}

// givePerson reads the id of a person and the role with a blank between.
func givePerson(c *book.Capture, value string) (err error) {
	id, role, _ := strings.Cut(value, " ")
	if c.Person, err = term.ParseID(id); err != nil {
		return err
	}
	return c.Role.UnmarshalText([]byte(role))
}

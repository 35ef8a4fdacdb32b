package app

import (
	"context"
	"errors"
	"fmt"
	"slices"
	"strconv"
	"strings"
	"time"

	"tincup/internal/core/book"
	"tincup/internal/core/capture"
	"tincup/internal/core/day"
	"tincup/internal/core/term"
	"tincup/internal/core/view"
	"tincup/internal/store"
)

// Sentence is what a person typed, and where.
type Sentence struct {
	Text string
	// At is the wall time at which it was typed, in Zone; none is now.
	At   day.Moment
	Zone string
	// List, with its Section, is where it goes unless the sentence names a list.
	List, Section book.ID
	// Given is what the sheet gives that it is put into, unless the sentence says its own.
	Given []view.Given
	// Exact takes the text as the title, and reads nothing in it.
	Exact bool
	// Files go with the to-do; of each its name and the hash of its bytes, which are kept
	// by now.
	Files []book.Attachment
	// Parent is the to-do it becomes a subtask of, After the sibling it stands
	// behind.
	Parent, After book.ID
}

// Reading is a Draft with the names in it found in the Book.
type Reading struct {
	capture.Draft
	List   book.ID
	Person book.Involved
	// Offers are what was left as words; of a sentence read by itself.
	Offers []capture.Offer
}

// Line is one line of several, with its Reading.
type Line struct {
	capture.Line
	Reading Reading
}

// ReadSentence reads one sentence as it would be put in now.
func (a *Session) ReadSentence(s Sentence) (reading Reading, err error) {
	a.Read(func(b *book.Desk, c day.Clock) {
		if reading, err = a.read(b, c, s); err != nil {
			return
		}
		typed, _ := s.typed(c) // as read found it
		reading.Offers = capture.Offers(s.Text, a.envOf(b, typed))
	})
	return reading, err
}

// ReadLines reads several lines as they would be put in now. It fails with a
// *book.RuleError where there are too many.
func (a *Session) ReadLines(s Sentence) (lines []Line, err error) {
	var env capture.Env
	a.Read(func(b *book.Desk, c day.Clock) {
		if lines, err = a.readLines(b, c, s); err == nil {
			typed, _ := s.typed(c) // as readLines found it
			env = a.envOf(b, typed)
		}
	})
	for i, l := range lines {
		if !l.Section {
			lines[i].Reading.Offers = capture.Offers(l.Sentence, env)
		}
	}
	return lines, err
}

// Env is what reading knows: the clock, and the names in the Book.
func (a *Session) Env() (env capture.Env) {
	a.Read(func(b *book.Desk, c day.Clock) { env = a.envOf(b, c) })
	return env
}

// PutIn puts in what a sentence means. A sentence with a problem is refused
// with a *book.RuleError that has its reason.
func (a *Session) PutIn(ctx context.Context, req Request, s Sentence, respond Responder) (*store.Reply, error) {
	return a.carryOut(ctx, req, respond, func(env book.Env, _ *Request) (*book.Change, error) {
		reading, err := a.read(a.desk, env.Clock, s)
		if err != nil {
			return nil, err
		}
		if err := refusal(reading.Draft); err != nil {
			return nil, err
		}
		cmd, err := reading.command(s)
		if err != nil {
			return nil, err
		}
		for _, f := range s.Files {
			if f, err = a.kept(f.Name, f.Hash); err != nil {
				return nil, err
			}
			cmd.Files = append(cmd.Files, f)
		}
		return a.desk.Do(env, cmd)
	})
}

// PutInLines puts in what several lines mean, all or none.
func (a *Session) PutInLines(ctx context.Context, req Request, s Sentence, respond Responder) (*store.Reply, error) {
	return a.carryOut(ctx, req, respond, func(env book.Env, _ *Request) (*book.Change, error) {
		lines, err := a.readLines(a.desk, env.Clock, s)
		if err != nil {
			return nil, err
		}
		tree := book.CaptureTree{}
		for _, l := range lines {
			if err := refusal(l.Reading.Draft); err != nil {
				return nil, &book.RuleError{Field: "text", Reason: fmt.Sprintf("Line %d: %s", l.Number, err.Error())}
			}
			own := s
			if l.Parent >= 0 && !lines[l.Parent].Section {
				own.Given = nil // a subtask stands with the to-do it is of
			}
			cmd, err := l.Reading.command(own)
			if err != nil {
				return nil, err
			}
			item := book.TreeItem{Capture: cmd, Under: l.Parent, Heading: l.Section && !s.List.IsZero()}
			item.Done = l.Done
			tree.Items = append(tree.Items, item)
		}
		return a.desk.Do(env, tree)
	})
}

func refusal(d capture.Draft) error {
	if len(d.Problems) == 0 {
		return nil
	}
	return &book.RuleError{Field: "text", Reason: d.Problems[0].Reason}
}

func (a *Session) envOf(b *book.Desk, c day.Clock) capture.Env {
	env := capture.Env{Clock: c, Settings: a.writing()}
	for _, l := range b.Lists() {
		if !l.Listed() {
			continue
		}
		env.Lists = append(env.Lists, l.Name)
	}
	for _, t := range b.Tags() {
		env.Tags = append(env.Tags, t.Name)
	}
	for _, p := range b.People() {
		env.People = append(env.People, p.Name)
	}
	for _, p := range b.Places() {
		if !p.Thing { // nobody gets to a thing
			env.Places = append(env.Places, p.Name)
		}
	}
	return env
}

// typed sets the clock to when and where the sentence was typed.
func (s Sentence) typed(c day.Clock) (day.Clock, error) {
	if s.Zone != "" && s.Zone != c.Zone.String() {
		zone, err := time.LoadLocation(s.Zone)
		if err != nil || strings.EqualFold(s.Zone, "local") {
			return c, &book.RuleError{Field: "zone", Reason: fmt.Sprintf("%.60q is not a time zone such as Europe/Lisbon.", s.Zone)}
		}
		c.Zone = zone
	}
	if !s.At.IsZero() {
		c.Now = c.Instant(s.At)
	}
	return c, nil
}

func (a *Session) read(b *book.Desk, c day.Clock, s Sentence) (Reading, error) {
	c, err := s.typed(c)
	if err != nil {
		return Reading{}, err
	}
	if s.Exact {
		return Reading{Draft: capture.Draft{Title: s.Text}}, nil
	}
	return found(b, c, capture.Read(s.Text, a.envOf(b, c))), nil
}

func (a *Session) readLines(b *book.Desk, c day.Clock, s Sentence) ([]Line, error) {
	c, err := s.typed(c)
	if err != nil {
		return nil, err
	}
	read, err := capture.ReadLines(s.Text, a.envOf(b, c))
	if err != nil {
		return nil, &book.RuleError{Field: "text", Reason: strings.ToUpper(err.Error()[:1]) + err.Error()[1:] + "."}
	}
	if len(read) == 0 {
		return nil, &book.RuleError{Field: "text", Reason: "There is nothing to put in: every line is empty."}
	}
	lines := make([]Line, 0, len(read))
	heading := -1
	for i, l := range read {
		switch {
		case l.Section:
			heading = i
		case l.Parent < 0 && heading >= 0:
			l.Parent = heading
		}
		if heading >= 0 && i != heading {
			l.Depth++
		}
		if l.Parent >= 0 && l.Draft.List != "" && !(read[l.Parent].Section && !s.List.IsZero()) {
			chip := slices.IndexFunc(l.Draft.Chips, func(c capture.Chip) bool { return c.Field == capture.FieldList })
			l.Draft.Refuse(chip, "A subtask is in its parent's list; say the list above.")
		}
		lines = append(lines, Line{l, found(b, c, l.Draft)})
	}
	return lines, nil
}

// found looks up the names of a draft.
func found(b *book.Desk, c day.Clock, d capture.Draft) Reading {
	r := Reading{Draft: d}
	for _, l := range b.Lists() {
		if d.List != "" && !d.NewList && l.Listed() && l.Name == d.List {
			r.List = l.ID
			if _, err := b.Person(l.With); err == nil && d.Person.Role == term.NoRole && !d.Note {
				r.Person = book.Involved{ID: l.With, Role: term.Ask, Since: c.Today()}
			}
		}
	}
	for _, p := range b.People() {
		if d.Person.Role != term.NoRole && !d.Person.New && p.Name == d.Person.Name {
			r.Person = book.Involved{ID: p.ID, Role: d.Person.Role, Since: c.Today()}
		}
	}
	return r
}

// choosers set the fields of closed sets that words of a sentence stand for.
var choosers = map[capture.Field]func(c *book.Capture, value string) error{
	capture.FieldConcentration: func(c *book.Capture, value string) error { return c.Concentration.UnmarshalText([]byte(value)) },
	capture.FieldStatus:        func(c *book.Capture, value string) error { return c.Status.UnmarshalText([]byte(value)) },
}

// command makes the to-do of a reading. Errors are *book.RuleError, of what is given.
func (r Reading) command(s Sentence) (book.Capture, error) {
	c := book.Capture{Title: r.Title, Notes: r.Notes, List: r.List, Priority: r.Priority, Start: r.Start,
		Due: r.Due, Plan: r.Plan, Estimate: r.Estimate, Tags: r.Tags, Reminders: r.Reminders, Person: r.Person.ID,
		Role: r.Person.Role, Repeat: r.Repeat, Parent: s.Parent, IsNote: r.Note}
	if r.NewList {
		c.NewList = r.Draft.List
	}
	if r.Draft.Person.New {
		c.NewPerson, c.Role = r.Draft.Person.Name, r.Draft.Person.Role
	}
	if c.List.IsZero() && !r.NewList {
		c.List, c.Section, c.After = s.List, s.Section, s.After
	}
	for _, choice := range r.Choices {
		// The words of a sentence are those of the fields.
		_ = choosers[choice.Field](&c, choice.Value)
	}
	return c, give(&c, s.Given)
}

// ReadWhen reads words for one of the fields due, start, plan, estimate and reminder, or for a
// reminder that is a time of its own (later), and returns the value with the value in words.
func (a *Session) ReadWhen(field, words string) (value, said string, err error) {
	env := a.Env()
	switch field {
	case "due":
		m, e := capture.ReadDue(words, env)
		value, said, err = m.String(), capture.MomentWords(m), e
	case "start":
		d, e := capture.ReadStart(words, env)
		value, said, err = d.String(), d.Words(), e
	case "plan":
		h, e := capture.ReadPlan(words, env)
		value, said, err = h.String(), capture.HorizonWords(h), e
	case "estimate":
		n, e := capture.ReadEstimate(words, env)
		value, said, err = strconv.Itoa(n), capture.Minutes(n), e
	case "reminder", "later":
		r, e := capture.ReadReminder(words, field == "reminder", env)
		value, said, err = r.String(), r.Words(), e
	default:
		return "", "", &book.RuleError{Field: "field", Reason: "due, start, plan, estimate, reminder or later is wanted."}
	}
	return value, said, saidWrong(err)
}

// ReadRepeat reads words for a repeat, and returns it with a clause that says it; "" where no
// words do.
func (a *Session) ReadRepeat(words string) (said capture.SaidRepeat, clause string, err error) {
	env := a.Env()
	if said, err = capture.ReadRepeat(words, env); err != nil {
		return said, "", saidWrong(err)
	}
	return said, capture.SayRepeat(said.Repeat, env), nil
}

// saidWrong makes the error of the field of words that are not understood.
func saidWrong(err error) error {
	var we *capture.WhenError
	if errors.As(err, &we) {
		return &book.RuleError{Field: "text", Reason: we.Reason}
	}
	return err
}

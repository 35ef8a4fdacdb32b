// Package demo holds the demo data, as a file people can read, and puts it
// into a Book with dates counted from now.
package demo

import (
	"bytes"
	"context"
	_ "embed"
	"fmt"
	"slices"
	"strconv"
	"strings"
	"time"

	"github.com/goccy/go-yaml"

	"tincup/internal/app"
	"tincup/internal/core/book"
	"tincup/internal/core/capture"
	"tincup/internal/core/day"
	"tincup/internal/core/exchange"
	"tincup/internal/core/geo"
	"tincup/internal/core/term"
)

//go:embed night-signals.yaml
var scenario []byte

// file is the demo file; its head says what the words mean.
type file struct {
	Shelves []struct {
		Name, Hours string // which hours it takes; "" for working hours
		Lists       []list
	}
	People []struct{ Name, Email, Phone, Note string }
	Places []struct {
		Name, Middle string
		Radius       int
	}
	Todos []entry
	Views []savedView
}

type list struct {
	Name, Colour, Order                   string
	Pinned, Checklist, Archived, Template bool
	// Due counts from the day the demo starts, as an entry's does.
	Due, Outcome string
	Sections     []string
}

type entry struct {
	Title, List, Section, Notes, Start, Due, Plan, Priority, Status string
	Tags                                                            []string
	// Made is how many days ago it was put in.
	Made                     int
	Done, Cancelled, Deleted string
	// Again is when a repeat was ticked after Done.
	Again []string
	// Repeat, Takes, Who and Remind are clauses of a sentence.
	Repeat, Takes, Who, Remind string
	Note, Handful              bool
	InOrder                    bool `yaml:"inOrder"`
	Outcome, Place             string
	Files                      []string
	Subtasks                   []entry
}

// Fill puts the demo data at a desk that is empty and that nobody sees yet.
// It returns the number of to-dos.
func Fill(ctx context.Context, a *app.Session) (int, error) {
	var f file
	if err := yaml.UnmarshalWithOptions(scenario, &f, yaml.DisallowUnknownField()); err != nil {
		return 0, fmt.Errorf("the demo data: %w", err)
	}
	w := writer{app: a, clock: a.Clock(), lists: map[string]book.ID{}, sections: map[string]bool{}}
	if err := w.arrangement(f); err != nil {
		return 0, err
	}
	for _, e := range f.Todos {
		if err := w.todo(e, book.ID{}); err != nil {
			return 0, fmt.Errorf("the demo data, %q: %w", e.Title, err)
		}
	}
	for _, id := range w.archived {
		put := true
		w.step(w.clock.Now.Add(-time.Hour), book.EditList{ID: id, Archived: &put})
	}
	slices.SortStableFunc(w.steps, func(a, b app.Step) int { return a.At.Compare(b.At) })
	if err := a.Seed(ctx, w.steps); err != nil {
		return 0, err
	}
	views, err := w.views(f.Views)
	if err != nil {
		return 0, err
	}
	return w.count, a.Seed(ctx, views)
}

// writer turns the file into commands, each at its own time.
type writer struct {
	app        *app.Session
	clock      day.Clock
	lists      map[string]book.ID
	sections   map[string]bool // by list and name
	people     []string
	archived   []book.ID
	placeNames []string
	count      int // of to-dos so far
	steps      []app.Step
}

// longAgo is before anything else in the demo.
const longAgo = -60 * 24 * time.Hour

func (w *writer) step(at time.Time, cmd book.Command) {
	w.steps = append(w.steps, app.Step{At: at, Command: cmd})
}

func (w *writer) arrangement(f file) error {
	begun := w.clock.Now.Add(longAgo)
	for _, s := range f.Shelves {
		shelf := app.NewID()
		w.step(begun, book.AddShelf{ID: shelf, Name: s.Name})
		if s.Hours != "" {
			var hours term.Hours
			if err := hours.UnmarshalText([]byte(s.Hours)); err != nil {
				return fmt.Errorf("the demo data, shelf %s: %w", s.Name, err)
			}
			w.step(begun, book.EditShelf{ID: shelf, Hours: &hours})
		}
		for _, l := range s.Lists {
			if err := w.list(begun, shelf, l); err != nil {
				return fmt.Errorf("the demo data, list %s: %w", l.Name, err)
			}
		}
	}
	for _, p := range f.People {
		w.people = append(w.people, p.Name)
		w.step(begun, book.AddPerson{Name: p.Name, Email: p.Email, Phone: p.Phone, Note: p.Note})
	}
	for _, p := range f.Places {
		middle, err := geo.Parse(p.Middle)
		if err != nil {
			return fmt.Errorf("the demo data, place %s: %w", p.Name, err)
		}
		w.placeNames = append(w.placeNames, p.Name)
		w.step(begun, book.AddPlace{Name: p.Name, Middle: middle, Radius: p.Radius})
	}
	return nil
}

func (w *writer) list(at time.Time, shelf book.ID, l list) error {
	cmd := book.AddList{ID: app.NewID(), Shelf: shelf, Name: l.Name, Colour: new(book.Colour)}
	if err := cmd.Colour.UnmarshalText([]byte(l.Colour)); err != nil {
		return err
	}
	if l.Template {
		cmd.Template = w.clock.Today()
	}
	w.lists[l.Name] = cmd.ID
	w.step(at, cmd)
	edit := book.EditList{ID: cmd.ID, Pinned: &l.Pinned, Checklist: &l.Checklist}
	if l.Order != "" {
		edit.Order = new(book.Order)
		if err := edit.Order.UnmarshalText([]byte(l.Order)); err != nil {
			return err
		}
	}
	if l.Due != "" {
		due, err := w.moment(l.Due)
		if err != nil {
			return err
		}
		edit.Due, edit.Outcome = &due.Date, &l.Outcome
	}
	w.step(at, edit)
	for _, name := range l.Sections {
		w.sections[l.Name+"/"+name] = true
		w.step(at, book.AddSection{List: cmd.ID, Name: name})
	}
	if l.Archived {
		w.archived = append(w.archived, cmd.ID)
	}
	return nil
}

// say reads what an entry says as a sentence says it, when it was put in.
func (w *writer) say(e entry, at time.Time, item *book.Incoming) error {
	env := capture.Env{Clock: w.clock}
	if !strings.HasPrefix(e.Remind, "remind me in") { // which counts from the start of the demo
		env.Clock.Now = at
	}
	env.People, env.Places = w.people, w.placeNames
	t := &item.Todo
	text := "x"
	if !t.Due.IsZero() {
		text += ", by " + t.Due.Date.String()
	} else if !t.Plan.First().IsZero() {
		text += ", by " + t.Plan.First().String()
	}
	for _, clause := range []string{e.Repeat, e.Takes, e.Who, e.Remind} {
		if clause != "" {
			text += ", " + clause
		}
	}
	d := capture.Read(text, env)
	if d.Title != "x" || len(d.Problems) > 0 {
		return fmt.Errorf("%q is not wholly understood: %v", text, d.Problems)
	}
	t.Repeat, t.Estimate, t.Reminders = d.Repeat, int32(d.Estimate), d.Reminders
	if said := d.Choice(capture.FieldConcentration); said != "" {
		if err := t.Concentration.UnmarshalText([]byte(said)); err != nil {
			return err
		}
	}
	if d.Person.Name != "" {
		item.Person, t.Person = d.Person.Name, book.Involved{Role: d.Person.Role, Since: day.DateOf(at)}
	}
	return nil
}

// fields reads what an entry says of a to-do in words of its own.
func (w *writer) fields(e entry, t *book.Todo) (err error) {
	t.Title, t.IsNote, t.InOrder, t.Outcome, t.Place = e.Title, e.Note, e.InOrder, e.Outcome, e.Place
	if e.Priority != "" {
		if err := t.Priority.UnmarshalText([]byte(e.Priority)); err != nil {
			return err
		}
	}
	if e.Status != "" {
		if err := t.Status.UnmarshalText([]byte(e.Status)); err != nil {
			return err
		}
	}
	start, err := w.moment(e.Start)
	if err != nil {
		return err
	}
	t.Start = start.Date
	if t.Due, err = w.moment(e.Due); err != nil {
		return err
	}
	t.Plan, err = w.plan(e.Plan)
	return err
}

func (w *writer) todo(e entry, parent book.ID) (err error) {
	i := w.count
	w.count++
	id := app.NewID()
	item := book.Incoming{UID: id.String(), Under: -1, Notes: e.Notes, Section: e.Section, Tags: e.Tags, Carries: exchange.All}
	if !parent.IsZero() {
		item.Parent = parent.String()
	}
	into := book.Import{}
	if e.List != "" {
		var ok bool
		if into.List, ok = w.lists[e.List]; !ok {
			return fmt.Errorf("there is no list %q", e.List)
		}
	}
	if e.Section != "" && !w.sections[e.List+"/"+e.Section] {
		return fmt.Errorf("there is no section %q", e.Section)
	}
	if err := w.fields(e, &item.Todo); err != nil {
		return err
	}
	said := e.Made > 0
	if !said {
		e.Made = 1 + i%14
	}
	made := w.clock.Now.AddDate(0, 0, -e.Made).Add(-time.Duration(i) * time.Minute)
	if e.Done+e.Cancelled+e.Deleted != "" {
		made = made.AddDate(0, 0, -14)
	}
	if !parent.IsZero() && !said {
		made = w.clock.Now.AddDate(0, 0, -2).Add(time.Duration(i) * time.Second)
	}
	if err := w.say(e, made, &item); err != nil {
		return err
	}
	item.Todo.Created = day.TimestampOf(made)
	into.Items = []book.Incoming{item}
	w.step(made, into)
	for _, sub := range e.Subtasks {
		if err := w.todo(sub, id); err != nil {
			return err
		}
	}
	if e.Handful {
		w.step(w.clock.Now, book.Pick{ID: id})
	}
	for _, name := range e.Files {
		file, err := w.app.KeepFile(name, bytes.NewReader(drawn(name)))
		if err != nil {
			return err
		}
		w.step(made.Add(time.Hour), book.Attach{ID: id, File: file})
	}
	type end struct {
		when string
		cmd  book.Command
	}
	ends := []end{{e.Done, book.Complete{ID: id}}, {e.Cancelled, book.Cancel{ID: id}}, {e.Deleted, book.Delete{ID: id}}}
	for _, again := range e.Again {
		ends = append(ends, end{again, book.Complete{ID: id}})
	}
	for _, end := range ends {
		if end.when == "" {
			continue
		}
		m, err := w.moment(end.when)
		if err != nil {
			return err
		}
		at := w.clock.Instant(m)
		if at.After(w.clock.Now) { // the demo began early in the morning
			at = w.clock.Now
		}
		w.step(at, end.cmd)
	}
	return nil
}

// moment reads "today", "in 3 days", "2 days ago", each with an optional time.
func (w *writer) moment(s string) (day.Moment, error) {
	if s == "" {
		return day.Moment{}, nil
	}
	words := strings.Fields(s)
	m := day.Moment{Date: w.clock.Today()}
	n := 1
	switch {
	case words[0] == "today":
	case len(words) >= 3 && words[0] == "in" && words[2] == "days":
		days, err := strconv.Atoi(words[1])
		if err != nil {
			return m, err
		}
		m.Date, n = m.Date.AddDays(days), 3
	case len(words) >= 3 && words[1] == "days" && words[2] == "ago":
		days, err := strconv.Atoi(words[0])
		if err != nil {
			return m, err
		}
		m.Date, n = m.Date.AddDays(-days), 3
	default:
		return m, fmt.Errorf("%q is not a day", s)
	}
	if len(words) == n {
		return m, nil
	}
	var err error
	m.Time, err = day.ParseTimeOfDay(words[n])
	return m, err
}

// plan reads a day, a day with a slot, or a coarser plan.
func (w *writer) plan(s string) (day.Horizon, error) {
	today := w.clock.Today()
	switch s {
	case "":
		return day.Horizon{}, nil
	case "parked":
		return day.SomeTime(), nil
	case "this week":
		return day.InWeek(today), nil
	case "next week":
		return day.InWeek(today.AddDays(7)), nil
	case "this month":
		return day.InMonth(today), nil
	case "next month":
		return day.InMonth(today.MonthStart().AddMonths(1)), nil
	case "in 2 months":
		return day.InMonth(today.MonthStart().AddMonths(2)), nil
	}
	at, length, slot := strings.Cut(s, " for ")
	m, err := w.moment(at)
	if err != nil || !slot {
		return day.OnDay(m.Date), err
	}
	minutes, err := strconv.Atoi(length)
	if err != nil {
		return day.Horizon{}, err
	}
	return day.OnDay(m.Date).WithSlot(m.Time, minutes)
}

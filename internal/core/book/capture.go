package book

import (
	"fmt"
	"strings"

	"tincup/internal/core/day"
	"tincup/internal/core/repeat"
	"tincup/internal/core/term"
)

// Capture puts a new to-do in, at the end of its list, of the Cup, or of its
// parent's subtasks.
type Capture struct {
	// ID may be none, for one that the command makes.
	ID    ID
	Title string
	Notes string
	// List is left out for a subtask: it is in its parent's. NewList names one that is
	// made with it, in place of a List; where there is one of that name, it is taken.
	List     ID
	NewList  string
	Section  ID
	Parent   ID
	Priority Priority
	Start    day.Date
	Due      day.Moment
	Plan     day.Horizon
	Estimate int // minutes
	// Concentration is the kind of attention it takes.
	Concentration term.Concentration
	// Place is the name of the place where it is done; one that is not there is made.
	Place string
	// Tags are names; those that do not exist are made.
	Tags      []string
	Reminders []day.Reminder
	// Person, or NewPerson, who is made with it as NewList is.
	Person    ID
	NewPerson string
	Role      Role
	// Repeat is nil, or says Rule, First, Anchor and Lead.
	Repeat *repeat.Repeat
	// After is the sibling it stands behind; none is the end.
	After ID
	// IsNote puts it in as a note.
	IsNote bool
	// Status is an open one: a to-do may be begun as it is put in.
	Status Status
	// InOrder: its subtasks are done one after another.
	InOrder bool
	// Done puts it in as completed.
	Done bool
	// Files go with it; their bytes are kept before.
	Files []Attachment
	// Source is what it is made of.
	Source Source
}

// CaptureTree puts several to-dos in at once, all or none.
type CaptureTree struct {
	Items []TreeItem
}

// TreeItem is one to-do of a CaptureTree.
type TreeItem struct {
	Capture
	// Under is the index, in Items, of the one it is a subtask of; -1 for none.
	// It must come before.
	Under int
	// Heading makes a section of its list, or takes the one with its name, in
	// place of a to-do; what is under it stands in the section.
	Heading bool
}

func (Capture) kind() Kind     { return "capture" }
func (CaptureTree) kind() Kind { return "capture-tree" }

func (c Capture) run(d *draft) error {
	t, err := d.capture(c)
	if err != nil {
		return err
	}
	d.did("Put in", t, d.madeToo())
	if t.Repeat != nil {
		d.says += ". First: " + t.driver().Date.Words()
	}
	d.says += d.alsoOpen()
	return nil
}

// MaxTree is how many to-dos are put in at once.
const MaxTree = 500

func (c CaptureTree) run(d *draft) error {
	if len(c.Items) == 0 || len(c.Items) > MaxTree {
		return refuse("lines", "There are %d to-dos; 1 to %d are put in at once.", len(c.Items), MaxTree)
	}
	made := make([]ID, len(c.Items))
	// Those that are to stand behind one sibling stand in their own order there.
	last := map[ID]ID{}
	done, headings := 0, 0
	for i, item := range c.Items {
		if item.Under >= i {
			return refuse("lines", "Item %d stands under one that comes after it.", i+1)
		}
		if item.Heading {
			section, err := d.sectionNamed(item.List, item.Title)
			if err != nil {
				return err
			}
			made[i] = section
			headings++
			continue
		}
		switch {
		case item.Under >= 0 && c.Items[item.Under].Heading:
			if item.List == c.Items[item.Under].List { // it may say another list
				item.Section = made[item.Under]
			}
		case item.Under >= 0:
			item.Parent, item.List, item.Section, item.After = made[item.Under], ID{}, ID{}, ID{}
		}
		anchor := item.After
		if behind, ok := last[anchor]; ok {
			item.After = behind
		}
		// An open subtask keeps a ticked parent open.
		if item.Done && c.openUnder(i) {
			item.Done = false
		}
		t, err := d.capture(item.Capture)
		if err != nil {
			return err
		}
		made[i] = t.ID
		if !anchor.IsZero() {
			last[anchor] = t.ID
		}
		if !t.Status.Open() {
			done++
		}
	}
	d.says = "Put in: " + count(len(c.Items)-headings, "to-do")
	if headings > 0 {
		d.says += " in " + count(headings, "section")
	}
	if done > 0 {
		d.says += fmt.Sprintf(", %d of them done", done)
	}
	d.says += d.madeToo() + d.alsoOpen()
	return nil
}

// openUnder reports whether an item has an open subtask at any depth.
func (c CaptureTree) openUnder(i int) bool {
	under := map[int]bool{i: true}
	for j := i + 1; j < len(c.Items); j++ {
		if under[c.Items[j].Under] {
			if under[j] = true; !c.Items[j].Done {
				return true
			}
		}
	}
	return false
}

// capture makes one to-do.
func (d *draft) capture(c Capture) (*Todo, error) {
	if err := d.makeNamed(&c); err != nil {
		return nil, err
	}
	t := Todo{ID: c.ID, List: c.List, Section: c.Section, Parent: c.Parent, IsNote: c.IsNote, InOrder: c.InOrder, Status: c.Status, Priority: c.Priority, Concentration: c.Concentration, Start: c.Start, Due: c.Due, Plan: c.Plan, Created: d.now}
	var err error
	if t.Title, err = checkTitle(c.Title); err != nil {
		return nil, err
	}
	switch {
	case !c.Status.Open():
		return nil, refuse("status", "A to-do is put in as needs-action or in-process; put it in as done in place of completed.")
	case c.IsNote && c.Status != NeedsAction:
		return nil, refuse("status", "“%s” is a note, and a note is not begun. Leave that out, or put it in as a to-do.", t.Title)
	}
	notes, err := checkNotes(c.Notes)
	if err != nil {
		return nil, err
	}
	if err := d.checkStanding(&t); err != nil {
		return nil, err
	}
	if t.ID.IsZero() {
		t.ID = d.env.NewID()
	} else if _, err := d.todo(t.ID); err == nil {
		return nil, refuse("id", "A to-do with the id %s exists already.", t.ID)
	}
	if t.Source, err = checkSource(c.Source); err != nil {
		return nil, err
	}
	if t.Estimate, err = checkEstimate(c.Estimate); err != nil {
		return nil, err
	}
	if t.Reminders, err = addReminders(nil, c.Reminders); err != nil {
		return nil, err
	}
	if err := d.involve(&t, c.Person, c.Role); err != nil {
		return nil, err
	}
	if t.Place, err = lineOrNone("place", "", &c.Place, MaxPlace); err != nil {
		return nil, err
	}
	if c.Repeat != nil {
		if err := d.begin(&t, *c.Repeat); err != nil {
			return nil, err
		}
	}
	if err := checkDates("start", t.Start, t.Due); err != nil {
		return nil, err
	}
	if t.Tags, err = d.addTags(nil, c.Tags); err != nil {
		return nil, err
	}
	if len(t.Tags) > MaxTags {
		return nil, refuse("tags", "There are %d tags; %d is the most.", len(t.Tags), MaxTags)
	}
	for _, f := range c.Files {
		if t.Attachments, err = withFile(t.Attachments, f); err != nil {
			return nil, err
		}
	}
	if err := d.setNotes(&t, notes); err != nil {
		return nil, err
	}
	if c.Done {
		t.Status, t.Completed, t.Repeat = Completed, d.now, nil
	}
	if c.IsNote && (c.Done || c.Repeat != nil || !c.Plan.IsZero()) {
		return nil, refuse("kind", "A note has no tick, no repeat and no plan.")
	}
	t.Position = d.endOf(t.home())
	if !c.After.IsZero() {
		if err := d.position(&t, Move{ID: t.ID, After: c.After}, true); err != nil {
			return nil, err
		}
	}
	d.put(t)
	if t.Open() {
		d.reopenAbove(t.Parent)
	}
	return &t, nil
}

// mostNamed is how many of a kind a sentence of the history names; of more it says how many.
const mostNamed = 3

// madeToo says which lists and people were made besides what was put in.
func (d *draft) madeToo() string {
	var lists, people []string
	for _, diff := range d.lists.changes() {
		if diff.Before == nil {
			lists = append(lists, "the list "+quote(diff.After.Name))
		}
	}
	for _, diff := range d.people.changes() {
		if diff.Before == nil {
			people = append(people, "the person "+quote(diff.After.Name))
		}
	}
	if len(lists) > mostNamed {
		lists = []string{fmt.Sprintf("%d lists", len(lists))}
	}
	if len(people) > mostNamed {
		people = []string{fmt.Sprintf("%d people", len(people))}
	}
	made := append(lists, people...)
	if len(made) == 0 {
		return ""
	}
	return ", and made: " + strings.Join(made, ", ")
}

// makeNamed makes the list and the person that a new to-do names, or finds those that
// have the names by now.
func (d *draft) makeNamed(c *Capture) error {
	if c.NewList != "" {
		for _, l := range d.lists.all() {
			if l.Listed() && strings.EqualFold(l.Name, c.NewList) {
				c.List, c.NewList = l.ID, ""
				break
			}
		}
	}
	if c.NewPerson != "" {
		for _, p := range d.people.all() {
			if strings.EqualFold(p.Name, c.NewPerson) {
				c.Person, c.NewPerson = p.ID, ""
				break
			}
		}
	}
	if c.NewList != "" {
		l := List{Owner: d.desk.account, Colour: term.NthColour(len(d.desk.lists))}
		if err := d.addList(&l, c.NewList); err != nil {
			return err
		}
		c.List = l.ID
	}
	if c.NewPerson != "" {
		p, err := d.checkPerson(Person{ID: d.env.NewID(), Name: c.NewPerson})
		if err != nil {
			return err
		}
		d.people.put(p)
		c.Person = p.ID
	}
	return nil
}

// quote sets a title off within a sentence, cut to what a toast can show.
func quote(title string) string {
	const most = 60
	runes := []rune(title)
	if len(runes) > most {
		return "“" + string(runes[:most-1]) + "…”"
	}
	return "“" + title + "”"
}

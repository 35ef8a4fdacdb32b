package book

import (
	"slices"
	"strings"

	"tincup/internal/core/day"
	"tincup/internal/core/repeat"
	"tincup/internal/core/term"
)

// fill writes the fields that an item carries into a to-do, once each is what it may be, and
// returns the notes.
func (im *importing) fill(t *Todo, in *Incoming, fresh bool) (notes string, err error) {
	from := &in.Todo
	carries := func(field string) bool { return in.Carries&FieldsOf(field) != 0 }
	if carries("title") || fresh {
		if t.Title, err = checkTitle(from.Title); err != nil {
			return "", err
		}
	}
	if carries("notes") {
		if notes, err = checkNotes(in.Notes); err != nil {
			return "", err
		}
	}
	if carries("kind") && t.IsNote != from.IsNote {
		if from.IsNote && !fresh {
			if err := im.checkNote(t); err != nil {
				return "", err
			}
		}
		t.IsNote = from.IsNote
	}
	for _, line := range []struct {
		field    string
		to, from *string
		most     int
	}{{"place", &t.Place, &from.Place, MaxPlace}, {"outcome", &t.Outcome, &from.Outcome, MaxOutcome}} {
		if carries(line.field) {
			if *line.to, err = lineOrNone(line.field, "", line.from, line.most); err != nil {
				return "", err
			}
		}
	}
	if carries("source") {
		if t.Source, err = checkSource(from.Source); err != nil {
			return "", err
		}
	}
	if carries("estimate") {
		if t.Estimate, err = checkEstimate(int(from.Estimate)); err != nil {
			return "", err
		}
	}
	if carries("reminders") && !slices.Equal(t.Reminders, from.Reminders) {
		if t.Reminders, err = addReminders(nil, from.Reminders); err != nil {
			return "", err
		}
	}
	if len(in.Tags) > MaxTags {
		return "", refuse("tags", "There are %d tags; %d is the most.", len(in.Tags), MaxTags)
	}
	for _, name := range []struct{ field, name string }{{"list", in.List}, {"list", in.Section}, {"person", in.Person}} {
		if name.name != "" {
			if _, err := checkLine(name.field, name.field, name.name, MaxName); err != nil {
				return "", err
			}
		}
	}
	for _, tag := range in.Tags {
		if _, err := checkTag(tag); err != nil {
			return "", err
		}
	}
	for i := range todoFields {
		switch f := &todoFields[i]; f.name {
		case "priority", "start", "due", "plan", "concentration", "inOrder":
			if carries(f.name) {
				f.copy(t, from)
			}
		}
	}
	if carries("handful") && from.Handful == im.env.Clock.Today() && t.Handful != from.Handful && len(im.handful(from.Handful)) < MaxHandful {
		t.Handful = from.Handful
	}
	if t.IsNote {
		t.Status, t.Handful, t.Plan = NeedsAction, day.Date{}, day.Horizon{}
	}
	if err := checkDates("start", t.Start, t.Due); err != nil {
		return "", err
	}
	held := t.Repeat
	if carries("repeat") && !t.IsNote {
		if err := im.repeats(t, from.Repeat); err != nil {
			return "", err
		}
	}
	if carries("status") && !t.IsNote {
		im.close(t, from, fresh || !t.Open() && t.Repeat == held)
	}
	return notes, nil
}

// close gives a to-do the status it comes with. What repeats comes round no more once it is closed
// here: a repeat stays where it is over, or where the to-do was closed before and comes with what
// it has; stays tells the latter.
func (im *importing) close(t, from *Todo, stays bool) {
	if from.Status.Open() {
		t.Status, t.Completed = from.Status, 0
		return
	}
	if t.Status != from.Status || from.Completed != 0 {
		t.Completed = from.Completed
	}
	if t.Completed.IsZero() || t.Completed > im.now {
		t.Completed = im.now
	}
	if t.Repeat != nil && !stays && !im.over(t) {
		t.Repeat = nil
	}
	t.Status = from.Status
}

// over tells whether the present occurrence of what repeats is the last.
func (im *importing) over(t *Todo) bool {
	series, err := t.Repeat.Series(t.driver().Time, im.zone())
	return err == nil && series.After(t.Repeat.Current).IsZero()
}

// repeats gives a to-do the repeat it comes with: one that is the same goes on as it was.
func (im *importing) repeats(t *Todo, r *repeat.Repeat) error {
	switch old := t.Repeat; {
	case r == nil:
		t.Repeat = nil
		return nil
	case r.Rule == nil:
		return refuse("repeat", "A repeat without a rule is none.")
	case old != nil && old.Rule.String() == r.Rule.String() && old.Anchor == r.Anchor && old.Lead == r.Lead && slices.Equal(old.Without, r.Without) && (r.First.IsZero() || r.First == old.First):
		return nil
	}
	due, plan, start := t.Due, t.Plan, t.Start
	t.Repeat = nil
	if err := im.begin(t, *r); err != nil {
		return err
	}
	// The present occurrence is where it stood, and may have been moved by hand. Counted from
	// when it was done it may stand on any date.
	series, err := t.Repeat.Series(t.driver().Time, im.zone())
	if err == nil && (series.Holds(r.Current) || r.Anchor == repeat.Completion && !r.Current.IsZero()) {
		on := *t.Repeat
		on.Current, on.Ticks, on.Missed, on.LastDone, on.Paused = r.Current, r.Ticks, r.Missed, r.LastDone, r.Paused
		t.Repeat = &on
		if !due.IsZero() || !plan.IsZero() || !start.IsZero() {
			t.Due, t.Plan, t.Start = due, plan, start
		}
	}
	return nil
}

// stand puts a new to-do under its parent, or into its list and section.
func (im *importing) stand(t *Todo, in *Incoming) error {
	parent := ID{}
	switch {
	case in.Under >= 0 && in.Under < len(im.made):
		if parent = im.made[in.Under]; parent.IsZero() {
			return refuse("parent", "What it stands under was left out.")
		}
	case in.Parent != "":
		if p := im.known(in.Parent); p != nil {
			parent = p.ID
		}
	}
	if !parent.IsZero() {
		t.Parent = parent
		if err := im.checkStanding(t); err != nil {
			return err
		}
		return nil
	}
	t.List = im.Import.List
	return nil
}

// name finds or makes the list, the section and the person that an item names. Only a new to-do
// is put into a list.
func (im *importing) name(t *Todo, in *Incoming) error {
	if _, there := im.desk.todos[t.ID]; !there && t.Parent.IsZero() {
		if err := im.nameList(t, in); err != nil {
			return err
		}
	}
	if in.Carries&FieldsOf("person") == 0 {
		return nil
	}
	if in.Person == "" || in.Todo.Person.Role == NoRole {
		t.Person = Involved{}
		return nil
	}
	key := strings.ToLower(strings.TrimSpace(in.Person))
	id, ok := im.people[key]
	if !ok {
		p, err := im.checkPerson(Person{ID: im.env.NewID(), Name: in.Person})
		if err != nil {
			return err
		}
		im.draft.people.put(p)
		id = p.ID
		im.people[key] = id
	}
	if t.Person.ID != id || t.Person.Role != in.Todo.Person.Role {
		since := in.Todo.Person.Since
		if since.IsZero() {
			since = im.env.Clock.Today()
		}
		t.Person = Involved{id, in.Todo.Person.Role, since}
	}
	return nil
}

func (im *importing) nameList(t *Todo, in *Incoming) error {
	if in.List != "" && in.Carries&FieldsOf("list") != 0 {
		key := strings.ToLower(strings.TrimSpace(in.List))
		id, ok := im.lists[key]
		if !ok {
			l := List{Owner: im.desk.account, Colour: term.NthColour(len(im.lists))}
			if err := im.addList(&l, in.List); err != nil {
				return err
			}
			id = l.ID
			im.lists[key] = id
		}
		t.List = id
	}
	if in.Section == "" || t.List.IsZero() {
		return nil
	}
	key := t.List.String() + strings.ToLower(strings.TrimSpace(in.Section))
	id, ok := im.sections[key]
	if !ok {
		var err error
		if id, err = im.sectionNamed(t.List, in.Section); err != nil {
			return err
		}
		im.sections[key] = id
	}
	t.Section = id
	return nil
}

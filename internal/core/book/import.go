package book

import (
	"errors"
	"fmt"
	"slices"
	"strings"
	"unicode"
)

// Incoming is a to-do as it comes in from outside, with names in the place of ids.
type Incoming struct {
	// UID is what it is known by elsewhere (RFC 5545 section 3.8.4.7), to MaxUID bytes; "" where
	// it is known by nothing.
	UID string
	// Under is the index, in Items, of what it is a subtask of; -1 for none. It comes before.
	// Parent is the UID of one that is there already, where Under is -1; "" for none.
	Under  int
	Parent string
	// Todo has what needs no name: title, kind, status, priority, dates, estimate, concentration,
	// place, reminders, repeat and so on. Of Person it has the role and since when.
	Todo  Todo
	Notes string
	// Left is what was said of it that could not be read: lines for the end of the notes, which are
	// added where the notes do not hold them.
	Left string
	// List, Section and Person are names, made where they are not there; "" for none. A section
	// is of the list.
	List, Section, Person string
	Tags                  []string
	// Carries are the fields that the item tells of; the others stay as they are.
	Carries Fields
}

// MaxUID is how long a UID is at most, in bytes; MaxImport is how many to-dos come in at once.
const (
	MaxUID    = 255
	MaxImport = 100_000
)

// Import brings to-dos in: what has a UID that is known is changed field by field, all else is
// new. What breaks a rule is left out and reported, with what is under it.
type Import struct {
	Items []Incoming
	// List is where those go that name none; none is the Cup.
	List ID
	// Report, if it is as long as Items, is told what became of each.
	Report []Imported
	// Each, if set, is told how many are worked out, from none to all of them. An error ends the
	// import, and Do returns it.
	Each func(done int) error
}

// Imported is what became of an incoming to-do.
type Imported struct {
	// ID is the to-do's; none where it was left out.
	ID ID
	// New: it was not there. Changed are the fields that are others now, in the API's words;
	// neither: it was the same.
	New     bool
	Changed []string
	// Err is why it was left out: a *RuleError.
	Err error
}

func (Import) kind() Kind { return "import" }

// ByUID returns the to-do that is known by a UID, its own id or the one it came with; nil where
// there is none.
func (b *Desk) ByUID(uid string) *Todo {
	if id, ok := b.uids[uid]; ok {
		return b.todos[id].todo
	}
	var id ID
	const long = 36 // characters of a UUID
	if len(uid) == long && id.UnmarshalText([]byte(strings.ToLower(uid))) == nil {
		if t := b.todos[id].todo; t != nil && t.UID == "" {
			return t
		}
	}
	return nil
}

// KnownAs is the UID of a to-do: the one it came with, or else its id.
func (t *Todo) KnownAs() string {
	if t.UID != "" {
		return t.UID
	}
	return t.ID.String()
}

func (b *Desk) loadUIDs(diffs []Diff[Todo]) {
	for _, d := range diffs {
		if d.Before != nil && d.Before.UID != "" {
			delete(b.uids, d.Before.UID)
		}
		if d.After != nil && d.After.UID != "" {
			b.uids[d.After.UID] = d.After.ID
		}
	}
}

// importing is an Import under way.
type importing struct {
	*draft
	Import
	made            []ID
	lists, sections map[string]ID
	people          map[string]ID
	uids            map[string]int
	told            []Imported // of each item
	added, altered  int
}

func (c Import) run(d *draft) error {
	if len(c.Items) == 0 || len(c.Items) > MaxImport {
		return refuse("items", "There are %d to-dos; 1 to %d come in at once.", len(c.Items), MaxImport)
	}
	if !c.List.IsZero() {
		if l, ok := d.lists.get(c.List); !ok || !l.Deleted.IsZero() {
			return refuse("list", "There is no list with the id %s.", c.List)
		}
	}
	im := importing{draft: d, Import: c, made: make([]ID, len(c.Items)), lists: map[string]ID{}, sections: map[string]ID{}, people: map[string]ID{}, uids: map[string]int{}, told: c.Report}
	if len(im.told) != len(c.Items) {
		im.told = make([]Imported, len(c.Items))
	}
	for _, l := range d.lists.all() {
		if l.Listed() {
			im.lists[strings.ToLower(l.Name)] = l.ID
		}
	}
	for _, p := range d.people.all() {
		im.people[strings.ToLower(p.Name)] = p.ID
	}
	each := c.Each
	if each == nil {
		each = func(int) error { return nil }
	}
	for i := range c.Items {
		if err := each(i); err != nil {
			return err
		}
		told, err := im.take(i)
		var rule *RuleError
		switch {
		case err == nil:
		case len(c.Report) == len(c.Items) && errors.As(err, &rule):
			told.Err = err
		default:
			return fmt.Errorf("item %d: %w", i+1, err)
		}
		im.told[i] = told
	}
	if err := each(len(c.Items)); err != nil {
		return err
	}
	with, err := im.settle()
	if err != nil {
		return err
	}
	var parts []string
	if im.added > 0 {
		parts = append(parts, fmt.Sprintf("%d new", im.added))
	}
	if im.altered > 0 {
		parts = append(parts, fmt.Sprintf("%d changed", im.altered))
	}
	if len(parts) == 0 {
		parts = append(parts, "nothing that was not there")
	}
	if len(c.Items) == 1 && im.added == 1 {
		parts = []string{quote(d.todos[im.made[0]].After.Title)}
	}
	if with > 0 {
		parts = append(parts, "with "+count(with, "subtask"))
	}
	d.says = "Brought in: " + strings.Join(parts, ", ") + d.madeToo() + d.alsoOpen()
	return nil
}

// settle looks again at those that came in closed, once all have come in. What is open as before,
// since something open that came in stands under it, is not said to be changed. What stays closed
// closes with it all that is under it, and settle says how many that was.
func (im *importing) settle() (with int, err error) {
	for i := range im.told {
		told := &im.told[i]
		if told.New || !slices.Contains(told.Changed, "status") {
			continue
		}
		switch d := im.todos[told.ID]; {
		case d.After.Status.Open() && d.Before.Status == d.After.Status:
			told.Changed = slices.DeleteFunc(told.Changed, func(field string) bool { return field == "status" })
			if len(told.Changed) == 0 {
				im.altered--
			}
		case !d.After.Status.Open():
			closed, err := im.closeBelow(told.ID, d.After.Status)
			if err != nil {
				return with, err
			}
			with += closed
		}
	}
	return with, nil
}

// take brings one in. The error is a *RuleError where it breaks a rule; then nothing of it is
// written.
func (im *importing) take(i int) (told Imported, err error) {
	in := &im.Items[i]
	if len(in.UID) > MaxUID {
		return told, refuse("uid", "The UID has %d bytes; %d is the most.", len(in.UID), MaxUID)
	}
	if first, twice := im.uids[in.UID]; in.UID != "" && twice {
		return told, refuse("uid", "The UID “%.60s” is that of number %d as well.", in.UID, first+1)
	}
	was := im.known(in.UID)
	t := Todo{Created: in.Todo.Created}
	switch {
	case was == nil:
		told.New = true
		if t.Created.IsZero() || t.Created > im.now {
			t.Created = im.now
		}
		t.ID, t.UID = im.newID(in.UID)
	case !was.Deleted.IsZero():
		return told, refuse("uid", "“%s” is in the bin. Restore it first.", was.Title)
	case !was.Record.IsZero():
		return told, refuse("uid", "“%s” is a record of what was done and stays as it was.", was.Title)
	default:
		t = *was
	}
	notes, err := im.fill(&t, in, told.New)
	if err == nil && in.Left != "" {
		notes, err = im.withLeft(&t, in, notes, told.New)
	}
	if err != nil {
		return told, err
	}
	if told.New {
		if err := im.stand(&t, in); err != nil {
			return told, err
		}
	}
	if why := clashOf(&t); why != "" {
		return told, refuse("item", "“%s” %s.", t.Title, why)
	}
	// From here on nothing is refused that was not looked at before.
	if was != nil && t.IsNote && !was.IsNote {
		im.leaveBin(t.ID)
	}
	if err := im.endUnderClosed(&t); err != nil {
		return told, err
	}
	if in.Carries&FieldsOf("tags") != 0 {
		tags, err := im.addTags(nil, in.Tags)
		if err != nil {
			return told, err
		}
		if !told.New && sameTags(tags, t.Tags) {
			tags = t.Tags // their order says nothing
		}
		t.Tags = tags
	}
	if err := im.name(&t, in); err != nil {
		return told, err
	}
	if in.Carries&FieldsOf("notes") != 0 || in.Left != "" {
		if err := im.setNotes(&t, notes); err != nil {
			return told, err
		}
	}
	im.made[i] = t.ID
	told.ID = t.ID
	if in.UID != "" {
		im.uids[in.UID] = i
	}
	if told.New {
		t.Position = im.endOf(t.home())
		im.put(t)
		im.added++
	} else {
		told.Changed = im.differs(was, &t)
		switch {
		case slices.Contains(told.Changed, "notes"):
			im.touch(t)
		case len(told.Changed) > 0:
			im.put(t)
		}
		moved, err := im.move(&t, in)
		if err != nil {
			return told, err
		}
		if moved {
			told.Changed = append(told.Changed, "list")
		}
		if len(told.Changed) > 0 {
			im.altered++
		}
	}
	if t.Open() {
		im.reopenAbove(t.Parent)
	}
	return told, nil
}

// withLeft adds what could not be read to the notes: to those of the item where it carries them, or
// else to those that the to-do has. It is cut where the notes would be longer than they may be.
func (im *importing) withLeft(t *Todo, in *Incoming, notes string, fresh bool) (string, error) {
	if in.Carries&FieldsOf("notes") == 0 && !fresh {
		var err error
		if notes, err = im.desk.Note(t); err != nil {
			return "", err
		}
	}
	left := strings.TrimSpace(strings.Map(printable, strings.ToValidUTF8(in.Left, "\ufffd")))
	if left == "" || strings.Contains(notes, left) {
		return notes, nil
	}
	if notes != "" {
		notes += "\n\n"
	}
	notes += left
	for len(notes) > MaxNotes {
		notes = strings.ToValidUTF8(notes[:MaxNotes], "")
	}
	return notes, nil
}

// printable takes control characters out of notes, but for line breaks and tabs.
func printable(r rune) rune {
	if unicode.IsControl(r) && r != '\n' && r != '\t' {
		return -1
	}
	return r
}

// move puts a to-do that is there into the list that an item names, with what is under it.
func (im *importing) move(t *Todo, in *Incoming) (bool, error) {
	if in.List == "" || in.Carries&FieldsOf("list") == 0 || !t.Parent.IsZero() {
		return false, nil
	}
	to := Todo{}
	if err := im.nameList(&to, in); err != nil || to.List == t.List && (to.Section == t.Section || in.Section == "") {
		return false, err
	}
	return true, Move{ID: t.ID, List: to.List, Section: to.Section}.run(im.draft)
}

// known is the to-do of a UID as the draft has it; nil where there is none.
func (im *importing) known(uid string) *Todo {
	if uid == "" {
		return nil
	}
	if t := im.desk.ByUID(uid); t != nil {
		if cur, err := im.todo(t.ID); err == nil {
			return &cur
		}
	}
	return nil
}

// newID is the id of a new to-do: its UID where that is one of ours, that is a UUID of version 7
// in small letters; else a new one, with the UID kept beside it.
func (im *importing) newID(uid string) (ID, string) {
	var id ID
	if id.UnmarshalText([]byte(uid)) == nil && id.String() == uid && id[6]>>4 == 7 {
		if _, taken := im.desk.todos[id]; !taken {
			return id, ""
		}
	}
	return im.env.NewID(), uid
}

// differs names the fields in which a to-do comes to be another.
func (im *importing) differs(was, t *Todo) []string {
	names := changedFields(was, t)
	for _, n := range im.notes {
		if noteID(n) == t.ID && !slices.Contains(names, "notes") {
			names = append(names, "notes")
		}
	}
	return names
}

func sameTags(a, b []ID) bool {
	return len(a) == len(b) && !slices.ContainsFunc(a, func(id ID) bool { return !slices.Contains(b, id) })
}

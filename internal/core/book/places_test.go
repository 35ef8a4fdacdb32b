package book_test

import (
	"strings"
	"testing"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/geo"
)

// at puts in a to-do that is done at a place and reminds on arriving there.
func (d *desk) at(title, place string) book.ID {
	d.t.Helper()
	id := d.capture(title)
	d.do(book.Edit{ID: id, Place: &place})
	d.do(book.Remind{ID: id, Add: []day.Reminder{day.ReminderOn(day.Arriving, place)}})
	return id
}

func names(d *desk) string {
	var all []string
	for _, p := range d.desk.Places() {
		all = append(all, p.Name)
	}
	return strings.Join(all, ", ")
}

func TestPlacesThatAreNamedAreThere(t *testing.T) {
	d := newDesk(t)
	crates := d.at("Count the crates", "The shed")
	d.at("Oil the hinges", "THE SHED")
	if got := names(d); got != "The shed" {
		t.Errorf("the places are %s", got)
	}
	p := d.desk.PlaceNamed("the Shed")
	if p == nil || p.Radius != 150 || p.Thing || !p.Middle.IsZero() {
		t.Fatalf("it is %+v", p)
	}
	for todo := range d.desk.All() {
		if todo.Place != "The shed" || todo.Reminders[0] != day.ReminderOn(day.Arriving, "The shed") {
			t.Errorf("“%s” is at %q, with %v", todo.Title, todo.Place, todo.Reminders)
		}
	}
	d.do(book.Remind{ID: crates, Add: []day.Reminder{day.ReminderOn(day.Connecting, "the car")}})
	if p := d.desk.PlaceNamed("the car"); p == nil || !p.Thing {
		t.Errorf("what one connects to is %+v", p)
	}
	d.sound()
}

func TestPlacesAreRenamedWithAllThatGoesByThem(t *testing.T) {
	d := newDesk(t)
	crates := d.at("Count the crates", "The shed")
	shed := d.desk.PlaceNamed("the shed")
	on := day.ReminderOn(day.Arriving, "The shed")
	d.do(book.RingBell{Come: []book.Come{{Todo: crates, Reminder: on, At: day.MustMoment("2026-11-24T09:05")}}})
	d.do(book.Delete{ID: d.at("In the bin", "The shed")})
	since := d.todo(crates).RemindFrom
	name := "The boat shed"
	renamed := d.do(book.EditPlace{ID: shed.ID, Name: &name})
	if renamed.Says != "Place renamed: “The shed” is now “The boat shed”" || len(renamed.Todos) != 2 {
		t.Errorf("%q, %d to-dos", renamed.Says, len(renamed.Todos))
	}
	if got := d.todo(crates).RemindFrom; got != since {
		t.Errorf("its reminder counts from %v, and did from %v: under another name it is the same", got, since)
	}
	hinges := d.at("Oil the hinges", name) // it knows the new name alone
	holds := func(want string) {
		t.Helper()
		for todo := range d.desk.All() {
			if todo.Place != want || !todo.Reminds(day.ReminderOn(day.Arriving, want)) {
				t.Errorf("“%s” is at %q with %v; %q is wanted", todo.Title, todo.Place, todo.Reminders, want)
			}
		}
		if ring := d.desk.RingsOf(crates)[0]; ring.Reminder.Place != want {
			t.Errorf("the ring is of %v; %q is wanted", ring.Reminder, want)
		}
		if got := names(d); got != want {
			t.Errorf("the places are %q; %q is wanted", got, want)
		}
		d.sound()
	}
	holds(name)
	if why := d.undo(renamed); why != "" {
		t.Fatal(why)
	}
	holds("The shed")
	_ = hinges
	smaller := "the SHED"
	d.do(book.EditPlace{ID: shed.ID, Name: &smaller})
	holds(smaller)
}

func TestPlacesGoFromAllThatGoesByThem(t *testing.T) {
	d := newDesk(t)
	crates := d.at("Count the crates", "The shed")
	d.do(book.Remind{ID: crates, Add: []day.Reminder{day.ReminderBefore(10)}})
	removed := d.do(book.RemovePlace{ID: d.desk.PlaceNamed("The shed").ID})
	if todo := d.todo(crates); removed.Says != "Place removed: “The shed”, from 1 to-do" || todo.Place != "" || len(todo.Reminders) != 1 || names(d) != "" {
		t.Errorf("%q; %q, %v, places %q", removed.Says, todo.Place, todo.Reminders, names(d))
	}
	if why := d.undo(removed); why != "" || names(d) != "The shed" || d.todo(crates).Place != "The shed" || len(d.todo(crates).Reminders) != 2 {
		t.Errorf("undone, %s: %+v in %q", why, d.todo(crates), names(d))
	}
	d.sound()
}

// A place that came with a name goes when that is undone, unless there is more to it by now.
func TestUndoneNamesOfPlaces(t *testing.T) {
	shed, middle := "The shed", geo.MustAt(38.7, -9.1)
	for what, c := range map[string]struct {
		between func(d *desk)
		left    string
	}{
		"nothing since":          {func(*desk) {}, ""},
		"another to-do is there": {func(d *desk) { d.do(book.Edit{ID: d.capture("b"), Place: &shed}) }, "The shed"},
		"another is reminded there": {func(d *desk) {
			d.do(book.Remind{ID: d.capture("b"), Add: []day.Reminder{day.ReminderOn(day.Leaving, shed)}})
		}, "The shed"},
		"its position is known": {func(d *desk) { d.do(book.EditPlace{ID: d.desk.PlaceNamed(shed).ID, Middle: &middle}) }, "The shed"},
	} {
		d := newDesk(t)
		named := d.do(book.Edit{ID: d.capture("a"), Place: &shed})
		c.between(d)
		if why := d.undo(named); why != "" || names(d) != c.left {
			t.Errorf("%s: undone (%s) the places are %q; %q is wanted", what, why, names(d), c.left)
		}
	}
	d := newDesk(t)
	added := d.do(book.AddPlace{Name: shed, Middle: middle})
	id := d.capture("a")
	d.do(book.Edit{ID: id, Place: &shed})
	if why := d.undo(added); !strings.Contains(why, "its to-dos") {
		t.Errorf("a place goes that a to-do goes by: %q", why)
	}
	none := ""
	edited := d.do(book.Edit{ID: id, Place: &none})
	if why := d.undo(added); why != "" || names(d) != "" {
		t.Errorf("%q, places %q", why, names(d))
	}
	if why := d.undo(edited); why != "" || names(d) != shed {
		t.Errorf("what names it again: %q, places %q", why, names(d))
	}
}

// The history of before places were rows has names in every case.
func TestUndoOfNamesInAnotherCase(t *testing.T) {
	d := newDesk(t)
	d.at("Count the crates", "The shed")
	id := d.capture("Oil the hinges")
	loud, none := "THE SHED", ""
	first := d.do(book.Edit{ID: id, Place: &loud})
	first.Todos[0].After = ptr(*first.Todos[0].After) // as it was kept then
	first.Todos[0].After.Place = loud
	second := d.do(book.Edit{ID: id, Place: &none})
	second.Todos[0].Before = first.Todos[0].After
	for _, c := range []*book.Change{second, first} {
		if why := d.undo(c); why != "" {
			t.Errorf("%s: %s", c.Says, why)
		}
	}
	if got := d.todo(id).Place; got != "" {
		t.Errorf("it is at %q", got)
	}
}

func TestWhatIsNoPlace(t *testing.T) {
	d := newDesk(t)
	d.do(book.AddPlace{Name: "The shed", Middle: geo.MustAt(1, 2), Radius: 50})
	car := d.do(book.AddPlace{Name: "the car", Thing: true}).Places[0].After.ID
	id, name, far, small, big, middle := d.capture("a"), "THE SHED", 5001, 49, 1<<40, geo.MustAt(1, 2)
	long := strings.Repeat("é", 201)
	for _, c := range []struct {
		cmd  book.Command
		says string
	}{
		{book.AddPlace{Name: " "}, "empty"},
		{book.AddPlace{Name: "the shed"}, "“The shed” exists already"},
		{book.AddPlace{Name: "a\nb"}, "one line"},
		{book.AddPlace{Name: long}, "201 characters"},
		{book.AddPlace{Name: "x", Radius: -1}, "50 to 5000 m"},
		{book.AddPlace{Name: "x", Thing: true, Middle: middle}, "no position"},
		{book.EditPlace{ID: car, Name: &name}, "exists already"},
		{book.EditPlace{ID: car, Radius: &far}, "50 to 5000 m"},
		{book.EditPlace{ID: car, Radius: &small}, "50 to 5000 m"},
		{book.EditPlace{ID: car, Radius: &big}, "50 to 5000 m"},
		{book.EditPlace{ID: car, Middle: &middle}, "no position"},
		{book.EditPlace{ID: book.ID{1}}, "no place"},
		{book.RemovePlace{ID: book.ID{1}}, "no place"},
		{book.Edit{ID: id, Place: &long}, "201 characters"},
		{book.Remind{ID: id, Add: []day.Reminder{day.ReminderOn(day.Arriving, long)}}, "201 characters"},
	} {
		if _, err := d.desk.Do(d.env(), c.cmd); err == nil || !strings.Contains(err.Error(), c.says) {
			t.Errorf("%+v: %v; %q is wanted", c.cmd, err, c.says)
		}
	}
	thing := true
	shed := d.desk.PlaceNamed("the shed").ID
	d.do(book.EditPlace{ID: shed, Thing: &thing})
	if p := d.desk.PlaceNamed("the shed"); !p.Thing || !p.Middle.IsZero() {
		t.Errorf("a thing is at %v", p.Middle)
	}
	for i := range book.MaxPlaces - 2 {
		d.do(book.AddPlace{Name: "place " + strings.Repeat("i", i%190) + string(rune('a'+i/190))})
	}
	if _, err := d.desk.Do(d.env(), book.AddPlace{Name: "one more"}); err == nil || !strings.Contains(err.Error(), "500 places") {
		t.Errorf("one more: %v", err)
	}
	more := "one more"
	if _, err := d.desk.Do(d.env(), book.Edit{ID: id, Place: &more}); err == nil || !strings.Contains(err.Error(), "500 places") {
		t.Errorf("one more by its name: %v", err)
	}
}

package view_test

import (
	"fmt"
	"maps"
	"math/rand/v2"
	"testing"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/view"
	"tincup/internal/seed"
)

// countAnew counts everything anew.
func countAnew(b *book.Desk, c day.Clock) *view.Survey {
	s := view.NewTally(b, c).Survey(b, c)
	s.Complete(b, c)
	return s
}

// The counts beside lists, tags and people, and the badges that follow from roles,
// subtasks, the handful and the bin, are those of counting one after the other.
func TestSurveyAgainstSlowCount(t *testing.T) {
	seed := seed.New(t)
	r := rand.New(rand.NewPCG(seed, 3))
	today := day.MustDate("2026-11-24")
	clock := clockAt(t, "UTC", "2026-11-24T09:00:00", 0)
	total := 0
	for round := range 40 {
		s := newShelf(t)
		s.clock = &clock
		var lists, people, todos []book.ID
		for i := range 3 {
			lists = append(lists, s.do(book.AddList{Name: fmt.Sprintf("list %d", i)}).Lists[0].After.ID)
			people = append(people, s.do(book.AddPerson{Name: fmt.Sprintf("person %d", i)}).People[0].After.ID)
		}
		for i := range 40 {
			c := book.Capture{Title: fmt.Sprintf("t%d", i), IsNote: r.IntN(12) == 0}
			for tag := range 3 {
				if r.IntN(4) == 0 {
					c.Tags = append(c.Tags, fmt.Sprintf("tag%d", tag))
				}
			}
			if r.IntN(3) == 0 {
				c.Person, c.Role = people[r.IntN(3)], book.Ask+book.Role(r.IntN(3))
			}
			if len(todos) > 0 && r.IntN(4) == 0 {
				c.Parent = todos[r.IntN(len(todos))]
			} else if r.IntN(3) > 0 {
				c.List = lists[r.IntN(3)]
			}
			made, err := s.desk.Do(book.Env{Clock: clock, NewID: s.newID}, c)
			if err != nil { // under a note, or what is in the bin
				continue
			}
			s.book.Apply(made)
			todos = append(todos, made.Todo().ID)
		}
		for _, id := range todos {
			var cmd book.Command
			switch r.IntN(8) {
			case 0:
				cmd = book.Complete{ID: id}
			case 1:
				cmd = book.Delete{ID: id}
			case 2:
				cmd = book.Pick{ID: id}
			default:
				continue
			}
			if c, err := s.desk.Do(book.Env{Clock: clock, NewID: s.newID}, cmd); err == nil && !c.Empty() {
				s.book.Apply(c)
			}
		}
		wantLists, wantTags, wantPeople := map[book.ID]int{}, map[book.ID]int{}, map[book.ID]int{}
		waiting, projects, handful, bin := 0, 0, 0, 0
		for todo := range s.desk.All() {
			if !todo.Deleted.IsZero() {
				bin++
			}
			if !todo.Open() {
				continue
			}
			for _, tag := range todo.Tags {
				wantTags[tag]++
			}
			if !todo.List.IsZero() {
				wantLists[todo.List]++
			}
			if todo.Person.Role != book.NoRole {
				wantPeople[todo.Person.ID]++
			}
			if todo.Person.Role == book.WaitingOn {
				waiting++
			}
			if todo.Handful == today {
				handful++
			}
			for _, sub := range s.desk.Subtasks(todo.ID) {
				if !sub.IsNote {
					projects++
					break
				}
			}
		}
		got := countAnew(s.desk, clock)
		if !maps.Equal(got.Lists, wantLists) || !maps.Equal(got.Tags, wantTags) || !maps.Equal(got.People, wantPeople) {
			t.Errorf("seed %d, round %d: lists %v, want %v; tags %v, want %v; people %v, want %v",
				seed, round, got.Lists, wantLists, got.Tags, wantTags, got.People, wantPeople)
		}
		for name, want := range map[view.Name]int{view.Waiting: waiting, view.Projects: projects, view.Bin: bin} {
			if got.Counts[name] != want {
				t.Errorf("seed %d, round %d: the badge of %s is %d, want %d", seed, round, name, got.Counts[name], want)
			}
		}
		if got.Handful != handful {
			t.Errorf("seed %d, round %d: %d in the handful, want %d", seed, round, got.Handful, handful)
		}
		total += waiting + projects + handful + len(wantTags) + len(wantPeople)
	}
	if total < 500 {
		t.Errorf("only %d things were counted", total)
	}
}

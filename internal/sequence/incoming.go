package sequence

import (
	"fmt"
	"math/rand/v2"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/repeat"
	"tincup/internal/core/term"
)

// incoming brings a few to-dos in, as a file would: some are there already and come with other
// fields, some are new, and some stand under others. What is refused is left out.
func (r *Run) incoming(s Step, todos []*book.Todo, list book.ID) book.Command {
	random := rand.New(rand.NewPCG(uint64(s.A)<<32|uint64(s.B), uint64(s.C)))
	cmd := book.Import{List: list}
	for i := range 1 + random.IntN(4) {
		in := book.Incoming{Under: -1, Carries: book.FieldsOf(book.FieldNames()...)}
		if len(todos) > 0 && random.IntN(2) == 0 {
			t := todos[random.IntN(len(todos))]
			in.UID, in.Todo = t.KnownAs(), *t
			in.Notes, _ = r.Desk.Note(t) // notes in memory can be read
		} else {
			in.Todo.Title = fmt.Sprintf("i%d", random.IntN(1000))
			if random.IntN(3) > 0 {
				in.UID = fmt.Sprintf("elsewhere-%d", random.IntN(12))
			}
		}
		for range random.IntN(4) {
			r.alter(random, &in)
		}
		switch random.IntN(5) {
		case 0, 1:
			in.Under = i - 1
		case 2:
			if len(todos) > 0 {
				in.Parent = todos[random.IntN(len(todos))].KnownAs()
			}
		}
		cmd.Items = append(cmd.Items, in)
	}
	cmd.Report = make([]book.Imported, len(cmd.Items))
	return cmd
}

// alter gives one field of an incoming to-do another value.
func (r *Run) alter(random *rand.Rand, in *book.Incoming) {
	t := &in.Todo
	on := day.DateOf(r.Now).AddDays(random.IntN(30) - 8)
	switch random.IntN(11) {
	case 0, 1:
		t.Status = term.Status(random.IntN(4))
	case 2:
		t.Repeat = nil
		if random.IntN(3) > 0 {
			rules := []string{"FREQ=DAILY;COUNT=2", "FREQ=WEEKLY", "FREQ=DAILY;INTERVAL=3"}
			t.Repeat = &repeat.Repeat{Rule: repeat.MustParse(rules[random.IntN(3)]), First: on, Anchor: repeat.Anchor(random.IntN(2))}
		}
	case 3:
		t.Due = day.Moment{Date: on}
	case 4:
		t.Plan = []day.Horizon{{}, day.OnDay(on), day.InWeek(on), day.SomeTime()}[random.IntN(4)]
	case 5:
		t.IsNote = !t.IsNote
	case 6:
		in.Tags = []string{fmt.Sprintf("tag%d", random.IntN(6))}
	case 7:
		in.List, in.Section = fmt.Sprintf("list%d", random.IntN(3)), []string{"", "May"}[random.IntN(2)]
	case 8:
		in.Person, t.Person.Role = fmt.Sprintf("person%d", random.IntN(3)), book.Role(random.IntN(4))
	case 9:
		in.Notes = fmt.Sprintf("n%d", random.IntN(100))
	case 10:
		in.Carries = book.FieldsOf("title", "status", "notes")
	}
}

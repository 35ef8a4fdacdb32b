package view

import (
	"fmt"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
)

// Sentence says in words what the view holds.
func Sentence(b *book.Desk, c day.Clock, q Query) string {
	today := c.Today()
	switch q.Name {
	case Cup:
		return "Open, and in no list yet."
	case Today:
		_, month, dom := today.Civil()
		return fmt.Sprintf("%s %d %s.", today.Weekday(), dom, month)
	case Overdue:
		return "Open, and the due has passed."
	case Upcoming:
		return fmt.Sprintf("What comes after today, up to %s.", today.AddDays(upcomingWeeks).Words())
	case WithinAWeek:
		return fmt.Sprintf("Open, and due on or before %s.", today.AddDays(7).Words())
	case Done:
		return "Completed or cancelled, the newest day first."
	case Bin:
		return fmt.Sprintf("Deleted. Each stays for %d days and can be restored.", book.BinDays)
	case Ready:
		return "What can be done now: late first, then the least time left, then priority, then age."
	case Waiting:
		return "What someone else owes you, the longest wait first."
	case Projects:
		return "Open, and with subtasks."
	case InList:
		if l, err := b.List(q.List); err == nil {
			switch {
			case !l.Template.IsZero():
				return fmt.Sprintf("A template. Its dates count from %s.", l.Template.Words())
			case !l.Archived.IsZero():
				return "Archived: in no view but this."
			case l.Checklist:
				return "A checklist."
			}
			if shelf, err := b.Shelf(l.Shelf); err == nil {
				return fmt.Sprintf("Open, on the shelf %s.", shelf.Name)
			}
		}
	case Own:
		if v, err := b.View(q.View); err == nil {
			if d, err := ParseDefinition([]byte(v.Question)); err == nil {
				return d.Sentence(b)
			}
		}
	case Asked:
		return q.Definition.Sentence(b)
	case WithTag:
		if t, err := b.Tag(q.Tag); err == nil {
			return fmt.Sprintf("Open, and tagged %s or what is nested under it.", t.Name)
		}
	case WithPerson:
		return "What to ask, what they owe, what is for them."
	case OnRail:
		switch q.Cup.Precision() {
		case day.Day:
			return "Planned for this day, or due on it."
		case day.Week:
			return "Planned for this week and for no day of it."
		case day.Month:
			return "Planned for this month and for no day of it."
		case day.Parked:
			return "Some time, maybe."
		}
	}
	return ""
}

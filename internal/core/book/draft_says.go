package book

import (
	"fmt"
	"strings"

	"tincup/internal/core/day"
)

func (d *draft) personWords(t *Todo) string {
	if p, ok := d.people.get(t.Person.ID); ok {
		return t.Person.Role.String() + " " + p.Name
	}
	return ""
}

func plannedDay(t *Todo) day.Date {
	if t.Plan.Precision() == day.Day {
		return t.Plan.First()
	}
	return day.Date{}
}

// differences tells what became of the fields of a to-do: ", due: Thu 26 → Fri 27 Nov".
func (d *draft) differences(id ID) string {
	var b strings.Builder
	if diff, ok := d.todos[id]; ok && diff.Before != nil && diff.After != nil {
		altered := Altered(diff.Before, diff.After)
		if altered&FieldsOf("title") != 0 { // the new one is named as it is
			b.WriteString(", before: " + quote(diff.Before.Title))
		}
		for i, f := range todoFields {
			if f.told.as == "" || altered&(1<<i) == 0 {
				continue
			}
			from, to := f.told.words(d, diff.Before), f.told.words(d, diff.After)
			if from == to {
				continue
			}
			if f.told.day != nil {
				from = d.shorter(from, f.told.day(diff.Before), f.told.day(diff.After))
			}
			fmt.Fprintf(&b, ", %s: %s → %s", f.told.as, orNone(from), orNone(to))
		}
	}
	if len(d.notes) > 0 {
		b.WriteString(", notes")
	}
	return b.String()
}

// becameAlike tells what became of the fields of many, where it is the same for all:
// ", due: Fri 27 Nov".
func (d *draft) becameAlike(ids []ID) string {
	var b strings.Builder
	for i, f := range todoFields {
		if f.told.as == "" {
			continue
		}
		set := Fields(1 << i)
		words, alike, changed := "", true, false
		for _, id := range ids {
			diff, ok := d.todos[id]
			if !ok || diff.Before == nil || diff.After == nil || Altered(diff.Before, diff.After)&set == 0 {
				continue
			}
			now := f.told.words(d, diff.After)
			alike = alike && (!changed || now == words)
			words, changed = now, true
		}
		if changed && alike {
			fmt.Fprintf(&b, ", %s: %s", f.told.as, orNone(words))
		}
	}
	return b.String()
}

// was tells what a field was before the draft, where it was something: " (before: Thu 26 Nov)".
func (d *draft) was(id ID, field string) string {
	diff, ok := d.todos[id]
	if !ok || diff.Before == nil {
		return ""
	}
	for _, f := range todoFields {
		if f.name != field || f.told.as == "" {
			continue
		}
		if words := f.told.words(d, diff.Before); words != "" {
			return " (before: " + words + ")"
		}
	}
	return ""
}

// addedAndGone tells what came to a few things and what went: ", added calls, without quick".
func addedAndGone(before, after []string) string {
	var b strings.Builder
	for _, change := range []struct {
		verb     string
		all, but []string
	}{{"added", after, before}, {"without", before, after}} {
		var names []string
		known := map[string]bool{}
		for _, n := range change.but {
			known[n] = true
		}
		for _, n := range change.all {
			if !known[n] {
				names = append(names, n)
			}
		}
		if len(names) > 0 {
			b.WriteString(", " + change.verb + " " + strings.Join(names, ", "))
		}
	}
	return b.String()
}

// dayWords is a date with its year only where that is not the current one.
func (d *draft) dayWords(on day.Date) string {
	year, _, _ := d.env.Clock.Today().Civil()
	return strings.TrimSuffix(on.Words(), fmt.Sprintf(" %d", year))
}

func (d *draft) momentWords(m day.Moment) string {
	if m.HasTime() {
		return d.dayWords(m.Date) + " " + m.Time.String()
	}
	return d.dayWords(m.Date)
}

func (d *draft) planWords(h day.Horizon) string {
	if at, minutes := h.Slot(); !at.IsZero() {
		return fmt.Sprintf("%s %s for %s", d.dayWords(h.First()), at, minutesWords(minutes))
	}
	if h.Precision() == day.Day {
		return d.dayWords(h.First())
	}
	return h.Words()
}

// shorter leaves the month out of the words of a day where those of a second say the same:
// "Thu 26" before "Fri 27 Nov".
func (d *draft) shorter(words string, from, to day.Date) string {
	fromYear, fromMonth, _ := from.Civil()
	toYear, toMonth, _ := to.Civil()
	if from.IsZero() || to.IsZero() || fromYear != toYear || fromMonth != toMonth {
		return words
	}
	parts := strings.SplitN(d.dayWords(from), " ", 3) // Thu, 26, Nov
	return strings.TrimSuffix(words, " "+parts[2])
}

func orNone(words string) string {
	if words == "" {
		return "none"
	}
	return words
}

func quoteOrNone(text string) string {
	if text == "" {
		return ""
	}
	return quote(text)
}

// minutesWords is a length as people say it: "1 h 30 min"; "" for none.
func minutesWords(minutes int) string {
	switch h, m := minutes/60, minutes%60; {
	case minutes == 0:
		return ""
	case h == 0:
		return fmt.Sprintf("%d min", m)
	case m == 0:
		return fmt.Sprintf("%d h", h)
	default:
		return fmt.Sprintf("%d h %d min", h, m)
	}
}

package capture

import (
	"fmt"
	"strings"

	"tincup/internal/core/day"
	"tincup/internal/core/repeat"
	"tincup/internal/core/term"
)

// Say says a draft as a sentence that reads to the same draft. Words of the
// title that would be read as something else are quoted. What no sentence can
// say is left out: a rule of no plain words, notes of several lines, a list
// whose name has a comma.
func Say(d Draft, env Env) string {
	rest, intro := d.clauses(env), ""
	if d.Note {
		intro = "note: "
	}
	for _, title := range []string{d.Title, strings.ReplaceAll(d.Title, `"`, `""`), quoted(d.Title)} {
		s := intro + title + rest
		if read := Read(s, env); read.Title == d.Title && len(read.Chips) == len(Read(intro+quoted("x")+rest, env).Chips) {
			return s
		}
	}
	return intro + quoted(d.Title) + rest
}

func quoted(s string) string { return `"` + strings.ReplaceAll(s, `"`, `""`) + `"` }

// Quote puts quotes round the words of a chip in the text it was read from, so
// that they stay words.
func Quote(text string, c Chip) string {
	var b strings.Builder
	pos := 0
	for _, s := range c.Spans {
		b.WriteString(text[pos:s.Start] + `"` + text[s.Start:s.End] + `"`)
		pos = s.End
	}
	return b.String() + text[pos:]
}

// clauses says all but the title.
func (d Draft) clauses(env Env) string {
	var b strings.Builder
	clause := func(s string) {
		if s != "" {
			b.WriteString(", " + s)
		}
	}
	for _, tag := range d.Tags {
		b.WriteString(" #" + tag)
	}
	said := ""
	if d.Repeat != nil {
		said = SayRepeat(*d.Repeat, env)
	}
	switch {
	case said != "":
		clause(said)
		clause(d.Due.Time.String())
	case !d.Due.IsZero():
		clause("by " + sayMoment(d.Due))
	}
	if r := d.Repeat; !d.Start.IsZero() && (r == nil || r.Lead == 0 && r.First != d.Start) { // said with the repeat
		clause("from " + sayDate(d.Start))
	}
	clause(sayPlan(d.Plan))
	if d.Priority != term.NoPriority {
		clause(d.Priority.String())
	}
	for _, choice := range d.Choices {
		clause(sayChoice(choice))
	}
	if d.List != "" {
		clause("in " + d.List + newName(d.NewList))
	}
	if d.Estimate > 0 {
		clause(fmt.Sprintf("%d min", d.Estimate))
	}
	if d.Person.Role != term.NoRole {
		clause(d.Person.Role.String() + " " + d.Person.Name + newName(d.Person.New))
	}
	for _, r := range d.Reminders {
		switch {
		case r.Edge != day.NoEdge:
			clause(sayEdge(r, env))
		case r.At.IsZero():
			if r.Before >= 0 { // there are no words for one that comes after
				clause(fmt.Sprintf("remind me %s before", sayBefore(r.Before)))
			}
		default:
			clause("remind me " + sayMoment(r.At))
		}
	}
	if d.Notes != "" && !strings.ContainsAny(d.Notes, "\r\n") {
		b.WriteString(" -- " + d.Notes)
	}
	return b.String()
}

// newName says that a name is to be made.
func newName(is bool) string {
	if is {
		return " (new)"
	}
	return ""
}

func sayBefore(minutes int) string {
	if minutes == 0 {
		return "0 min"
	}
	return day.LengthWords(minutes)
}

func sayDate(d day.Date) string {
	year, month, dom := d.Civil()
	if year < 1000 {
		return d.String()
	}
	return fmt.Sprintf("%d %.3s %d", dom, month, year)
}

func sayMoment(m day.Moment) string {
	if m.HasTime() {
		return sayDate(m.Date) + " " + m.Time.String()
	}
	return sayDate(m.Date)
}

func sayPlan(h day.Horizon) string {
	switch h.Precision() {
	case day.Day:
		s := "plan " + sayDate(h.First())
		if at, minutes := h.Slot(); !at.IsZero() {
			s += fmt.Sprintf(" %s for %d min", at, minutes)
		}
		return s
	case day.Week, day.Month:
		return "plan " + h.String()
	case day.Parked:
		return "parked"
	}
	return ""
}

// SayRepeat says a repeat with its first date, as a clause; "" where words do
// not do.
func SayRepeat(r repeat.Repeat, env Env) string {
	bounded := *r.Rule
	bounded.Count, bounded.Until = 0, repeat.Until{}
	open := repeat.Repeat{Rule: &bounded, Anchor: r.Anchor}
	s := strings.ReplaceAll(bounded.Spoken(), ", ", " and ")
	if r.Anchor == repeat.Completion {
		s = repeat.AfterDone(open.Rule)
	}
	s += " from " + sayDate(r.First)
	switch {
	case r.Rule.Count > 0:
		s += fmt.Sprintf(" %d times", r.Rule.Count)
	case !r.Rule.Until.IsZero():
		s += " until " + sayDate(r.Rule.Until.Date)
	}
	if r.Lead > 0 {
		s += fmt.Sprintf(", %d days ahead", r.Lead)
	}
	read := Read("x, "+s, env)
	if back := read.Repeat; back == nil || back.Rule.String() != r.Rule.String() || back.First != r.First ||
		back.Anchor != r.Anchor || back.Lead != r.Lead {
		return ""
	}
	return s
}

package capture

import (
	"fmt"
	"slices"
	"strings"

	"tincup/internal/core/day"
	"tincup/internal/core/repeat"
)

// repeat works out the rule, its first date, and the due it drives.
func (m *meaning) repeat() {
	d := &m.r.draft
	rec := m.rule.item.rule
	rule := rec.rule
	rule.ByDay = slices.Clone(rule.ByDay)
	for _, it := range m.more {
		rule.ByDay = append(rule.ByDay, it.rule.rule.ByDay...)
	}
	m.gather()
	if rec.wrong {
		m.wrong(m.rule.chip, NoDate, "No calendar has such a repeat.")
		return
	}
	from := m.today
	given := true
	switch {
	case m.start.item != nil && m.due.item == nil:
		from, d.Start = d.Start, day.Date{}
	case m.due.item != nil:
		from = d.Due.Date
	default:
		given = false
	}
	if from.IsZero() {
		return // a problem is told already
	}
	if !given && rec.anchor == repeat.Schedule && d.Due.HasTime() && m.clock.Passed(day.Moment{Date: from, Time: d.Due.Time}) {
		from = from.AddDays(1)
	}
	first, why := m.first(&rule, rec.anchor, from)
	if why == "" {
		why = m.bounded(&rule, first)
	}
	if why != "" {
		m.wrong(m.rule.chip, BadRepeat, why)
		return
	}
	rep := repeat.Repeat{Rule: rule.Lasting(first), First: first, Anchor: rec.anchor}
	if m.lead.item != nil {
		rep.Lead = m.lead.item.n
		if rep.Lead < 1 || rep.Lead > repeat.MaxLead {
			m.wrong(m.lead.chip, Range, fmt.Sprintf("It surfaces 1 to %d days ahead.", repeat.MaxLead))
			rep.Lead = 0
		}
	}
	begun, err := rep.Begin(d.Due.Time, m.clock.Zone)
	if err != nil {
		m.wrong(m.rule.chip, BadRepeat, sentence(err.Error()))
		return
	}
	d.Due.Date = begun.Current
	rep.First = begun.Current
	if m.start.item != nil && d.Start == rep.First { // it says where the repeat begins, as the due does
		d.Start = day.Date{}
		m.join(m.start, m.rule)
	}
	if rep.Lead > 0 {
		d.Start = d.Due.Date.AddDays(-rep.Lead)
		m.answer(m.lead, "", "from "+d.Start.Words()+" on")
	}
	d.Repeat = &rep
	m.sayRepeat()
	if it := m.plan.item; it != nil && it.date == nil && !it.parked { // every Thursday 2-4pm
		m.plannedOn(&date{form: exact, on: rep.First})
	}
}

// gather makes one chip of what tells of the repeat.
func (m *meaning) gather() {
	for _, it := range m.more {
		m.join(said{it, m.chip(FieldRepeat, it, "")}, m.rule)
	}
	if m.end.item != nil {
		m.join(m.end, m.rule)
	}
	if m.start.item != nil && m.due.item == nil {
		m.join(m.start, m.rule)
	}
}

// first finds the rule's first date on or after a day.
func (m *meaning) first(rule *repeat.Rule, anchor repeat.Anchor, from day.Date) (day.Date, string) {
	parsed, err := repeat.Parse(rule.String())
	if err != nil {
		return day.Date{}, sentence(err.Error())
	}
	*rule = *parsed
	if anchor == repeat.Completion {
		return from, ""
	}
	first := rule.Lasting(from).FirstOn(from)
	if first.IsZero() {
		return first, sentence(repeat.ErrNever.Error())
	}
	return first, ""
}

// bounded sets the end of a rule that begins on a date.
func (m *meaning) bounded(rule *repeat.Rule, first day.Date) string {
	it := m.end.item
	if it == nil {
		return ""
	}
	switch it.kind {
	case itemCount:
		if it.n < 1 || it.n > repeat.MaxCount {
			return fmt.Sprintf("A repeat comes round 1 to %d times.", repeat.MaxCount)
		}
		rule.Count = it.n
	case itemPeriod:
		last, why := (&resolver{today: first}).ahead(it.n, it.unit)
		if why != "" {
			return why
		}
		rule.Until = repeat.UntilDate(last.AddDays(-1))
	case itemUntil:
		last, why := m.date(it.date, m.r.words(it.span))
		if why != "" {
			return why
		}
		if last.Before(first) {
			return fmt.Sprintf("It would end on %s, before its first date, %s.", last.Words(), first.Words())
		}
		rule.Until = repeat.UntilDate(last)
	}
	return ""
}

// sayRepeat fills the chips of the repeat and of what drives it.
func (m *meaning) sayRepeat() {
	d := &m.r.draft
	without := *d.Repeat
	without.Lead = 0
	m.answer(m.rule, "", without.Words()+", first "+MomentWords(d.Due))
	switch {
	case m.due.item != nil:
		m.answer(m.due, "", MomentWords(d.Due))
	case m.time.item != nil:
		m.answer(m.time, "", MomentWords(d.Due))
	}
}

// sentence makes one of an error.
func sentence(s string) string {
	if s == "" {
		return s
	}
	return strings.ToUpper(s[:1]) + s[1:] + "."
}

package capture

import (
	"fmt"
	"slices"
	"strings"
	"unicode/utf8"

	"tincup/internal/core/day"
	"tincup/internal/core/term"
)

// slotMinutes is the length of a slot that names none and has no estimate.
const slotMinutes = 30

// reminderHour is when reminders come that name a date and no time.
func (s Settings) reminderHour() day.TimeOfDay {
	if s.ReminderHour.IsZero() {
		return clockFace(9 * 60)
	}
	return s.ReminderHour
}

// said is what a field was read from; the first of its chips.
type said struct {
	item *item
	chip int
}

// meaning is what a sentence says before its parts are put together.
type meaning struct {
	resolver
	r *reader

	due, time, start, plan, rule, lead, end said
	reminders                               []said
	more                                    []*item // weekdays of the repeat
}

// resolve gives the items their values, their chips and their problems.
func (r *reader) resolve() {
	m := &meaning{r: r, resolver: *r.resolver()}
	slices.SortStableFunc(r.items, func(a, b item) int { return a.span.Start - b.span.Start })
	if len(r.items) > MaxChips {
		r.problem(TooMany, "", fmt.Sprintf("The sentence says %d things besides its title; %d is the most.", len(r.items), MaxChips))
		r.items = r.items[:MaxChips]
	}
	r.draft.Chips = make([]Chip, 0, len(r.items))
	for i := range r.items {
		m.sort(&r.items[i])
	}
	m.dates()
	if m.rule.item != nil {
		m.repeat()
	} else if m.lead.item != nil {
		m.leadAlone()
	}
	m.order()
	m.remind()
	m.settle()
}

// settle leaves no chip without a value: where something else is wrong, it is
// what was said. A time whose date came to nothing is none.
func (m *meaning) settle() {
	d := &m.r.draft
	for i := range d.Chips {
		if c := &d.Chips[i]; c.Value == "" && c.Problem == "" {
			c.Value = c.Words
		}
	}
	if d.Due.Date.IsZero() {
		d.Due = day.Moment{}
	}
}

// words returns what stands in a span.
func (r *reader) words(s Span) string { return r.text[s.Start:s.End] }

// chip adds one for an item and returns its index.
func (m *meaning) chip(field Field, it *item, value string) int {
	c := Chip{Field: field, Spans: append([]Span{it.span}, it.also...), Value: value}
	slices.SortFunc(c.Spans, func(a, b Span) int { return a.Start - b.Start })
	words := make([]string, len(c.Spans))
	for i, s := range c.Spans {
		words[i] = m.r.words(s)
	}
	c.Words = strings.Join(words, ", ")
	m.r.draft.Chips = append(m.r.draft.Chips, c)
	return len(m.r.draft.Chips) - 1
}

// wrong marks a chip as understood and impossible.
func (m *meaning) wrong(chip int, code Code, reason string) {
	c := &m.r.draft.Chips[chip]
	if c.Problem == "" {
		c.Problem, c.Value = reason, ""
		m.r.problem(code, c.Words, reason, *c)
	}
}

// once keeps an item for a field that holds one.
func (m *meaning) once(held *said, field Field, it *item) {
	chip := m.chip(field, it, "")
	if held.item != nil {
		m.wrong(chip, Twice, fmt.Sprintf("There are two words for “%s”: “%s” and “%s”. Keep one.", label(field), m.r.words(held.item.span), m.r.words(it.span)))
		return
	}
	*held = said{it, chip}
}

// label is a field as it is called in sentences.
func label(f Field) string {
	if f == FieldEstimate {
		return "takes"
	}
	return string(f)
}

// sort gives an item to its field. What needs no date has its value at once.
func (m *meaning) sort(it *item) {
	d := &m.r.draft
	switch it.kind {
	case itemDue:
		if !it.time.none() && m.time.item != nil && m.due.item == nil {
			m.wrong(m.chip(FieldDue, it, ""), Twice, "There are two times. Keep one.")
			return
		}
		m.once(&m.due, FieldDue, it)
	case itemTime:
		m.once(&m.time, FieldDue, it)
	case itemStart:
		m.once(&m.start, FieldStart, it)
	case itemPlan:
		m.once(&m.plan, FieldPlan, it)
	case itemRepeat:
		m.once(&m.rule, FieldRepeat, it)
	case itemWeekdays:
		m.more = append(m.more, it)
	case itemUntil, itemPeriod, itemCount:
		m.once(&m.end, FieldRepeat, it)
	case itemLead:
		m.once(&m.lead, FieldLead, it)
	case itemReminder:
		m.reminders = append(m.reminders, said{it, m.chip(FieldReminder, it, "")})
	case itemTag:
		m.tag(it)
	case itemNote:
		d.Note = true
		m.chip(FieldKind, it, "note")
	case itemOwn:
		m.choose(it)
	case itemPriority:
		if m.single(d.Priority != term.NoPriority, FieldPriority, it, term.Priority(it.n).String()) {
			d.Priority = term.Priority(it.n)
		}
	case itemList:
		value := it.name
		if it.new {
			value += ", a new list"
		}
		if m.single(d.List != "", FieldList, it, value) {
			d.List, d.NewList = it.name, it.new
		}
	case itemPerson:
		value := it.role.String() + " " + it.name
		if it.new {
			value += ", a new person"
		}
		if m.single(d.Person.Role != term.NoRole, FieldPerson, it, value) {
			d.Person = Person{it.name, it.role, it.new}
		}
	case itemEstimate:
		if m.single(d.Estimate != 0, FieldEstimate, it, Minutes(it.n)) {
			d.Estimate = it.n
			if it.n < 1 || it.n > MaxEstimate {
				d.Estimate = 0
				m.wrong(len(d.Chips)-1, Range, fmt.Sprintf("A to-do takes 1 minute to %d hours.", MaxEstimate/60))
			}
		}
	}
}

// single makes the chip of a plain field, and refuses a second one.
func (m *meaning) single(taken bool, field Field, it *item, value string) bool {
	chip := m.chip(field, it, value)
	if taken {
		m.wrong(chip, Twice, fmt.Sprintf("This is a second word for “%s”. Keep one.", label(field)))
	}
	return !taken
}

func (m *meaning) tag(it *item) {
	d := &m.r.draft
	name := known(m.r.env.Tags, it.name)
	chip := m.chip(FieldTag, it, name)
	switch {
	case strings.Contains(name, "//") || strings.HasSuffix(name, "/"):
		m.wrong(chip, BadTag, fmt.Sprintf("The tag “%s” has an empty part beside a slash.", name))
	case utf8.RuneCountInString(name) > MaxTag:
		m.wrong(chip, TooLong, fmt.Sprintf("A tag has at most %d characters.", MaxTag))
	case len(d.Tags) == MaxTags:
		m.wrong(chip, TooMany, fmt.Sprintf("A to-do has at most %d tags.", MaxTags))
	case !slices.ContainsFunc(d.Tags, func(t string) bool { return strings.EqualFold(t, name) }):
		d.Tags = append(d.Tags, name)
	}
}

// Minutes says an estimate: "20 min", "1 h", "1 h 30".
func Minutes(n int) string {
	switch {
	case n < 60:
		return fmt.Sprintf("%d min", n)
	case n%60 == 0:
		return fmt.Sprintf("%d h", n/60)
	}
	return fmt.Sprintf("%d h %02d", n/60, n%60)
}

// join makes one chip of two, of the words of both.
func (m *meaning) join(from, to said) {
	chips := m.r.draft.Chips
	c := &chips[to.chip]
	spans := append(c.Spans, chips[from.chip].Spans...)
	slices.SortFunc(spans, func(a, b Span) int { return a.Start - b.Start })
	c.Spans = spans[:1]
	for _, s := range spans[1:] {
		if last := &c.Spans[len(c.Spans)-1]; strings.TrimSpace(m.r.text[last.End:s.Start]) == "" {
			last.End = s.End
		} else {
			c.Spans = append(c.Spans, s)
		}
	}
	var words []string
	for _, s := range c.Spans {
		words = append(words, m.r.words(s))
	}
	c.Words = strings.Join(words, ", ")
	if why := chips[from.chip].Problem; c.Problem == "" {
		c.Problem = why
	}
	m.r.draft.Chips = slices.Delete(chips, from.chip, from.chip+1)
	merged := to.chip
	if merged > from.chip {
		merged--
	}
	for _, s := range []*said{&m.due, &m.time, &m.start, &m.plan, &m.rule, &m.lead, &m.end} {
		s.joined(from.chip, merged)
	}
	for i := range m.reminders {
		m.reminders[i].joined(from.chip, merged)
	}
}

// joined follows a chip that went into another.
func (s *said) joined(gone, into int) {
	switch {
	case s.chip == gone:
		s.chip = into
	case s.chip > gone:
		s.chip--
	}
}

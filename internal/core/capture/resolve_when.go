package capture

import (
	"fmt"
	"strings"
	"time"

	"tincup/internal/core/day"
)

// dates works out due, start and plan.
func (m *meaning) dates() {
	d := &m.r.draft
	if it := m.start.item; it != nil {
		on, why := m.date(it.date, m.r.words(it.span))
		m.answer(m.start, why, on.Words())
		d.Start = on
	}
	m.planned()
	clock := hour{}
	if it := m.due.item; it != nil {
		if it.date.form == inMinutes {
			d.Due = m.soon(it.date.n)
			m.answer(m.due, "", MomentWords(d.Due))
			return
		}
		on, why := m.date(it.date, m.r.words(it.span))
		m.answer(m.due, why, "")
		d.Due.Date, clock = on, it.time
	}
	if m.time.item != nil {
		clock = m.timeAlone(clock)
	}
	if m.rule.item != nil && clock.none() { // every evening
		clock = m.rule.item.time
	}
	if clock.wrong {
		chip := m.due.chip
		if m.due.item == nil || m.due.item.time.none() {
			chip = m.time.chip
		}
		m.wrong(chip, NoTime, "There is no such time of day.")
		d.Due = day.Moment{}
		return
	}
	d.Due.Time = clock.at
	if m.due.item != nil && d.Due.Date.IsZero() {
		d.Due = day.Moment{}
		return
	}
	if m.rule.item == nil {
		m.dueAlone()
	}
}

// timeAlone lets a time on its own complete the due, or else a planned day.
func (m *meaning) timeAlone(clock hour) hour {
	d := &m.r.draft
	it := m.time.item
	if m.due.item != nil && !clock.none() {
		m.wrong(m.time.chip, Twice, "There are two times. Keep one.")
		return clock
	}
	at, _ := d.Plan.Slot()
	if m.due.item == nil && m.rule.item == nil && m.plan.item != nil && d.Plan.Precision() == day.Day && at.IsZero() {
		d.Chips[m.time.chip].Field = FieldPlan
		if it.time.wrong {
			m.wrong(m.time.chip, NoTime, "There is no such time of day.")
			return hour{}
		}
		m.slot(it.time, 0)
		m.join(m.time, m.plan)
		return hour{}
	}
	if m.due.item != nil {
		m.join(m.time, m.due)
	}
	return it.time
}

// dueAlone finishes a due that no repeat gives.
func (m *meaning) dueAlone() {
	d := &m.r.draft
	tonight := false
	chip := m.due.chip
	switch {
	case m.due.item != nil:
		tonight = m.due.item.date.form == fromToday && m.due.item.date.which == this
	case !d.Due.Time.IsZero(): // a time alone: today, or tomorrow if it has passed
		chip = m.time.chip
		d.Due = m.comingTime(m.time.item.time)
	default:
		return
	}
	if tonight && m.clock.Passed(d.Due) {
		m.wrong(chip, Passed, "Tonight, "+d.Due.Time.String()+", has passed.")
		return
	}
	value := MomentWords(d.Due)
	if real := m.real(d.Due); real != d.Due {
		value = MomentWords(real) + " (the clocks skip " + d.Due.Time.String() + ")"
		d.Due = real
	}
	m.answer(said{m.due.item, chip}, "", value)
}

// soon is the wall time some minutes from now, never less: a minute that has begun does not count.
func (m *meaning) soon(minutes int) day.Moment {
	at := m.clock.Now.In(m.clock.Zone).Add(time.Duration(minutes)*time.Minute + time.Minute - time.Nanosecond).Truncate(time.Minute)
	return day.Moment{Date: day.DateOf(at), Time: clockFace(at.Hour()*60 + at.Minute())}
}

// comingTime is when a time without a date comes next; of one that could be in either half
// of the day, the first that comes.
func (m *meaning) comingTime(h hour) day.Moment {
	both := []day.Moment{{Date: m.today, Time: h.at}}
	if minutes := h.at.Minutes(); h.half && h.loose && minutes >= 7*60 && minutes < 12*60 {
		both = append(both, day.Moment{Date: m.today, Time: clockFace(minutes + 12*60)})
	}
	for _, at := range both {
		if !m.clock.Passed(at) {
			return at
		}
	}
	return day.Moment{Date: m.today.AddDays(1), Time: h.at}
}

// real moves a wall time that the clocks skip forward by the gap.
func (m *meaning) real(at day.Moment) day.Moment {
	if !at.HasTime() {
		return at
	}
	shown := m.clock.Instant(at).In(m.clock.Zone)
	clock, _ := day.NewTimeOfDay(shown.Hour(), shown.Minute())
	return day.Moment{Date: day.DateOf(shown), Time: clock}
}

// answer gives a chip its value, or its problem.
func (m *meaning) answer(s said, why, value string) {
	if why != "" {
		m.wrong(s.chip, NoDate, why)
		return
	}
	if c := &m.r.draft.Chips[s.chip]; c.Problem == "" {
		c.Value = value
	}
}

// planned works out the plan, but that of a time range that takes its day from a repeat.
func (m *meaning) planned() {
	it := m.plan.item
	switch {
	case it == nil:
	case it.parked:
		m.r.draft.Plan = day.SomeTime()
		m.answer(m.plan, "", "parked: some time")
	case it.date != nil:
		m.plannedOn(it.date)
	case m.rule.item == nil:
		m.plannedOn(m.dayOfSlot())
	}
}

// plannedOn gives the plan its day, week or month, and its time.
func (m *meaning) plannedOn(on *date) {
	it := m.plan.item
	h, why := m.horizon(on, m.r.words(it.span))
	m.answer(m.plan, why, HorizonWords(h))
	if why == "" {
		m.r.draft.Plan = h
	}
	switch {
	case it.time.wrong:
		m.wrong(m.plan.chip, NoTime, "There is no such time of day.")
	case !it.time.none() && why == "":
		m.slot(it.time, it.n)
	}
}

// dayOfSlot is the day of a time range that names none: that of a date without a time, unless a
// word such as "by" makes it a deadline; otherwise today.
func (m *meaning) dayOfSlot() *date {
	due := m.due.item
	if due == nil || m.deadline(due) || !due.time.none() || due.date.form == inMinutes {
		return &date{form: fromToday}
	}
	m.join(m.due, m.plan)
	m.due = said{}
	return due.date
}

// deadline reports whether a word such as "by" stands before a date, and not "on" or "at".
func (m *meaning) deadline(due *item) bool {
	first, _, _ := strings.Cut(strings.ToLower(strings.TrimLeft(m.r.words(due.span), "(")), " ")
	return due.introduced && first != "on" && first != "at"
}

// slot puts a time on a planned day.
func (m *meaning) slot(at hour, minutes int) {
	d := &m.r.draft
	if minutes == 0 {
		minutes = slotMinutes
		if d.Estimate > 0 {
			minutes = d.Estimate
		}
	}
	h, err := d.Plan.WithSlot(at.at, min(minutes, day.MaxSlot))
	if err != nil || minutes > day.MaxSlot {
		m.wrong(m.plan.chip, Range, "A slot is 1 minute to 24 hours long.")
		return
	}
	d.Plan = h
	m.answer(m.plan, "", HorizonWords(h))
}

// HorizonWords says a plan in full, with the days of a week.
func HorizonWords(h day.Horizon) string {
	if h.Precision() == day.Week {
		return h.Words() + ", from " + h.First().Words()
	}
	return h.Words()
}

// leadAlone counts back from a due that does not repeat.
func (m *meaning) leadAlone() {
	d := &m.r.draft
	switch {
	case d.Due.IsZero():
		m.wrong(m.lead.chip, NeedsDate, "This needs a due or a repeat to count from.")
	case m.start.item != nil:
		m.wrong(m.lead.chip, Twice, "There is a start already. Keep one.")
	default:
		d.Start = d.Due.Date.AddDays(-m.lead.item.n)
		d.Chips[m.lead.chip].Field = FieldStart
		m.answer(m.lead, "", d.Start.Words())
	}
}

// order refuses a start after the due.
func (m *meaning) order() {
	d := &m.r.draft
	if d.Start.IsZero() || d.Due.IsZero() || !d.Start.After(d.Due.Date) {
		return
	}
	m.wrong(m.start.chip, Order, fmt.Sprintf("The start, %s, is after the due, %s.", d.Start.Words(), MomentWords(d.Due)))
}

func (m *meaning) remind() {
	d := &m.r.draft
	if s := m.r.remind; s.End > 0 && !d.Due.IsZero() { // remind me to
		at := d.Due
		if !at.HasTime() {
			at.Time = m.settings.reminderHour()
		}
		r := day.ReminderAt(at)
		d.Reminders = append(d.Reminders, r)
		m.chip(FieldReminder, &item{span: s}, m.rings(r, at))
	}
	for _, s := range m.reminders {
		if s.item.edge != day.NoEdge {
			r := day.ReminderOn(s.item.edge, s.item.name)
			d.Reminders = append(d.Reminders, r)
			m.answer(s, "", r.Words())
			continue
		}
		if s.item.before {
			of := day.RemindedOf(d.Due, d.Plan, d.Start)
			if of.IsZero() {
				m.wrong(s.chip, NeedsDate, "There is no due, slot or start to be before.")
				continue
			}
			r := day.ReminderBefore(s.item.n)
			d.Reminders = append(d.Reminders, r)
			m.answer(s, "", m.rings(r, of))
			continue
		}
		at := day.Moment{Date: m.today, Time: s.item.time.at}
		why := ""
		switch {
		case s.item.time.wrong:
			why = "There is no such time of day."
		case s.item.date != nil && s.item.date.form == inMinutes:
			at = m.soon(s.item.date.n)
		case s.item.date != nil:
			at.Date, why = m.date(s.item.date, m.r.words(s.item.span))
			if at.Time.IsZero() {
				at.Time = m.settings.reminderHour()
			}
		default:
			at = m.comingTime(s.item.time)
		}
		if why != "" {
			m.answer(s, why, "")
			continue
		}
		r := day.ReminderAt(m.real(at))
		d.Reminders = append(d.Reminders, r)
		m.answer(s, "", m.rings(r, day.Moment{}))
	}
}

// rings says when a reminder of a moment comes, and that it does not where that has passed.
func (m *meaning) rings(r day.Reminder, of day.Moment) string {
	at := m.clock.Rings(r, of, m.settings.reminderHour())
	words := MomentWords(m.clock.WallOf(at))
	if !at.After(m.clock.Now) {
		words += " (has passed: it does not ring)"
	}
	return words
}

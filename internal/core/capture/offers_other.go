package capture

import (
	"strings"

	"tincup/internal/core/day"
)

// Offers of another value for what was read.

// otherValues offers the other half of the day of a time without am and pm, today where a
// weekday is read as next week's, and the date where a list's name is one.
func (o *offering) otherValues() {
	for i := range o.items {
		it := &o.items[i]
		switch it.kind {
		case itemList:
			o.dateOfName(it)
		case itemDue, itemTime, itemReminder, itemRepeat, itemPlan:
			o.todays(it)
			o.otherHalf(it)
		}
	}
}

// otherHalf offers 03:00 for "at 3", which is read as 15:00, and 20:00 for "Friday at 8".
func (o *offering) otherHalf(it *item) {
	h := it.time
	early := h.at.Minutes()%(12*60) < 7*60
	if early && h.spoken {
		return
	}
	if !h.half || !early && !h.loose || h.end == 0 {
		return
	}
	half := " pm"
	if o.shown(it).Minutes() >= 12*60 {
		half = " am"
	}
	o.add([]Span{it.span}, o.text[:h.end]+half+o.text[h.end:], true)
}

// shown is the time that an item was read as.
func (o *offering) shown(it *item) day.TimeOfDay {
	d := &o.before
	switch at, _ := d.Plan.Slot(); {
	case it.kind == itemPlan:
		return at
	case it.kind == itemReminder:
		for _, r := range d.Reminders {
			if !r.At.IsZero() && r.At.Time.Minutes()%(12*60) == it.time.at.Minutes()%(12*60) {
				return r.At.Time
			}
		}
	case !d.Due.Time.IsZero():
		return d.Due.Time
	}
	return it.time.at
}

// todays offers today where a weekday with a time still to come was said on the day itself.
func (o *offering) todays(it *item) {
	today := o.env.Clock.Today()
	if it.kind != itemDue || it.date == nil || it.date.form != onWeekday || it.date.which != coming || it.date.weekday != today.Weekday() {
		return
	}
	due := o.before.Due
	if due.Date != today.AddDays(7) || !due.HasTime() || o.env.Clock.Passed(day.Moment{Date: today, Time: due.Time}) {
		return
	}
	for i := range o.tokens {
		t := &o.tokens[i]
		if !t.span().within(it.span) || !t.has(weekdayWord) {
			continue
		}
		from := t.span().Start
		if i > 0 && o.tokens[i-1].is("on") && o.tokens[i-1].span().within(it.span) {
			from = o.tokens[i-1].span().Start
		}
		end := from + len(strings.TrimRight(o.text[from:t.span().End], ".!?),:"))
		o.add([]Span{it.span}, o.text[:from]+"today"+o.text[end:], true)
		return
	}
}

// dateOfName offers the date where a clause is a list's name and could be one: a list
// called "Friday".
func (o *offering) dateOfName(it *item) {
	p := &o.p
	var words []token
	for i := range o.tokens {
		if o.tokens[i].span().within(it.span) {
			words = append(words, o.tokens[i])
		}
	}
	if len(words) == 0 || words[0].kind != plainWord || words[0].is("in") {
		return
	}
	p.tokens, p.pos = words, 0
	if due, ok := p.due(); !ok || !p.done() || due.date == nil || due.introduced {
		return
	}
	o.add([]Span{it.span}, o.text[:it.span.Start]+"on "+o.text[it.span.Start:], true)
}

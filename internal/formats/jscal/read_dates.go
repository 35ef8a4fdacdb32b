package jscal

import (
	"bytes"
	"encoding/json"
	"fmt"
	"maps"
	"slices"
	"strconv"
	"strings"
	"time"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/repeat"
)

// moment reads a LocalDateTime of the task's zone as wall time of the person's.
func (p *parsing) moment(name, s string) (day.Moment, error) {
	if s == "" {
		return day.Moment{}, nil
	}
	at, err := time.Parse(localForm, s)
	if err != nil || at.Year() < 1000 || at.Year() > 9999 {
		return day.Moment{}, fmt.Errorf("%s: “%.40s” is no local date and time such as 2026-11-27T16:00:00", name, s)
	}
	if p.task.ShowWithoutTime {
		return day.ParseMoment(at.Format("2006-01-02"))
	}
	if zone := p.task.TimeZone; zone != "" {
		in, err := time.LoadLocation(zone)
		if err != nil || strings.EqualFold(zone, "local") {
			p.remark("The time zone “%.60s” is not known; %s is taken as it stands.", zone, name)
		} else {
			at = time.Date(at.Year(), at.Month(), at.Day(), at.Hour(), at.Minute(), 0, 0, in).In(p.world.Zone)
		}
	}
	return day.ParseMoment(at.Format("2006-01-02T15:04"))
}

func (p *parsing) dates(t *book.Todo) (err error) {
	if t.Due, err = p.moment("due", p.task.Due); err != nil {
		return err
	}
	start, err := p.moment("start", p.task.Start)
	if err != nil {
		return err
	}
	if t.Start = start.Date; start.HasTime() {
		p.remark("The time of the start, %s, is not kept: a start is a day here.", start.Time)
	}
	switch on, err := day.ParseDate(p.task.OwnStart); {
	case p.task.OwnStart == "none":
		t.Start = day.Date{}
	case err == nil:
		t.Start = on
	}
	if !t.Due.IsZero() && t.Start.After(t.Due.Date) {
		p.remark("Its start, %s, is after its due and was left out.", t.Start)
		t.Start = day.Date{}
	}
	if t.IsNote {
		return nil
	}
	if r := p.task.Repeat; r != nil && r.Rule != nil && p.ours(r) {
		t.Repeat = r
		return nil
	}
	if len(p.task.Rules) == 0 {
		return nil
	}
	if why := p.rule(t, start); why != "" {
		text, _ := json.Marshal(p.task.Rules)
		p.item.Notes = strings.TrimSpace(p.item.Notes + "\n\nRepeats: " + string(text))
		p.remark("Its repeat was not read and stands in the notes: %s", why)
	}
	return nil
}

// ours reports whether the series stands as we wrote it for a repeat.
func (p *parsing) ours(r *repeat.Repeat) bool {
	if r.Lead > 0 || r.Anchor != repeat.Schedule {
		return len(p.task.Rules) == 0
	}
	is, _ := json.Marshal(p.task.Rules)
	was, _ := json.Marshal([]rule{ruleOf(r)})
	return bytes.Equal(is, was)
}

// rule reads the rule of another program; what it returns is why not.
func (p *parsing) rule(t *book.Todo, start day.Moment) (why string) {
	if len(p.task.Rules) > 1 {
		return "it has several rules"
	}
	from := p.task.Rules[0]
	var b strings.Builder
	add := func(name, value string) {
		if value != "" {
			b.WriteString(";" + name + "=" + strings.ToUpper(value))
		}
	}
	numbers := func(of []int) string {
		words := make([]string, len(of))
		for i, n := range of {
			words[i] = strconv.Itoa(n)
		}
		return strings.Join(words, ",")
	}
	if from.Interval > 0 {
		add("INTERVAL", strconv.Itoa(from.Interval))
	}
	add("BYMONTH", strings.Join(from.ByMonth, ","))
	add("BYWEEKNO", numbers(from.ByWeekNo))
	add("BYYEARDAY", numbers(from.ByYearDay))
	add("BYMONTHDAY", numbers(from.ByMonthDay))
	days := make([]string, len(from.ByDay))
	for i, d := range from.ByDay {
		if days[i] = d.Day; d.Nth != 0 {
			days[i] = strconv.Itoa(d.Nth) + d.Day
		}
	}
	add("BYDAY", strings.Join(days, ","))
	add("BYHOUR", numbers(from.ByHour))
	add("BYMINUTE", numbers(from.ByMinute))
	add("BYSETPOS", numbers(from.BySetPos))
	add("WKST", from.FirstDay)
	if from.Count > 0 {
		add("COUNT", strconv.Itoa(from.Count))
	}
	if until, _, _ := strings.Cut(from.Until, "T"); until != "" {
		add("UNTIL", strings.ReplaceAll(until, "-", ""))
	}
	if from.Skip != "" {
		add("RSCALE", from.RScale)
		add("SKIP", from.Skip)
	}
	rule, err := repeat.Parse("FREQ=" + strings.ToUpper(from.Frequency) + b.String())
	if err != nil {
		return err.Error()
	}
	first := t.Due.Date
	if !start.IsZero() {
		if !t.Due.IsZero() && t.Due.Date.After(start.Date) {
			return "its dates are those of its starts, and its due comes later"
		}
		first = start.Date
	}
	if first.IsZero() {
		return "there is no date from which it counts"
	}
	r := repeat.Repeat{Rule: rule, First: first}
	for _, on := range slices.Sorted(maps.Keys(p.task.Overrides)) {
		date, _, _ := strings.Cut(on, "T")
		if d, err := day.ParseDate(date); err == nil && p.task.Overrides[on].Excluded {
			r.Without = append(r.Without, d)
		}
	}
	begun, err := r.Begin(t.Due.Time, p.world.Zone)
	if err != nil {
		return err.Error()
	}
	t.Repeat = &begun
	return ""
}

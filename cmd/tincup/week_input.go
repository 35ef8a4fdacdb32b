package main

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"strconv"
	"strings"
	"time"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/plan"
	"tincup/internal/core/term"
)

// weekInput is what explain week reads. Dates and date-times are local.
type weekInput struct {
	Now      string                     `json:"now"`
	Zone     string                     `json:"zone"`
	DayStart string                     `json:"dayStart"`
	Days     *int                       `json:"days"`
	Hours    map[string]json.RawMessage `json:"hours"`
	Peak     json.RawMessage            `json:"peak"`
	Busy     []json.RawMessage          `json:"busy"`
	Jobs     []json.RawMessage          `json:"jobs"`
}

type weekJob struct {
	ID       string          `json:"id"`
	Minutes  int             `json:"minutes"`
	Release  string          `json:"release"`
	Due      string          `json:"due"`
	Priority json.RawMessage `json:"priority"`
	Day      string          `json:"day"`
	After    []string        `json:"after"`
	Deep     bool            `json:"deep"`
}

// defaultWeek is how many days are looked at where the input does not say.
const defaultWeek = 7

// readWeek makes a problem of the input; its errors say which part is wrong and what would
// be right.
func (f *flags) readWeek(data []byte) (*plan.Problem, error) {
	var in weekInput
	if err := strictly(data, &in); err != nil {
		return nil, err
	}
	clock, err := f.weekClock(in)
	if err != nil {
		return nil, err
	}
	days := defaultWeek
	if in.Days != nil {
		days = *in.Days
	}
	if days < 1 || days > plan.MaxDays {
		return nil, fmt.Errorf("days: %d; 1 to %d is wanted", days, plan.MaxDays)
	}
	calendar, err := in.calendar()
	if err != nil {
		return nil, err
	}
	var busy []plan.Stretch
	for i, raw := range in.Busy {
		s, err := readBusy(raw, clock)
		if err != nil {
			return nil, fmt.Errorf("busy[%d]: %w", i, err)
		}
		busy = append(busy, s)
	}
	jobs, err := in.jobs()
	if err != nil {
		return nil, err
	}
	return plan.NewProblem(plan.NewCapacity(clock, calendar, busy, days), jobs)
}

// strictly reads one JSON value that has no fields but those of v.
func strictly(data []byte, v any) error {
	dec := json.NewDecoder(bytes.NewReader(data))
	dec.DisallowUnknownFields()
	if err := dec.Decode(v); err != nil {
		var wrong *json.UnmarshalTypeError
		if errors.As(err, &wrong) && wrong.Field != "" {
			return fmt.Errorf("%s: a %s is no value for it", wrong.Field, wrong.Value)
		}
		return fmt.Errorf("the JSON cannot be read: %s", strings.TrimPrefix(err.Error(), "json: "))
	}
	if dec.More() {
		return errors.New("the JSON goes on after its end")
	}
	return nil
}

func (f *flags) weekClock(in weekInput) (day.Clock, error) {
	settings, source, err := f.world()
	if err != nil {
		return day.Clock{}, err
	}
	c := day.Clock{Zone: zoneOf(settings), DayStart: settings.DayStart}
	if in.Zone != "" && f.zone == "" {
		if c.Zone, err = time.LoadLocation(in.Zone); err != nil {
			return c, fmt.Errorf("zone: %q is not a time zone; one such as Europe/Lisbon is wanted", in.Zone)
		}
	}
	if in.DayStart != "" && f.dayStart == "" {
		t, err := day.ParseTimeOfDay(in.DayStart)
		if c.DayStart = time.Duration(t.Minutes()) * time.Minute; err != nil || c.DayStart > day.MaxDayStart {
			return c, fmt.Errorf("dayStart: %q is not a time from 00:00 to 06:00", in.DayStart)
		}
	}
	c.Now = source.Now()
	if in.Now != "" && f.now == "" {
		m, err := day.ParseMoment(in.Now)
		if err != nil || !m.HasTime() {
			return c, fmt.Errorf("now: %q is not a local date and time such as 2026-11-24T09:10", in.Now)
		}
		c.Now = c.Instant(m)
	}
	return c, nil
}

var weekdays = []string{"sun", "mon", "tue", "wed", "thu", "fri", "sat"}

// calendar are the hours of the input; where it has none at all, those by default.
func (in weekInput) calendar() (plan.Calendar, error) {
	c := plan.DefaultCalendar()
	if in.Hours != nil {
		c.Week = [7]day.Hours{}
	}
	c.Dates = map[day.Date]day.Hours{}
	for key, raw := range in.Hours {
		hours, err := readHours(raw)
		if err != nil {
			return c, fmt.Errorf("hours.%s: %w", key, err)
		}
		at := -1
		for i, name := range weekdays {
			if name == key {
				at = i
			}
		}
		if at >= 0 {
			c.Week[at] = hours
			continue
		}
		d, err := day.ParseDate(key)
		if err != nil {
			return c, fmt.Errorf("hours: %.40q is neither a weekday (mon, tue, …) nor a date such as 2026-11-26", key)
		}
		c.Dates[d] = hours
	}
	if in.Peak != nil {
		peak, err := readHours(in.Peak)
		if err != nil {
			return c, fmt.Errorf("peak: %w", err)
		}
		c.Peak = peak
	}
	return c, nil
}

func readHours(raw json.RawMessage) (day.Hours, error) {
	var pairs [][]string
	if err := json.Unmarshal(raw, &pairs); err != nil {
		return nil, errors.New(`a list of stretches is wanted, such as [["09:00","12:30"],["13:30","17:30"]]`)
	}
	var spans []day.Span
	for _, p := range pairs {
		if len(p) != 2 {
			return nil, fmt.Errorf(`a stretch has two ends, such as ["09:00","12:30"], not %d`, len(p))
		}
		s, err := day.ParseSpan(p[0], p[1])
		if err != nil {
			return nil, err
		}
		spans = append(spans, s)
	}
	return day.NewHours(spans...)
}

// readBusy reads a stretch from a moment to another; a date is the beginning of its day.
func readBusy(raw json.RawMessage, c day.Clock) (plan.Stretch, error) {
	var ends []string
	if err := json.Unmarshal(raw, &ends); err != nil || len(ends) != 2 {
		return plan.Stretch{}, errors.New(`two ends are wanted, such as ["2026-11-25T10:00","2026-11-25T11:30"]`)
	}
	var at [2]plan.Minute
	for i, text := range ends {
		m, err := day.ParseMoment(text)
		if err != nil {
			return plan.Stretch{}, fmt.Errorf("%.40q is not a local date or date and time", text)
		}
		if at[i] = plan.MinuteOf(c.StartOf(m.Date)); m.HasTime() {
			at[i] = plan.MinuteOf(c.Instant(m))
		}
	}
	if at[1] <= at[0] {
		return plan.Stretch{}, fmt.Errorf("it ends (%s) before it begins (%s), or as it does", ends[1], ends[0])
	}
	return plan.Stretch{From: at[0], To: at[1]}, nil
}

func (in weekInput) jobs() ([]plan.Job, error) {
	if len(in.Jobs) > plan.MaxJobs {
		return nil, fmt.Errorf("jobs: there are %d; %d is the most", len(in.Jobs), plan.MaxJobs)
	}
	read, places := make([]weekJob, len(in.Jobs)), map[string]int{}
	for i, raw := range in.Jobs {
		if err := strictly(raw, &read[i]); err != nil {
			return nil, fmt.Errorf("jobs[%d]: %w", i, err)
		}
		if read[i].ID == "" {
			return nil, fmt.Errorf("jobs[%d].id: it is missing", i)
		}
		places[read[i].ID] = i
	}
	jobs := make([]plan.Job, len(read))
	for i, w := range read {
		j, err := w.job(places)
		if err != nil {
			return nil, fmt.Errorf("jobs[%d].%w", i, err)
		}
		jobs[i] = j
	}
	return jobs, nil
}

func (w weekJob) job(places map[string]int) (plan.Job, error) {
	j := plan.Job{ID: w.ID, Minutes: w.Minutes, Deep: w.Deep}
	var err error
	for _, field := range []struct {
		name, text string
		into       *day.Moment
	}{{"release", w.Release, &j.Release}, {"due", w.Due, &j.Due}} {
		if field.text == "" {
			continue
		}
		if *field.into, err = day.ParseMoment(field.text); err != nil {
			return j, fmt.Errorf("%s: %.40q is not a local date or date and time", field.name, field.text)
		}
	}
	if w.Day != "" {
		if j.Day, err = day.ParseDate(w.Day); err != nil {
			return j, fmt.Errorf("day: %.40q is not a date such as 2026-11-26", w.Day)
		}
	}
	priority, err := readPriority(w.Priority)
	if err != nil {
		return j, err
	}
	j.Weight = plan.WeightOf(priority)
	for _, id := range w.After {
		at, there := places[id]
		if !there {
			return j, fmt.Errorf("after: there is no job %.40q", id)
		}
		j.After = append(j.After, at)
	}
	return j, nil
}

// readPriority reads a word, or the number that RFC 5545 (section 3.8.1.9) has for it.
func readPriority(raw json.RawMessage) (book.Priority, error) {
	text := strings.Trim(string(raw), `"`)
	if text == "" || text == "null" {
		return book.NoPriority, nil
	}
	if n, err := strconv.Atoi(text); err == nil {
		for p, number := range []int{0, 9, 5, 1} {
			if n == number {
				return book.Priority(p), nil
			}
		}
	}
	var p term.Priority
	if err := p.UnmarshalText([]byte(text)); err != nil {
		return p, fmt.Errorf("priority: %.40s is none of none, low, medium, high", raw)
	}
	return p, nil
}

package capture_test

import (
	"fmt"
	"slices"
	"strings"
	"testing"
	"time"

	"tincup/internal/core/capture"
	"tincup/internal/core/day"
)

// at makes an Env: Tuesday 24 November 2026, 09:00 in Lisbon, unless said.
func at(now string, change ...func(*capture.Env)) capture.Env {
	zone, err := time.LoadLocation("Europe/Lisbon")
	if err != nil {
		panic(err)
	}
	t, err := time.ParseInLocation("2006-01-02T15:04", now, zone)
	if err != nil {
		panic(err)
	}
	env := capture.Env{Clock: day.Clock{Now: t, Zone: zone}, Names: capture.Names{
		Lists:  []string{"Night Signals", "Night Signals: loans", "Volunteers", "Grant report", "Allotment", "Choir", "Flat"},
		Tags:   []string{"suppliers", "calls", "loans", "work/meetings"},
		People: []string{"Registrar", "Inês Prado", "Inês Duarte", "Tomás Leal"},
	}}
	for _, f := range change {
		f(&env)
	}
	return env
}

func monthFirst(e *capture.Env)  { e.MonthFirst = true }
func sundayFirst(e *capture.Env) { e.SundayFirst = true }
func instant(s string) func(*capture.Env) {
	return func(e *capture.Env) {
		t, err := time.Parse(time.RFC3339, s)
		if err != nil {
			panic(err)
		}
		e.Clock.Now = t
	}
}
func fromFour(e *capture.Env) { e.Clock.DayStart = 4 * time.Hour }

// brief writes a draft in one line: the title, then what was read.
func brief(d capture.Draft) string {
	parts := []string{d.Title}
	add := func(name, value string) {
		if value != "" {
			parts = append(parts, strings.TrimSpace(name+" "+value))
		}
	}
	add("due", d.Due.String())
	add("start", d.Start.String())
	add("plan", d.Plan.String())
	if d.Repeat != nil {
		r := d.Repeat.Rule.String() + " first " + d.Repeat.First.String()
		if d.Repeat.Anchor.String() != "schedule" {
			r += " after done"
		}
		if d.Repeat.Lead > 0 {
			r += fmt.Sprintf(" lead %d", d.Repeat.Lead)
		}
		add("repeat", r)
	}
	if d.Priority != capture.NoPriority {
		add("", d.Priority.String())
	}
	add("in", d.List)
	for _, t := range d.Tags {
		add("", "#"+t)
	}
	if d.Estimate > 0 {
		add("", fmt.Sprintf("%d min", d.Estimate))
	}
	if d.Person.Role != capture.NoRole {
		add(d.Person.Role.String(), d.Person.Name)
	}
	for _, r := range d.Reminders {
		add("remind", r.String())
	}
	if d.Notes != "" {
		add("--", d.Notes)
	}
	for _, p := range d.Problems {
		parts = append(parts, strings.TrimSpace("! "+p.Words))
	}
	return strings.Join(parts, " | ")
}

type row struct{ sentence, want string }

// table is rows read under one Env.
type table struct {
	name string
	env  capture.Env
	rows []row
}

const tuesday = "2026-11-24T09:00"

// tables cover every row of the words a sentence may hold and every meaning
// they have, what is taken from a title and what never is. What they mean is
// the product's own definition; TestDatesAgainstReference and
// TestDatesAgainstChrono check the dates against others.
var tables = []table{
	{"a whole sentence", at(tuesday), []row{
		{"Order mount board, by Friday 4pm, in Night Signals, high, #suppliers, 20 min",
			"Order mount board | due 2026-11-27T16:00 | high | in Night Signals | #suppliers | 20 min"},
		{"Water the seedlings every other day until 20 December",
			"Water the seedlings | due 2026-11-24 | repeat FREQ=DAILY;INTERVAL=2;UNTIL=20261220 first 2026-11-24"},
		{"Lamp insurance papers, waiting on Registrar, remind me Thursday at 9:30",
			"Lamp insurance papers | waiting-on Registrar | remind 2026-11-26T09:30"},
		{"Renew the loan agreement every year on 14 March, 14 days ahead, #loans",
			"Renew the loan agreement | due 2027-03-14 | start 2027-02-28 | repeat FREQ=YEARLY;BYMONTH=3;BYMONTHDAY=14 first 2027-03-14 lead 14 | #loans"},
		{"Descale the kettle 30 days after done",
			"Descale the kettle | due 2026-11-24 | repeat FREQ=DAILY;INTERVAL=30 first 2026-11-24 after done"},
		{"Order mount board, by Friday 4pm, in Night Signals, high, #suppliers, 20 min, remind me 1 hour before",
			"Order mount board | due 2026-11-27T16:00 | high | in Night Signals | #suppliers | 20 min | remind -PT1H"},
		{"Order mount board", "Order mount board"},
		{"order MOUNT board, BY FRIDAY 4PM, IN NIGHT SIGNALS, HIGH", "order MOUNT board | due 2026-11-27T16:00 | high | in Night Signals"},
		{"Order mount board; by Friday; high", "Order mount board | due 2026-11-27 | high"},
		{"  Order   mount board ,high ", "Order mount board | high"},
		{"Order mount board,", "Order mount board"},
		{", Order mount board", "Order mount board"},
		{"Order mount board,, high", "Order mount board | high"},
	}},
	{"due", at(tuesday), []row{
		{"Ring the framer today", "Ring the framer | due 2026-11-24"},
		{"Ring the framer tonight", "Ring the framer | due 2026-11-24T20:00"},
		{"Ring the framer tonight at 9pm", "Ring the framer | due 2026-11-24T21:00"},
		{"Ring the framer tomorrow", "Ring the framer | due 2026-11-25"},
		{"Ring the framer day after tomorrow", "Ring the framer | due 2026-11-26"},
		{"Ring the framer the day after tomorrow", "Ring the framer | due 2026-11-26"},
		{"Ring the framer by tomorrow", "Ring the framer | due 2026-11-25"},
		{"Ring the framer due tomorrow", "Ring the framer | due 2026-11-25"},
		{"Ring the framer due by tomorrow", "Ring the framer | due 2026-11-25"},
		{"Ring the framer on Thursday", "Ring the framer | due 2026-11-26"},
		{"Ring the framer, due Thursday", "Ring the framer | due 2026-11-26"},
		{"Ring the framer, Thursday", "Ring the framer | due 2026-11-26"},
		{"Ring the framer, on Thursday at 5pm", "Ring the framer | due 2026-11-26T17:00"},
		{"Ring the framer at 5pm on Thursday", "Ring the framer | due 2026-11-26T17:00"},
		{"Ring the framer 17:00 tomorrow", "Ring the framer | due 2026-11-25T17:00"},
		{"Ring the framer by 5pm", "Ring the framer | due 2026-11-24T17:00"},
		{"Ring the framer by noon", "Ring the framer | due 2026-11-24T12:00"},
		{"Ring the framer, by Friday, 4pm", "Ring the framer | due 2026-11-27T16:00"},
		{"Ring the framer on Friday, high, at 16:00", "Ring the framer | due 2026-11-27T16:00 | high"},
		{"Ring the framer at 4pm, Friday", "Ring the framer | due 2026-11-27T16:00"},
		{"Ring the framer tomorrow.", "Ring the framer | due 2026-11-25"},
		{"Ring the framer tomorrow!", "Ring the framer | due 2026-11-25"},
	}},
	{"weekdays, on a Tuesday", at(tuesday), []row{
		{"Send labels Monday", "Send labels | due 2026-11-30"},
		{"Send labels mon", "Send labels | due 2026-11-30"},
		{"Send labels Tuesday", "Send labels | due 2026-12-01"},
		{"Send labels tue", "Send labels | due 2026-12-01"},
		{"Send labels tues", "Send labels | due 2026-12-01"},
		{"Send labels wed", "Send labels | due 2026-11-25"},
		{"Send labels weds", "Send labels | due 2026-11-25"},
		{"Send labels Thu", "Send labels | due 2026-11-26"},
		{"Send labels thurs", "Send labels | due 2026-11-26"},
		{"Send labels FRI", "Send labels | due 2026-11-27"},
		{"Send labels Fri.", "Send labels | due 2026-11-27"},
		{"Send labels Saturday", "Send labels | due 2026-11-28"},
		{"Send labels Sat", "Send labels | due 2026-11-28"},
		{"Send labels sunday", "Send labels | due 2026-11-29"},
		{"Send labels Sun", "Send labels | due 2026-11-29"},
		{"Send labels this Friday", "Send labels | due 2026-11-27"},
		{"Send labels this Tuesday", "Send labels | due 2026-11-24"},
		{"Send labels this Monday", "Send labels | ! this Monday"},
		{"Send labels by this Sunday", "Send labels | due 2026-11-29"},
		{"Send labels next Monday", "Send labels | due 2026-11-30"},
		{"Send labels next Tuesday", "Send labels | due 2026-12-01"},
		{"Send labels next Friday", "Send labels | due 2026-12-04"},
		{"Send labels next Sunday", "Send labels | due 2026-12-06"},
		{"Send labels by next fri 10:15", "Send labels | due 2026-12-04T10:15"},
		{"Send labels weekend", "Send labels | due 2026-11-28"},
		{"Send labels this weekend", "Send labels | due 2026-11-28"},
		{"Send labels next weekend", "Send labels | due 2026-12-05"},
		{"Send labels by the weekend", "Send labels | due 2026-11-28"},
		{"Send labels Fri 27 Nov 2026", "Send labels | due 2026-11-27"},
		{"Send labels Friday 27 November", "Send labels | due 2026-11-27"},
		{"Send labels Thu 27 Nov 2026", "Send labels | ! Thu 27 Nov 2026"},
	}},
	{"on a Saturday", at("2026-11-28T09:00"), []row{
		{"Pack weekend", "Pack | due 2026-11-28"},
		{"Pack Saturday", "Pack | due 2026-12-05"},
		{"Pack this weekend", "Pack | due 2026-11-28"},
		{"Pack next weekend", "Pack | due 2026-12-05"},
		{"Pack end of week", "Pack | due 2026-11-29"},
		{"Pack next week, high", "Pack | plan 2026-W49 | high"},
	}},
	{"on a Sunday", at("2026-11-29T09:00"), []row{
		{"Pack weekend", "Pack | due 2026-12-05"},
		{"Pack Sunday", "Pack | due 2026-12-06"},
		{"Pack this Sunday", "Pack | due 2026-11-29"},
		{"Pack this weekend", "Pack | ! this weekend"},
		{"Pack next weekend", "Pack | due 2026-12-05"},
		{"Pack next Sunday", "Pack | due 2026-12-06"},
		{"Pack end of week", "Pack | due 2026-11-29"},
		{"Pack by next week", "Pack | due 2026-11-30"},
	}},
	{"weeks that begin on Sunday", at(tuesday, sundayFirst), []row{
		{"Pack end of week", "Pack | due 2026-11-28"},
		{"Pack next week", "Pack | plan 2026-W49"},
		{"Pack next Friday", "Pack | due 2026-12-04"},
	}},
	{"dates", at(tuesday), []row{
		{"Pay the deposit in 3 days", "Pay the deposit | due 2026-11-27"},
		{"Pay the deposit in three days", "Pay the deposit | due 2026-11-27"},
		{"Pay the deposit in twelve days", "Pay the deposit | due 2026-12-06"},
		{"Pay the deposit in 2 weeks", "Pay the deposit | due 2026-12-08"},
		{"Pay the deposit in a week", "Pay the deposit | due 2026-12-01"},
		{"Pay the deposit in a month", "Pay the deposit | due 2026-12-24"},
		{"Pay the deposit in 3 months", "Pay the deposit | due 2027-02-24"},
		{"Pay the deposit in a year", "Pay the deposit | due 2027-11-24"},
		{"Pay the deposit in 2 years", "Pay the deposit | due 2028-11-24"},
		{"Pay the deposit in 1 day", "Pay the deposit | due 2026-11-25"},
		{"Pay the deposit in 3 days at 8am", "Pay the deposit | due 2026-11-27T08:00"},
		{"Pay the deposit by next week", "Pay the deposit | due 2026-11-30"},
		{"Pay the deposit by next month", "Pay the deposit | due 2026-12-01"},
		{"Pay the deposit next year", "Pay the deposit | due 2027-01-01"},
		{"Pay the deposit end of week", "Pay the deposit | due 2026-11-29"},
		{"Pay the deposit by the end of the week", "Pay the deposit | due 2026-11-29"},
		{"Pay the deposit end of month", "Pay the deposit | due 2026-11-30"},
		{"Pay the deposit by end of quarter", "Pay the deposit | due 2026-12-31"},
		{"Pay the deposit end of year", "Pay the deposit | due 2026-12-31"},
		{"Pay the deposit end of next month", "Pay the deposit | due 2026-12-31"},
		{"Pay the deposit 30 Nov", "Pay the deposit | due 2026-11-30"},
		{"Pay the deposit Nov 30", "Pay the deposit | due 2026-11-30"},
		{"Pay the deposit 30 November 2027", "Pay the deposit | due 2027-11-30"},
		{"Pay the deposit November 30 2027", "Pay the deposit | due 2027-11-30"},
		{"Pay the deposit 30th November", "Pay the deposit | due 2026-11-30"},
		{"Pay the deposit on the 30th of November", "Pay the deposit | due 2026-11-30"},
		{"Pay the deposit 23 Nov", "Pay the deposit | due 2027-11-23"},
		{"Pay the deposit 24 Nov", "Pay the deposit | due 2026-11-24"},
		{"Pay the deposit 3 May", "Pay the deposit | due 2027-05-03"},
		{"Pay the deposit 3 may", "Pay the deposit | due 2027-05-03"},
		{"Pay the deposit may 3", "Pay the deposit | due 2027-05-03"},
		{"Pay the deposit 14 Mar", "Pay the deposit | due 2027-03-14"},
		{"Pay the deposit 29 Feb", "Pay the deposit | due 2028-02-29"},
		{"Pay the deposit 30/11", "Pay the deposit | due 2026-11-30"},
		{"Pay the deposit 30.11.2027", "Pay the deposit | due 2027-11-30"},
		{"Pay the deposit 30/11/27", "Pay the deposit | due 2027-11-30"},
		{"Pay the deposit 30/11/2027", "Pay the deposit | due 2027-11-30"},
		{"Pay the deposit 1/2", "Pay the deposit | due 2027-02-01"},
		{"Pay the deposit 2026-11-30", "Pay the deposit | due 2026-11-30"},
		{"Pay the deposit 2026-11-30 16:00", "Pay the deposit | due 2026-11-30T16:00"},
		{"Pay the deposit the 3rd", "Pay the deposit | due 2026-12-03"},
		{"Pay the deposit the 24th", "Pay the deposit | due 2026-11-24"},
		{"Pay the deposit by the 31st", "Pay the deposit | due 2026-12-31"},
		{"Pay the deposit the 3rd of January", "Pay the deposit | due 2027-01-03"},
		{"Pay the deposit 30 November 2020", "Pay the deposit | due 2020-11-30"},
	}},
	{"the month first", at(tuesday, monthFirst), []row{
		{"Pay the deposit 11/30", "Pay the deposit | due 2026-11-30"},
		{"Pay the deposit 1/2", "Pay the deposit | due 2027-01-02"},
		{"Pay the deposit 11/30/27", "Pay the deposit | due 2027-11-30"},
		{"Pay the deposit 30/11", "Pay the deposit 30/11"},
		{"Pay the deposit 30.11.2027", "Pay the deposit | due 2027-11-30"},
		{"Pay the deposit 30 Nov", "Pay the deposit | due 2026-11-30"},
		{"Pay the deposit 2/30", "Pay the deposit | ! 2/30"},
	}},
	{"month ends", at("2027-01-31T09:00"), []row{
		{"Pay in a month", "Pay | due 2027-02-28"},
		{"Pay in 3 months", "Pay | due 2027-04-30"},
		{"Pay in a year", "Pay | due 2028-01-31"},
		{"Pay end of month", "Pay | due 2027-01-31"},
		{"Pay end of next month", "Pay | due 2027-02-28"},
		{"Pay the 31st", "Pay | due 2027-01-31"},
		{"Pay the 30th", "Pay | due 2027-03-30"},
		{"Pay the 29th", "Pay | due 2027-03-29"},
		{"Pay next month", "Pay | plan 2027-02"},
		{"Pay tomorrow", "Pay | due 2027-02-01"},
		{"Pay every month", "Pay | due 2027-01-31 | repeat FREQ=MONTHLY;RSCALE=GREGORIAN;SKIP=BACKWARD first 2027-01-31"},
	}},
	{"at the end of a year", at("2026-12-31T22:30"), []row{
		{"Pay tomorrow", "Pay | due 2027-01-01"},
		{"Pay next month", "Pay | plan 2027-01"},
		{"Pay next week", "Pay | plan 2027-W01"},
		{"Pay this week", "Pay | plan 2026-W53"},
		{"Pay at 23:00", "Pay | due 2026-12-31T23:00"},
		{"Pay at 22:00", "Pay | due 2027-01-01T22:00"},
		{"Pay tonight", "Pay | due 2026-12-31T20:00 | ! tonight"},
		{"Pay tonight 23:15", "Pay | due 2026-12-31T23:15"},
		{"Pay 1 Jan", "Pay | due 2027-01-01"},
		{"Pay end of quarter", "Pay | due 2026-12-31"},
	}},
	{"in a leap year", at("2028-02-29T09:00"), []row{
		{"Pay 29 Feb", "Pay | due 2028-02-29"},
		{"Pay in a year", "Pay | due 2029-02-28"},
		{"Pay in 4 years", "Pay | due 2032-02-29"},
		{"Pay 28 Feb", "Pay | due 2029-02-28"},
		{"Pay every year", "Pay | due 2028-02-29 | repeat FREQ=YEARLY;RSCALE=GREGORIAN;SKIP=BACKWARD first 2028-02-29"},
		{"Pay every year on 29 February", "Pay | due 2028-02-29 | repeat FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=29;RSCALE=GREGORIAN;SKIP=BACKWARD first 2028-02-29"},
	}},
	{"times", at(tuesday), []row{
		{"Meet the carpenter at 5pm", "Meet the carpenter | due 2026-11-24T17:00"},
		{"Meet the carpenter at 5 pm", "Meet the carpenter | due 2026-11-24T17:00"},
		{"Meet the carpenter 17:00", "Meet the carpenter | due 2026-11-24T17:00"},
		{"Meet the carpenter 5.30 pm", "Meet the carpenter | due 2026-11-24T17:30"},
		{"Meet the carpenter 5:30pm", "Meet the carpenter | due 2026-11-24T17:30"},
		{"Meet the carpenter at 5.30", "Meet the carpenter | due 2026-11-25T05:30"},
		{"Meet the carpenter at noon", "Meet the carpenter | due 2026-11-24T12:00"},
		{"Meet the carpenter tomorrow noon", "Meet the carpenter | due 2026-11-25T12:00"},
		{"Meet the carpenter tomorrow midday", "Meet the carpenter | due 2026-11-25T12:00"},
		{"Meet the carpenter tomorrow midnight", "Meet the carpenter | due 2026-11-25T00:00"},
		{"Meet the carpenter at midnight", "Meet the carpenter | due 2026-11-25T00:00"},
		{"Meet the carpenter tomorrow morning", "Meet the carpenter | due 2026-11-25T09:00"},
		{"Meet the carpenter Friday afternoon", "Meet the carpenter | due 2026-11-27T14:00"},
		{"Meet the carpenter Friday evening", "Meet the carpenter | due 2026-11-27T18:00"},
		{"Meet the carpenter this afternoon", "Meet the carpenter | due 2026-11-24T14:00"},
		{"Meet the carpenter at 1", "Meet the carpenter | due 2026-11-24T13:00"},
		{"Meet the carpenter at 6", "Meet the carpenter | due 2026-11-24T18:00"},
		{"Meet the carpenter at 7", "Meet the carpenter | due 2026-11-25T07:00"},
		{"Meet the carpenter at 11", "Meet the carpenter | due 2026-11-24T11:00"},
		{"Meet the carpenter at 12", "Meet the carpenter | due 2026-11-24T12:00"},
		{"Meet the carpenter tomorrow at 3", "Meet the carpenter | due 2026-11-25T15:00"},
		{"Meet the carpenter tomorrow at 9", "Meet the carpenter | due 2026-11-25T09:00"},
		{"Meet the carpenter at 8:59", "Meet the carpenter | due 2026-11-25T08:59"},
		{"Meet the carpenter at 9:00", "Meet the carpenter | due 2026-11-24T09:00"},
		{"Meet the carpenter tomorrow 12am", "Meet the carpenter | due 2026-11-25T00:00"},
		{"Meet the carpenter tomorrow 12pm", "Meet the carpenter | due 2026-11-25T12:00"},
		{"Meet the carpenter tomorrow, noon", "Meet the carpenter | due 2026-11-25T12:00"},
		{"Meet the carpenter today at 08:00", "Meet the carpenter | due 2026-11-24T08:00"},
		{"Meet the carpenter tomorrow 1am", "Meet the carpenter | due 2026-11-25T01:00"},
	}},
	{"the day starts at four, and it is two in the morning", at("2026-11-25T02:00", fromFour), []row{
		{"Sweep today", "Sweep | due 2026-11-24"},
		{"Sweep tomorrow", "Sweep | due 2026-11-25"},
		{"Sweep tomorrow 1am", "Sweep | due 2026-11-25T01:00"},
		{"Sweep at 3am", "Sweep | due 2026-11-25T03:00"},
		{"Sweep at 5pm", "Sweep | due 2026-11-25T17:00"},
		{"Sweep Tuesday", "Sweep | due 2026-12-01"},
		{"Sweep Wednesday", "Sweep | due 2026-11-25"},
		{"Sweep every day", "Sweep | due 2026-11-24 | repeat FREQ=DAILY first 2026-11-24"},
	}},
	// 28 March 2027: 01:00 to 02:00 is skipped. 31 October 2027: it comes twice.
	{"the clocks go forward", at("2027-03-27T12:00"), []row{
		{"Change the clocks tomorrow 01:30", "Change the clocks | due 2027-03-28T02:30"},
		{"Change the clocks tomorrow 00:59", "Change the clocks | due 2027-03-28T00:59"},
		{"Change the clocks tomorrow 2am", "Change the clocks | due 2027-03-28T02:00"},
		{"Change the clocks tomorrow 5pm", "Change the clocks | due 2027-03-28T17:00"},
		{"Wind the clock, remind me tomorrow 1:15", "Wind the clock | remind 2027-03-28T02:15"},
	}},
	{"the clocks go back, and it is 01:30 for the first time", at(tuesday, instant("2027-10-31T00:30:00Z")), []row{
		{"Change the clocks at 1:30am", "Change the clocks | due 2027-10-31T01:30"},
		{"Change the clocks at 1:45am", "Change the clocks | due 2027-10-31T01:45"},
		{"Change the clocks at 1:00", "Change the clocks | due 2027-11-01T01:00"},
		{"Change the clocks tomorrow", "Change the clocks | due 2027-11-01"},
	}},
	{"it is 01:30 for the second time", at(tuesday, instant("2027-10-31T01:30:00Z")), []row{
		{"Change the clocks at 1:45am", "Change the clocks | due 2027-11-01T01:45"}, // the first 01:45 has passed
		{"Change the clocks at 2am", "Change the clocks | due 2027-10-31T02:00"},
	}},
	{"start", at(tuesday), []row{
		{"Borrow the key from Monday", "Borrow the key | start 2026-11-30"},
		{"Borrow the key, from Monday", "Borrow the key | start 2026-11-30"},
		{"Borrow the key starting 1 December", "Borrow the key | start 2026-12-01"},
		{"Borrow the key, not before next week", "Borrow the key | start 2026-11-30"},
		{"Borrow the key, from next month, by 20 December", "Borrow the key | due 2026-12-20 | start 2026-12-01"},
		{"Borrow the key from tomorrow, by Friday 4pm", "Borrow the key | due 2026-11-27T16:00 | start 2026-11-25"},
		{"Borrow the key by Friday from tomorrow", "Borrow the key | due 2026-11-27 | start 2026-11-25"},
		{"Borrow the key, from Monday 9:00", "Borrow the key, from Monday | due 2026-11-24T09:00"},
	}},
	{"plan", at(tuesday), []row{
		{"Write the labels, plan Friday", "Write the labels | plan 2026-11-27"},
		{"Write the labels plan tomorrow", "Write the labels | plan 2026-11-25"},
		{"Write the labels, plan on Friday", "Write the labels | plan 2026-11-27"},
		{"Write the labels this week", "Write the labels | plan 2026-W48"},
		{"Write the labels, next week", "Write the labels | plan 2026-W49"},
		{"Write the labels, this month", "Write the labels | plan 2026-11"},
		{"Write the labels, plan next month", "Write the labels | plan 2026-12"},
		{"Write the labels, plan next week", "Write the labels | plan 2026-W49"},
		{"Write the labels, December", "Write the labels | plan 2026-12"},
		{"Write the labels, November", "Write the labels | plan 2026-11"},
		{"Write the labels, plan October", "Write the labels | plan 2027-10"},
		{"Write the labels, plan March 2028", "Write the labels | plan 2028-03"},
		{"Write the labels, plan 2026-W50", "Write the labels | plan 2026-W50"},
		{"Write the labels, plan Friday 14:00", "Write the labels | plan 2026-11-27T14:00/PT30M"},
		{"Write the labels, plan Friday 14:00 for 45 minutes", "Write the labels | plan 2026-11-27T14:00/PT45M"},
		{"Write the labels, plan Friday at 2 for 1h30", "Write the labels | plan 2026-11-27T14:00/PT90M"},
		{"Write the labels, 50 min, plan Friday 14:00", "Write the labels | plan 2026-11-27T14:00/PT50M | 50 min"},
		{"Write the labels, plan Friday, 14:00", "Write the labels | plan 2026-11-27T14:00/PT30M"},
		{"Write the labels, parked", "Write the labels | plan parked"},
		{"Write the labels, plan parked", "Write the labels | plan parked"},
		{"Write the labels by Friday, plan tomorrow", "Write the labels | due 2026-11-27 | plan 2026-11-25"},
		{"Write the labels, plan this afternoon", "Write the labels | plan 2026-11-24T14:00/PT30M"},
		{"Write the labels, plan this weekend", "Write the labels | plan 2026-11-28"},
		{"Write the labels, plan tomorrow 10:00, by Friday", "Write the labels | due 2026-11-27 | plan 2026-11-25T10:00/PT30M"},
		{"Write the labels, plan Friday for the opening", "Write the labels, plan Friday for the opening"},
	}},
	{"repeats", at(tuesday), []row{
		{"Feed the cat every day", "Feed the cat | due 2026-11-24 | repeat FREQ=DAILY first 2026-11-24"},
		{"Feed the cat daily", "Feed the cat | due 2026-11-24 | repeat FREQ=DAILY first 2026-11-24"},
		{"Feed the cat every weekday", "Feed the cat | due 2026-11-24 | repeat FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR first 2026-11-24"},
		{"Feed the cat every weekend", "Feed the cat | due 2026-11-28 | repeat FREQ=WEEKLY;BYDAY=SA,SU first 2026-11-28"},
		{"Feed the cat every other day", "Feed the cat | due 2026-11-24 | repeat FREQ=DAILY;INTERVAL=2 first 2026-11-24"},
		{"Feed the cat every 3 days", "Feed the cat | due 2026-11-24 | repeat FREQ=DAILY;INTERVAL=3 first 2026-11-24"},
		{"Feed the cat every three days", "Feed the cat | due 2026-11-24 | repeat FREQ=DAILY;INTERVAL=3 first 2026-11-24"},
		{"Feed the cat every Monday", "Feed the cat | due 2026-11-30 | repeat FREQ=WEEKLY;BYDAY=MO first 2026-11-30"},
		{"Feed the cat every Tuesday", "Feed the cat | due 2026-11-24 | repeat FREQ=WEEKLY;BYDAY=TU first 2026-11-24"},
		{"Feed the cat every Tuesday at 8:00", "Feed the cat | due 2026-12-01T08:00 | repeat FREQ=WEEKLY;BYDAY=TU first 2026-12-01"},
		{"Feed the cat every Tuesday at 10:00", "Feed the cat | due 2026-11-24T10:00 | repeat FREQ=WEEKLY;BYDAY=TU first 2026-11-24"},
		{"Feed the cat every Mon and Thu", "Feed the cat | due 2026-11-26 | repeat FREQ=WEEKLY;BYDAY=MO,TH first 2026-11-26"},
		{"Feed the cat every Thu, Mon and Sat", "Feed the cat | due 2026-11-26 | repeat FREQ=WEEKLY;BYDAY=MO,TH,SA first 2026-11-26"},
		{"Feed the cat, every Monday, Wednesday and Friday, high", "Feed the cat | due 2026-11-25 | repeat FREQ=WEEKLY;BYDAY=MO,WE,FR first 2026-11-25 | high"},
		{"Feed the cat every 2 weeks on Wednesday", "Feed the cat | due 2026-11-25 | repeat FREQ=WEEKLY;INTERVAL=2;BYDAY=WE first 2026-11-25"},
		{"Feed the cat every other week", "Feed the cat | due 2026-11-24 | repeat FREQ=WEEKLY;INTERVAL=2 first 2026-11-24"},
		{"Feed the cat every other Tuesday", "Feed the cat | due 2026-11-24 | repeat FREQ=WEEKLY;INTERVAL=2;BYDAY=TU first 2026-11-24"},
		{"Feed the cat every week", "Feed the cat | due 2026-11-24 | repeat FREQ=WEEKLY first 2026-11-24"},
		{"Feed the cat every week on Monday and Friday", "Feed the cat | due 2026-11-27 | repeat FREQ=WEEKLY;BYDAY=MO,FR first 2026-11-27"},
		{"Pay the rent every month", "Pay the rent | due 2026-11-24 | repeat FREQ=MONTHLY first 2026-11-24"},
		{"Pay the rent every month on the 3rd", "Pay the rent | due 2026-12-03 | repeat FREQ=MONTHLY;BYMONTHDAY=3 first 2026-12-03"},
		{"Pay the rent every month on the 3rd and 17th", "Pay the rent | due 2026-12-03 | repeat FREQ=MONTHLY;BYMONTHDAY=3,17 first 2026-12-03"},
		{"Pay the rent every month on the last Friday", "Pay the rent | due 2026-11-27 | repeat FREQ=MONTHLY;BYDAY=-1FR first 2026-11-27"},
		{"Pay the rent every month on the first Monday", "Pay the rent | due 2026-12-07 | repeat FREQ=MONTHLY;BYDAY=1MO first 2026-12-07"},
		{"Pay the rent every month on the 2nd last Friday", "Pay the rent | due 2026-12-18 | repeat FREQ=MONTHLY;BYDAY=-2FR first 2026-12-18"},
		{"Pay the rent every last Friday of the month", "Pay the rent | due 2026-11-27 | repeat FREQ=MONTHLY;BYDAY=-1FR first 2026-11-27"},
		{"Pay the rent every month on the last day", "Pay the rent | due 2026-11-30 | repeat FREQ=MONTHLY;BYMONTHDAY=-1 first 2026-11-30"},
		{"Pay the rent every month on the 31st", "Pay the rent | due 2026-11-30 | repeat FREQ=MONTHLY;BYMONTHDAY=31;RSCALE=GREGORIAN;SKIP=BACKWARD first 2026-11-30"},
		{"Pay the rent every 3 months", "Pay the rent | due 2026-11-24 | repeat FREQ=MONTHLY;INTERVAL=3 first 2026-11-24"},
		{"Pay the rent every quarter", "Pay the rent | due 2026-11-24 | repeat FREQ=MONTHLY;INTERVAL=3 first 2026-11-24"},
		{"Pay the rent every year on 14 March", "Pay the rent | due 2027-03-14 | repeat FREQ=YEARLY;BYMONTH=3;BYMONTHDAY=14 first 2027-03-14"},
		{"Pay the rent every 14 March", "Pay the rent | due 2027-03-14 | repeat FREQ=YEARLY;BYMONTH=3;BYMONTHDAY=14 first 2027-03-14"},
		{"Pay the rent every year", "Pay the rent | due 2026-11-24 | repeat FREQ=YEARLY first 2026-11-24"},
		{"Pay the rent weekly", "Pay the rent | due 2026-11-24 | repeat FREQ=WEEKLY first 2026-11-24"},
		{"Pay the rent monthly", "Pay the rent | due 2026-11-24 | repeat FREQ=MONTHLY first 2026-11-24"},
		{"Pay the rent monthly on the 1st", "Pay the rent | due 2026-12-01 | repeat FREQ=MONTHLY;BYMONTHDAY=1 first 2026-12-01"},
		{"Pay the rent yearly", "Pay the rent | due 2026-11-24 | repeat FREQ=YEARLY first 2026-11-24"},
		{"Pay the rent fortnightly", "Pay the rent | due 2026-11-24 | repeat FREQ=WEEKLY;INTERVAL=2 first 2026-11-24"},
		{"Pay the rent quarterly", "Pay the rent | due 2026-11-24 | repeat FREQ=MONTHLY;INTERVAL=3 first 2026-11-24"},
		{"Descale 2 weeks after done", "Descale | due 2026-11-24 | repeat FREQ=WEEKLY;INTERVAL=2 first 2026-11-24 after done"},
		{"Descale 6 months after done", "Descale | due 2026-11-24 | repeat FREQ=MONTHLY;INTERVAL=6 first 2026-11-24 after done"},
		{"Descale, a year after done", "Descale | due 2026-11-24 | repeat FREQ=YEARLY first 2026-11-24 after done"},
		{"Descale 30 days after done from 1 December", "Descale | due 2026-12-01 | repeat FREQ=DAILY;INTERVAL=30 first 2026-12-01 after done"},
		{"Stretch every day for 2 weeks", "Stretch | due 2026-11-24 | repeat FREQ=DAILY;UNTIL=20261207 first 2026-11-24"},
		{"Stretch every day, for 2 weeks", "Stretch | due 2026-11-24 | repeat FREQ=DAILY;UNTIL=20261207 first 2026-11-24"},
		{"Stretch every day until 20 December", "Stretch | due 2026-11-24 | repeat FREQ=DAILY;UNTIL=20261220 first 2026-11-24"},
		{"Stretch every day, until 20 December, 5 min", "Stretch | due 2026-11-24 | repeat FREQ=DAILY;UNTIL=20261220 first 2026-11-24 | 5 min"},
		{"Stretch every Monday 10 times", "Stretch | due 2026-11-30 | repeat FREQ=WEEKLY;BYDAY=MO;COUNT=10 first 2026-11-30"},
		{"Stretch every Monday, 10 times", "Stretch | due 2026-11-30 | repeat FREQ=WEEKLY;BYDAY=MO;COUNT=10 first 2026-11-30"},
		{"Stretch every Monday from 14 December", "Stretch | due 2026-12-14 | repeat FREQ=WEEKLY;BYDAY=MO first 2026-12-14"},
		{"Stretch every Monday from 15 December", "Stretch | due 2026-12-21 | repeat FREQ=WEEKLY;BYDAY=MO first 2026-12-21"},
		{"Stretch every Monday, starting next week, at 7:30", "Stretch | due 2026-11-30T07:30 | repeat FREQ=WEEKLY;BYDAY=MO first 2026-11-30"},
		{"Stretch every 2 weeks, Friday", "Stretch | due 2026-11-27 | repeat FREQ=WEEKLY;INTERVAL=2 first 2026-11-27"},
		{"Stretch every day at 9:30", "Stretch | due 2026-11-24T09:30 | repeat FREQ=DAILY first 2026-11-24"},
		{"Stretch every day at 8:30", "Stretch | due 2026-11-25T08:30 | repeat FREQ=DAILY first 2026-11-25"},
		{"Stretch every day, 8:30, high", "Stretch | due 2026-11-25T08:30 | repeat FREQ=DAILY first 2026-11-25 | high"},
		{"Insure the lamps every year on 14 March 14 days ahead", "Insure the lamps | due 2027-03-14 | start 2027-02-28 | repeat FREQ=YEARLY;BYMONTH=3;BYMONTHDAY=14 first 2027-03-14 lead 14"},
		{"Insure the lamps yearly, 2 weeks ahead", "Insure the lamps | due 2026-11-24 | start 2026-11-10 | repeat FREQ=YEARLY first 2026-11-24 lead 14"},
		{"Insure the lamps by 20 December, 14 days ahead", "Insure the lamps | due 2026-12-20 | start 2026-12-06"},
	}},
	{"priority", at(tuesday), []row{
		{"Mend the lens, high", "Mend the lens | high"},
		{"Mend the lens, medium", "Mend the lens | medium"},
		{"Mend the lens, low", "Mend the lens | low"},
		{"Mend the lens, high priority", "Mend the lens | high"},
		{"Mend the lens, priority low", "Mend the lens | low"},
		{"Mend the lens, High", "Mend the lens | high"},
		{"Mend the lens high", "Mend the lens high"},
		{"High shelf needs dusting", "High shelf needs dusting"},
		{"Mend the lens, high, low", "Mend the lens | high | ! low"},
		{"Mend the lens, high hopes", "Mend the lens, high hopes"},
		{"high", "high"},
	}},
	{"lists", at(tuesday), []row{
		{"Ask for quotes, in Night Signals", "Ask for quotes | in Night Signals"},
		{"Ask for quotes, in night signals", "Ask for quotes | in Night Signals"},
		{"Ask for quotes, in Volunt", "Ask for quotes | in Volunteers"},
		{"Ask for quotes, in grant", "Ask for quotes | in Grant report"},
		{"Ask for quotes, in Night", "Ask for quotes, in Night"},
		{"Ask for quotes, in Night Signals: l", "Ask for quotes | in Night Signals: loans"},
		{"Ask for quotes, in Lisbon", "Ask for quotes, in Lisbon"},
		{"Ask for quotes in Choir", "Ask for quotes in Choir"},
		{"Ask for quotes, in", "Ask for quotes, in"},
		{"Ask for quotes, in Choir, in Flat", "Ask for quotes | in Choir | ! in Flat"},
		{"Ask for quotes, in 3 days, in Flat", "Ask for quotes | due 2026-11-27 | in Flat"},
	}},
	{"tags", at(tuesday), []row{
		{"Ring the framer #calls", "Ring the framer | #calls"},
		{"#calls Ring the framer", "Ring the framer | #calls"},
		{"Ring #calls the framer", "Ring the framer | #calls"},
		{"Ring the framer, #calls, #new", "Ring the framer | #calls | #new"},
		{"Ring the framer, #calls high", "Ring the framer | high | #calls"},
		{"Ring the framer #CALLS", "Ring the framer | #calls"},
		{"Ring the framer #work/meetings", "Ring the framer | #work/meetings"},
		{"Ring the framer #calls #calls", "Ring the framer | #calls"},
		{"Ring the framer #calls tomorrow", "Ring the framer | due 2026-11-25 | #calls"},
		{"Ring the framer tomorrow #calls", "Ring the framer | due 2026-11-25 | #calls"},
		{"Ring room#3 and #4", "Ring room#3 and #4"},
		{"Ring a#b", "Ring a#b"},
		{"Ring # 5", "Ring # 5"},
		{"Ring #a//b", "Ring | ! #a//b"},
		{"Ring #a/", "Ring | ! #a/"},
		{"#calls", " | #calls | !"},
		{`Ring "#calls"`, "Ring #calls"},
		{"Ring #été", "Ring | #été"},
	}},
	{"estimates", at(tuesday), []row{
		{"Read the report, 20 min", "Read the report | 20 min"},
		{"Read the report, 20min", "Read the report | 20 min"},
		{"Read the report, 1h30", "Read the report | 90 min"},
		{"Read the report, 1.5 hours", "Read the report | 90 min"},
		{"Read the report, 1.25 hours", "Read the report | 75 min"},
		{"Read the report, takes 2 hours", "Read the report | 120 min"},
		{"Read the report, 2h", "Read the report | 120 min"},
		{"Read the report, 1 h 30 min", "Read the report | 90 min"},
		{"Read the report, an hour", "Read the report | 60 min"},
		{"Read the report, takes two hours", "Read the report | 120 min"},
		{"Read the report, 90 minutes", "Read the report | 90 min"},
		{"Read the report, 1 hour", "Read the report | 60 min"},
		{"Read the report 20 min", "Read the report 20 min"},
		{"Read the report, 0 min", "Read the report | ! 0 min"},
		{"Read the report, 200 hours", "Read the report | ! 200 hours"},
		{"Read the report, 20 min, 30 min", "Read the report | 20 min | ! 30 min"},
		{"Read the report, 20 pages", "Read the report, 20 pages"},
	}},
	{"people", at(tuesday), []row{
		{"Crate sizes, ask Registrar", "Crate sizes | ask Registrar"},
		{"Crate sizes, with registrar", "Crate sizes | ask Registrar"},
		{"Crate sizes, waiting on Registrar", "Crate sizes | waiting-on Registrar"},
		{"Crate sizes, for Registrar", "Crate sizes | for Registrar"},
		{"Crate sizes, for Tomás", "Crate sizes | for Tomás Leal"},
		{"Crate sizes, ask Inês", "Crate sizes, ask Inês"},
		{"Crate sizes, ask Inês Prado", "Crate sizes | ask Inês Prado"},
		{"Crate sizes, ask Tom", "Crate sizes, ask Tom"},
		{"Crate sizes, for two lamps", "Crate sizes, for two lamps"},
		{"Ask Registrar", "Ask Registrar"},
		{"Crate sizes with Registrar", "Crate sizes with Registrar"},
		{"Crate sizes, ask Registrar, for Tomás Leal", "Crate sizes | ask Registrar | ! for Tomás Leal"},
	}},
	{"reminders", at(tuesday), []row{
		{"Choir, by Friday 4pm, remind me 10 min before", "Choir | due 2026-11-27T16:00 | remind -PT10M"},
		{"Choir, by Friday 4pm, 2 hours before", "Choir | due 2026-11-27T16:00 | remind -PT2H"},
		{"Choir, by Friday, remind me 1 day before", "Choir | due 2026-11-27 | remind -P1D"},
		{"Choir, remind me tomorrow 8:00", "Choir | remind 2026-11-25T08:00"},
		{"Choir, remind me tomorrow", "Choir | remind 2026-11-25T09:00"},
		{"Choir, remind me at 5pm", "Choir | remind 2026-11-24T17:00"},
		{"Choir, remind me at 8:00", "Choir | remind 2026-11-25T08:00"},
		{"Choir, remind me on Thursday evening", "Choir | remind 2026-11-26T18:00"},
		{"Choir, plan Friday 14:00, remind me 5 min before", "Choir | plan 2026-11-27T14:00/PT30M | remind -PT5M"},
		{"Choir, by Friday, remind me tomorrow, 1 day before", "Choir | due 2026-11-27 | remind 2026-11-25T09:00 | remind -P1D"},
		{"Choir, remind me 1 hour before", "Choir | ! remind me 1 hour before"},
		{"Remind me tomorrow", "Remind me | due 2026-11-25"},
		{"Choir, remind me of the key", "Choir, remind me of the key"},
	}},
	{"taken from a title, and what never is", at(tuesday), []row{
		{"Write May report", "Write May report"},
		{"Write May report tomorrow", "Write May report | due 2026-11-25"},
		{"Weekly report", "Weekly report"},
		{"Daily stand-up notes", "Daily stand-up notes"},
		{"Every lamp needs a label", "Every lamp needs a label"},
		{"Today ring the framer", "ring the framer | due 2026-11-24"},
		{"Tomorrow: ring the framer", "ring the framer | due 2026-11-25"},
		{"Tonight sing", "sing | due 2026-11-24T20:00"},
		{"Day after tomorrow ring the framer", "ring the framer | due 2026-11-26"},
		{"On Friday ring the framer", "ring the framer | due 2026-11-27"},
		{"By Friday 4pm order board", "order board | due 2026-11-27T16:00"},
		{"Next Friday ring the framer", "ring the framer | due 2026-12-04"},
		{"This Friday ring the framer", "ring the framer | due 2026-11-27"},
		{"Next week ring the framer", "ring the framer | plan 2026-W49"},
		{"Today, ring the framer", "ring the framer | due 2026-11-24"},
		{"Friday ring the framer", "Friday ring the framer"},
		{"30 Nov meeting notes", "30 Nov meeting notes"},
		{"Today's agenda", "Today's agenda"},
		{"Next steps for the loan", "Next steps for the loan"},
		{"This is a title", "This is a title"},
		{"On reflection, ring the framer", "On reflection, ring the framer"},
		{"By the way, ring the framer", "By the way, ring the framer"},
		{"Tomorrow", "Tomorrow"},
		{"Every day", "Every day"},
		{"by Friday", "by Friday"},
		{"Tomorrow, high", "Tomorrow | high"},
		{"Friday, Friday", "Friday | due 2026-11-27"},
		{"Ring the framer on Friday about mounts", "Ring the framer on Friday about mounts"},
		{"Prepare slides for Friday", "Prepare slides for Friday"},
		{"What happened last Friday", "What happened last Friday"},
		{"Plans for next week", "Plans for next week"},
		{"Review the week", "Review the week"},
		{"Discuss the plan Friday", "Discuss the plan | due 2026-11-27"},
		{"Where the statue sat", "Where the statue sat"},
		{"Enjoy the sun", "Enjoy the sun"},
		{"Ask what she may", "Ask what she may"},
		{"Clean Mar", "Clean | plan 2027-03"},
		{"Clean mar", "Clean mar"},
		{"Clean by sat", "Clean | due 2026-11-28"},
		{"Clean on sun", "Clean | due 2026-11-29"},
		{"Read pages 24/36", "Read pages 24/36"},
		{"Good morning", "Good morning"},
		{"Bake bread in the evening", "Bake bread in the evening"},
		{"Room 5", "Room 5"},
		{"Version 5.30", "Version 5.30"},
		{"Order lamps, oil, wicks tomorrow, high", "Order lamps, oil, wicks | due 2026-11-25 | high"},
		{"Order lamps tomorrow, oil", "Order lamps tomorrow, oil"},
		{"Order 1,000 labels, high", "Order 1,000 labels | high"},
		{"Order lamps, the good ones", "Order lamps, the good ones"},
		{"Order lamps, until Friday", "Order lamps, until Friday"},
		{"Order lamps, 10 times", "Order lamps, 10 times"},
		{"Order lamps, for 2 weeks", "Order lamps, for 2 weeks"},
		{"Check the parked car", "Check the parked car"},
		{"Where is the car parked", "Where is the car parked"},
		{"Write to Tomás, plan B", "Write to Tomás, plan B"},
		{"Tomorrow ring the framer at 5pm", "ring the framer | due 2026-11-25T17:00"},
	}},
	{"quotes", at(tuesday), []row{
		{`Read "Tomorrow"`, "Read Tomorrow"},
		{`Read "Order board, by Friday"`, "Read Order board, by Friday"},
		{`Read "Tomorrow" tomorrow`, "Read Tomorrow | due 2026-11-25"},
		{`Order board, "high"`, "Order board, high"},
		{`Order board, "high", low`, "Order board, high | low"},
		{`Order a 5" pipe`, `Order a 5" pipe`},
		{`Order a 5" pipe, high`, `Order a 5" pipe | high`},
		{`Say ""hello""`, `Say "hello"`},
		{`"Say ""hello, by Friday"""`, `Say "hello, by Friday"`},
		{`foo"bar"baz`, "foobarbaz"},
		{`Call "the framer" Fri"day`, `Call the framer Fri"day`},
		{`Order board, in "Choir"`, `Order board, in Choir`},
		{`"a -- b" -- c`, "a -- b | -- c"},
	}},
	{"notes", at(tuesday), []row{
		{"Order board -- 2 mm, black", "Order board | -- 2 mm, black"},
		{"Order board, by Friday -- ask for #samples tomorrow", "Order board | due 2026-11-27 | -- ask for #samples tomorrow"},
		{"Order board--now", "Order board--now"},
		{"Order board -- ", "Order board"},
		{"Order board -- a -- b", "Order board | -- a -- b"},
	}},
	{"understood, and impossible", at(tuesday), []row{
		{"Pay 31 February", "Pay | ! 31 February"},
		{"Pay on 30 Feb", "Pay | ! on 30 Feb"},
		{"Pay 30/02", "Pay | ! 30/02"},
		{"Pay 29/02/2027", "Pay | ! 29/02/2027"},
		{"Pay 2026-02-31", "Pay | ! 2026-02-31"},
		{"Pay 31 April", "Pay | ! 31 April"},
		{"Pay at 25:00", "Pay | ! at 25:00"},
		{"Pay tomorrow 25:00", "Pay | ! tomorrow 25:00"},
		{"Pay tomorrow, 25:00", "Pay | ! tomorrow, 25:00"},
		{"Pay, 25:00, tomorrow", "Pay | ! 25:00, tomorrow"},
		{"Pay, plan tomorrow, 25:00", "Pay | plan 2026-11-25 | ! 25:00"},
		{"Pay tomorrow 13pm", "Pay | ! tomorrow 13pm"},
		{"Pay 12:60", "Pay | ! 12:60"},
		{"Pay from Friday, by Thursday", "Pay | due 2026-11-26 | start 2026-11-27 | ! from Friday"},
		{"Pay by Thursday, by Friday", "Pay | due 2026-11-26 | ! by Friday"},
		{"Pay tomorrow, by Friday", "Pay | due 2026-11-25 | ! by Friday"},
		{"Pay by Friday 4pm, 5pm", "Pay | due 2026-11-27T16:00 | ! 5pm"},
		{"Pay plan Friday, plan Thursday", "Pay | plan 2026-11-27 | ! plan Thursday"},
		{"Pay every day, every week", "Pay | due 2026-11-24 | repeat FREQ=DAILY first 2026-11-24 | ! every week"},
		{"Pay every year on 31 April", "Pay | ! every year on 31 April"},
		{"Pay every 0 days", "Pay | ! every 0 days"},
		{"Pay every day until 20 November 2026", "Pay | ! every day until 20 November 2026"},
		{"Pay every day, 0 times", "Pay | ! every day, 0 times"},
		{"Pay, 14 days ahead", "Pay | ! 14 days ahead"},
		{"Pay every month, 900 days ahead", "Pay | due 2026-11-24 | repeat FREQ=MONTHLY first 2026-11-24 | ! 900 days ahead"},
		{"Pay by 29 Feb 2027", "Pay | ! by 29 Feb 2027"},
		{"Pay in 9999 years", "Pay | ! in 9999 years"},
	}},
}

func TestSentences(t *testing.T) {
	n := 0
	for _, table := range tables {
		t.Run(table.name, func(t *testing.T) {
			for _, row := range table.rows {
				n++
				d := capture.Read(row.sentence, table.env)
				if got := strings.TrimRight(brief(d), " "); got != strings.TrimRight(row.want, " ") {
					t.Errorf("%s\n got  %s\n want %s", row.sentence, got, row.want)
				}
				checkDraft(t, row.sentence, d, table.env)
			}
		})
	}
	if n < 300 {
		t.Errorf("%d sentences; at least 300 are wanted", n)
	}
	t.Logf("%d sentences", n)
}

// checkDraft checks what holds of every draft.
func checkDraft(t testing.TB, sentence string, d capture.Draft, env capture.Env) {
	t.Helper()
	taken := make([]bool, len(sentence))
	for _, c := range d.Chips {
		if (c.Value == "") != (c.Problem != "") {
			t.Errorf("%q: the chip %+v has a value and a problem, or neither", sentence, c)
		}
		for _, s := range c.Spans {
			for i := s.Start; i < s.End; i++ {
				if taken[i] {
					t.Errorf("%q: %q belongs to two fields", sentence, sentence[i:i+1])
					return
				}
				taken[i] = true
			}
		}
	}
	if again := capture.Read(sentence, env); brief(again) != brief(d) {
		t.Errorf("%q reads once as %s and once as %s", sentence, brief(d), brief(again))
	}
	if len(d.Problems) > 0 {
		return
	}
	said := capture.Say(d, env)
	if back := capture.Read(said, env); brief(back) != brief(d) {
		t.Errorf("%q\n is said back as %q\n which reads    %s\n and should be %s", sentence, said, brief(back), brief(d))
	}
	for _, c := range d.Chips {
		left := capture.Read(capture.Quote(sentence, c), env)
		if slices.ContainsFunc(left.Chips, func(l capture.Chip) bool { return l.Field == c.Field && l.Words == c.Words }) &&
			len(left.Chips) >= len(d.Chips) {
			t.Errorf("%q: %q is still read once it is quoted", sentence, c.Words)
		}
	}
}

package repeat

import (
	"fmt"
	"slices"
	"strconv"
	"strings"
	"time"

	"tincup/internal/core/day"
)

// ParseError says which part of a rule is wrong and what would be right.
type ParseError struct {
	// Part is the name of the part, such as BYMONTHDAY; "" for the whole.
	Part  string
	Value string
	Want  string
}

func (e *ParseError) Error() string {
	if e.Part == "" {
		return e.Want
	}
	return fmt.Sprintf("%s=%s: %s", e.Part, shorten(e.Value), e.Want)
}

func shorten(s string) string {
	if len(s) > 40 {
		return strings.ToValidUTF8(s[:40], "") + "…"
	}
	return s
}

// Parse reads an RRULE value, with or without "RRULE:" before it. The errors
// are *ParseError.
func Parse(s string) (*Rule, error) {
	if len(s) > maxText {
		return nil, &ParseError{Want: fmt.Sprintf("the rule has %d characters; %d is the most", len(s), maxText)}
	}
	s = strings.ToUpper(strings.TrimSpace(s))
	s = strings.TrimPrefix(s, "RRULE:")
	if s == "" {
		return nil, &ParseError{Want: "the rule is empty; write one such as FREQ=WEEKLY;BYDAY=MO"}
	}
	p := ruleParser{rule: &Rule{Interval: 1, WeekStart: time.Monday}, seen: map[string]bool{}}
	for part := range strings.SplitSeq(s, ";") {
		name, value, found := strings.Cut(part, "=")
		if !found {
			return nil, &ParseError{Want: fmt.Sprintf("“%s” is not a part of a rule; parts look like NAME=VALUE", shorten(part))}
		}
		if p.seen[name] {
			return nil, &ParseError{name, value, "each part may stand once"}
		}
		p.seen[name] = true
		if err := p.part(name, value); err != nil {
			return nil, err
		}
	}
	return p.rule, p.check()
}

// MustParse is Parse for constants: it panics where Parse would fail.
func MustParse(s string) *Rule {
	r, err := Parse(s)
	if err != nil {
		panic(err)
	}
	return r
}

type ruleParser struct {
	rule *Rule
	seen map[string]bool
}

func (p *ruleParser) part(name, value string) (err error) {
	r := p.rule
	switch name {
	case "FREQ":
		r.Freq, err = frequency(value)
	case "INTERVAL":
		r.Interval, err = number(name, value, MaxInterval)
	case "COUNT":
		r.Count, err = number(name, value, MaxCount)
	case "UNTIL":
		r.Until, err = parseUntil(value)
	case "BYMONTH":
		r.ByMonth, err = numbers(name, value, 12, false)
	case "BYWEEKNO":
		r.ByWeekNo, err = numbers(name, value, 53, true)
	case "BYYEARDAY":
		r.ByYearDay, err = numbers(name, value, 366, true)
	case "BYMONTHDAY":
		r.ByMonthDay, err = numbers(name, value, 31, true)
	case "BYSETPOS":
		r.BySetPos, err = numbers(name, value, 366, true)
	case "BYDAY":
		r.ByDay, err = weekdays(value)
	case "WKST":
		i := slices.Index(dayNames[:], value)
		if i < 0 {
			return &ParseError{name, value, "a weekday such as MO is wanted"}
		}
		r.WeekStart = time.Weekday(i)
	case "RSCALE":
		if value != "GREGORIAN" {
			return &ParseError{name, value, "only GREGORIAN is known"}
		}
	case "SKIP":
		i := slices.Index(skipNames[:], value)
		if i < 0 {
			return &ParseError{name, value, "OMIT, BACKWARD or FORWARD is wanted"}
		}
		r.Skip = Skip(i)
	case "BYHOUR", "BYMINUTE", "BYSECOND":
		return &ParseError{name, value, "a repeat has days, not hours; leave this part out and give the to-do a time"}
	default:
		return &ParseError{shorten(name), value, "there is no such part"}
	}
	return err
}

func frequency(value string) (Frequency, error) {
	if i := slices.Index(frequencyNames[:], value); i >= 0 {
		return Frequency(i), nil
	}
	if value == "HOURLY" || value == "MINUTELY" || value == "SECONDLY" {
		return 0, &ParseError{"FREQ", value, "nothing comes round more often than DAILY"}
	}
	return 0, &ParseError{"FREQ", value, "DAILY, WEEKLY, MONTHLY or YEARLY is wanted"}
}

func number(part, value string, most int) (int, error) {
	n, err := strconv.Atoi(value)
	if err != nil || value[0] == '+' || n < 1 || n > most {
		return 0, &ParseError{part, value, fmt.Sprintf("a number from 1 to %d is wanted", most)}
	}
	return n, nil
}

// numbers reads a list of ordinals of 1 to most, and of -most to -1 where they
// may count from the end.
func numbers(part, value string, most int, fromEnd bool) ([]int, error) {
	var list []int
	for item := range strings.SplitSeq(value, ",") {
		n, err := strconv.Atoi(item)
		if err != nil || n == 0 || n > most || n < -most || n < 0 && !fromEnd {
			want := fmt.Sprintf("numbers from 1 to %d are wanted", most)
			if fromEnd {
				want = fmt.Sprintf("numbers from 1 to %d, or -%d to -1 counted from the end, are wanted", most, most)
			}
			return nil, &ParseError{part, value, want}
		}
		if !slices.Contains(list, n) {
			list = append(list, n)
		}
	}
	return list, nil
}

func weekdays(value string) ([]NthDay, error) {
	bad := &ParseError{"BYDAY", value, "weekdays are wanted, such as MO,TH or -1FR"}
	var list []NthDay
	for item := range strings.SplitSeq(value, ",") {
		if len(item) < 2 {
			return nil, bad
		}
		var d NthDay
		if head := item[:len(item)-2]; head != "" {
			n, err := strconv.Atoi(head)
			if err != nil || n == 0 || n < -53 || n > 53 {
				return nil, bad
			}
			d.N = n
		}
		i := slices.Index(dayNames[:], item[len(item)-2:])
		if i < 0 {
			return nil, bad
		}
		d.Day = time.Weekday(i)
		if !slices.Contains(list, d) {
			list = append(list, d)
		}
	}
	if !slices.ContainsFunc(list, func(d NthDay) bool { return d.N != 0 }) {
		slices.SortFunc(list, func(a, b NthDay) int { return fromMonday(a.Day) - fromMonday(b.Day) })
	}
	return list, nil
}

// fromMonday counts weekdays 0 to 6 from Monday.
func fromMonday(d time.Weekday) int { return (int(d) + 6) % 7 }

func parseUntil(value string) (Until, error) {
	bad := &ParseError{"UNTIL", value, "a date such as 20261220, or one with time such as 20261220T170000Z, is wanted"}
	date, clock, timed := strings.Cut(value, "T")
	if len(date) != 8 {
		return Until{}, bad
	}
	d, err := day.ParseDate(date[:4] + "-" + date[4:6] + "-" + date[6:])
	if err != nil {
		return Until{}, bad
	}
	u := Until{Date: d}
	if !timed {
		return u, nil
	}
	clock, u.UTC = strings.CutSuffix(clock, "Z")
	var n [3]int
	if len(clock) != 6 {
		return Until{}, bad
	}
	for i := range n {
		field, err := strconv.ParseUint(clock[2*i:2*i+2], 10, 8)
		if err != nil {
			return Until{}, bad
		}
		n[i] = int(field)
	}
	// A leap second, 60, is read as the second before it (section 3.3.12).
	if n[0] > 23 || n[1] > 59 || n[2] > 60 {
		return Until{}, bad
	}
	u.second = n[0]*3600 + n[1]*60 + min(n[2], 59) + 1
	return u, nil
}

// check refuses what section 3.3.10 says must not be combined.
func (p *ruleParser) check() error {
	r := p.rule
	nth := slices.ContainsFunc(r.ByDay, func(d NthDay) bool { return d.N != 0 })
	only := func(part, with string) error {
		return &ParseError{Want: fmt.Sprintf("%s goes only with FREQ=%s", part, with)}
	}
	switch {
	case !p.seen["FREQ"]:
		return &ParseError{Want: "FREQ is missing; a rule begins like FREQ=WEEKLY"}
	case r.Count > 0 && !r.Until.IsZero():
		return &ParseError{Want: "COUNT and UNTIL cannot stand together; keep one of them"}
	case len(r.ByWeekNo) > 0 && r.Freq != Yearly:
		return only("BYWEEKNO", "YEARLY")
	case len(r.ByYearDay) > 0 && r.Freq != Yearly:
		return only("BYYEARDAY", "YEARLY")
	case len(r.ByMonthDay) > 0 && r.Freq == Weekly:
		return &ParseError{Want: "BYMONTHDAY does not go with FREQ=WEEKLY"}
	case nth && r.Freq != Monthly && r.Freq != Yearly:
		return &ParseError{Want: "a numbered weekday such as 2MO goes only with FREQ=MONTHLY or FREQ=YEARLY"}
	case nth && len(r.ByWeekNo) > 0:
		return &ParseError{Want: "a numbered weekday such as 2MO does not go with BYWEEKNO"}
	case len(r.BySetPos) > 0 && !p.seen["BYMONTH"] && !p.seen["BYWEEKNO"] && !p.seen["BYYEARDAY"] &&
		!p.seen["BYMONTHDAY"] && !p.seen["BYDAY"]:
		return &ParseError{Want: "BYSETPOS picks from what another BY part gives; there is none"}
	}
	return nil
}

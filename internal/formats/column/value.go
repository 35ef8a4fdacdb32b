package column

import (
	"errors"
	"fmt"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"time"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/exchange"
	"tincup/internal/core/term"
)

// The words below are those that tables of all kinds use (common practice, no source).
var (
	yesWords  = []string{"yes", "true", "1", "x", "done", "y", "ok", "✓", "✔", "☑", "completed", "complete", "finished", "checked"}
	noWords   = []string{"no", "false", "0", "open", "todo", "to do", "to-do", "not started", "not begun", "pending", "n", "☐", "-", "unchecked", "needs action", "new", "active", "incomplete"}
	begun     = []string{"in progress", "in-progress", "started", "begun", "doing", "in process", "ongoing", "wip"}
	cancelled = []string{"canceled", "cancelled", "dropped", "rejected"}

	priorityWords = map[string]book.Priority{
		"high": book.High, "highest": book.High, "urgent": book.High, "important": book.High, "asap": book.High, "top": book.High, "critical": book.High,
		"medium": book.Medium, "med": book.Medium, "normal": book.Medium, "moderate": book.Medium, "mid": book.Medium, "middle": book.Medium,
		"low": book.Low, "lowest": book.Low, "minor": book.Low,
		"none": book.NoPriority, "no": book.NoPriority, "-": book.NoPriority, "n/a": book.NoPriority,
	}
)

func yes(is bool) string {
	if is {
		return "yes"
	}
	return ""
}

func isYes(s string) bool { return slices.Contains(yesWords, strings.ToLower(s)) }

func readStatus(i *exchange.Item, s string, _ Form) error {
	switch word := strings.ToLower(s); {
	case isYes(word):
		i.Todo.Status = book.Completed
	case slices.Contains(noWords, word):
	case slices.Contains(begun, word):
		i.Todo.Status = book.InProcess
	case slices.Contains(cancelled, word):
		i.Todo.Status = book.Cancelled
	default:
		return i.Todo.Status.UnmarshalText([]byte(word))
	}
	return nil
}

// readCompleted reads when a to-do was completed, or only that it was.
func readCompleted(i *exchange.Item, s string, f Form) error {
	word := strings.ToLower(s)
	if slices.Contains(noWords, word) {
		return nil
	}
	if !isYes(word) {
		if err := i.Todo.Completed.UnmarshalText([]byte(s)); err != nil {
			m, wrong := readMoment(s, f)
			if wrong != nil {
				return wrong
			}
			c := day.Clock{Zone: f.zone()}
			if i.Todo.Completed = day.TimestampOf(c.StartOf(m.Date)); m.HasTime() {
				i.Todo.Completed = day.TimestampOf(c.Instant(m))
			}
		}
	}
	if i.Todo.Status.Open() {
		i.Todo.Status = book.Completed
	}
	return nil
}

// readPriority reads a word, also one among others ("1 - High"), or a bare number.
func readPriority(i *exchange.Item, s string, f Form) error {
	if n, err := strconv.Atoi(s); err == nil && n >= 0 {
		i.Todo.Priority = f.priority(n)
		return nil
	}
	found := map[book.Priority]bool{}
	word := strings.ToLower(s)
	if strings.HasPrefix(word, "not ") { // not urgent
		i.Todo.Priority = book.Low
		return nil
	}
	if p, known := priorityWords[word]; known {
		i.Todo.Priority = p
		return nil
	}
	for _, part := range strings.FieldsFunc(word, func(r rune) bool { return r < 'a' || r > 'z' }) {
		if p, known := priorityWords[part]; known {
			found[p] = true
		}
	}
	if len(found) != 1 {
		return errors.New("high, medium, low or none is wanted")
	}
	for p := range found {
		i.Todo.Priority = p
	}
	return nil
}

// IsNumber reports whether a value is a bare number, as priorities may be.
func IsNumber(s string) (n int, is bool) {
	n, err := strconv.Atoi(strings.TrimSpace(s))
	return n, err == nil && n >= 0
}

// readTags reads tags with commas, semicolons or lines between them, or with spaces where there is
// none of these. What a tag may not hold is left out of it.
func readTags(i *exchange.Item, s string) error {
	between := ",;\n"
	if !strings.ContainsAny(s, between) {
		between = " \t"
	}
	var odd []string
	for _, word := range strings.FieldsFunc(s, func(r rune) bool { return strings.ContainsRune(between, r) }) {
		if word = strings.TrimSpace(word); word == "" {
			continue
		}
		tag := exchange.TagOf(word)
		if tag == "" {
			odd = append(odd, word)
		} else if !slices.Contains(i.Tags, tag) {
			i.Tags = append(i.Tags, tag)
		}
	}
	if len(odd) > 0 {
		return fmt.Errorf("a tag begins with a letter, and %s has none", strings.Join(odd, ", "))
	}
	return nil
}

var (
	lengthPart  = regexp.MustCompile(`(\d+(?:[.,]\d+)?)\s*(hours?|hrs?|h|minutes?|mins?|min|m)?\b`)
	wholeLength = regexp.MustCompile(`^(?:about |~)?\s*(?:\d+(?:[.,]\d+)?\s*(?:hours?|hrs?|h|minutes?|mins?|min|m)?(?:\s*(?:,|and)?\s*|$))+$`)
	clockLength = regexp.MustCompile(`^(\d{1,3}):(\d\d)(?::(\d\d))?$`)
	isoLength   = regexp.MustCompile(`^P(?:(\d+)D)?(?:T(?:(\d+)H)?(?:(\d+)M)?(?:(\d+)S)?)?$`)
)

// readLength reads a length in minutes: 90, 90 min, 1h 30m, 1.5 hours, 1:30, PT90M (RFC 5545 section
// 3.3.6). A number alone is minutes.
func readLength(s string) (minutes int, err error) {
	wanted := fmt.Errorf("minutes from 0 to %d, or a length such as 1h 30m, are wanted", term.MaxEstimate)
	number := func(s string) float64 { n, _ := strconv.ParseFloat(strings.Replace(s, ",", ".", 1), 64); return n }
	total := 0.0
	s = strings.ToLower(strings.TrimSpace(s))
	if m := clockLength.FindStringSubmatch(s); m != nil {
		total = number(m[1])*60 + number(m[2]) + number(m[3])/60
	} else if m := isoLength.FindStringSubmatch(strings.ToUpper(s)); m != nil && len(s) > 1 {
		total = number(m[1])*24*60 + number(m[2])*60 + number(m[3]) + number(m[4])/60
	} else if wholeLength.MatchString(s) {
		parts := lengthPart.FindAllStringSubmatch(strings.ReplaceAll(split(s), "and", " "), -1)
		for i, m := range parts {
			switch {
			case strings.HasPrefix(m[2], "h"):
				total += number(m[1]) * 60
			case m[2] == "" && len(parts) > 1 && i == 0: // "1 30"
				return 0, wanted
			default:
				total += number(m[1])
			}
		}
	} else {
		return 0, wanted
	}
	if minutes = int(total + 0.5); minutes > term.MaxEstimate {
		return 0, wanted
	}
	return minutes, nil
}

// split parts figures from letters before them: 1h30m has two parts.
func split(s string) string {
	var b strings.Builder
	for i, r := range s {
		if i > 0 && r >= '0' && r <= '9' && s[i-1] >= 'a' && s[i-1] <= 'z' {
			b.WriteByte(' ')
		}
		b.WriteRune(r)
	}
	return b.String()
}

func (f Form) zone() *time.Location {
	if f.Zone == nil {
		return time.UTC
	}
	return f.Zone
}

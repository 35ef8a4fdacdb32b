package day

import (
	"fmt"
	"regexp"
	"strings"
)

// Span is a stretch of wall time within a civil date, in minutes after midnight: From 0 to
// 1439, To after it and at most 1440, which is the midnight that ends the date.
type Span struct{ From, To int }

// String returns the form "09:00-12:30"; midnight at the end is 24:00.
func (s Span) String() string {
	return fmt.Sprintf("%02d:%02d-%02d:%02d", s.From/60, s.From%60, s.To/60, s.To%60)
}

// Hours are spans of one date in order, none of which overlaps another. The zero Hours are
// none.
type Hours []Span

// MaxSpans is how many spans Hours have at most.
const MaxSpans = 12

// NewHours checks spans, which must be in order and apart; those that touch are joined.
func NewHours(spans ...Span) (Hours, error) {
	var hours Hours
	if len(spans) > MaxSpans {
		return nil, fmt.Errorf("there are %d stretches of hours; %d is the most", len(spans), MaxSpans)
	}
	for _, s := range spans {
		switch {
		case s.From < 0 || s.To > 24*60 || s.From >= 24*60:
			return nil, fmt.Errorf("the hours %s reach beyond the day; they lie between 00:00 and 24:00", s)
		case s.To <= s.From:
			return nil, fmt.Errorf("the hours %s end before they begin", s)
		}
		last := len(hours) - 1
		switch {
		case last >= 0 && s.From < hours[last].To:
			return nil, fmt.Errorf("the hours %s and %s overlap or are not in order", hours[last], s)
		case last >= 0 && s.From == hours[last].To:
			hours[last].To = s.To
		default:
			hours = append(hours, s)
		}
	}
	return hours, nil
}

// ParseSpan reads the two ends of a span, such as 09:00 and 24:00.
func ParseSpan(from, to string) (Span, error) {
	f, err := ParseTimeOfDay(from)
	if err != nil {
		return Span{}, err
	}
	if to == "24:00" {
		return Span{f.Minutes(), 24 * 60}, nil
	}
	t, err := ParseTimeOfDay(to)
	if err != nil {
		return Span{}, err
	}
	return Span{f.Minutes(), t.Minutes()}, nil
}

// dashes are those that people type between two times; blanks beside one do not count.
var dashes = regexp.MustCompile(`\s*[-–—−]\s*`)

// looseSpan reads the ends of a span as people type them: 9, 9:30 or 09:30.
func looseSpan(from, to string) (Span, error) {
	full := func(s string) string {
		hour, minute, _ := strings.Cut(s, ":")
		if minute == "" && !strings.Contains(s, ":") {
			minute = "00"
		}
		if len(hour) == 1 {
			hour = "0" + hour
		}
		return hour + ":" + minute
	}
	return ParseSpan(full(from), full(to))
}

// ParseHours reads spans with blanks or commas between them, such as "09:00-12:30,
// 13:30-17:30" or "9-17"; "" and "none" are none.
func ParseHours(text string) (Hours, error) {
	var spans []Span
	for word := range strings.FieldsFuncSeq(dashes.ReplaceAllString(text, "-"), func(r rune) bool { return r == ' ' || r == ',' }) {
		if word == "none" && len(spans) == 0 {
			continue
		}
		from, to, ok := strings.Cut(word, "-")
		if !ok {
			return nil, fmt.Errorf("%.40q is not a stretch of hours such as 09:00-12:30", word)
		}
		s, err := looseSpan(from, to)
		if err != nil {
			return nil, err
		}
		spans = append(spans, s)
	}
	return NewHours(spans...)
}

// String returns the form that ParseHours reads, none being "none".
func (h Hours) String() string {
	if len(h) == 0 {
		return "none"
	}
	words := make([]string, len(h))
	for i, s := range h {
		words[i] = s.String()
	}
	return strings.Join(words, ", ")
}

// Minutes is how long they are in all, on a date without a change of the clock.
func (h Hours) Minutes() int {
	sum := 0
	for _, s := range h {
		sum += s.To - s.From
	}
	return sum
}

// Without is what is left of the hours when others are taken out.
func (h Hours) Without(taken Hours) Hours {
	var left Hours
	for _, s := range h {
		for _, t := range taken {
			if t.To <= s.From || t.From >= s.To {
				continue
			}
			if t.From > s.From {
				left = append(left, Span{s.From, t.From})
			}
			s.From = t.To
		}
		if s.From < s.To {
			left = append(left, s)
		}
	}
	return left
}

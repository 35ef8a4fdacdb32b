package capture

import (
	"strings"
	"time"

	"tincup/internal/core/day"
)

// Dates in figures.

// numeric reads dates that begin with a digit.
func (p *parser) numeric() (*date, bool) {
	t := p.at(0)
	if t.monthDay() { // 30 Nov, 3rd of December 2027
		from := p.pos
		p.pos++
		if t.ordinal() {
			p.take("of")
		}
		if m := p.at(0); m.kind == plainWord && m.has(monthWord) {
			p.pos++
			d := &date{form: onMonthDay, n: t.number, month: time.Month(m.word.value)}
			d.year = p.year()
			return d.possible(), true
		}
		if p.pos = from + 1; t.ordinal() {
			if d, ok := p.ofMonth(t.number); ok {
				return d, true
			}
		}
		p.pos = from
		return nil, false
	}
	d, ok := p.packed(strings.Trim(t.text, "().!?:"))
	if ok {
		p.pos++
	}
	return d, ok
}

// packed reads a date written in one word: 2026-11-30, 2026-W48, 2026-11,
// 30/11, 30/11/27, 30/11/2027 or 30.11.2027.
func (p *parser) packed(s string) (*date, bool) {
	if len(s) > 4 && s[4] == '-' {
		return isoDate(s)
	}
	separator := "/"
	if strings.Contains(s, ".") {
		separator = "."
	}
	parts := strings.Split(s, separator)
	if len(parts) < 2 || len(parts) > 3 || separator == "." && (len(parts) < 3 || len(parts[2]) != 4) {
		return nil, false
	}
	var n [3]int
	for i, part := range parts {
		if len(part) < 1 || len(part) > 2 && !(i == 2 && len(part) == 4) || i == 2 && len(part) == 1 {
			return nil, false
		}
		for _, c := range []byte(part) {
			if c < '0' || c > '9' {
				return nil, false
			}
			n[i] = n[i]*10 + int(c-'0')
		}
	}
	dom, month, year := n[0], n[1], n[2]
	if p.settings.MonthFirst && separator == "/" {
		dom, month = month, dom
	}
	if dom < 1 || dom > 31 || month < 1 || month > 12 {
		return nil, false // a word, such as 24/36
	}
	if len(parts) == 3 && len(parts[2]) == 2 {
		year += 2000
	}
	if len(parts) == 3 && year == 0 {
		return nil, false
	}
	d := &date{form: onMonthDay, n: dom, month: time.Month(month), year: year}
	return d.possible(), true
}

func isoDate(s string) (*date, bool) {
	h, err := day.ParseHorizon(s)
	switch {
	case err == nil && h.Precision() == day.Week:
		return &date{form: inWeekOf, on: h.First()}, true
	case err == nil && h.Precision() == day.Month:
		year, month, _ := h.First().Civil()
		return &date{form: inMonth, month: month, year: year}, true
	case err == nil && len(s) == 10:
		return &date{form: exact, on: h.First()}, true
	case len(s) == 10 && s[7] == '-': // 2026-02-31 has the form and is no day
		for i, c := range []byte(s) {
			if i != 4 && i != 7 && (c < '0' || c > '9') {
				return nil, false
			}
		}
		return &date{form: neverIs}, true
	}
	return nil, false
}

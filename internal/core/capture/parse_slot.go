package capture

import (
	"strings"
	"unicode/utf8"
)

// slot reads a time range, which is a plan with its length: "Thu 4-5pm", "plan Thursday from
// 4-5pm", "4 - 5pm on Thursday" or, in words that can be nothing else, "9:00-10:30". Without a
// day its date is nil.
func (p *parser) slot() (item, bool) {
	from := p.pos
	planned := p.take("plan")
	begun := p.pos
	on := p.take("on")
	d, dated := p.slotDay(planned || on)
	if !dated {
		p.pos = begun
	}
	if !p.take("at") {
		p.take("from")
	}
	start, minutes, either, ok := p.stretch(dated)
	if !ok {
		p.pos = from
		return item{}, false
	}
	if again := p.pos; !dated { // 4-5pm tomorrow
		p.take("on")
		if d, ok = p.slotDay(true); !ok {
			d, p.pos = nil, again
		}
	}
	if d != nil && d.form == fromToday && d.n < 0 { // tonight
		if d = (&date{form: fromToday, which: this}); either && start < 12*60 {
			start += 12 * 60
		}
	}
	return item{kind: itemPlan, introduced: true, date: d, time: hour{at: clockFace(start)}, n: minutes}, true
}

// slotDay reads a date that is one day; introduced is whether a word such as "on" stands before it.
func (p *parser) slotDay(introduced bool) (*date, bool) {
	d, ok := p.day(introduced)
	return d, ok && d.form != ofThis && d.form != ofNext && d.form != inMonth && d.form != inWeekOf && d.form != inMinutes
}

// dashAhead reports whether a dash stands in one of the next words, as in every time range.
func (p *parser) dashAhead() bool {
	for n := range min(len(p.tokens)-p.pos, 8) {
		if t := p.at(n); t.number >= 0 && strings.ContainsAny(t.text, "-–") || t.text == "-" || t.text == "–" {
			return true
		}
	}
	return false
}

// stretch reads two times of day and returns the first, in minutes since midnight, and how
// long it is to the second; either tells that neither am nor pm was said. Bare hours such as
// 12-1 are times only beside a date.
func (p *parser) stretch(dated bool) (start, minutes int, either, ok bool) {
	from := p.pos
	text := p.at(0).text
	if p.at(0).kind != plainWord || p.at(0).number < 0 {
		return 0, 0, false, false
	}
	p.pos++
	if d := p.at(0); !strings.ContainsAny(text, "-–") && (d.text == "-" || d.text == "–") && p.at(1).number >= 0 {
		text += "-" + p.at(1).text
		p.pos += 2
	}
	if u := p.at(0); strings.ContainsAny(text, "-–") && (u.is("am") || u.is("pm")) {
		text += u.word.text
		p.pos++
	}
	at := strings.IndexAny(text, "-–")
	if at <= 0 {
		p.pos = from
		return 0, 0, false, false
	}
	_, size := utf8.DecodeRuneInString(text[at:])
	first, firstHalf, one := hourIn(text[:at])
	second, secondHalf, two := hourIn(strings.TrimRight(text[at+size:], ".!?)"))
	// 12-1 goes down, as no pages and few scores do.
	noon := first >= 9*60 && first <= 12*60 && second >= 60 && second <= 6*60
	sure := dated || firstHalf != "" || secondHalf != "" || strings.Contains(text[:at], ":") || noon
	if !one || !two || !sure {
		p.pos = from
		return 0, 0, false, false
	}
	both := firstHalf != "" && secondHalf != ""
	either = firstHalf == "" && secondHalf == ""
	if firstHalf == "" { // the half of the second, where that comes after it
		firstHalf = secondHalf
	}
	start, end := inHalf(first, firstHalf), inHalf(second, secondHalf)
	if both && end <= start { // 3pm-2pm: it would end on the next day
		p.pos = from
		return 0, 0, false, false
	}
	if firstHalf == secondHalf && start >= end && firstHalf == "pm" { // 11-1pm
		start -= 12 * 60
	}
	if end <= start {
		end += 12 * 60
	}
	if minutes = end - start; minutes <= 0 || minutes > 12*60 || start < 0 {
		p.pos = from
		return 0, 0, false, false
	}
	return start, minutes, either, true
}

// hourIn reads "4", "4pm", "16:30" or "4.30pm" and returns minutes since midnight, or since
// noon with pm.
func hourIn(s string) (minutes int, half string, ok bool) {
	s = strings.ToLower(s)
	for _, h := range []string{"am", "pm"} {
		if rest, cut := strings.CutSuffix(s, h); cut {
			s, half = rest, h
		}
	}
	hours, rest := 0, s
	for len(rest) > 0 && isDigit(rest[0]) && hours < 100 {
		hours, rest = hours*10+int(rest[0]-'0'), rest[1:]
	}
	if len(rest) == len(s) || hours > 23 || half != "" && (hours < 1 || hours > 12) {
		return 0, "", false
	}
	switch {
	case rest == "":
	case len(rest) == 3 && (rest[0] == ':' || rest[0] == '.') && isDigit(rest[1]) && isDigit(rest[2]) && rest[1] < '6':
		minutes = int(rest[1]-'0')*10 + int(rest[2]-'0')
	default:
		return 0, "", false
	}
	return hours*60 + minutes, half, true
}

// inHalf puts an hour into its half of the day; without one, 1:00 to 6:59 are afternoon.
func inHalf(minutes int, half string) int {
	switch {
	case half == "am" && minutes >= 12*60:
		return minutes - 12*60
	case half == "pm" && minutes < 12*60, half == "" && minutes >= 60 && minutes < 7*60:
		return minutes + 12*60
	}
	return minutes
}

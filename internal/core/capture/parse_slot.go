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
	if d != nil && d.form == fromToday && d.n < 0 {
		d, start = tonight(start, either)
	}
	return item{kind: itemPlan, introduced: true, date: d, time: hour{at: clockFace(start)}, n: minutes}, true
}

// slotDay reads a date that is one day; introduced is whether a word such as "on" stands before it.
func (p *parser) slotDay(introduced bool) (*date, bool) {
	d, ok := p.day(introduced)
	return d, ok && d.form != ofThis && d.form != ofNext && d.form != inMonth && d.form != inWeekOf && d.form != inMinutes
}

// tonight gives a time of tonight its day: before four it is of the night after midnight. either
// tells that it could be in either half of the day.
func tonight(start int, either bool) (*date, int) {
	if either {
		start = start%(12*60) + 12*60
	}
	if start < 4*60 || either && start < 16*60 {
		return &date{form: fromToday, n: 1}, start % (12 * 60)
	}
	return &date{form: fromToday, which: this}, start
}

// dashAhead reports whether a dash stands in one of the next words, as in every time range.
func (p *parser) dashAhead() bool {
	for n := range min(len(p.tokens)-p.pos, 8) {
		if t := p.at(n); t.number >= 0 && strings.ContainsAny(t.text, "-–") || t.text == "-" || t.text == "–" ||
			t.text == "to" && n > 0 && p.at(n-1).number >= 0 && p.at(n+1).number >= 0 {
			return true
		}
	}
	return false
}

// stretch reads two times of day and returns the first, in minutes since midnight, and how
// long it is to the second, 12 hours at most; either tells that the first could be in either half
// of the day. Bare hours such as 12-1 are times only beside a date.
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
	if !strings.ContainsAny(text, "-–") && p.at(0).text == "to" && p.at(1).number >= 0 { // 2pm to 4pm
		text += "-" + p.at(1).text
		p.pos += 2
	}
	if u := p.at(0); strings.ContainsAny(text, "-–") && (u.is("am") || u.is("pm")) {
		text += u.word.text
		p.pos++
	}
	if at := strings.IndexAny(text, "-–"); at > 0 {
		_, size := utf8.DecodeRuneInString(text[at:])
		first, one := faceOf(text[:at])
		second, two := faceOf(strings.TrimRight(text[at+size:], ".!?)"))
		// 12-1 goes down, as no pages and few scores do.
		noon := first.minutes >= 9*60 && first.minutes <= 12*60 && second.minutes >= 60 && second.minutes <= 6*60
		sure := dated || first.half != "" || second.half != "" || strings.Contains(text, ":") || noon
		if one && two && sure {
			either = first.open() && second.half == ""
			start, minutes, ok = first.until(second)
		}
	}
	if !ok {
		p.pos = from
	}
	return start, minutes, either, ok
}

// face is what a clock shows.
type face struct {
	// minutes are since midnight, or since noon with pm.
	minutes int
	// half is "am", "pm" or "".
	half string
	// full: a zero before the hour says that it is one of 24.
	full bool
}

// open reports whether a face could be in either half of the day.
func (f face) open() bool {
	return f.half == "" && !f.full && f.minutes >= 60 && f.minutes < 13*60
}

// halves are the times of day, in minutes since midnight, that a face shows; first the one that
// is meant where nothing else is said: 1:00 to 6:59 are in the afternoon.
func (f face) halves() []int {
	switch {
	case f.half == "am":
		return []int{f.minutes % (12 * 60)}
	case f.half == "pm":
		return []int{f.minutes%(12*60) + 12*60}
	case !f.open():
		return []int{f.minutes}
	case f.minutes < 7*60:
		return []int{f.minutes + 12*60, f.minutes}
	}
	return []int{f.minutes, (f.minutes + 12*60) % (24 * 60)}
}

// until finds the stretch between two faces, which may go over midnight. Where the first is open
// it begins in the half of the second, if that is said, as written before a second of 13:00 and
// later, and else in its usual half; in the other one if it would be longer than 12 hours so. It
// fails for stretches of nothing, and for those that are longer either way.
func (f face) until(end face) (start, minutes int, ok bool) {
	begins := f.halves()
	switch {
	case !f.open():
	case end.half != "":
		other := face{minutes: f.minutes, half: end.half}.halves()[0]
		begins = []int{other, (other + 12*60) % (24 * 60)}
	case end.minutes >= 13*60:
		begins = []int{f.minutes}
	}
	for _, start := range begins {
		minutes := 24 * 60
		for _, e := range end.halves() {
			if long := (e - start + 24*60) % (24 * 60); long > 0 {
				minutes = min(minutes, long)
			}
		}
		if minutes <= 12*60 {
			return start, minutes, true
		}
	}
	return 0, 0, false
}

// faceOf reads "4", "4pm", "16:30" or "4.30pm".
func faceOf(s string) (face, bool) {
	s = strings.ToLower(s)
	f := face{full: strings.HasPrefix(s, "0")}
	for _, h := range []string{"am", "pm"} {
		if rest, cut := strings.CutSuffix(s, h); cut {
			s, f.half = rest, h
		}
	}
	hours, rest := 0, s
	for len(rest) > 0 && isDigit(rest[0]) && hours < 100 {
		hours, rest = hours*10+int(rest[0]-'0'), rest[1:]
	}
	if len(rest) == len(s) || hours > 23 || f.half != "" && (hours < 1 || hours > 12) {
		return face{}, false
	}
	f.minutes = hours * 60
	switch {
	case rest == "":
	case len(rest) == 3 && (rest[0] == ':' || rest[0] == '.') && isDigit(rest[1]) && isDigit(rest[2]) && rest[1] < '6':
		f.minutes += int(rest[1]-'0')*10 + int(rest[2]-'0')
	default:
		return face{}, false
	}
	return f, true
}

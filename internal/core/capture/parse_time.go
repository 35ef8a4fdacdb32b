package capture

import (
	"strings"

	"tincup/internal/core/day"
)

// clock reads a time of day. dated: a date or "by" came before, so that "noon"
// and "5.30" can only be times.
func (p *parser) clock(dated bool) (hour, bool) {
	from := p.pos
	h, ok := p.clockHere(dated)
	if ok && zones[strings.TrimRight(p.at(0).text, ".!?),")] { // of another zone it is another time here
		p.pos = from
		return hour{}, false
	}
	return h, ok
}

// zones are usual short names of time zones (common practice, no source).
var zones = map[string]bool{"UTC": true, "GMT": true, "BST": true, "IST": true, "WET": true, "WEST": true, "CET": true, "CEST": true, "EET": true, "EEST": true,
	"MSK": true, "EST": true, "EDT": true, "CST": true, "CDT": true, "MST": true, "MDT": true, "PST": true, "PDT": true, "ET": true, "PT": true, "JST": true,
	"AEST": true, "AEDT": true, "SGT": true, "HKT": true}

// clockHere is clock for a time of this zone.
func (p *parser) clockHere(dated bool) (hour, bool) {
	from := p.pos
	at := p.take("at") || p.take("around")
	t := p.at(0)
	if t.kind == plainWord && t.has(pointOfDay) && (at || dated) {
		return p.point(), true
	}
	if h, ok := p.spoken(at || dated); ok {
		return h, true
	}
	if t.kind == plainWord && t.is("first") && p.take("first", "thing") {
		return p.partHour(firstThing), true
	}
	if t.number < 0 || t.kind != plainWord {
		p.pos = from
		return hour{}, false
	}
	p.pos++
	if h, ok := p.digits(t, at, dated); ok {
		return h, true
	}
	p.pos = from
	return hour{}, false
}

// spoken reads "half past 4", "half four", "quarter to six" and "5 o'clock". timed: "half
// four" can only be a time here.
func (p *parser) spoken(timed bool) (hour, bool) {
	from := p.pos
	minutes := 0
	switch {
	case p.take("half", "past"):
		minutes = 30
	case timed && p.take("half"):
		minutes = 30
	case p.take("quarter", "past"):
		minutes = 15
	case p.take("quarter", "to"):
		minutes = -15
	default:
		minutes = p.minutesPast()
	}
	spoken := p.pos > from
	t := p.at(0)
	n := t.number
	if t.has(numberWord) {
		n = t.word.value
	}
	rest := strings.TrimRight(t.rest, ".!?")
	whole := t.kind == plainWord && n >= 1 && n <= 12 && (rest == "" || spoken && (rest == "am" || rest == "pm"))
	if !whole || !spoken && !p.at(1).is("o'clock") {
		p.pos = from
		return hour{}, false
	}
	p.pos++
	if !spoken {
		p.pos++
	}
	if rest == "" && (p.at(0).is("am") || p.at(0).is("pm")) {
		rest = p.at(0).word.text
		p.pos++
	}
	h := hour{half: rest == "", loose: true, spoken: spoken, end: p.wordEnd()}
	total := n%12*60 + minutes
	if rest == "pm" {
		total += 12 * 60
	}
	h.at = clockFace((total + 24*60) % (24 * 60))
	return h.usual(), true
}

// minutesPast reads "ten past" and "twenty to", as minutes after the hour; 0 for neither.
func (p *parser) minutesPast() int {
	t := p.at(0)
	n := t.number
	switch {
	case t.has(numberWord):
		n = t.word.value
	case t.is("twenty"):
		n = 20
	case t.is("twenty-five"):
		n = 25
	}
	if t.kind != plainWord || t.number >= 0 && t.rest != "" || n != 5 && n != 10 && n != 20 && n != 25 {
		return 0
	}
	hour := p.at(2)
	h := hour.number
	if hour.has(numberWord) {
		h = hour.word.value
	}
	switch {
	case hour.kind != plainWord || h < 1 || h > 12:
		return 0
	case p.at(1).is("past"):
	case p.at(1).is("to"):
		n = -n
	default:
		return 0
	}
	p.pos += 2
	return n
}

// wordEnd is where the word that was read last ends, without what ends a sentence.
func (p *parser) wordEnd() int {
	t := p.at(-1)
	return int(t.start) + len(strings.TrimRight(p.text[t.start:t.end], ".!?)"))
}

func clockFace(minutes int) day.TimeOfDay {
	at, _ := day.NewTimeOfDay(minutes/60, minutes%60)
	return at
}

// usual takes 1:00 to 6:59 for the afternoon, and 12 for noon, where nothing else was said.
func (h hour) usual() hour {
	if m := h.at.Minutes(); h.half && m < 7*60 {
		h.at = clockFace(m + 12*60)
	}
	return h
}

// digits reads 17:00, 5.30, 5pm and 5, with "am" or "pm" after it as a word.
func (p *parser) digits(t *token, at, dated bool) (hour, bool) {
	hours, minutes := t.number, 0
	rest := strings.TrimRight(t.rest, ".!?")
	sized := len(rest) >= 3 && (rest[0] == ':' || rest[0] == '.') && isDigit(rest[1]) && isDigit(rest[2])
	point := sized && rest[0] == '.'
	if sized {
		minutes = int(rest[1]-'0')*10 + int(rest[2]-'0')
		rest = rest[3:]
	}
	switch rest {
	case "a.m":
		rest = "am"
	case "p.m":
		rest = "pm"
	case "":
		if p.at(0).is("am") || p.at(0).is("pm") {
			rest = p.at(0).word.text
			p.pos++
		}
	}
	if h, ok := p.hours24(t, at, dated); ok {
		return h, true
	}
	wide := t.end-t.start > 10 || hours > 99
	half := false
	switch {
	case wide || rest != "" && rest != "am" && rest != "pm":
		return hour{}, false
	case rest != "":
		if hours < 1 || hours > 12 || minutes > 59 {
			return hour{wrong: true}, true
		}
		hours %= 12
		if rest == "pm" {
			hours += 12
		}
	case sized && !point, point && (at || dated):
		if hours > 23 || minutes > 59 {
			if point {
				return hour{}, false
			}
			return hour{wrong: true}, true
		}
		half = hours >= 1 && hours <= 11 && t.text[0] != '0'
	case at && !sized && hours >= 1 && hours <= 23:
		half = hours <= 11 && t.text[0] != '0'
	default:
		return hour{}, false
	}
	h := hour{at: clockFace(hours*60 + minutes), half: half, loose: at, end: p.wordEnd()}
	return h.usual(), true
}

// hours24 reads 15h and 14h30, as times are written in many countries, where they can be no lengths:
// behind "at" or beside a date, from 13h on, or with minutes from 7h on. 7h to 12h could be either, and
// are only offered.
func (p *parser) hours24(t *token, at, dated bool) (hour, bool) {
	rest := strings.TrimRight(t.rest, ".!?)")
	if !at && !dated && !p.beside || !strings.HasPrefix(rest, "h") || t.number > 23 {
		return hour{}, false
	}
	minutes := 0
	switch rest = rest[1:]; {
	case rest == "" && (t.number >= 13 || at && t.number >= 7 || p.loose && t.number >= 7):
	case len(rest) == 2 && t.number >= 7 && rest[0] >= '0' && rest[0] < '6' && isDigit(rest[1]):
		minutes = int(rest[0]-'0')*10 + int(rest[1]-'0')
	default:
		return hour{}, false
	}
	return hour{at: clockFace(t.number*60 + minutes), end: p.wordEnd()}, true
}

func isDigit(c byte) bool { return '0' <= c && c <= '9' }

// minutes reads a length: 20 min, 20min, 1h30, 1h, 1.5 hours, 1 h 30, 1 h 30 min,
// an hour, two hours.
func (p *parser) minutes() (int, bool) {
	from := p.pos
	total, ok := p.length()
	if !ok {
		p.pos = from
		return 0, false
	}
	if total%60 == 0 {
		again := p.pos
		if more, ok := p.length(); ok && more < 60 {
			return total + more, true
		}
		p.pos = again
		unit, rest := p.at(-1), p.at(0)
		inHours := strings.HasSuffix(strings.ToLower(unit.text), "h")
		if inHours && rest.kind == plainWord && len(rest.text) >= 2 && rest.number >= 0 && rest.number < 60 && isDigit(rest.text[1]) && strings.TrimRight(rest.rest, ".!?)") == "" { // 1 h 30
			p.pos++
			return total + rest.number, true
		}
	}
	return total, true
}

// length reads one number and its unit.
func (p *parser) length() (int, bool) {
	t := p.at(0)
	if t.kind != plainWord {
		return 0, false
	}
	if t.is("half") && (p.take("half", "an", "hour") || p.take("half", "hour")) {
		return 30, true
	}
	if t.number < 0 {
		n, ok := p.count()
		if !ok || !p.at(0).has(minuteWord) {
			return 0, false
		}
		n *= p.at(0).word.value
		p.pos++
		return n, true
	}
	if t.number > 100_000 {
		return 0, false
	}
	tenths, rest := 0, t.rest
	if len(rest) >= 2 && rest[0] == '.' && isDigit(rest[1]) {
		tenths, rest = int(rest[1]-'0'), rest[2:]
		if len(rest) > 0 && isDigit(rest[0]) { // 1.25 hours
			tenths, rest = tenths*10+int(rest[0]-'0'), rest[1:]
		} else {
			tenths *= 10
		}
	}
	p.pos++
	if rest == "" { // the unit is a word of its own
		u := p.at(0)
		if !u.has(minuteWord) || u.kind != plainWord {
			return 0, false
		}
		p.pos++
		return sum(t.number, tenths, u.word.value)
	}
	if u := vocabulary[strings.TrimRight(rest, ".!?")]; u != nil && u.class&minuteWord != 0 {
		return sum(t.number, tenths, u.value)
	}
	if rest[0] == 'h' && tenths == 0 { // 1h30
		minutes := strings.TrimSuffix(strings.TrimSuffix(strings.TrimRight(rest[1:], ".!?"), "min"), "m")
		if len(minutes) == 2 && isDigit(minutes[0]) && isDigit(minutes[1]) && minutes[0] < '6' {
			return t.number*60 + int(minutes[0]-'0')*10 + int(minutes[1]-'0'), true
		}
	}
	return 0, false
}

// sum makes minutes of a number with hundredths; parts of a minute are none.
func sum(n, hundredths, unit int) (int, bool) {
	whole := n*100 + hundredths
	return whole * unit / 100, whole*unit%100 == 0
}

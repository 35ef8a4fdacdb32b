package capture

import (
	"slices"
	"strings"
)

// Days that a line names, read or not. A time without a date is today's only in a line that names
// no other day: whatever the reasons were to leave a day unread, its time goes with it.

// elsewhere are days and months in other languages, which are never read: of German, French,
// Spanish, Portuguese, Italian, Dutch, Danish, Norwegian, Swedish and Polish (common practice, no
// source). Those that are English words as well, or are spelt as in English, are left out.
var elsewhere = func() map[string]bool {
	all := map[string]bool{}
	for _, word := range strings.Fields(`
montag dienstag mittwoch donnerstag freitag samstag sonnabend sonntag heute morgen übermorgen gestern
januar februar märz juni juli oktober dezember
lundi mardi mercredi jeudi vendredi samedi dimanche demain hier
janvier février mars avril mai juin juillet août septembre octobre novembre décembre
lunes martes miércoles jueves viernes sábado domingo mañana hoy ayer
enero febrero marzo abril mayo junio julio agosto septiembre octubre noviembre diciembre
segunda terça quarta quinta sexta amanhã hoje ontem segunda-feira terça-feira quarta-feira quinta-feira sexta-feira
janeiro fevereiro março maio junho julho setembro outubro novembro dezembro
lunedì martedì mercoledì giovedì venerdì sabato domenica domani oggi ieri
gennaio febbraio aprile maggio giugno luglio settembre ottobre dicembre
maandag dinsdag woensdag donderdag vrijdag zaterdag zondag vandaag gisteren
januari februari maart mei juni juli augustus oktober
måndag tisdag onsdag torsdag fredag lördag söndag imorgon idag mandag tirsdag lørdag søndag
poniedziałek wtorek środa czwartek piątek sobota niedziela jutro dzisiaj wczoraj
`) {
		all[word] = true
	}
	return all
}()

// holidays are words that name a day by themselves.
var holidays = map[string]bool{"easter": true, "christmas": true, "thanksgiving": true, "yesterday": true, "fortnight": true, "nightly": true,
	"weekday": true, "weekdays": true, "weekend": true, "weekends": true, "biweekly": true, "bimonthly": true}

// bare is a word of a line in small letters, without brackets, what ends a sentence, and the mark of
// whose it is.
func (t *token) bare() string {
	s := strings.ToLower(strings.Trim(t.text, `()[].!?:;,*~@"'’“”`))
	for _, end := range []string{"'s", "’s"} {
		s = strings.TrimSuffix(s, end)
	}
	return s
}

// namesDay reports whether a day, a date or a repeat is named at a word, by itself or with those
// beside it. It errs on the side of yes.
func namesDay(words []token, i int) bool {
	t := &words[i]
	if t.kind != plainWord {
		return false
	}
	for _, part := range strings.FieldsFunc(t.bare(), func(r rune) bool { return r == '-' || r == '/' || r == '–' || r == '+' || r == '&' }) {
		if part = strings.Trim(part, ".()"); elsewhere[part] || named(words, i, part) {
			return true
		}
	}
	return elsewhere[t.bare()] || datedFigures(t.bare()) || ordinalDay(words, i) || countedDays(words, i)
}

// wordOf looks a word up that may be none of the vocabulary.
func wordOf(text string) *word {
	if w := vocabulary[text]; w != nil {
		return w
	}
	return unknown
}

// named reports whether a part of a word names a day or a repeat, or opens words that do.
func named(words []token, i int, part string) bool {
	w := wordOf(part)
	next := func(n int) *token {
		if i+n < len(words) && words[i+n].kind == plainWord {
			return &words[i+n]
		}
		return &nothing
	}
	plural := wordOf(strings.TrimSuffix(part, "s"))
	switch {
	case w.class&weekdayWord != 0:
		return w.class&cautious == 0 || words[i].capital || beside(words, i)
	case w.class&monthWord != 0:
		return w.class&cautious == 0 || words[i].capital || beside(words, i)
	case w.class&adverb != 0, holidays[part] || holidays[w.text], w.text == "today", w.text == "tomorrow", w.text == "tonight":
		return true
	case plural.class&weekdayWord != 0 && plural.class&cautious == 0:
		return true
	}
	unit := wordOf(next(1).bare())
	switch part {
	case "this", "next", "nxt", "last", "past", "coming", "following", "previous":
		return unit.class&(unitWord|weekdayWord|monthWord|partOfDay) != 0 || holidays[unit.text]
	case "every", "each", "alternate":
		for n := 1; n <= 3; n++ {
			u := wordOf(next(n).bare())
			if u.class&(unitWord|weekdayWord|monthWord|partOfDay|ordinalWord) != 0 || holidays[u.text] || next(n).ordinal() {
				return true
			}
		}
	case "week":
		return next(1).is("commencing") || next(1).is("ending") || next(1).is("of") || next(1).number > 0
	case "w", "wc":
		return strings.HasPrefix(words[i].bare(), "w/c") || part == "wc"
	case "day":
		return next(1).is("before") || next(1).is("after")
	case "new":
		return next(1).bare() == "year" || next(1).bare() == "years"
	case "boxing":
		return next(1).is("day")
	case "end", "mid", "start", "beginning":
		return next(1).is("of") || wordOf(next(1).bare()).class&monthWord != 0
	case "once", "twice":
		return (next(1).is("a") || next(1).is("per") || next(1).is("every") || next(1).is("each")) && wordOf(next(2).bare()).class&unitWord != 0
	case "times":
		return next(1).is("a") || next(1).is("per")
	case "eod", "cob", "eow", "eom":
		return words[i].text == strings.ToUpper(words[i].text)
	}
	return false
}

// beside reports whether a figure, a time or another word for a day stands beside a word such as
// "sat" or "may", which is then one as well.
func beside(words []token, i int) bool {
	for _, n := range []int{i - 1, i + 1} {
		if n < 0 || n >= len(words) || words[n].kind != plainWord {
			continue
		}
		t := &words[n]
		if t.number >= 0 || t.has(weekdayWord|monthWord|ordinalWord|partOfDay|pointOfDay) || t.setsDate() || t.is("on") || t.is("at") || t.is("half") || t.is("quarter") {
			return true
		}
	}
	return false
}

// datedFigures reports whether figures could be a date: 30/11, 30.11., 30.11.2027, 2026-11-30.
func datedFigures(s string) bool {
	for _, by := range []string{"/", ".", "-"} {
		parts := strings.Split(s, by)
		if len(parts) < 2 || len(parts) > 3 || slices.ContainsFunc(parts, func(p string) bool {
			return p == "" || len(p) > 4 || strings.ContainsFunc(p, func(r rune) bool { return r < '0' || r > '9' })
		}) {
			continue
		}
		if len(parts) == 3 || by == "/" {
			return true
		}
	}
	return false
}

// ordinalDay reports whether "the 3rd" or "3rd of" stands at a word.
func ordinalDay(words []token, i int) bool {
	t := &words[i]
	if !t.ordinal() || !t.monthDay() {
		return false
	}
	before := i > 0 && (words[i-1].is("the") || words[i-1].setsDate() || words[i-1].is("on"))
	return before || i+1 < len(words) && words[i+1].is("of")
}

// countedDays reports whether "in 3 days", "2 weeks ago" or "3 days after" stands at a word.
func countedDays(words []token, i int) bool {
	p := parser{tokens: words, pos: i}
	opened := p.take("in") || p.take("within") || p.take("after")
	p.take("a", "couple", "of")
	if _, ok := p.count(); !ok && (p.pos == i || !p.at(-1).is("of")) {
		return false
	}
	if !p.at(0).has(unitWord) {
		return false
	}
	p.pos++
	if opened {
		return true
	}
	for _, behind := range []string{"ago", "before", "after", "from", "later", "hence", "on"} {
		if p.at(0).is(behind) || p.at(0).bare() == behind {
			return true
		}
	}
	u := p.at(0)
	return u.has(weekdayWord) || u.is("today") || u.is("tomorrow")
}

// settleLone leaves a time that no date completes as words where the line names a day, a date or a
// repeat: it would become today's.
func (r *reader) settleLone() {
	var lone []Span
	other := false // a day is read that is not the time's
	for i := range r.items {
		switch it := &r.items[i]; it.kind {
		case itemDue, itemRepeat:
			return
		case itemTime:
			lone = append(lone, it.span)
		case itemStart:
			other = true
		case itemPlan:
			switch {
			case it.date == nil && !it.parked && it.n > 0:
				lone = append(lone, it.span)
			case it.date != nil && !it.date.wide():
				return
			default:
				other = true
			}
		case itemReminder:
			if it.date == nil && !it.time.none() {
				lone = append(lone, it.span)
			} else if it.date != nil {
				return
			}
		}
	}
	if len(lone) == 0 {
		return
	}
	named, ok := r.dayNamed()
	if !ok && !other {
		return
	}
	if at := lone[0]; r.begins.End == 0 && (named.End <= at.Start || at.End <= named.Start) {
		r.begins, r.beginsAt = named, at
	}
	r.unread(lone)
}

// unread lets what was said in some spans be words again, and with it what counted only beside it.
func (r *reader) unread(spans []Span) {
	var clauses []Span
	for _, s := range spans {
		clauses = append(clauses, r.clauseOf(s))
	}
	r.items = slices.DeleteFunc(r.items, func(it item) bool {
		gone := slices.Contains(spans, it.span)
		if it.kind == itemPriority || it.kind == itemEstimate || it.kind == itemList {
			gone = !it.introduced && slices.ContainsFunc(clauses, it.span.within)
		}
		if gone {
			r.putBackAll(&it)
		}
		return gone
	})
}

// unmarked are words without the signs that they begin with.
func unmarked(words []token) []token {
	clean := slices.Clone(words)
	for i := range clean {
		t := &clean[i]
		if bare := strings.TrimLeft(t.text, "~@*([<>=+'‘’“”-–—/&"); t.kind == plainWord && bare != "" && bare != t.text {
			clean[i] = look(bare, int(t.end)-len(bare))
		}
	}
	return clean
}

// isPerson reports whether words are read as a person's name.
func (r *reader) isPerson(s Span) bool {
	return slices.ContainsFunc(r.items, func(it item) bool { return it.kind == itemPerson && s.within(it.span) })
}

// wide reports whether a date is a week, a month or a year, which a time does not complete.
func (d *date) wide() bool {
	switch d.form {
	case ofThis, ofNext, inMonth, inWeekOf, ofWeek:
		return true
	}
	return false
}

// clauseOf is the stretch of the text of the clause in which words stand.
func (r *reader) clauseOf(s Span) Span {
	for from := 0; from < len(r.tokens); {
		to := r.clauseEnd(from)
		if to > from && s.Start >= r.tokens[from].span().Start && s.End <= r.tokens[to-1].span().End {
			return Span{r.tokens[from].span().Start, r.tokens[to-1].span().End}
		}
		from = to + 1
	}
	return s
}

// dayNamed finds the first day, date or repeat that is named in the words of the title.
func (r *reader) dayNamed() (Span, bool) {
	p := parser{text: r.text, settings: r.env.Settings, names: &r.env.Names}
	for _, clause := range r.clausesLeft() {
		words := r.uncut(clause.Start, clause.End)
		clean := unmarked(words)
		for i := range words {
			if !namesDay(clean, i) || r.isPerson(words[i].span()) {
				continue
			}
			// All that the words form, from where they begin.
			for from := max(i-6, 0); from <= i; from++ {
				p.tokens, p.pos = words[from:], 0
				if words[from].kind != plainWord {
					continue
				}
				if it, ok := p.field(where{}, false, false); ok && from+p.pos > i && it.kind != itemTime && it.kind != itemPriority && it.kind != itemList && !parted(words[from:from+p.pos]) {
					if it.date != nil && it.date.form == inMonth && !it.introduced { // May, which may be a name
						return Span{}, true
					}
					return p.span(0), true
				}
			}
			return Span{}, true
		}
	}
	return Span{}, false
}

package capture

import (
	"fmt"
	"strings"
)

// remark says of the first words that were understood, or that a field's word stands before, why no
// field comes of them.
func (r *reader) remark() {
	p := parser{text: r.text, tokens: r.tokens, settings: r.env.Settings, names: &r.env.Names}
	for p.pos = 0; p.pos < len(p.tokens); p.pos++ {
		if t := p.at(0); r.cut[p.pos] || t.kind != plainWord {
			continue
		}
		if r.draft.Remark = r.tooOften(&p); r.draft.Remark == "" {
			r.draft.Remark = r.ledToNothing(&p)
		}
		if r.draft.Remark != "" {
			return
		}
	}
}

// tooOften says that what comes round within a day is no repeat: "every 2 hours", "twice daily".
func (r *reader) tooOften(p *parser) string {
	from := p.pos
	defer func() { p.pos = from }()
	switch t := p.at(0); {
	case t.is("every"), t.is("each"):
		p.pos++
		if !p.take("other") && !p.take("half") {
			p.count()
		}
		if t := p.at(0); t.kind != plainWord || !t.has(minuteWord) {
			return ""
		}
	case t.is("twice"), t.is("times"):
		p.pos++
		if !p.at(0).is("daily") && !(p.take("a") || p.take("per")) || !p.at(0).is("daily") && !p.at(0).is("day") {
			return ""
		}
	default:
		return ""
	}
	return fmt.Sprintf("“%s” stays words: nothing repeats more often than once a day.", r.words(p.tokens[from].span().and(p.at(0).span())))
}

// ledToNothing says that a word for a field, directly before what looks like a value, led to none:
// "due 11/30" where the day comes first.
func (r *reader) ledToNothing(p *parser) string {
	from := p.pos
	defer func() { p.pos = from }()
	repeats := false
	switch t := p.at(0); {
	case t.is("due"), t.is("by"), t.is("before"), t.is("until"):
		p.pos++
		p.take("by")
	case t.is("every"):
		repeats = true
		p.pos++
	case p.take("remind", "me"):
	default:
		return ""
	}
	begun := p.pos
	for !p.done() && p.pos < begun+3 && !r.cut[p.pos] {
		t := p.at(0)
		value := t.kind == plainWord && (t.number >= 0 || t.has(weekdayWord|monthWord|partOfDay|pointOfDay|unitWord))
		if !value {
			break
		}
		p.pos++
	}
	if p.pos == begun {
		return ""
	}
	words := strings.TrimRight(r.words(Span{p.tokens[begun].span().Start, p.at(-1).span().End}), ".!?,:)")
	whole := parser{text: r.text, tokens: p.tokens[from:], settings: r.env.Settings, names: &r.env.Names, loose: true}
	if _, ok := whole.field(where{}, false, true); ok { // it is offered, or part of a title
		return ""
	}
	whole.pos = begun - from
	if _, ok := whole.day(true); ok {
		return "" // "until Friday" is offered too
	}
	if repeats {
		return fmt.Sprintf("“every %s” is not read as a repeat. Say every 2 weeks, every Monday or every year on 14 March.", words)
	}
	if first, second, ok := strings.Cut(words, "/"); ok {
		order, other := "the day comes first", parser{text: second + "/" + first, settings: r.env.Settings, names: &r.env.Names}
		if r.env.Settings.MonthFirst {
			order = "the month comes first"
		}
		other.tokens, _ = lex(other.text, nil)
		if d, ok := other.day(true); ok && d.form != neverIs {
			return fmt.Sprintf("“%s” is not read as a date: %s. Say %s, or name the month.", words, order, other.text)
		}
	}
	return fmt.Sprintf("“%s” is not read as a date. Say Friday, 30 Nov, 2026-11-30 or in 3 days.", words)
}

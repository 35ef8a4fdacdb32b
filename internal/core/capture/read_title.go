package capture

import (
	"slices"
	"strings"
)

// What is taken from the title: forms at its start, and a run of fields at its end.

// suffixWords is how many words at the end of a title are tried.
const suffixWords = 24

// fromTitle takes dates from the start of the first clause and the end of the
// last that stays, and reports whether a repeat was among them.
func (r *reader) fromTitle(p *parser, last Span) bool {
	repeats := false
	end := slices.IndexFunc(r.tokens, func(t token) bool { return t.kind == comma })
	if end < 0 {
		end = len(r.tokens)
	}
	first := r.uncut(0, end)
	if r.dashed(p, first, end) {
		first = nil
	}
	r.fromStart(p, first)
	first = r.uncut(0, end)
	prefixed := true
	if it, n := p.prefix(first); n > 0 && r.leaves(Span{it.span.End, len(r.text)}) {
		r.items = append(r.items, it)
		r.cutText(it.span)
		if more, _ := p.opening(first, true); len(more) > 1 && more[0].span == it.span { // with its time, its list and its end
			for _, part := range more[1:] {
				r.items = append(r.items, part)
				r.cutText(part.span)
			}
		}
		repeats = it.kind == itemRepeat
	} else if prefixed = n > 0; !prefixed {
		items, n := p.opened(first)
		prefixed = n > 0
		for _, it := range items {
			r.items = append(r.items, it)
			r.cutText(it.span)
			repeats = repeats || it.kind == itemRepeat
		}
	}
	begun := len(r.items)
	r.fromEnd(p, last, false)
	if at, ok := timeAlone(r.items[begun:]); ok {
		bare := Span{}
		if !prefixed {
			bare = p.bareDate(first)
		}
		switch {
		case bare.End > 0:
			r.begins, r.beginsAt = bare, at
			for _, it := range r.items[begun:] {
				r.putBack(it.span)
			}
			r.items = r.items[:begun]
		case !prefixed && len(first) > 1 && first[0].kind == plainWord && first[0].is("daily") && r.leaves(Span{first[1].span().Start, at.Start}):
			p.tokens, p.pos = first[:1], 0
			it, _ := p.repeat()
			it.span = p.span(0)
			r.items = append(r.items, it)
			r.cutText(it.span)
		}
	}
	started := slices.ContainsFunc(r.items, func(it item) bool { return it.kind == itemStart })
	if started && len(first) > 1 && first[0].kind == plainWord && first[0].has(adverb) && !prefixed && r.leaves(Span{first[1].span().Start, len(r.text)}) &&
		!slices.ContainsFunc(r.items, func(it item) bool { return it.kind == itemRepeat }) { // Quarterly taxes, start 1 January
		p.tokens, p.pos = first[:1], 0
		it, _ := p.repeat()
		it.span = p.span(0)
		r.items = append(r.items, it)
		r.cutText(it.span)
		return true
	}
	for _, it := range r.items[begun:] {
		repeats = repeats || it.kind == itemRepeat
	}
	return repeats
}

// dashed takes what a spaced dash sets before a title, as a colon does: "Jan 15 - passport appointment",
// "Choir - draft the dates". end is the token of the dash.
func (r *reader) dashed(p *parser, words []token, end int) bool {
	if end >= len(r.tokens) || !r.tokens[end].dash() || len(words) == 0 || len(words) > 8 || words[0].kind != plainWord || words[len(words)-1].kind != plainWord || !r.leaves(Span{r.tokens[end].span().End, len(r.text)}) {
		return false
	}
	said := r.text[words[0].start:words[len(words)-1].end]
	if at := slices.IndexFunc(p.names.Lists, func(name string) bool { return strings.EqualFold(name, said) }); at >= 0 {
		r.items = append(r.items, item{kind: itemList, introduced: true, name: p.names.Lists[at], span: Span{words[0].span().Start, words[len(words)-1].span().End}})
		r.cutAll(0, end+1)
		return true
	}
	p.tokens, p.pos = words, 0
	begun := len(r.items)
	items, ok := p.run(r.items, where{})
	if r.items = items; !ok || !counts(items[begun:]) && items[begun].kind != itemEstimate && items[begun].kind != itemPlan || parted(words) || items[begun].kind == itemTime {
		r.items = items[:begun]
		return false
	}
	r.cutAll(0, end+1)
	return true
}

// bareDate reads the date that a title begins with, without a word such as "on".
func (p *parser) bareDate(words []token) Span {
	if len(words) < 2 || words[0].kind != plainWord {
		return Span{}
	}
	p.tokens, p.pos = words, 0
	it, ok := p.due()
	if !ok || it.kind != itemDue || it.date == nil || it.date.form == inMonth || it.introduced || !it.time.none() || p.done() || parted(words[:p.pos]) {
		return Span{}
	}
	return p.span(0)
}

// timeAlone finds the time of a run that has one and no date.
func timeAlone(run []item) (at Span, ok bool) {
	for i := range run {
		switch run[i].kind {
		case itemTime:
			at, ok = run[i].span, true
		case itemDue, itemStart, itemPlan, itemRepeat:
			return Span{}, false
		}
	}
	return at, ok
}

// fromStart takes "remind me to", and "remind me Friday to", from the start of a title, and
// sees there whom it is to be asked of or waited for; those words stay.
func (r *reader) fromStart(p *parser, words []token) {
	p.tokens, p.pos = words, 0
	if len(words) > 1 && words[0].kind == plainWord && strings.EqualFold(words[0].text, "note:") {
		r.items = append(r.items, item{kind: itemNote, span: words[0].span()})
		r.cutText(words[0].span())
		return
	}
	if parted(words[:min(len(words), 8)]) || len(words) < 3 || words[0].kind != plainWord {
		return
	}
	if p.take("remind", "me") {
		if p.take("to") && r.leaves(Span{words[2].span().End, len(r.text)}) {
			r.remind = p.span(0)
			r.cutText(r.remind)
			return
		}
		p.pos = 0
		if it, ok := p.reminder(); ok && !it.before && p.pos+1 < len(words) && p.at(0).is("to") {
			p.pos++
			it.span = p.span(0)
			r.items = append(r.items, it)
			r.cutText(it.span)
		}
		return
	}
	switch {
	case words[0].is("ask"), words[0].is("waiting"):
	default:
		return
	}
	if it, ok := p.person(); ok {
		it.span, it.inTitle = p.span(0), true
		r.items = append(r.items, it)
	}
}

// fromEnd takes the field phrases from the end of a clause of the title.
func (r *reader) fromEnd(p *parser, clause Span, late bool) {
	all := r.uncut(clause.Start, clause.End)
	words := closed(all)
	leaves := func(from int) bool { return r.leaves(Span{0, words[from].span().Start}) }
	var from int
	var ok bool
	if r.items, from, ok = p.suffix(r.items, words, leaves, late); ok {
		r.cutText(Span{words[from].span().Start, words[len(words)-1].span().End})
		r.cutCourtesy(all[len(words):])
	} else {
		from = len(words)
	}
	if it, ok := p.company(words[:from]); ok && !late {
		r.items = append(r.items, it)
	}
}

// prefix reads the date a title may begin with: today and its like, or "on",
// "by", "next", "this" or "plan" with a date.
func (p *parser) prefix(words []token) (item, int) {
	if len(words) == 0 || words[0].kind != plainWord {
		return item{}, 0
	}
	if it, n, ok := p.headed(words); ok {
		return it, n
	}
	switch words[0].word.text {
	case "every", "each":
		p.tokens, p.pos = words, 0
		if it, ok := p.repeat(); ok && !parted(words[:p.pos]) {
			it.span = p.span(0)
			n := p.pos
			p.tokens, p.pos = words[n:], 0
			if _, whole := p.run(nil, where{}); !whole { // "Every Monday at 9" leaves no title
				return it, n
			}
		}
		return item{}, 0
	case "someday", "some":
		p.tokens, p.pos = words, 0
		if it, ok := p.parked(); ok && !parted(words[:p.pos]) {
			it.span = p.span(0)
			return it, p.pos
		}
		return item{}, 0
	case "today", "tonight", "tomorrow", "day", "the", "on", "by", "next", "this", "plan":
	default:
		return item{}, 0
	}
	p.tokens, p.pos = words, 0
	if words[0].is("the") && !(p.at(1).is("day") && p.at(2).is("after") && p.at(3).is("tomorrow")) {
		return item{}, 0
	}
	it, ok := p.plan()
	if ok && words[0].is("plan") && p.plansIt(&it) {
		return item{}, 0
	}
	if !ok || it.date != nil && it.date.form == inMonth {
		p.pos = 0
		if it, ok = p.due(); !ok || it.date == nil {
			return item{}, 0
		}
	}
	if parted(words[:p.pos]) {
		return item{}, 0
	}
	it.span = p.span(0)
	return it, p.pos
}

// plansIt reports whether "plan" at the start of a title is its verb: "Plan Friday lunch", "Plan
// December", "Plan next week with Ada".
func (p *parser) plansIt(it *item) bool {
	bare := it.date != nil && it.time.none() && (it.date.form == onWeekday && it.date.which == coming || it.date.form == inMonth)
	return bare || !p.done() && p.at(0).has(dangling)
}

// headed reads what a colon sets before a title: a date, a priority or a list by its full
// name.
func (p *parser) headed(words []token) (item, int, bool) {
	for n := 1; n <= min(len(words)-1, 8); n++ {
		t := &words[n-1]
		if t.kind != plainWord || !strings.HasSuffix(t.text, ":") {
			continue
		}
		if parted(words[:n]) {
			return item{}, 0, false
		}
		p.tokens, p.pos = words[:n], 0
		said := strings.TrimSuffix(p.text[words[0].start:t.end], ":")
		if at := slices.IndexFunc(p.names.Lists, func(name string) bool { return strings.EqualFold(name, said) }); at >= 0 {
			return item{kind: itemList, introduced: true, name: p.names.Lists[at], span: Span{int(words[0].start), int(t.end)}}, n, true
		}
		if strings.EqualFold(said, "someday/maybe") {
			return item{kind: itemPlan, parked: true, span: Span{int(words[0].start), int(t.end)}}, n, true
		}
		for _, read := range []func() (item, bool){p.repeat, p.plan, p.due, p.parked, p.loudPriority, func() (item, bool) { return p.priority(true) }, func() (item, bool) { return p.estimate(true) }} {
			p.pos = 0
			if it, ok := read(); ok && p.done() && it.kind != itemTime {
				it.span = p.span(0)
				return it, n, true
			}
		}
		return item{}, 0, false
	}
	return item{}, 0, false
}

// endsInWeekdays reports whether a title ends in words such as "every Monday".
func (p *parser) endsInWeekdays(title []token) bool {
	items, _, ok := p.suffix(nil, title, func(from int) bool { return from > 0 }, false)
	if !ok {
		return false
	}
	last := &items[len(items)-1]
	return last.kind == itemRepeat && len(last.rule.rule.ByDay) > 0
}

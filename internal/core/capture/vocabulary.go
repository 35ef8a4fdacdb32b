package capture

import (
	"strings"
	"time"

	"tincup/internal/core/term"
)

// class says what a word can be, as bits.
type class uint32

const (
	weekdayWord class = 1 << iota
	monthWord
	unitWord   // day, week, month, quarter, year
	minuteWord // a unit of minutes: value is how many
	numberWord
	ordinalWord
	partOfDay   // value is a part of the day
	pointOfDay  // noon, midnight: value is minutes since midnight
	adverb      // daily, weekly …: value is an index of adverbs
	cautious    // needs a capital or an introducer
	dangling    // a title does not end with it when a bare date is taken
	article     // nor when any date is taken; "and" is such a word too
	priorityish // high, medium, low, and words for them
	loud        // a word for high that is a priority in a clause of its own only
)

// word is what the vocabulary knows of a word.
type word struct {
	text  string // the one spelling the grammar asks for
	class class
	value int
	opens opener
}

const (
	day_ = iota
	week_
	month_
	quarter_
	year_
	fortnight_
)

// vocabulary maps lower-case words. It is not written to.
var vocabulary = func() map[string]*word {
	v := map[string]*word{}
	add := func(c class, value int, texts ...string) {
		for _, text := range texts {
			w := v[text]
			if w == nil {
				w = unknown
			}
			v[text] = &word{text: text, class: w.class | c, value: max(value, w.value) | min(value, w.value, 0)}
		}
	}
	same := func(c class, value int, texts ...string) {
		for _, text := range texts {
			v[text] = &word{text: texts[0], class: c, value: value}
		}
	}
	weekdays := [][]string{{"sunday", "sun"}, {"monday", "mon", "mondya"}, {"tuesday", "tue", "tues", "teusday", "tusday"},
		{"wednesday", "wed", "weds", "wednsday", "wensday", "wendsday"},
		{"thursday", "thu", "thur", "thurs", "thrusday", "thurday", "thursady", "thirsday"}, {"friday", "fri", "firday"}, {"saturday", "sat", "satrday", "saterday", "satuday"}}
	for i, names := range weekdays {
		add(weekdayWord, i, names...)
		add(weekdayWord, i, names[0]+"s")
	}
	months := [][]string{{"january", "jan"}, {"february", "feb", "febuary", "feburary"}, {"march", "mar"}, {"april", "apr"}, {"may"}, {"june", "jun"},
		{"july", "jul"}, {"august", "aug"}, {"september", "sep", "sept"}, {"october", "oct"}, {"november", "nov"}, {"december", "dec"}}
	for i, names := range months {
		add(monthWord, i+1, names...)
	}
	add(cautious, int(time.Saturday), "sat")
	add(cautious, int(time.Sunday), "sun")
	add(cautious, int(time.Wednesday), "wed")
	add(cautious, 3, "mar")
	add(cautious, 5, "may")
	same(unitWord, day_, "day", "days")
	same(unitWord, week_, "week", "weeks", "wk", "wks")
	same(unitWord, month_, "month", "months")
	same(unitWord, quarter_, "quarter", "quarters")
	same(unitWord, year_, "year", "years")
	same(unitWord, fortnight_, "fortnight", "fortnights")
	same(minuteWord, 1, "min", "mins", "minute", "minutes")
	same(minuteWord, 60, "hour", "hours", "hr", "hrs", "h")
	for i, name := range []string{"one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten", "eleven", "twelve"} {
		add(numberWord, i+1, name)
	}
	for i, name := range []string{"first", "second", "third", "fourth", "fifth"} {
		add(ordinalWord, i+1, name)
	}
	add(ordinalWord, -1, "last")
	add(partOfDay, inMorning, "morning")
	add(partOfDay, inAfternoon, "afternoon")
	add(partOfDay, inEvening, "evening")
	add(partOfDay, atNight, "night")
	same(pointOfDay, 12*60, "noon", "midday")
	add(pointOfDay, 23*60+59, "midnight")
	for i, a := range adverbs {
		add(adverb, i, a.name)
	}
	same(adverb, len(adverbs)-1, "yearly", "annually")
	same(0, 0, "tomorrow", "tmrw", "tmr", "tommorow", "tommorrow", "tomorow", "tommorrow", "tomoz", "tomorro")
	same(0, 0, "tonight", "tonite")
	same(0, 0, "eod", "cob")
	same(0, 0, "please", "pls", "plz")
	same(0, 0, "thanks", "thx", "cheers")
	same(0, 0, "am", "a.m")
	same(0, 0, "pm", "p.m")
	same(0, 0, "o'clock", "oclock", "o’clock")
	same(0, 0, "christmas", "xmas")
	add(0, 0, "easter", "new", "year's", "within", "later", "than", "before", "after", "time", "now", "mid", "working", "half", "quarter",
		"past", "each", "no", "thing", "first", "close", "business", "sometime", "some", "someday", "week", "before")
	add(priorityish, int(term.High), "high")
	add(priorityish, int(term.Medium), "medium")
	add(priorityish, int(term.Low), "low")
	add(priorityish|loud, int(term.High), "urgent", "important", "asap")
	add(0, 0, "top", "prio", "ping", "nudge", "alert", "when", "i", "get", "arrive", "leave", "arriving", "leaving")
	add(0, 0, "today", "end", "next", "this", "on", "by", "due", "starting", "not", "plan", "parked",
		"every", "other", "weekday", "weekend", "weekends", "weekdays", "done", "until", "times", "ahead", "priority",
		"takes", "ask", "waiting", "remind", "me", "once", "twice", "biweekly", "bimonthly", "with", "w/")
	add(dangling, 0, "for", "of", "in", "since", "about", "after", "before", "during", "to", "till", "between",
		"from", "with", "at", "than", "as", "per", "via", "past", "previous", "each", "no", "is", "was", "are", "versus",
		"on", "by", "last", "first", "every", "until", "not", "next", "this", "other")
	same(0, 0, "can't", "can’t", "cannot", "cant")
	add(0, 0, "start", "alternate", "except", "but", "apart", "commencing", "beginning", "ending", "w/c", "couple", "over", "around", "latest", "eow", "eom", "twenty", "twenty-five")
	for word := range ownWords {
		add(0, 0, word)
	}
	defer func() {
		for _, w := range v {
			if _, own := ownWords[w.text]; own {
				w.opens = openers[w.text] | opensOwn
				continue
			}
			w.opens = openers[w.text]
			switch {
			case w.opens != 0:
			case w.class&^cautious == weekdayWord && !strings.HasSuffix(w.text, "days"), w.class&^cautious == monthWord:
				w.opens = opensDate
			default:
				w.opens = opensAll
			}
		}
	}()
	v["nxt"] = v["next"]
	add(article|dangling, 0, "the", "a", "an", "my", "our", "your", "their", "his", "her", "its", "and", "or", "&", "+")
	return v
}()

// adverbs are repeats in one word.
var adverbs = [...]struct {
	name     string
	unit     int
	interval int
}{{"daily", day_, 1}, {"weekly", week_, 1}, {"fortnightly", week_, 2}, {"monthly", month_, 1}, {"quarterly", month_, 3}, {"yearly", year_, 1}}

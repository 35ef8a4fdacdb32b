package capture

import "tincup/internal/core/day"

// PartsOfDay is when a part of the day is that words name. A zero time is as by default:
// 09:00 for first thing and the morning, 14:00, 18:00 and 20:00 for the others. Those of the
// first two are before noon, and those of the others from noon on.
type PartsOfDay struct {
	FirstThing, Morning, Afternoon, Evening day.TimeOfDay
	// Night is that of “tonight”, “at night” and “every night”.
	Night day.TimeOfDay
}

// The parts of the day, as values of words. 0 is none.
const (
	firstThing = iota + 1
	inMorning
	inAfternoon
	inEvening
	atNight
)

// at is when a part of the day is.
func (parts PartsOfDay) at(part int) day.TimeOfDay {
	chosen, byDefault := parts.FirstThing, 9
	switch part {
	case inMorning:
		chosen = parts.Morning
	case inAfternoon:
		chosen, byDefault = parts.Afternoon, 14
	case inEvening:
		chosen, byDefault = parts.Evening, 18
	case atNight:
		chosen, byDefault = parts.Night, 20
	}
	if chosen.IsZero() {
		return clockFace(byDefault * 60)
	}
	return chosen
}

// partHour is when a part of the day is, as a time that was said.
func (p *parser) partHour(part int) hour { return hour{at: p.settings.Parts.at(part)} }

// part takes a word for a part of the day.
func (p *parser) part() int {
	p.pos++
	return p.at(-1).word.value
}

// point takes "noon" or "midnight".
func (p *parser) point() hour {
	p.pos++
	return hour{at: clockFace(p.at(-1).word.value)}
}

// within is a time that was said with a part of the day: of the two that an hour without am
// and pm could be, the second from the afternoon on.
func (h hour) within(part int) hour {
	if part >= inAfternoon {
		return h.later()
	}
	return h
}

package capture

// opener says which phrases a word can be the first of, as bits, so that the others are
// not tried.
type opener uint16

const (
	opensRepeat opener = 1 << iota
	opensTail
	opensStart
	opensDate // a due or a plan
	opensReminder
	opensEstimate
	opensList
	opensPriority
	opensPerson
	opensParked
	opensOwn
	opensAll opener = 1<<iota - 1
)

// openers are those of words that open few phrases; every other known word may open any.
var openers = map[string]opener{
	"from": opensStart | opensDate, "starting": opensStart, "start": opensStart, "can't": opensStart, "not": opensStart | opensPriority,
	"when": opensReminder, "remind": opensReminder, "ping": opensReminder, "nudge": opensReminder, "alert": opensReminder,
	"takes": opensEstimate, "about": opensEstimate,
	"in":  opensList | opensDate,
	"ask": opensPerson, "with": opensPerson, "waiting": opensPerson, "for": opensPerson | opensTail,
	"high": opensPriority, "medium": opensPriority, "low": opensPriority, "urgent": opensPriority,
	"important": opensPriority, "asap": opensPriority, "top": opensPriority, "priority": opensPriority,
	"by": opensDate, "due": opensDate, "before": opensDate, "within": opensDate,
	"today": opensDate, "tonight": opensDate, "tomorrow": opensDate, "plan": opensDate,
	"every": opensRepeat, "each": opensRepeat, "alternate": opensRepeat,
	"parked": opensParked, "someday": opensParked, "some": opensParked,
}

// opens is what a token can open.
func (t *token) opens() opener {
	switch {
	case t.number >= 0:
		return opensRepeat | opensTail | opensDate | opensReminder | opensEstimate | opensParked | opensPriority
	case t.word != unknown:
		return t.word.opens
	}
	if _, mid := foldPrefix(t.text, "mid-"); mid {
		return opensDate
	}
	return opensPriority // "!!"
}

package plan

import (
	"fmt"
	"maps"
	"slices"
	"strings"
	"time"

	"tincup/internal/core/term"
)

// Hours says minutes: "45 min", "2 h", "10 h 05".
func Hours(minutes int) string {
	h, m := minutes/60, minutes%60
	switch {
	case h == 0:
		return fmt.Sprintf("%d min", m)
	case m == 0:
		return fmt.Sprintf("%d h", h)
	}
	return fmt.Sprintf("%d h %02d", h, m)
}

// workWords says minutes of work, some of which may be assumed.
func workWords(minutes, assumed int) string {
	switch s := Hours(minutes) + " of work"; {
	case assumed == 0:
		return s
	case assumed == minutes:
		return s + " (all of it assumed)"
	default:
		return s + " (" + Hours(assumed) + " assumed)"
	}
}

// outsideWords says how much of some work does not fit into its hours.
func outsideWords(minutes int, kind term.Hours) string {
	return "needs " + Hours(minutes) + " outside your " + kindWords[kind]
}

var kindWords = Kinds[string]{"working hours", "own hours"}

// DayFit is whether the work of one kind that lies on a day fits into it.
type DayFit struct {
	Kind term.Hours
	// Work is what lies on the day, Assumed how much of it has no estimate, and Left the hours
	// that are left, in minutes.
	Work, Assumed, Left int
	// Late are the titles of what the clock leaves no time for, Outside of what fits before its
	// due and not into the hours, and Beyond by how many minutes.
	Late, Outside []string
	Beyond        int
}

// Words says whether the day holds its work. They are "" where there is none.
func (f DayFit) Words() string {
	if f.Work == 0 {
		return ""
	}
	s := workWords(f.Work, f.Assumed)
	if f.Kind != term.WorkingHours {
		s = "In " + kindWords[f.Kind] + ": " + s
	}
	if f.Left == 0 {
		s += ", no " + kindWords[f.Kind] + " left"
	} else {
		s += ", " + Hours(f.Left) + " left"
	}
	var more []string
	if len(f.Late) > 0 {
		more = append(more, titles(f.Late)+" would be late")
	}
	if len(f.Outside) > 0 {
		needs := outsideWords(f.Beyond, f.Kind)
		if len(f.Outside) > 1 {
			needs = "need" + strings.TrimPrefix(needs, "needs")
		}
		more = append(more, titles(f.Outside)+" "+needs)
	}
	switch {
	case more != nil:
		s += "; " + strings.Join(more, ", and ")
	case f.Work > f.Left && f.Left > 0:
		s += ": " + Hours(f.Work-f.Left) + " more than the day holds"
	}
	return s + "."
}

// titles names up to two, or three where there are no more.
func titles(all []string) string {
	most := 2
	if len(all) == 3 {
		most = 3
	}
	said := make([]string, 0, most)
	for _, t := range all[:min(len(all), most)] {
		said = append(said, "“"+t+"”")
	}
	if more := len(all) - len(said); more > 0 {
		return strings.Join(said, ", ") + fmt.Sprintf(" and %d more", more)
	}
	last := len(said) - 1
	if last == 0 {
		return said[0]
	}
	return strings.Join(said[:last], ", ") + " and " + said[last]
}

// EventWords names the events of a day that take work time, two at most, and then those
// that take none: "“Staff meeting” takes 1 h, “Tea with Odile” at 16:00". It is "" where
// there are none. rest is how many events there are beside those listed.
func EventWords(all []Happening, rest int, zone *time.Location) string {
	var said []string
	for _, takes := range []bool{true, false} {
		for _, h := range all {
			switch {
			case h.Takes > 0 != takes:
			case len(said) >= 2:
				rest++
			case takes:
				said = append(said, "“"+h.Title+"” takes "+Hours(h.Takes))
			case h.AllDay:
				said = append(said, "“"+h.Title+"”")
			default:
				said = append(said, "“"+h.Title+"” at "+h.From.In(zone).Format("15:04"))
			}
		}
	}
	words := strings.Join(said, ", ")
	if rest > 0 {
		words += fmt.Sprintf(" and %d more", rest)
	}
	return words
}

// SourceWords says what an event was: its title, its calendar and when.
func (e *Event) SourceWords(calendar string, zone *time.Location) string {
	when := e.From.In(zone).Format("Mon 2 Jan 2006, 15:04") + " to " + e.To.In(zone).Format("15:04")
	if e.AllDay {
		when = e.From.UTC().Format("Mon 2 Jan 2006")
	}
	return "“" + e.Title + "” of the calendar “" + calendar + "”, " + when
}

// Jobs are those that have a proposal, in the order of their days and then of their indices.
func (l *Levelled) Jobs() []int {
	return slices.SortedFunc(maps.Keys(l.Day), func(a, b int) int {
		if c := l.Day[a].Compare(l.Day[b]); c != 0 {
			return c
		}
		return a - b
	})
}

// Words says how full the fullest day would be, what no plan can beat, and what has no day.
func (l *Levelled) Words(title func(job int) string) string {
	named := func(jobs []int) string {
		names := make([]string, len(jobs))
		for i, job := range jobs {
			names[i] = title(job)
		}
		return titles(names)
	}
	percent := func(ratio float64) string { return fmt.Sprintf("%.0f %%", ratio*100) }
	var said []string
	switch {
	case len(l.Day) == 0:
		said = append(said, "Everything of this week has its day.")
	case l.Proved || l.Fullest <= l.Bound*1.005:
		said = append(said, fmt.Sprintf("With these the fullest day is %s full, and no plan makes it less.", percent(l.Fullest)))
	default:
		said = append(said, fmt.Sprintf("With these the fullest day is %s full; not proved best, none is under %s.", percent(l.Fullest), percent(l.Bound)))
	}
	if len(l.TooLong) > 0 {
		said = append(said, "Longer than any day it could be on: "+named(l.TooLong)+".")
	}
	if len(l.Unplaced) > 0 {
		said = append(said, "No day has room for "+named(l.Unplaced)+".")
	}
	return strings.Join(said, " ")
}

// ClashWords names times of day that something else takes too: "“Ring the framer”, Tuesday
// 10:00, lies under “Staff round”."; "" where there are none.
func ClashWords(clashes []Clash, zone *time.Location) string {
	if len(clashes) == 0 {
		return ""
	}
	first := clashes[0]
	said := fmt.Sprintf("“%s”, %s, lies under “%s”", first.Todo.Title, first.At.From.Time().In(zone).Format("Monday 15:04"), first.With)
	switch others := len(clashes[1:]); others {
	case 0:
	case 1:
		said += ", and so does another"
	default:
		said += fmt.Sprintf(", and so do %d others", others)
	}
	return said + "."
}

// HourWords says what proposed hours come to: what has a time, and what no stretch is long
// enough for.
func HourWords(hours []Hour, without []Lying) string {
	var said []string
	if len(hours) > 0 {
		said = append(said, fmt.Sprintf("%d would have %s.", len(hours), map[bool]string{true: "its hour", false: "their hours"}[len(hours) == 1]))
	}
	if len(without) > 0 {
		names := make([]string, len(without))
		for i, l := range without {
			names[i] = l.Todo.Title
		}
		said = append(said, "No stretch is long enough for "+titles(names)+".")
	}
	if said == nil {
		return "All that lies here has its hour."
	}
	return strings.Join(said, " ")
}

// GiveWords says what letting go of some dues comes to.
func GiveWords(n int, proved bool) string {
	switch {
	case n == 0:
		return "Everything that is due can be done by then."
	case n == 1 && proved:
		return "If this one gives, all else is done in time. Nothing costs less."
	case proved:
		return fmt.Sprintf("If these %d give, all else is done in time. Nothing costs less.", n)
	case n == 1:
		return "If this one gives, all else is done in time. That nothing costs less is not proved."
	}
	return fmt.Sprintf("If these %d give, all else is done in time. That nothing costs less is not proved.", n)
}

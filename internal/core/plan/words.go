package plan

import (
	"fmt"
	"strings"
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

// DayWords says whether a day still holds: the work that lies on it, of which some may be
// assumed, the work time that is left, and the titles of what would be late. It is "" where
// there is no work.
func DayWords(work, assumed, left int, late []string) string {
	if work == 0 {
		return ""
	}
	s := Hours(work) + " of work"
	switch {
	case assumed == work:
		s += " (all of it assumed)"
	case assumed > 0:
		s += " (" + Hours(assumed) + " assumed)"
	}
	if left == 0 {
		s += ", no working hours left"
	} else {
		s += ", " + Hours(left) + " left"
	}
	switch {
	case len(late) > 0:
		s += "; " + titles(late) + " would be late"
	case work > left && left > 0:
		s += ": " + Hours(work-left) + " more than the day holds"
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

package settings

import (
	"fmt"

	"tincup/internal/core/day"
)

// PartOfDay is a part of the day that has a word in sentences.
type PartOfDay int

// The parts of the day, in the order in which Settings.PartsOfDay has them.
const (
	FirstThing PartOfDay = iota
	Morning
	Afternoon
	Evening
	Tonight
	partsOfDay
)

// partsByDefault are the hours that the words mean, and between which their times may be, of
// which the last is no longer one of them.
var partsByDefault = [partsOfDay]struct {
	name, says     string
	hour, from, to int
}{
	FirstThing: {"firstThing", "“first thing”", 9, 4, 12},
	Morning:    {"morning", "“morning”", 9, 4, 12},
	Afternoon:  {"afternoon", "“afternoon”", 14, 12, 18},
	Evening:    {"evening", "“evening”", 18, 15, 24},
	Tonight:    {"tonight", "“tonight”", 20, 15, 24},
}

// PartOfDay is when a part of the day is.
func (s *Settings) PartOfDay(part PartOfDay) day.TimeOfDay {
	minutes := s.PartsOfDay[part]
	if minutes == 0 {
		minutes = partsByDefault[part].hour * 60
	}
	at, _ := day.NewTimeOfDay(minutes/60, minutes%60)
	return at
}

// partFields are the settings of what words for a part of the day mean.
var partFields = func() []Field {
	var fields []Field
	for i, p := range partsByDefault {
		part := PartOfDay(i)
		fields = append(fields, Field{Name: p.name, Says: p.says, Default: fmt.Sprintf("%02d:00", p.hour),
			Wants: fmt.Sprintf("a time from %02d:00 to %02d:59", p.from, p.to-1),
			get:   func(s *Settings) string { return s.PartOfDay(part).String() },
			set: func(s *Settings, v string) bool {
				t, err := day.ParseTimeOfDay(v)
				if err != nil || t.Minutes() < p.from*60 || t.Minutes() >= p.to*60 {
					return false
				}
				if s.PartsOfDay[part] = t.Minutes(); t.Minutes() == p.hour*60 {
					s.PartsOfDay[part] = 0
				}
				return true
			}})
	}
	return fields
}()

package day

import "fmt"

// TimeOfDay is a wall time in whole minutes. The zero TimeOfDay is none;
// midnight is a value of its own.
type TimeOfDay struct {
	// n is minutes since midnight plus one.
	n int16
}

// NewTimeOfDay takes an hour of 0 to 23 and a minute of 0 to 59.
func NewTimeOfDay(hour, minute int) (TimeOfDay, error) {
	if hour < 0 || hour > 23 || minute < 0 || minute > 59 {
		return TimeOfDay{}, impossible(fmt.Sprintf("%02d:%02d", hour, minute))
	}
	return TimeOfDay{int16(hour*60 + minute + 1)}, nil
}

// ParseTimeOfDay reads HH:MM, 00:00 to 23:59.
func ParseTimeOfDay(s string) (TimeOfDay, error) {
	if len(s) == 5 && s[2] == ':' {
		hour, ok1 := digits(s[:2])
		minute, ok2 := digits(s[3:])
		if ok1 && ok2 {
			return NewTimeOfDay(hour, minute)
		}
	}
	return TimeOfDay{}, &ParseError{Input: s, Want: "a time such as 16:00"}
}

// IsZero reports whether t is none.
func (t TimeOfDay) IsZero() bool { return t.n == 0 }

// Minutes returns the minutes since midnight, 0 to 1439; none gives 0.
func (t TimeOfDay) Minutes() int { return max(int(t.n)-1, 0) }

// Compare orders times within a day; none comes last, as in every view.
func (t TimeOfDay) Compare(u TimeOfDay) int {
	a, b := uint16(t.n)-1, uint16(u.n)-1 // none wraps round to the largest
	switch {
	case a < b:
		return -1
	case a > b:
		return 1
	}
	return 0
}

// String returns HH:MM, or "" for none.
func (t TimeOfDay) String() string {
	if t.IsZero() {
		return ""
	}
	hour, minute := byte(t.Minutes()/60), byte(t.Minutes()%60)
	return string([]byte{'0' + hour/10, '0' + hour%10, ':', '0' + minute/10, '0' + minute%10})
}

// Moment is a civil date that may carry a wall time. The zero Moment is none.
type Moment struct {
	Date Date
	Time TimeOfDay
}

// ParseMoment reads YYYY-MM-DD or YYYY-MM-DDTHH:MM.
func ParseMoment(s string) (Moment, error) {
	if len(s) == 16 && s[10] == 'T' {
		d, err := ParseDate(s[:10])
		if err != nil {
			return Moment{}, retitle(err, s)
		}
		t, err := ParseTimeOfDay(s[11:])
		if err != nil {
			return Moment{}, retitle(err, s)
		}
		return Moment{d, t}, nil
	}
	d, err := ParseDate(s)
	if err != nil {
		return Moment{}, retitle(err, s)
	}
	return Moment{Date: d}, nil
}

// retitle makes a part's error speak of the whole text.
func retitle(err error, whole string) error {
	if pe, ok := err.(*ParseError); ok {
		return &ParseError{Input: whole, Want: "a date such as 2026-11-27 or 2026-11-27T16:00", Err: pe.Err}
	}
	return err
}

// MustMoment is ParseMoment for constants.
func MustMoment(s string) Moment {
	m, err := ParseMoment(s)
	if err != nil {
		panic(err)
	}
	return m
}

// IsZero reports whether m is none.
func (m Moment) IsZero() bool { return m.Date.IsZero() }

// HasTime reports whether m carries a wall time.
func (m Moment) HasTime() bool { return !m.Time.IsZero() }

// Compare orders by date, then time; on one day a time comes before none.
// None comes last.
func (m Moment) Compare(o Moment) int {
	switch {
	case m.Date == o.Date:
		return m.Time.Compare(o.Time)
	case m.IsZero():
		return 1
	case o.IsZero():
		return -1
	}
	return m.Date.Compare(o.Date)
}

// Ordinal returns a number from 0 to 2^33 that orders moments as Compare does.
func (m Moment) Ordinal() int64 {
	const perDay = 24*60 + 1 // the minutes, and none after them
	if m.IsZero() {
		return int64(MaxDate.n+1) * perDay
	}
	return int64(m.Date.n)*perDay + int64(min(uint16(m.Time.n)-1, perDay-1))
}

// String returns the form ParseMoment reads, or "" for none.
func (m Moment) String() string {
	if m.HasTime() {
		return m.Date.String() + "T" + m.Time.String()
	}
	return m.Date.String()
}

// MarshalText implements encoding.TextMarshaler.
func (m Moment) MarshalText() ([]byte, error) { return []byte(m.String()), nil }

// UnmarshalText implements encoding.TextUnmarshaler; "" is none.
func (m *Moment) UnmarshalText(text []byte) (err error) {
	if len(text) == 0 {
		*m = Moment{}
		return nil
	}
	*m, err = ParseMoment(string(text))
	return err
}

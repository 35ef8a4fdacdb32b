package day

import (
	"fmt"
	"time"
)

// Date is a civil date. The zero Date is none.
type Date struct {
	// n is the rata die day number: 1 is 0001-01-01.
	n int32
}

// MinDate and MaxDate bound every Date other than none.
var (
	MinDate = Date{1}
	MaxDate = Date{3652059}
)

// NewDate returns the civil date, or a *ParseError when the month has no such
// day or the year is outside 1 to 9999.
func NewDate(year int, month time.Month, dayOfMonth int) (Date, error) {
	if year < 1 || year > 9999 || month < 1 || month > 12 || dayOfMonth < 1 || dayOfMonth > DaysIn(year, month) {
		return Date{}, impossible(fmt.Sprintf("%04d-%02d-%02d", year, int(month), dayOfMonth))
	}
	return fromCivil(year, month, dayOfMonth), nil
}

// ParseDate reads YYYY-MM-DD.
func ParseDate(s string) (Date, error) {
	year, month, dom, ok := scanDate(s)
	if !ok {
		return Date{}, &ParseError{Input: s, Want: "a date such as 2026-11-27"}
	}
	if year < 1 || month < 1 || month > 12 || dom < 1 || dom > DaysIn(year, time.Month(month)) {
		return Date{}, impossible(s)
	}
	return fromCivil(year, time.Month(month), dom), nil
}

// MustDate is ParseDate for constants: it panics where ParseDate would fail.
func MustDate(s string) Date {
	d, err := ParseDate(s)
	if err != nil {
		panic(err)
	}
	return d
}

// DateOf returns the civil date that t shows in its own location.
func DateOf(t time.Time) Date {
	year, month, dom := t.Date()
	return fromCivil(year, month, dom)
}

func scanDate(s string) (year, month, dom int, ok bool) {
	if len(s) != 10 || s[4] != '-' || s[7] != '-' {
		return 0, 0, 0, false
	}
	year, ok1 := digits(s[0:4])
	month, ok2 := digits(s[5:7])
	dom, ok3 := digits(s[8:10])
	return year, month, dom, ok1 && ok2 && ok3
}

func digits(s string) (int, bool) {
	if s == "" {
		return 0, false
	}
	n := 0
	for i := range len(s) {
		if s[i] < '0' || s[i] > '9' {
			return 0, false
		}
		n = n*10 + int(s[i]-'0')
	}
	return n, true
}

// Civil returns year, month and day of the month; none gives zeros.
func (d Date) Civil() (year int, month time.Month, dom int) {
	if d.IsZero() {
		return 0, 0, 0
	}
	// Count years from 1 March of year 0, so that the leap day ends a year.
	// 305 days lie between 0000-03-01 and 0000-12-31.
	z := int(d.n) + 305
	era := z / 146097 // 400 years
	doe := z % 146097
	yoe := (doe - doe/1460 + doe/36524 - doe/146096) / 365
	doy := doe - (365*yoe + yoe/4 - yoe/100)
	mp := (5*doy + 2) / 153 // month counted from March
	dom = doy - (153*mp+2)/5 + 1
	year = yoe + era*400
	if mp < 10 {
		return year, time.Month(mp + 3), dom
	}
	return year + 1, time.Month(mp - 9), dom
}

func fromCivil(year int, month time.Month, dom int) Date {
	m := int(month)
	if m <= 2 {
		year--
		m += 12
	}
	era := year / 400
	yoe := year % 400
	doy := (153*(m-3)+2)/5 + dom - 1
	doe := yoe*365 + yoe/4 - yoe/100 + doy
	return Date{int32(era*146097 + doe - 305)}
}

// IsLeap says whether the year has a 29 February.
func IsLeap(year int) bool {
	return year%4 == 0 && (year%100 != 0 || year%400 == 0)
}

// DaysIn returns the number of days of a month, 28 to 31.
func DaysIn(year int, month time.Month) int {
	switch month {
	case time.February:
		if IsLeap(year) {
			return 29
		}
		return 28
	case time.April, time.June, time.September, time.November:
		return 30
	}
	return 31
}

// IsZero reports whether d is none.
func (d Date) IsZero() bool { return d.n == 0 }

// Compare returns -1, 0 or 1; none is before every date.
func (d Date) Compare(e Date) int {
	switch {
	case d.n < e.n:
		return -1
	case d.n > e.n:
		return 1
	}
	return 0
}

// Before reports d < e; none is before every date.
func (d Date) Before(e Date) bool { return d.n < e.n }

// After reports d > e.
func (d Date) After(e Date) bool { return d.n > e.n }

// AddDays moves d by n days, held within MinDate and MaxDate. None stays none.
func (d Date) AddDays(n int) Date {
	if d.IsZero() {
		return d
	}
	return Date{int32(min(max(int64(d.n)+int64(n), int64(MinDate.n)), int64(MaxDate.n)))}
}

// AddMonths moves d by n months and keeps its day of the month, or takes the
// last day of a shorter month. It is held within MinDate and MaxDate.
func (d Date) AddMonths(n int) Date {
	if d.IsZero() {
		return d
	}
	year, month, dom := d.Civil()
	months := year*12 + int(month) - 1 + n
	if months < 12 {
		return MinDate
	}
	year, month = months/12, time.Month(months%12+1)
	if year > 9999 {
		return MaxDate
	}
	return fromCivil(year, month, min(dom, DaysIn(year, month)))
}

// Sub returns the days from e to d: positive when d is later.
func (d Date) Sub(e Date) int { return int(d.n) - int(e.n) }

// Weekday returns the day of the week; it means nothing for none.
func (d Date) Weekday() time.Weekday { return time.Weekday(d.n % 7) }

// ISOWeek returns the ISO 8601 year and week, 1 to 53, in which d lies.
func (d Date) ISOWeek() (year, week int) {
	thursday := d.Monday().AddDays(3)
	year, _, _ = thursday.Civil()
	return year, thursday.Sub(fromCivil(year, time.January, 1))/7 + 1
}

// Monday returns the first day of d's ISO week.
func (d Date) Monday() Date { return d.AddDays(-(int(d.Weekday()) + 6) % 7) }

// MonthStart returns the first day of d's month.
func (d Date) MonthStart() Date {
	if d.IsZero() {
		return d
	}
	year, month, _ := d.Civil()
	return fromCivil(year, month, 1)
}

// WeekStart returns the Monday of an ISO week, or a *ParseError when the year
// has no such week.
func WeekStart(year, week int) (Date, error) {
	if year >= 1 && year <= 9999 && week >= 1 {
		monday := fromCivil(year, time.January, 4).Monday().AddDays(7 * (week - 1))
		if y, w := monday.ISOWeek(); y == year && w == week {
			return monday, nil
		}
	}
	return Date{}, impossible(fmt.Sprintf("%04d-W%02d", year, week))
}

// String returns YYYY-MM-DD, or "" for none.
func (d Date) String() string {
	if d.IsZero() {
		return ""
	}
	year, month, dom := d.Civil()
	b := []byte("0000-00-00")
	for i, n := 3, year; n > 0; i, n = i-1, n/10 {
		b[i] += byte(n % 10)
	}
	b[5] += byte(month / 10)
	b[6] += byte(month % 10)
	b[8] += byte(dom / 10)
	b[9] += byte(dom % 10)
	return string(b)
}

// MarshalText implements encoding.TextMarshaler.
func (d Date) MarshalText() ([]byte, error) { return []byte(d.String()), nil }

// UnmarshalText implements encoding.TextUnmarshaler; "" is none.
func (d *Date) UnmarshalText(text []byte) (err error) {
	if len(text) == 0 {
		*d = Date{}
		return nil
	}
	*d, err = ParseDate(string(text))
	return err
}

package book

import "strings"

// Position orders siblings. Positions compare as strings, and between any two
// there is room for another, so that moving one row never renumbers the rest.
//
// A position is a whole number and a fraction in base 62. The first letter
// gives the number of whole digits (a = 1, b = 2, …), so that numbers of any
// length compare as strings; the fraction never ends in '0'.
type Position string

const base62 = "0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz"

// firstPosition leaves room below it for rows put at the top.
const firstPosition Position = "e0V000"

// After returns a position behind p; none gives the first one.
func (p Position) After() Position {
	if p == "" {
		return firstPosition
	}
	whole, _ := p.split()
	next := []byte(whole)
	for i := len(next) - 1; i > 0; i-- {
		if d := strings.IndexByte(base62, next[i]); d < len(base62)-1 {
			next[i] = base62[d+1]
			return Position(next)
		}
		next[i] = '0'
	}
	if next[0] == 'z' { // 62^26 rows: beyond any Book
		return p + "V"
	}
	return Position(string(next[0]+1) + "1" + strings.Repeat("0", len(next)-1))
}

// Between returns a position p < x < q. Where q is none it is After. Where q is
// not behind p there is no such position, and it returns one right behind p.
func (p Position) Between(q Position) Position {
	if q == "" {
		return p.After()
	}
	if p >= q {
		return p + "V"
	}
	if p == "" {
		return q.before()
	}
	pw, pf := p.split()
	qw, qf := q.split()
	if pw == qw {
		return Position(pw + midpoint(pf, qf))
	}
	if next := Position(pw).After(); next < q {
		return next
	}
	return Position(pw + midpoint(pf, ""))
}

// split parts the whole number, with its length letter, from the fraction.
func (p Position) split() (whole, fraction string) {
	n := min(int(p[0]-'a')+2, len(p))
	return string(p[:n]), string(p[n:])
}

// before returns a position ahead of p. It counts down, so that rows put at the top
// one after the other get no longer positions for a few million of them.
func (p Position) before() Position {
	whole, fraction := p.split()
	if whole == lowest {
		return lowest + Position(midpoint("", fraction))
	}
	if fraction != "" {
		return Position(whole)
	}
	next := []byte(whole)
	i := len(next) - 1
	for ; i > 0 && next[i] == '0'; i-- {
		next[i] = base62[len(base62)-1]
	}
	switch {
	case i > 0:
		next[i] = base62[strings.IndexByte(base62, next[i])-1]
	case next[0] > 'a':
		next = append([]byte{next[0] - 1}, next[2:]...)
	}
	if string(next) == lowest { // nothing is ahead of that
		return lowest + Position(midpoint("", ""))
	}
	return Position(next)
}

// lowest is the whole number that no other is ahead of.
const lowest = "a0"

// midpoint returns a fraction between a and b, where "" as b means one.
func midpoint(a, b string) string {
	var out []byte
	for i := 0; ; i++ {
		low, high := 0, len(base62)
		if i < len(a) {
			low = strings.IndexByte(base62, a[i])
		}
		if b != "" && i < len(b) {
			high = strings.IndexByte(base62, b[i])
		}
		switch {
		case low == high:
			out = append(out, base62[low])
		case high-low > 1:
			return string(append(out, base62[(low+high)/2]))
		default: // neighbours: keep the lower digit, and b no longer binds
			out = append(out, base62[low])
			b = ""
		}
	}
}

package book

import "fmt"

// orders are the words for orders of a list.
var orders = []string{"priority", "own", "due", "title", "created", "high-first", "priority-newest"}

// String returns the word.
func (o Order) String() string { return orders[o] }

// MarshalText implements encoding.TextMarshaler.
func (o Order) MarshalText() ([]byte, error) {
	if int(o) >= len(orders) {
		return nil, fmt.Errorf("book: no order %d", o)
	}
	return []byte(orders[o]), nil
}

// UnmarshalText implements encoding.TextUnmarshaler.
func (o *Order) UnmarshalText(text []byte) error {
	for i, word := range orders {
		if word == string(text) {
			*o = Order(i)
			return nil
		}
	}
	return fmt.Errorf("%.40q is not an order: one of %v is wanted", text, orders)
}

// count says how many there are of something, "1 to-do" or "3 to-dos".
func count(n int, what string) string {
	if n == 1 {
		return "1 " + what
	}
	return fmt.Sprintf("%d %ss", n, what)
}

package day

import "time"

// Timestamp is an instant in milliseconds since the Unix epoch, UTC. The zero
// Timestamp is none.
type Timestamp int64

// TimestampOf drops what is finer than a millisecond.
func TimestampOf(t time.Time) Timestamp { return Timestamp(t.UnixMilli()) }

// IsZero reports whether ts is none.
func (ts Timestamp) IsZero() bool { return ts == 0 }

// Time returns the instant in UTC; none gives the zero time.Time.
func (ts Timestamp) Time() time.Time {
	if ts.IsZero() {
		return time.Time{}
	}
	return time.UnixMilli(int64(ts)).UTC()
}

// String returns RFC 3339 with milliseconds, or "" for none.
func (ts Timestamp) String() string {
	if ts.IsZero() {
		return ""
	}
	return ts.Time().Format(timestampLayout)
}

const timestampLayout = "2006-01-02T15:04:05.000Z07:00"

// AppendText implements encoding.TextAppender.
func (ts Timestamp) AppendText(b []byte) ([]byte, error) {
	if ts.IsZero() {
		return b, nil
	}
	return ts.Time().AppendFormat(b, timestampLayout), nil
}

// MarshalText implements encoding.TextMarshaler.
func (ts Timestamp) MarshalText() ([]byte, error) { return ts.AppendText(nil) }

// UnmarshalText implements encoding.TextUnmarshaler; "" is none.
func (ts *Timestamp) UnmarshalText(text []byte) error {
	if len(text) == 0 {
		*ts = 0
		return nil
	}
	t, err := time.Parse(time.RFC3339, string(text))
	if err != nil {
		return &ParseError{Input: string(text), Want: "an instant such as 2026-11-27T16:00:00Z"}
	}
	*ts = TimestampOf(t)
	return nil
}

package app

import (
	"sync"
	"time"

	"tincup/internal/core/book"
)

// WindowState is what a window of the page says of itself.
type WindowState struct {
	// InSight: the person may see it. Notifies: it is hidden, and the browser shows its
	// notifications.
	InSight, Notifies bool
}

// windowsKeep is how long a window counts that has said nothing more: it speaks every twenty
// seconds.
const windowsKeep = 45 * time.Second

// windows knows which windows live, and which of them are in sight. It goes by the machine's
// own time, whatever the clock of the Book says.
type windows struct {
	mu   sync.Mutex
	seen map[windowKey]seenWindow
}

type windowKey struct {
	account book.ID
	window  string
}

type seenWindow struct {
	WindowState
	at time.Time
}

// WindowSpeaks notes what a window says of itself; gone is one that is closed.
func (a *Session) WindowSpeaks(window string, state WindowState, gone bool) {
	w := &a.windows
	w.mu.Lock()
	defer w.mu.Unlock()
	if w.seen == nil {
		w.seen = map[windowKey]seenWindow{}
	}
	key := windowKey{a.Account(), window}
	if gone {
		delete(w.seen, key)
		return
	}
	w.seen[key] = seenWindow{state, time.Now()}
}

// Windows is what is known of the account's windows together: whether one is in sight, and
// whether one notifies.
func (a *Session) Windows() (together WindowState) {
	w := &a.windows
	w.mu.Lock()
	defer w.mu.Unlock()
	for key, seen := range w.seen {
		switch {
		case time.Since(seen.at) > windowsKeep:
			delete(w.seen, key)
		case key.account == a.Account():
			together.InSight = together.InSight || seen.InSight
			together.Notifies = together.Notifies || seen.Notifies
		}
	}
	return together
}

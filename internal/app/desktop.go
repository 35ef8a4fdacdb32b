package app

import (
	"context"
	"fmt"
	"log/slog"
	"slices"
	"strings"
	"sync"
	"time"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
)

// Notifier shows notifications on the desktop of the machine that the program runs on. Its
// methods return soon; it is safe for concurrent use.
type Notifier interface {
	// Notify shows a notice. An error is a sentence for the person.
	Notify(ctx context.Context, n Notice) error
	// Withdraw takes a notice back; one that is not shown is none.
	Withdraw(ctx context.Context, key string)
	// Answers are what was pressed on notices.
	Answers() <-chan NoticeAnswer
}

// Notice is a notification of a ring.
type Notice struct {
	// Key names it.
	Key, Title, Text string
	// Answers: it has buttons for Done and Later.
	Answers bool
}

// NoticeAnswer is what was pressed on a notice.
type NoticeAnswer struct {
	Key    string
	Answer string // NoticeDone or NoticeLater
}

// The answers to a notice.
const (
	NoticeDone  = "done"
	NoticeLater = "later"
)

const (
	// noticeLater is for how long Later on a notice puts a ring off.
	noticeLater = 10 * time.Minute
	// noticesAtOnce is how many notices are shown of rings that come together; more are one.
	noticesAtOnce = 3
	// noticeGrace is how long after the start windows have to say that they are there.
	noticeGrace = 3 * time.Second
	// desktopWindow is where the history says that notices were answered.
	desktopWindow = "desktop"
)

// manyRings stands for the one notice of many rings; it goes when none of any is open.
var manyRings book.ID = [16]byte{15: 1}

// desktop shows rings on the desktop of the owner, whose machine it is. One goroutine speaks
// to it, so that a desktop that hangs holds up nothing else.
type desktop struct {
	mu sync.Mutex
	// rung are the rings that were told since the desktop was last looked at.
	rung []book.ID
	// changed says that there are some, or that rings were answered.
	changed chan struct{}
	// problem is why nothing was shown when it was last tried; keepDesktop alone has it.
	problem string
}

// signal lets the desktop be looked at.
func (d *desktop) signal() {
	select {
	case d.changed <- struct{}{}:
	default: // it will be
	}
}

// failed says in the log that nothing is shown, once for each reason.
func (d *desktop) failed(log *slog.Logger, err error) {
	if err.Error() != d.problem {
		d.problem = err.Error()
		log.Warn("reminders are not shown on the desktop", "problem", err)
	}
}

func (d *desktop) take() []book.ID {
	d.mu.Lock()
	defer d.mu.Unlock()
	rung := d.rung
	d.rung = nil
	return rung
}

// tellRings tells the desktop of what rings now; windows hear of it as of every change.
func (a *Session) tellRings(change *book.Change) {
	if a.Account() != a.book.Owner() {
		return
	}
	a.desktop.mu.Lock()
	defer a.desktop.mu.Unlock()
	for _, d := range change.Rings {
		if d.After != nil && d.After.State() == book.Rung && len(a.desktop.rung) < MaxRings {
			a.desktop.rung = append(a.desktop.rung, d.After.ID)
		}
	}
}

// keepDesktop shows and withdraws notices until ctx ends.
func (a *App) keepDesktop(ctx context.Context, n Notifier) {
	owner := a.Owner()
	shown := map[book.ID]bool{}
	grace := time.NewTimer(noticeGrace)
	defer grace.Stop()
	for {
		select {
		case <-ctx.Done():
			return
		case <-grace.C: // what rang before the program ended may not have been shown
			a.desktop.take()
			owner.notify(ctx, n, shown, func(book.ID) bool { return true })
		case <-a.desktop.changed:
			rung := a.desktop.take()
			owner.notify(ctx, n, shown, func(ring book.ID) bool { return slices.Contains(rung, ring) })
		case answer := <-n.Answers():
			if err := owner.answerNotice(ctx, answer); err != nil {
				a.log.Warn("what was pressed on a notification could not be done", "error", err)
			}
		}
	}
}

// notify shows those of the open rings that are new, where no window tells of them, and
// withdraws notices of rings that are open no more.
func (a *Session) notify(ctx context.Context, n Notifier, shown map[book.ID]bool, isNew func(ring book.ID) bool) {
	open := a.Bell().Open
	var rings []OpenRing
	standing := map[book.ID]bool{}
	for _, r := range open {
		standing[r.ID] = true
		if isNew(r.ID) && !shown[r.ID] {
			rings = append(rings, r)
		}
	}
	standing[manyRings] = len(open) > 0
	for ring := range shown {
		if !standing[ring] {
			delete(shown, ring)
			n.Withdraw(ctx, ring.String())
		}
	}
	told := a.Windows()
	if a.inForce(a.Account()).settings.Reminders.DesktopOff || told.InSight || told.Notifies {
		return
	}
	notices := make([]Notice, 0, len(rings))
	for _, r := range rings {
		notices = append(notices, Notice{Key: r.ID.String(), Title: r.Title, Text: ringText(r.Ring), Answers: true})
		shown[r.ID] = true
	}
	if len(notices) > noticesAtOnce {
		titles := make([]string, noticesAtOnce)
		for i := range titles {
			titles[i] = notices[i].Title
			delete(shown, rings[i].ID)
		}
		shown[manyRings] = true
		notices = []Notice{{Key: manyRings.String(), Title: fmt.Sprintf("%d reminders", len(notices)), Text: strings.Join(titles, "\n") + "\n…"}}
	}
	for _, notice := range notices {
		if err := n.Notify(ctx, notice); err != nil {
			a.desktop.failed(a.log, err)
			return
		}
	}
}

// ringText says when a ring should have rung.
func ringText(r book.Ring) string {
	if r.Reminder.Edge != day.NoEdge {
		words := r.Reminder.Words()
		return strings.ToUpper(words[:1]) + words[1:]
	}
	text := r.At.Date.Words() + ", " + r.At.Time.String()
	if r.Missed {
		text = "Missed: " + text
	}
	return text
}

// answerNotice does what was pressed on a notice.
func (a *Session) answerNotice(ctx context.Context, answer NoticeAnswer) error {
	var ring book.ID
	if err := ring.UnmarshalText([]byte(answer.Key)); err != nil {
		return fmt.Errorf("there is no ring %q: %w", answer.Key, err)
	}
	var cmd book.Command
	a.reading.RLock()
	r, err := a.desk.Ring(ring)
	if err == nil {
		cmd = book.RingLater{Rings: []book.ID{ring}, Until: a.clock.Now().Add(noticeLater)}
		if answer.Answer == NoticeDone {
			cmd = book.Complete{ID: r.Todo}
		}
	}
	a.reading.RUnlock()
	if err != nil {
		return err
	}
	_, err = a.Run(ctx, Request{Window: desktopWindow}, cmd, nil)
	return err
}

// TryDesktop shows a notice that reminds of nothing. The error is a *book.RuleError that says
// why there is none.
func (a *Session) TryDesktop(ctx context.Context) error {
	n := a.settings.Notifier
	if n == nil {
		return &book.RuleError{Field: "way", Reason: "This run shows no notifications on the desktop."}
	}
	err := n.Notify(ctx, Notice{Key: "try", Title: "Tin Cup rings here", Text: "Reminders come like this where no window is open."})
	if err != nil {
		return &book.RuleError{Field: "way", Reason: err.Error()}
	}
	return nil
}

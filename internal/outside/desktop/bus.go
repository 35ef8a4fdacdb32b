//go:build unix && !darwin

package desktop

import (
	"context"
	"errors"
	"fmt"
	"html"
	"slices"
	"sync"

	"github.com/godbus/dbus/v5"

	"tincup/internal/app"
)

// Names of the specification, sections 9 and 10.
const (
	service   = "org.freedesktop.Notifications"
	object    = dbus.ObjectPath("/org/freedesktop/Notifications")
	notify    = service + ".Notify"
	withdraw  = service + ".CloseNotification"
	abilities = service + ".GetCapabilities"
	invoked   = service + ".ActionInvoked"
	closed    = service + ".NotificationClosed"
)

// Notifier shows notifications over the session's bus. It connects when it is first needed,
// and again where the connection was lost. It is safe for concurrent use.
type Notifier struct {
	answers chan app.NoticeAnswer

	mu   sync.Mutex
	conn *dbus.Conn
	// able is what the desktop says it can show.
	able []string
	// shown are the notices by the number that the desktop gave each.
	shown map[uint32]string
	// early is what was pressed while notices are being shown whose numbers are not known yet;
	// asking is how many are.
	early  map[uint32]string
	asking int
}

// mostEarly bounds early: what other programs show is pressed as well.
const mostEarly = 64

// New returns a Notifier; nothing is asked of the desktop yet.
func New() *Notifier {
	return &Notifier{answers: make(chan app.NoticeAnswer, 16), shown: map[uint32]string{}}
}

// Answers implements app.Notifier.
func (n *Notifier) Answers() <-chan app.NoticeAnswer { return n.answers }

// Notify implements app.Notifier. A notice with the key of one that is shown takes its place.
func (n *Notifier) Notify(ctx context.Context, notice app.Notice) error {
	ctx, cancel := context.WithTimeout(ctx, timeout)
	defer cancel()
	conn, able, err := n.connect(ctx)
	if err != nil {
		return err
	}
	text := notice.Text
	if slices.Contains(able, "body-markup") { // section 4: what is not markup is escaped
		text = html.EscapeString(text)
	}
	var actions []string
	if notice.Answers && slices.Contains(able, "actions") {
		actions = []string{app.NoticeDone, "Done", app.NoticeLater, "Later"}
	}
	hints := map[string]dbus.Variant{"category": dbus.MakeVariant("x-tincup.reminder"), "desktop-entry": dbus.MakeVariant("tincup")}
	const never = int32(0) // it stays until it is answered, section 9
	n.mu.Lock()
	n.asking++
	n.mu.Unlock()
	defer func() {
		n.mu.Lock()
		defer n.mu.Unlock()
		if n.asking--; n.asking == 0 {
			clear(n.early)
		}
	}()
	call := conn.Object(service, object).CallWithContext(ctx, notify, 0,
		appName, n.numberOf(notice.Key), "", notice.Title, text, actions, hints, never)
	var number uint32
	if err := call.Store(&number); err != nil {
		n.drop(conn)
		return fmt.Errorf("the desktop does not show notifications: %w", err)
	}
	n.mu.Lock()
	defer n.mu.Unlock()
	n.shown[number] = notice.Key
	if answer, pressed := n.early[number]; pressed {
		delete(n.early, number)
		n.answer(notice.Key, answer)
	}
	return nil
}

// answer tells what was pressed on a notice.
func (n *Notifier) answer(key, answer string) {
	select {
	case n.answers <- app.NoticeAnswer{Key: key, Answer: answer}:
	default: // nobody listens, and the ring stays open
	}
}

// Withdraw implements app.Notifier.
func (n *Notifier) Withdraw(ctx context.Context, key string) {
	number := n.numberOf(key)
	n.mu.Lock()
	conn := n.conn
	delete(n.shown, number)
	n.mu.Unlock()
	if conn == nil || number == 0 {
		return
	}
	ctx, cancel := context.WithTimeout(ctx, timeout)
	defer cancel()
	// One that was closed meanwhile is an error, and as is wanted.
	conn.Object(service, object).CallWithContext(ctx, withdraw, 0, number)
}

// numberOf is the desktop's number of a notice, 0 where it is not shown.
func (n *Notifier) numberOf(key string) uint32 {
	n.mu.Lock()
	defer n.mu.Unlock()
	for number, k := range n.shown {
		if k == key {
			return number
		}
	}
	return 0
}

// connect returns the connection and what the desktop can show.
func (n *Notifier) connect(ctx context.Context) (*dbus.Conn, []string, error) {
	n.mu.Lock()
	defer n.mu.Unlock()
	if n.conn != nil && n.conn.Connected() {
		return n.conn, n.able, nil
	}
	// The connection lives for longer than the call; only while it is made does ctx end it.
	life, end := context.WithCancel(context.WithoutCancel(ctx))
	stop := context.AfterFunc(ctx, end)
	conn, able, err := dial(life)
	if !stop() && err == nil {
		err = ctx.Err()
	}
	if err != nil {
		end()
		return nil, nil, err
	}
	signals := make(chan *dbus.Signal, 64)
	conn.Signal(signals)
	go n.hear(signals)
	n.conn, n.able, n.shown, n.early = conn, able, map[uint32]string{}, map[uint32]string{}
	return conn, able, nil
}

func dial(ctx context.Context) (*dbus.Conn, []string, error) {
	conn, err := dbus.SessionBusPrivateNoAutoStartup(dbus.WithContext(ctx))
	if err != nil {
		return nil, nil, fmt.Errorf("there is no desktop to show notifications on: %w", err)
	}
	var able []string
	err = conn.Auth(nil)
	if err == nil {
		err = conn.Hello()
	}
	if err == nil {
		err = conn.AddMatchSignalContext(ctx, dbus.WithMatchInterface(service))
	}
	if err == nil {
		err = conn.Object(service, object).CallWithContext(ctx, abilities, 0).Store(&able)
	}
	if err != nil {
		return nil, nil, errors.Join(fmt.Errorf("the desktop does not show notifications: %w", err), conn.Close())
	}
	return conn, able, nil
}

// drop lets go of a connection that failed, so that the next notice makes another.
func (n *Notifier) drop(conn *dbus.Conn) {
	n.mu.Lock()
	defer n.mu.Unlock()
	if n.conn == conn {
		n.conn = nil
	}
	_ = conn.Close() // it has failed already
}

// hear takes what is pressed on notices until the connection ends.
func (n *Notifier) hear(signals <-chan *dbus.Signal) {
	for s := range signals {
		if len(s.Body) < 2 {
			continue
		}
		number, ok := s.Body[0].(uint32)
		if !ok {
			continue
		}
		n.mu.Lock()
		key, known := n.shown[number]
		if known && s.Name == closed {
			delete(n.shown, number)
		}
		answer, pressed := s.Body[1].(string)
		switch pressed = pressed && s.Name == invoked; {
		case pressed && known:
			n.answer(key, answer)
		case pressed && n.asking > 0 && len(n.early) < mostEarly: // the desktop has not told its number yet, or it is another program's
			n.early[number] = answer
		}
		n.mu.Unlock()
	}
}

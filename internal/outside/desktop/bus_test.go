package desktop_test

import (
	"bufio"
	"net"
	"os/exec"
	"path/filepath"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/godbus/dbus/v5"

	"tincup/internal/app"
	"tincup/internal/outside/desktop"
)

// startBus starts a bus for the test, and lets the Notifier find it.
func startBus(t *testing.T) string {
	t.Helper()
	cmd := exec.Command("dbus-daemon", "--session", "--nofork", "--print-address", "--address=unix:dir="+t.TempDir())
	out, err := cmd.StdoutPipe()
	if err != nil {
		t.Fatal(err)
	}
	if err := cmd.Start(); err != nil {
		t.Fatalf("the test needs dbus-daemon, of Debian's package dbus-daemon: %v", err)
	}
	t.Cleanup(func() {
		_ = cmd.Process.Kill()
		_ = cmd.Wait()
	})
	address, err := bufio.NewReader(out).ReadString('\n')
	if err != nil {
		t.Fatal(err)
	}
	address = strings.TrimSpace(address)
	t.Setenv("DBUS_SESSION_BUS_ADDRESS", address)
	return address
}

// service is a small desktop: the service of the Desktop Notifications Specification.
type service struct {
	mu     sync.Mutex
	conn   *dbus.Conn
	last   uint32
	shown  map[uint32]shown
	able   []string
	closes []uint32
}

type shown struct {
	Summary, Body string
	Actions       []string
	Expire        int32
}

func startService(t *testing.T, address string, able ...string) *service {
	t.Helper()
	conn, err := dbus.Connect(address)
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { _ = conn.Close() })
	s := &service{conn: conn, shown: map[uint32]shown{}, able: able}
	if err := conn.Export(s, "/org/freedesktop/Notifications", "org.freedesktop.Notifications"); err != nil {
		t.Fatal(err)
	}
	if reply, err := conn.RequestName("org.freedesktop.Notifications", dbus.NameFlagDoNotQueue); err != nil || reply != dbus.RequestNameReplyPrimaryOwner {
		t.Fatalf("the name is not ours: %v, %v", reply, err)
	}
	return s
}

// The methods of the specification, section 9.

func (s *service) GetCapabilities() ([]string, *dbus.Error) { return s.able, nil }

func (s *service) Notify(_ string, replaces uint32, _, summary, body string, actions []string, _ map[string]dbus.Variant, expire int32) (uint32, *dbus.Error) {
	s.mu.Lock()
	defer s.mu.Unlock()
	number := replaces
	if number == 0 {
		s.last++
		number = s.last
	}
	s.shown[number] = shown{summary, body, actions, expire}
	return number, nil
}

func (s *service) CloseNotification(number uint32) *dbus.Error {
	s.mu.Lock()
	defer s.mu.Unlock()
	delete(s.shown, number)
	s.closes = append(s.closes, number)
	_ = s.conn.Emit("/org/freedesktop/Notifications", "org.freedesktop.Notifications.NotificationClosed", number, uint32(3))
	return nil
}

func (s *service) press(t *testing.T, number uint32, action string) {
	t.Helper()
	if err := s.conn.Emit("/org/freedesktop/Notifications", "org.freedesktop.Notifications.ActionInvoked", number, action); err != nil {
		t.Fatal(err)
	}
}

func (s *service) seen() map[uint32]shown {
	s.mu.Lock()
	defer s.mu.Unlock()
	copied := map[uint32]shown{}
	for number, n := range s.shown {
		copied[number] = n
	}
	return copied
}

func TestNotifications(t *testing.T) {
	s := startService(t, startBus(t), "actions", "body", "body-markup")
	n := desktop.New()
	if err := n.Notify(t.Context(), app.Notice{Key: "a", Title: "Ring <the> insurer", Text: "Tue 24 Nov, 09:30 <b>&", Answers: true}); err != nil {
		t.Fatal(err)
	}
	if err := n.Notify(t.Context(), app.Notice{Key: "b", Title: "Many", Text: "x"}); err != nil {
		t.Fatal(err)
	}
	seen := s.seen()
	if one := seen[1]; one.Summary != "Ring <the> insurer" || one.Body != "Tue 24 Nov, 09:30 &lt;b&gt;&amp;" || strings.Join(one.Actions, " ") != "done Done later Later" || one.Expire != 0 {
		t.Errorf("it shows %+v", one)
	}
	if len(seen[2].Actions) != 0 {
		t.Errorf("what cannot be answered has %v", seen[2].Actions)
	}
	s.press(t, 1, "done")
	s.press(t, 9, "done") // somebody else's
	select {
	case a := <-n.Answers():
		if a != (app.NoticeAnswer{Key: "a", Answer: app.NoticeDone}) {
			t.Errorf("the answer is %+v", a)
		}
	case <-time.After(10 * time.Second):
		t.Fatal("what was pressed was not heard")
	}
	// One of the same key takes the place of the one before.
	if err := n.Notify(t.Context(), app.Notice{Key: "a", Title: "Again", Answers: true}); err != nil || len(s.seen()) != 2 || s.seen()[1].Summary != "Again" {
		t.Errorf("%v, %+v", err, s.seen())
	}
	n.Withdraw(t.Context(), "a")
	n.Withdraw(t.Context(), "nothing")
	if len(s.seen()) != 1 || len(s.closes) != 1 {
		t.Errorf("withdrawn: %v; shown %v", s.closes, s.seen())
	}
}

// A desktop that shows no buttons and no markup is given none.
func TestPlainDesktop(t *testing.T) {
	s := startService(t, startBus(t), "body")
	n := desktop.New()
	if err := n.Notify(t.Context(), app.Notice{Key: "a", Title: "x", Text: "<b>", Answers: true}); err != nil {
		t.Fatal(err)
	}
	if one := s.seen()[1]; len(one.Actions) != 0 || one.Body != "<b>" {
		t.Errorf("it shows %+v", one)
	}
}

func TestNoDesktop(t *testing.T) {
	t.Setenv("DBUS_SESSION_BUS_ADDRESS", "unix:path="+filepath.Join(t.TempDir(), "none"))
	n := desktop.New()
	if err := n.Notify(t.Context(), app.Notice{Key: "a", Title: "x"}); err == nil || !strings.Contains(err.Error(), "no desktop") {
		t.Errorf("without a bus: %v", err)
	}
	n.Withdraw(t.Context(), "a")
	// A bus on which no desktop answers.
	startBus(t)
	if err := n.Notify(t.Context(), app.Notice{Key: "a", Title: "x"}); err == nil || !strings.Contains(err.Error(), "does not show notifications") {
		t.Errorf("with a bus alone: %v", err)
	}
}

// A bus that takes the connection and says nothing holds a notice up for a few seconds, and
// nothing else.
func TestBusThatHangs(t *testing.T) {
	path := filepath.Join(t.TempDir(), "bus")
	l, err := net.Listen("unix", path)
	if err != nil {
		t.Fatal(err)
	}
	defer l.Close()
	t.Setenv("DBUS_SESSION_BUS_ADDRESS", "unix:path="+path)
	began := time.Now()
	err = desktop.New().Notify(t.Context(), app.Notice{Key: "a", Title: "x"})
	if took := time.Since(began); err == nil || took > 20*time.Second {
		t.Errorf("after %v: %v", took, err)
	}
}

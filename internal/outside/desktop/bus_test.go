package desktop_test

import (
	"net"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"tincup/internal/app"
	"tincup/internal/outside/desktop"
	standin "tincup/internal/standin/desktop"
)

// startBus starts a bus for the test, and lets the Notifier find it.
func startBus(t *testing.T) string {
	t.Helper()
	address, stop, err := standin.StartBus(t.TempDir())
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(stop)
	t.Setenv("DBUS_SESSION_BUS_ADDRESS", address)
	return address
}

func startDesktop(t *testing.T, able ...string) *standin.Desktop {
	t.Helper()
	d, err := standin.Start(startBus(t), able...)
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { _ = d.Close() })
	return d
}

func press(t *testing.T, d *standin.Desktop, number uint32, action string) {
	t.Helper()
	if err := d.Press(number, action); err != nil {
		t.Fatal(err)
	}
}

func TestNotifications(t *testing.T) {
	s := startDesktop(t, "actions", "body", "body-markup")
	n := desktop.New()
	if err := n.Notify(t.Context(), app.Notice{Key: "a", Title: "Ring <the> insurer", Text: "Tue 24 Nov, 09:30 <b>&", Answers: true}); err != nil {
		t.Fatal(err)
	}
	if err := n.Notify(t.Context(), app.Notice{Key: "b", Title: "Many", Text: "x"}); err != nil {
		t.Fatal(err)
	}
	seen := s.Shown()
	if one := seen[1]; one.Title != "Ring <the> insurer" || one.Text != "Tue 24 Nov, 09:30 &lt;b&gt;&amp;" || strings.Join(one.Actions, " ") != "done Done later Later" || one.Expire != 0 {
		t.Errorf("it shows %+v", one)
	}
	if len(seen[2].Actions) != 0 {
		t.Errorf("what cannot be answered has %v", seen[2].Actions)
	}
	press(t, s, 1, "done")
	press(t, s, 9, "done") // somebody else's
	select {
	case a := <-n.Answers():
		if a != (app.NoticeAnswer{Key: "a", Answer: app.NoticeDone}) {
			t.Errorf("the answer is %+v", a)
		}
	case <-time.After(10 * time.Second):
		t.Fatal("what was pressed was not heard")
	}
	// One of the same key takes the place of the one before.
	if err := n.Notify(t.Context(), app.Notice{Key: "a", Title: "Again", Answers: true}); err != nil || len(s.Shown()) != 2 || s.Shown()[1].Title != "Again" {
		t.Errorf("%v, %+v", err, s.Shown())
	}
	n.Withdraw(t.Context(), "a")
	n.Withdraw(t.Context(), "nothing")
	if len(s.Shown()) != 1 || len(s.Closed()) != 1 {
		t.Errorf("withdrawn: %v; shown %v", s.Closed(), s.Shown())
	}
}

// A desktop that shows no buttons and no markup is given none.
func TestPlainDesktop(t *testing.T) {
	s := startDesktop(t, "body")
	n := desktop.New()
	if err := n.Notify(t.Context(), app.Notice{Key: "a", Title: "x", Text: "<b>", Answers: true}); err != nil {
		t.Fatal(err)
	}
	if one := s.Shown()[1]; len(one.Actions) != 0 || one.Text != "<b>" {
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

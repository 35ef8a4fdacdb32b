// Package desktop is a simulated desktop: a session's D-Bus and the service of the Desktop
// Notifications Specification (version 1.3) on it, which shows nothing and remembers all.
package desktop

import (
	"bufio"
	"fmt"
	"maps"
	"os/exec"
	"strings"
	"sync"

	"github.com/godbus/dbus/v5"
)

const (
	service = "org.freedesktop.Notifications"
	object  = dbus.ObjectPath("/org/freedesktop/Notifications")
)

// StartBus starts a bus of its own whose socket lies in a folder. It wants dbus-daemon, of
// Debian's package of that name. The bus ends with stop.
func StartBus(folder string) (address string, stop func(), err error) {
	cmd := exec.Command("dbus-daemon", "--session", "--nofork", "--print-address", "--address=unix:dir="+folder)
	out, err := cmd.StdoutPipe()
	if err != nil {
		return "", nil, err
	}
	if err := cmd.Start(); err != nil {
		return "", nil, fmt.Errorf("dbus-daemon does not start; Debian's package dbus-daemon has it: %w", err)
	}
	stop = func() {
		_ = cmd.Process.Kill() // it may have ended
		_ = cmd.Wait()
	}
	if address, err = bufio.NewReader(out).ReadString('\n'); err != nil {
		stop()
		return "", nil, fmt.Errorf("dbus-daemon does not say where it is: %w", err)
	}
	return strings.TrimSpace(address), stop, nil
}

// Notification is one that is shown.
type Notification struct {
	Title, Text string
	Actions     []string
	// Expire is in milliseconds; 0 is never.
	Expire int32
}

// Desktop is the service. It is safe for concurrent use.
type Desktop struct {
	conn *dbus.Conn
	able []string

	mu    sync.Mutex
	last  uint32
	shown map[uint32]Notification
	// came are the titles of all that was ever shown.
	came   []string
	closed []uint32
}

// Start puts a desktop on a bus; able is what it says it can show.
func Start(address string, able ...string) (*Desktop, error) {
	conn, err := dbus.Connect(address)
	if err != nil {
		return nil, err
	}
	d := &Desktop{conn: conn, shown: map[uint32]Notification{}, able: able}
	if err := conn.Export((*methods)(d), object, service); err != nil {
		return nil, err
	}
	reply, err := conn.RequestName(service, dbus.NameFlagDoNotQueue)
	if err == nil && reply != dbus.RequestNameReplyPrimaryOwner {
		err = fmt.Errorf("there is a desktop on the bus %s already", address)
	}
	return d, err
}

// Close takes the desktop off its bus.
func (d *Desktop) Close() error { return d.conn.Close() }

// Shown are the notifications by the numbers they have.
func (d *Desktop) Shown() map[uint32]Notification {
	d.mu.Lock()
	defer d.mu.Unlock()
	return maps.Clone(d.shown)
}

// Closed are the numbers of those that were taken back.
func (d *Desktop) Closed() []uint32 {
	d.mu.Lock()
	defer d.mu.Unlock()
	return append([]uint32{}, d.closed...)
}

// Came is how often each title was shown.
func (d *Desktop) Came() map[string]int {
	d.mu.Lock()
	defer d.mu.Unlock()
	times := map[string]int{}
	for _, title := range d.came {
		times[title]++
	}
	return times
}

// Press presses a button of a notification.
func (d *Desktop) Press(number uint32, action string) error {
	return d.conn.Emit(object, service+".ActionInvoked", number, action)
}

// methods are those of the specification, section 9.
type methods Desktop

// GetCapabilities says what the desktop can show.
func (m *methods) GetCapabilities() ([]string, *dbus.Error) { return m.able, nil }

// Notify shows a notification, in the place of another where replaces is its number.
func (m *methods) Notify(_ string, replaces uint32, _, title, text string, actions []string, _ map[string]dbus.Variant, expire int32) (uint32, *dbus.Error) {
	m.mu.Lock()
	defer m.mu.Unlock()
	number := replaces
	if number == 0 {
		m.last++
		number = m.last
	}
	m.shown[number] = Notification{title, text, actions, expire}
	m.came = append(m.came, title)
	return number, nil
}

// CloseNotification takes one back.
func (m *methods) CloseNotification(number uint32) *dbus.Error {
	m.mu.Lock()
	defer m.mu.Unlock()
	delete(m.shown, number)
	m.closed = append(m.closed, number)
	if err := m.conn.Emit(object, service+".NotificationClosed", number, uint32(3)); err != nil {
		return dbus.MakeFailedError(err)
	}
	return nil
}

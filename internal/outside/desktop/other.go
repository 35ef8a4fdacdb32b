//go:build !unix || darwin

package desktop

import (
	"context"
	"fmt"

	"github.com/gen2brain/beeep"

	"tincup/internal/app"
)

// Notifier shows notifications as the system does. They cannot be taken back, nor answered.
type Notifier struct{}

// New returns a Notifier.
func New() *Notifier {
	beeep.AppName = appName
	return &Notifier{}
}

// Answers implements app.Notifier: there are none.
func (*Notifier) Answers() <-chan app.NoticeAnswer { return nil }

// Notify implements app.Notifier.
func (*Notifier) Notify(ctx context.Context, notice app.Notice) error {
	done := make(chan error, 1)
	go func() { done <- beeep.Notify(notice.Title, notice.Text, "") }()
	ctx, cancel := context.WithTimeout(ctx, timeout)
	defer cancel()
	select {
	case err := <-done:
		if err != nil {
			return fmt.Errorf("the system does not show notifications: %w", err)
		}
		return nil
	case <-ctx.Done():
		return fmt.Errorf("the system does not show notifications: %w", ctx.Err())
	}
}

// Withdraw implements app.Notifier: what is shown stays.
func (*Notifier) Withdraw(context.Context, string) {}

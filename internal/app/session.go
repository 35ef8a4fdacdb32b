package app

import (
	"tincup/internal/core/book"
)

// Session is the App as one account uses it: what it reads is at the account's desk, and
// what it does is done by the account. It is safe for concurrent use.
type Session struct {
	*App
	desk *book.Desk
}

// As returns the App as an account uses it, or a *book.NotFoundError.
func (a *App) As(account book.ID) (*Session, error) {
	desk, err := a.book.Desk(account)
	if err != nil {
		return nil, err
	}
	return &Session{a, desk}, nil
}

// Owner returns the App as its owner uses it.
func (a *App) Owner() *Session {
	desk, _ := a.book.Desk(a.book.Owner())
	return &Session{a, desk}
}

// everyone returns a session of each account.
func (a *App) everyone() []*Session {
	var all []*Session
	for _, account := range a.book.Accounts() {
		if s, err := a.As(account); err == nil {
			all = append(all, s)
		}
	}
	return all
}

// Account is the one whose session it is.
func (s *Session) Account() book.ID { return s.desk.Account() }

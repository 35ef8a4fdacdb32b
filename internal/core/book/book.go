package book

import (
	"fmt"
	"slices"
)

// Book holds every row of an installation: of each account a Desk. Make one with New.
type Book struct {
	revision int64
	notes    Notes
	// accounts are in the order in which they came; the first is the owner.
	accounts []ID
	desks    map[ID]*Desk
}

// New returns an empty Book of some accounts, the owner first, whose notes are found in
// notes.
func New(notes Notes, accounts ...ID) *Book {
	b := &Book{notes: notes, accounts: slices.Clone(accounts), desks: make(map[ID]*Desk, len(accounts))}
	for _, account := range accounts {
		b.desks[account] = newDesk(b, account)
	}
	return b
}

// Alone returns an empty Book of one account, and its desk, for what needs no file.
func Alone(notes Notes) (*Book, *Desk) {
	one := ID{15: 1}
	b := New(notes, one)
	return b, b.desks[one]
}

// Owner is the account that was made at the first start.
func (b *Book) Owner() ID { return b.accounts[0] }

// Accounts returns every account, the owner first.
func (b *Book) Accounts() []ID { return slices.Clone(b.accounts) }

// Desk returns the Book as an account sees it, or a *NotFoundError.
func (b *Book) Desk(account ID) (*Desk, error) {
	if desk, ok := b.desks[account]; ok {
		return desk, nil
	}
	return nil, &NotFoundError{"account", account}
}

// Revision counts the changes applied so far.
func (b *Book) Revision() int64 { return b.revision }

// Apply makes the change part of the Book, at the desk of who made it. The caller has
// kept it before; it must be the next one for this Book, and Apply panics when it is
// not, or when there is no such account.
func (b *Book) Apply(c *Change) {
	if c.Revision != b.revision+1 {
		panic(fmt.Sprintf("book: change %d applied at revision %d", c.Revision, b.revision))
	}
	b.revision = c.Revision
	b.load(c)
}

// Load puts rows into an empty Book, as read from a file, each account's at its desk,
// and sets its revision.
func (b *Book) Load(revision int64, rows ...*Change) {
	b.revision = revision
	for _, c := range rows {
		b.load(c)
	}
}

func (b *Book) load(c *Change) {
	desk, ok := b.desks[c.Actor]
	if !ok {
		panic(fmt.Sprintf("book: a change of %s, which is no account", c.Actor))
	}
	desk.load(c)
}

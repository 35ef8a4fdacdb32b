package app

import (
	"context"
	"errors"
	"fmt"
	"io"
	"mime"
	"net/http"
	"os"
	"path"
	"strings"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/store"
)

// Pictures are the media types that are shown in the page.
var Pictures = map[string]bool{"image/png": true, "image/jpeg": true, "image/gif": true, "image/webp": true}

// AttachFile keeps the bytes of a file and adds it to a to-do. What is no name
// of a file, is empty, too large, or not the picture that its name promises is
// refused with a *book.RuleError.
func (a *Session) AttachFile(ctx context.Context, req Request, todo book.ID, name string, r io.Reader, respond Responder) (*store.Reply, error) {
	name, err := book.CheckFileName(name)
	if err != nil {
		return nil, err
	}
	if err := a.exists(todo); err != nil {
		return nil, err
	}
	kept, file, err := a.keepFile(name, r)
	if err != nil {
		return nil, err
	}
	if req.Key != "" {
		req.Fingerprint = append(req.Fingerprint, file.Hash...)
	}
	reply, err := a.Run(ctx, req, book.Attach{ID: todo, File: file}, respond)
	return reply, errors.Join(err, a.store.Settle(kept, err == nil))
}

// KeepFile keeps the bytes of a file, for a to-do to have; what no to-do has a day later
// goes again. It refuses what AttachFile does.
func (a *Session) KeepFile(name string, r io.Reader) (book.Attachment, error) {
	name, err := book.CheckFileName(name)
	if err != nil {
		return book.Attachment{}, err
	}
	kept, file, err := a.keepFile(name, r)
	if err != nil {
		return file, err
	}
	return file, a.store.Settle(kept, true)
}

// keepFile keeps the bytes of a file; what becomes of them is for the caller to
// settle.
func (a *App) keepFile(name string, r io.Reader) (store.File, book.Attachment, error) {
	kept, err := a.store.PutFile(r, book.MaxAttachment)
	file := book.Attachment{Name: name, Hash: kept.Hash, Size: kept.Size, Type: http.DetectContentType(kept.Head)}
	switch promised := mime.TypeByExtension(strings.ToLower(path.Ext(name))); {
	case errors.Is(err, store.ErrTooLarge):
		return kept, file, &book.RuleError{Field: "file", Reason: fmt.Sprintf("“%s” has more than %d MB, which is the most.", name, book.MaxAttachment>>20)}
	case err != nil:
		return kept, file, err
	case kept.Size > 0 && Pictures[promised] && promised != file.Type:
		return kept, file, errors.Join(&book.RuleError{Field: "file", Reason: fmt.Sprintf(
			"“%s” has the name of a picture, and its bytes are none (%s). Give it the name of what it is.", name, file.Type)},
			a.store.Settle(kept, false))
	}
	return kept, file, nil
}

// errNoFile says that bytes which a to-do is to have are not kept.
var errNoFile = &book.RuleError{Field: "files", Reason: "A file is not there any more. Choose it again."}

// kept finds bytes that were kept before, for a to-do to have under a name.
func (a *Session) kept(name, hash string) (book.Attachment, error) {
	f, err := a.store.OpenFile(hash)
	if errors.Is(err, os.ErrNotExist) || errors.Is(err, store.ErrAltered) {
		return book.Attachment{}, errNoFile
	}
	if err != nil {
		return book.Attachment{}, err
	}
	defer f.Close()
	info, err := f.Stat()
	if err != nil {
		return book.Attachment{}, err
	}
	head := make([]byte, 512) // as many bytes as http.DetectContentType looks at
	n, err := f.ReadAt(head, 0)
	if err != nil && err != io.EOF {
		return book.Attachment{}, err
	}
	return book.Attachment{Name: name, Hash: hash, Size: info.Size(), Type: http.DetectContentType(head[:n])}, nil
}

func (a *Session) exists(todo book.ID) (err error) {
	a.Read(func(b *book.Desk, _ day.Clock) { _, err = b.Todo(todo) })
	return err
}

// OpenAttachment opens a file of a to-do by its hash. It fails with
// book.ErrNotFound where the to-do has none such.
func (a *Session) OpenAttachment(todo book.ID, hash string) (file book.Attachment, bytes *os.File, err error) {
	a.Read(func(b *book.Desk, _ day.Clock) {
		var t *book.Todo
		if t, err = b.Todo(todo); err != nil {
			return
		}
		err = book.ErrNotFound
		for _, f := range t.Attachments {
			if f.Hash == hash {
				file, err = f, nil
			}
		}
	})
	if err != nil {
		return file, nil, err
	}
	bytes, err = a.store.OpenFile(hash)
	if errors.Is(err, os.ErrNotExist) {
		return file, nil, fmt.Errorf("%w: the file is not in the folder", book.ErrNotFound)
	}
	return file, bytes, err
}

package store

import (
	"errors"
	"io/fs"
	"os"
	"path/filepath"
)

// MakeFolder makes a folder that only its owner can look into, and those above it
// that are missing. Each new name is on the disk when it returns nil.
func MakeFolder(path string) error {
	if info, err := os.Stat(path); err == nil {
		if info.IsDir() {
			return nil
		}
		return &fs.PathError{Op: "mkdir", Path: path, Err: errors.New("a file is in its place")}
	} else if !errors.Is(err, fs.ErrNotExist) {
		return err
	}
	above := filepath.Dir(path)
	if err := MakeFolder(above); err != nil {
		return err
	}
	if err := os.Mkdir(path, 0o700); err != nil && !errors.Is(err, fs.ErrExist) {
		return err
	}
	return syncFolder(above)
}

// syncFolder writes the names in a folder to the disk.
func syncFolder(path string) error {
	d, err := os.Open(path)
	if err != nil {
		return err
	}
	return errors.Join(d.Sync(), d.Close())
}

// writeFile puts a whole small file in its place, or leaves what was there. It is
// on the disk when it returns nil.
func writeFile(path string, content []byte) error {
	next := path + ".next"
	f, err := os.OpenFile(next, os.O_WRONLY|os.O_CREATE|os.O_TRUNC, 0o600)
	if err != nil {
		return err
	}
	_, err = f.Write(content)
	if err == nil {
		err = f.Sync()
	}
	if err := errors.Join(err, f.Close()); err != nil {
		return errors.Join(err, os.Remove(next))
	}
	if err := os.Rename(next, path); err != nil {
		return err
	}
	return syncFolder(filepath.Dir(path))
}

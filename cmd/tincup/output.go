package main

import (
	"errors"
	"fmt"
	"io"
	"io/fs"
	"os"
	"path/filepath"
)

// writeFile writes a file that is there once it is whole: until then what was there before stays,
// and where writing fails nothing else is left. A link stays one, and what it points at is written.
// What is no regular file, such as a device or a pipe, is written to as it stands.
func writeFile(path string, write func(io.Writer) error) (err error) {
	defer func() {
		if err != nil {
			err = fmt.Errorf("%s is not written: %w", path, err)
		}
	}()
	to := path
	if real, err := filepath.EvalSymlinks(path); err == nil {
		to = real
	}
	mode := os.FileMode(0o600)
	switch there, err := os.Stat(to); {
	case errors.Is(err, fs.ErrNotExist):
	case err != nil:
		return err
	case there.IsDir():
		return errors.New("it is a folder; give the name of a file")
	case !there.Mode().IsRegular():
		out, err := os.OpenFile(to, os.O_WRONLY, 0)
		if err != nil {
			return err
		}
		return errors.Join(write(out), out.Close())
	default:
		mode = there.Mode().Perm()
	}
	out, err := os.CreateTemp(filepath.Dir(to), ".tincup-*")
	if err != nil {
		return err
	}
	if err = errors.Join(write(out), out.Chmod(mode)); err == nil {
		err = out.Sync()
	}
	if err = errors.Join(err, out.Close()); err == nil {
		err = os.Rename(out.Name(), to)
	}
	if err != nil {
		return errors.Join(err, os.Remove(out.Name()))
	}
	return nil
}

package store

import (
	"crypto/sha256"
	"errors"
	"fmt"
	"os"
	"path/filepath"

	"github.com/gofrs/flock"
)

// Scratch makes a folder for files on their way in or out. Who asked for it removes it; one that is left where the
// program is killed goes when the data file is next opened.
func (s *Store) Scratch() (string, error) {
	prefix, err := scratch(s.path)
	if err != nil {
		return "", err
	}
	dir, err := os.MkdirTemp(filepath.Dir(prefix), filepath.Base(prefix))
	if err != nil {
		return "", errors.Join(ErrDisk, err)
	}
	return dir, nil
}

// scratch is what the folders of a data file begin with: its own, since others may be open on this machine.
func scratch(path string) (string, error) {
	abs, err := filepath.Abs(path)
	sum := sha256.Sum256([]byte(abs))
	return filepath.Join(os.TempDir(), fmt.Sprintf("kindmargin-%x-", sum[:8])), err
}

// sweep takes away what a program that was killed left half done; what will not go does no harm. While another
// program has the data file open nothing is touched: it may be that one's.
func sweep(path string) {
	lock := flock.New(path + ".lock")
	if alone, err := lock.TryLock(); err != nil || !alone {
		return
	}
	defer func() { _ = lock.Unlock() }()
	begins := []string{path + ".restoring"}
	if prefix, err := scratch(path); err == nil {
		begins = append(begins, prefix)
	}
	for _, b := range begins {
		left, _ := filepath.Glob(globbed(b) + "*")
		for _, name := range left {
			_ = os.RemoveAll(name)
		}
	}
}

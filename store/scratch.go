package store

import (
	"crypto/sha256"
	"errors"
	"fmt"
	"os"
	"path/filepath"

	"github.com/gofrs/flock"
)

// Scratch makes a temporary folder for files on their way in or out. The caller removes it; one that a killed program
// left is removed when the data file is next opened.
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

// scratch is the prefix of a data file's folders: its own, since other data files may be open on this machine.
func scratch(path string) (string, error) {
	abs, err := filepath.Abs(path)
	sum := sha256.Sum256([]byte(abs))
	return filepath.Join(os.TempDir(), fmt.Sprintf("kindmargin-%x-", sum[:8])), err
}

// sweep removes what a killed program left; what cannot be removed does no harm. While another program has the data
// file open nothing is touched.
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

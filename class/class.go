// Package class hands out practice openings to a class: the true opening is encrypted for the teacher's key (age,
// X25519), so that no learner's file reveals it, and no attempt is graded without it.
package class

import (
	"bytes"
	"errors"
	"fmt"
	"io"
	"io/fs"
	"os"
	"strings"

	"filippo.io/age"
	"filippo.io/age/armor"

	"kindmargin/core/practice"
)

// Key reads the teacher's key from a file, or makes one there with permissions for its owner only.
func Key(path string) (*age.X25519Identity, error) {
	b, err := os.ReadFile(path)
	if errors.Is(err, fs.ErrNotExist) {
		key, err := age.GenerateX25519Identity()
		if err != nil {
			return nil, err
		}
		f, err := os.OpenFile(path, os.O_CREATE|os.O_EXCL|os.O_WRONLY, 0o600)
		if err != nil {
			return nil, err
		}
		_, err = fmt.Fprintf(f, "# The key of a class of Kind Margin: keep it, and keep it to yourself.\n%s\n", key)
		return key, errors.Join(err, f.Close())
	}
	if err != nil {
		return nil, err
	}
	for line := range strings.Lines(string(b)) {
		if line = strings.TrimSpace(line); line != "" && !strings.HasPrefix(line, "#") {
			key, err := age.ParseX25519Identity(line)
			if err != nil {
				return nil, fmt.Errorf("%s holds no key of a class: %w", path, err)
			}
			return key, nil
		}
	}
	return nil, fmt.Errorf("%s holds no key of a class", path)
}

// Seal is an exercise for a class, its true opening sealed for a key's owner.
func Seal(e practice.Exercise, to age.Recipient) (practice.Exercise, error) {
	whole, open := practice.ForClass(e)
	var b bytes.Buffer
	a := armor.NewWriter(&b)
	w, err := age.Encrypt(a, to)
	if err != nil {
		return e, err
	}
	if _, err := w.Write(whole.Write()); err != nil {
		return e, err
	}
	if err := errors.Join(w.Close(), a.Close()); err != nil {
		return e, err
	}
	return open.Seal(b.String()), nil
}

// mostSealed is the largest sealed part that is read, in bytes.
const mostSealed = 1 << 20

// Open is an attempt at a class's exercise with what was sealed in it, ready to be graded. One that was sealed for
// another key, or altered, is rejected.
func Open(attempt practice.Exercise, key age.Identity) (practice.Exercise, error) {
	r, err := age.Decrypt(armor.NewReader(strings.NewReader(attempt.Sealed)), key)
	if err != nil {
		return attempt, fmt.Errorf(
			"it was not sealed for this key, or it was altered: grade it with the key that practice new made it with",
		)
	}
	b, err := io.ReadAll(io.LimitReader(r, mostSealed))
	if err != nil {
		return attempt, fmt.Errorf("the exercise was altered: what is sealed in it cannot be read")
	}
	whole, err := practice.Read(b)
	if err != nil {
		return attempt, err
	}
	return attempt.Opened(whole)
}

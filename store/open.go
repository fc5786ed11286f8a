// Package store keeps jobs in SQLite: migrations, queries and backup, nothing else. Each opening has an append-only
// history of changes; a save is one transaction, synced to disk before it is acknowledged.
package store

import (
	"context"
	"database/sql"
	"embed"
	"encoding/binary"
	"errors"
	"fmt"
	"io/fs"
	"net/url"
	"os"
	"runtime"
	"time"

	"github.com/gofrs/flock"
	"modernc.org/sqlite"
	lib "modernc.org/sqlite/lib"
)

//go:embed migrations/*.sql
var migrations embed.FS

// Errors of the store, for errors.Is.
var (
	ErrNotFound = errors.New("not found")
	// ErrStale is a change based on an older version than the stored one.
	ErrStale = errors.New("stale version")
	// ErrNothing is an undo or redo with nothing to undo or redo.
	ErrNothing = errors.New("nothing to undo or redo")
	// ErrDisk is a disk that is full, read-only or failing.
	ErrDisk = errors.New("disk")
	// ErrBusy is a data file that another program holds for too long.
	ErrBusy = errors.New("held by another program")
	// ErrFull is a job with MostOpenings openings.
	ErrFull = errors.New("full")
	// ErrGone is a data file that was removed, or has another in its place, while it is open.
	ErrGone = errors.New("the data file was removed or replaced")
	// ErrNewer is a data file of a newer program.
	ErrNewer = errors.New("it was made by a newer program")
	// ErrDamaged is a data file, or one record in it, that cannot be read back.
	ErrDamaged = errors.New("damaged")
)

// mark is the application_id of a data file, since version 3.
const mark = 1263366759

// demoMark is the user_version of a demo's data file, which may be replaced.
const demoMark = 0xDE30

// Store is an open data file: one connection for writing, several for reading. Its methods are safe for concurrent use.
type Store struct {
	path        string
	file        os.FileInfo // that is open
	write, read *sql.DB
	save        map[string]*sql.Stmt // of write, by their text
	opening     *sql.Stmt            // of read
	lock        *flock.Flock
}

// Open opens or creates the data file and migrates it to the newest version. A foreign or damaged file is rejected
// before anything is written to it; before a migration a copy is put beside it.
func Open(ctx context.Context, path string) (*Store, error) {
	s := &Store{path: path, save: map[string]*sql.Stmt{}}
	if err := s.open(ctx, path); err != nil {
		_ = s.Close()
		return nil, fmt.Errorf("the data file %s cannot be used: %w", path, disk(err))
	}
	return s, nil
}

func (s *Store) open(ctx context.Context, path string) error {
	exists, err := recognise(ctx, path)
	if err != nil {
		return err
	}
	if !exists { // made here, so that only its owner can read it
		f, err := os.OpenFile(path, os.O_CREATE|os.O_RDWR, 0o600)
		if err != nil {
			return fmt.Errorf("%w: %w", ErrDisk, err)
		}
		if err := f.Close(); err != nil {
			return err
		}
	}
	sweep(path)
	s.lock = flock.New(path + ".lock")
	// Another program locks it only for a moment, when it starts.
	wait, end := context.WithTimeout(ctx, 5*time.Second)
	defer end()
	if ok, err := s.lock.TryRLockContext(wait, 10*time.Millisecond); err != nil || !ok {
		return errors.Join(ErrBusy, err)
	}
	if s.write, err = connect(path, url.Values{"_txlock": {"immediate"}, "_pragma": {
		"busy_timeout(5000)", "journal_mode(WAL)", "synchronous(FULL)", "foreign_keys(1)",
	}}); err != nil {
		return err
	}
	s.write.SetMaxOpenConns(1)
	if err := s.migrate(ctx, path); err != nil {
		return err
	}
	if s.file, err = os.Stat(path); err != nil {
		return err
	}
	if s.read, err = connect(path, url.Values{"_pragma": {"busy_timeout(5000)", "query_only(1)"}}); err != nil {
		return err
	}
	s.read.SetMaxOpenConns(2 * runtime.GOMAXPROCS(0))
	s.read.SetMaxIdleConns(2 * runtime.GOMAXPROCS(0))
	if s.opening, err = s.read.PrepareContext(ctx, oneQuery); err != nil {
		return err
	}
	for _, q := range []string{addChangeQuery, moveQuery, walkQuery} {
		if s.save[q], err = s.write.PrepareContext(ctx, q); err != nil {
			return err
		}
	}
	return nil
}

// connect opens a database. Its schema is not trusted, and changed by SQL only.
func connect(path string, q url.Values) (*sql.DB, error) {
	q.Add("_pragma", "trusted_schema(0)")
	q.Set("_defensive", "1")
	return sql.Open("sqlite", "file:"+(&url.URL{Path: path}).EscapedPath()+"?"+q.Encode())
}

// recognise reports whether the file exists, and rejects a foreign or damaged one. It writes nothing.
func recognise(ctx context.Context, path string) (exists bool, err error) {
	id, _, err := header(path)
	switch {
	case errors.Is(err, fs.ErrNotExist):
		return false, nil
	case errors.Is(err, errEmpty): // made, and then the power went
		return true, nil
	case err != nil:
		return true, err
	case id != 0 && id != mark:
		return true, errors.New("it belongs to another program; nothing was written to it. Choose another file")
	}
	db, err := connect(path, url.Values{"mode": {"ro"}, "_pragma": {"busy_timeout(5000)"}})
	if err != nil {
		return true, err
	}
	defer db.Close()
	if err := sound(ctx, db, "quick_check"); err != nil {
		return true, err
	}
	return true, sameSchema(ctx, db)
}

var errEmpty = errors.New("an empty file")

// header reads a file's application_id and user_version from SQLite's header (its file format, 1.3: big-endian at bytes
// 68 and 60).
func header(path string) (id, version uint32, err error) {
	f, err := os.Open(path)
	if err != nil {
		return 0, 0, fmt.Errorf("%w: %w", ErrDisk, err)
	}
	defer f.Close()
	b := make([]byte, 100)
	n, err := f.Read(b)
	switch {
	case n == 0:
		return 0, 0, errEmpty
	case n < len(b) || string(b[:15]) != "SQLite format 3":
		return 0, 0, errors.New("it is no data file of Kind Margin; nothing was written to it. Choose another file")
	}
	return binary.BigEndian.Uint32(b[68:]), binary.BigEndian.Uint32(b[60:]), err
}

// sound runs quick_check or integrity_check.
func sound(ctx context.Context, db *sql.DB, how string) error {
	var says string
	if err := db.QueryRowContext(ctx, `PRAGMA `+how+`(1)`).Scan(&says); err != nil {
		return damaged(err)
	}
	if says != "ok" {
		return fmt.Errorf(
			"%w: %s. Nothing was written to it: keep a copy of it as it is, and go on from a backup", ErrDamaged, says,
		)
	}
	return nil
}

func damaged(err error) error {
	var e *sqlite.Error
	if errors.As(err, &e) && (e.Code()&0xff == lib.SQLITE_CORRUPT || e.Code()&0xff == lib.SQLITE_NOTADB) {
		return fmt.Errorf(
			"%w: %w. Nothing was written to it: keep a copy of it as it is, and go on from a backup", ErrDamaged, err,
		)
	}
	return err
}

func (s *Store) migrate(ctx context.Context, path string) error {
	p, err := provider(s.write)
	if err != nil {
		return err
	}
	current, target, err := p.GetVersions(ctx)
	switch {
	case err != nil:
		return err
	case current > target:
		return fmt.Errorf("%w (form %d; this one knows %d): update the program", ErrNewer, current, target)
	case current == target:
		return nil
	case current > 0:
		if err := copyTo(ctx, s.write, free(fmt.Sprintf("%s.form%d", path, current))); err != nil {
			return fmt.Errorf("no copy could be made before it is brought to the newest form: %w", err)
		}
	}
	_, err = p.Up(ctx)
	return err
}

// free is the first unused file name: the given one, or that and a number.
func free(path string) string {
	name := path
	for n := 2; ; n++ {
		if _, err := os.Lstat(name); errors.Is(err, fs.ErrNotExist) {
			return name
		}
		name = fmt.Sprintf("%s-%d", path, n)
	}
}

// Close closes the data file.
func (s *Store) Close() error {
	var errs []error
	for _, db := range []*sql.DB{s.read, s.write} {
		if db != nil {
			errs = append(errs, db.Close())
		}
	}
	if s.lock != nil {
		errs = append(errs, s.lock.Unlock())
	}
	return errors.Join(errs...)
}

// Ready reports whether the data file is there and answers.
func (s *Store) Ready(ctx context.Context) error {
	if err := s.here(); err != nil {
		return err
	}
	return disk(s.read.PingContext(ctx))
}

// here reports ErrGone where the path no longer leads to the open data file: nobody would find what is saved there.
func (s *Store) here() error {
	now, err := os.Stat(s.path)
	if err != nil || !os.SameFile(s.file, now) {
		return ErrGone
	}
	return nil
}

// disk wraps errors of a full, read-only or failing disk in ErrDisk, and those of a locked file in ErrBusy.
func disk(err error) error {
	var e *sqlite.Error
	if errors.As(err, &e) {
		switch e.Code() & 0xff {
		case lib.SQLITE_FULL, lib.SQLITE_READONLY, lib.SQLITE_IOERR, lib.SQLITE_CANTOPEN, lib.SQLITE_PERM:
			return fmt.Errorf("%w: %w", ErrDisk, err)
		case lib.SQLITE_BUSY, lib.SQLITE_LOCKED:
			return fmt.Errorf("%w: %w", ErrBusy, err)
		case lib.SQLITE_CORRUPT, lib.SQLITE_NOTADB:
			return fmt.Errorf("%w: %w", ErrDamaged, err)
		}
	}
	return err
}

// Fresh renames the demo's old data file, so that the demo begins afresh at path. It rejects a file without the demo's
// mark, and one that a running program has open.
func Fresh(path string) error {
	_, version, err := header(path)
	switch {
	case errors.Is(err, fs.ErrNotExist), errors.Is(err, errEmpty):
		return nil
	case err != nil:
		return fmt.Errorf("%s: %w", path, err)
	case version != demoMark:
		return fmt.Errorf(
			"%s is not a demo's data file: it may hold real work, so it was left as it is. Give the demo another "+
				"file with --data",
			path,
		)
	}
	lock := flock.New(path + ".lock")
	if ok, err := lock.TryLock(); err != nil || !ok {
		return errors.Join(fmt.Errorf(
			"%s is in use by another Kind Margin: stop that one first, or give this one another file with --data", path,
		), err)
	}
	defer func() { _ = lock.Unlock() }()
	for _, tail := range []string{"", "-wal", "-shm"} {
		if err := os.Rename(path+tail, path+".before"+tail); err != nil && !errors.Is(err, fs.ErrNotExist) {
			return fmt.Errorf("the old demo data cannot be put aside: %w", err)
		}
		if tail == "" { // a journal of an older file must not meet this one
			_, _ = os.Remove(path+".before-wal"), os.Remove(path+".before-shm")
		}
	}
	return nil
}

// MarkDemo marks the data file as a demo's, for Fresh.
func (s *Store) MarkDemo(ctx context.Context) error {
	// In the main file, where Fresh looks for it, not only in the WAL.
	_, err := s.write.ExecContext(
		ctx, fmt.Sprintf(`PRAGMA user_version = %d; PRAGMA wal_checkpoint(TRUNCATE)`, demoMark),
	)
	return disk(err)
}

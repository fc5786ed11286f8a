package store

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"io/fs"
	"net/url"
	"os"
)

// Backup writes a consistent copy of the data file at path to a new file, also while a program serves it, and reads the
// copy back. It migrates nothing.
func Backup(ctx context.Context, path, to string) (Report, error) {
	if _, err := os.Lstat(to); !errors.Is(err, fs.ErrNotExist) {
		return Report{}, fmt.Errorf("%s is there already: a backup never overwrites a file. Give another name", to)
	}
	db, err := readOnly(ctx, path)
	if err != nil {
		return Report{}, err
	}
	defer db.Close()
	part := free(to + ".part")
	if err := copyTo(ctx, db, part); err != nil {
		_ = os.Remove(part)
		return Report{}, fmt.Errorf("no backup was made: %w", disk(err))
	}
	r, err := Check(ctx, part)
	if err != nil {
		return r, fmt.Errorf("the backup does not read back, and is left at %s: %w", part, err)
	}
	return r, os.Rename(part, to)
}

// copyTo writes the whole database to a new file and syncs it.
func copyTo(ctx context.Context, db execer, to string) error {
	f, err := os.OpenFile(to, os.O_CREATE|os.O_EXCL|os.O_RDWR, 0o600)
	if err != nil {
		return err
	}
	defer f.Close()
	if _, err := db.ExecContext(ctx, `VACUUM INTO ?`, to); err != nil {
		return err
	}
	return f.Sync()
}

// execer is a database, or one connection to it.
type execer interface {
	ExecContext(context.Context, string, ...any) (sql.Result, error)
}

func readOnly(ctx context.Context, path string) (*sql.DB, error) {
	exists, err := recognise(ctx, path)
	if err == nil && !exists {
		err = errors.New("there is no such file")
	}
	if err != nil {
		return nil, fmt.Errorf("the data file %s cannot be used: %w", path, disk(err))
	}
	return connect(path, url.Values{"mode": {"ro"}, "_pragma": {"busy_timeout(5000)"}})
}

package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"io/fs"
	"net/url"
	"os"

	"kindmargin/core/job"
)

// Backup writes a whole, consistent copy of the data file at path to a file
// that is not there yet, also while a program serves it, and reads the copy
// back. It brings nothing to a newer form.
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

// copyTo writes the whole database to a new file and sees it on the disk.
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

// execer is a data file, or one connection to it.
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

// Report is what a data file was found to hold.
type Report struct{ Jobs, Openings, Changes, Photos int }

// Check reads a whole data file: its pages, what its parts say of each other,
// and every opening ever kept. It writes nothing.
func Check(ctx context.Context, path string) (Report, error) {
	var r Report
	db, err := readOnly(ctx, path)
	if err != nil {
		return r, err
	}
	defer db.Close()
	if err := sound(ctx, db, "integrity_check"); err != nil {
		return r, err
	}
	links, err := db.QueryContext(ctx, `PRAGMA foreign_key_check`)
	if err != nil {
		return r, disk(err)
	}
	defer links.Close()
	if links.Next() {
		return r, fmt.Errorf("%w: a change belongs to an opening that is not there", ErrDamaged)
	}
	if err := db.QueryRowContext(ctx, `SELECT (SELECT count(*) FROM jobs), (SELECT count(*) FROM openings)`).Scan(&r.Jobs, &r.Openings); err != nil {
		return r, disk(err)
	}
	rows, err := db.QueryContext(ctx, `SELECT id, doc FROM changes ORDER BY id`)
	if err != nil {
		return r, disk(err)
	}
	defer rows.Close()
	for rows.Next() {
		var id int64
		var doc []byte
		if err := rows.Scan(&id, &doc); err != nil {
			return r, disk(err)
		}
		var o job.Opening
		if err := json.Unmarshal(doc, &o); err != nil {
			return r, fmt.Errorf("%w: change %d cannot be read: %w", ErrDamaged, id, err)
		}
		r.Changes++
	}
	if err := rows.Err(); err != nil {
		return r, disk(err)
	}
	return r, parts(ctx, db, &r)
}

// parts checks what stands beside the changes, as far as a file's form has it: that no opening
// stands at another one's change, and that each photograph is one.
func parts(ctx context.Context, db *sql.DB, r *Report) error {
	var astray int
	if err := db.QueryRowContext(ctx, `SELECT count(*) FROM openings o JOIN changes c ON c.id = o.head WHERE c.job_id <> o.job_id OR c.opening_id <> o.id`).Scan(&astray); err != nil {
		return disk(err)
	}
	if astray > 0 {
		return fmt.Errorf("%w: %d openings stand at a change of another", ErrDamaged, astray)
	}
	var has bool
	if err := db.QueryRowContext(ctx, `SELECT EXISTS (SELECT 1 FROM sqlite_master WHERE name = 'photos')`).Scan(&has); err != nil || !has {
		return disk(err)
	}
	var bad int
	err := db.QueryRowContext(ctx, `SELECT count(*), count(*) FILTER (WHERE substr(data, 1, 2) <> x'FFD8') FROM photos`).Scan(&r.Photos, &bad)
	if err == nil && bad > 0 {
		err = fmt.Errorf("%w: %d photographs cannot be read", ErrDamaged, bad)
	}
	return disk(err)
}

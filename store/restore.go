package store

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"net/url"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"time"

	"github.com/gofrs/flock"
	"modernc.org/sqlite"
)

// Restored is what a restore replaced, and where a copy of that is.
type Restored struct {
	Report
	Before string // a whole copy of the data file as it was
}

// MostBefore is how many copies from before restores are kept, the newest ones.
const MostBefore = 5

// thin deletes the oldest of them.
func thin(path string) error {
	names, err := filepath.Glob(globbed(path) + ".before-restore*")
	if err != nil {
		return err
	}
	made := map[string]time.Time{}
	for _, name := range names {
		at, err := os.Stat(name)
		if err != nil {
			return err
		}
		made[name] = at.ModTime()
	}
	slices.SortFunc(names, func(a, b string) int { return made[b].Compare(made[a]) })
	var errs []error
	for _, name := range names[min(len(names), MostBefore):] {
		errs = append(errs, os.Remove(name))
	}
	return errors.Join(errs...)
}

// globbed escapes a path for filepath.Glob.
func globbed(path string) string {
	return strings.NewReplacer(`\`, `\\`, "*", `\*`, "?", `\?`, "[", `\[`).Replace(path)
}

// Backup writes a whole, consistent copy of the open data file, as Backup does.
func (s *Store) Backup(ctx context.Context, to string) (Report, error) {
	if err := s.here(); err != nil {
		return Report{}, err
	}
	return Backup(ctx, s.path, to)
}

// Restore replaces the content of the open data file by a backup, atomically for all readers: nothing changes unless
// the backup was read whole, found sound, and migrated to the newest version, and a copy of the old content is kept.
// The backup itself is not altered. A write that waits for it then fails with ErrStale.
func (s *Store) Restore(ctx context.Context, backup string) (r Restored, err error) {
	if err := s.here(); err != nil {
		return r, fmt.Errorf("nothing was restored: %w", err)
	}
	if r.Report, err = Check(ctx, backup); err != nil {
		return r, fmt.Errorf("nothing was restored: %w", err)
	}
	staged := free(s.path + ".restoring")
	defer removeAll(staged)
	if err := stage(ctx, backup, staged); err != nil {
		return r, fmt.Errorf("nothing was restored: %w", err)
	}
	// The one connection for writing: nobody else writes until it is released.
	conn, err := s.write.Conn(ctx)
	if err != nil {
		return r, disk(err)
	}
	defer conn.Close()
	r.Before = free(s.path + ".before-restore")
	if err := copyTo(ctx, conn, r.Before); err != nil {
		_ = os.Remove(r.Before)
		return r, fmt.Errorf("nothing was restored: no copy could be made of what is there: %w", disk(err))
	}
	if err := goesOn(ctx, conn, staged); err != nil {
		return r, fmt.Errorf("nothing was restored: %w", disk(err))
	}
	if err := ctx.Err(); err != nil { // who asked for it was put out meanwhile
		return r, fmt.Errorf("nothing was restored: %w", err)
	}
	if err := overwrite(conn, staged); err != nil {
		return r, fmt.Errorf("nothing was restored: %w", disk(err))
	}
	_ = thin(s.path) // one that is left lies there and does no harm
	return r, nil
}

// RestoreFile restores a backup to a data file that no program has open, or that does not exist.
func RestoreFile(ctx context.Context, path, backup string) (Restored, error) {
	lock := flock.New(path + ".lock")
	if ok, err := lock.TryLock(); err != nil || !ok {
		return Restored{}, errors.Join(
			fmt.Errorf("%s is in use by a Kind Margin that runs: restore from its own page, or stop it first", path),
			err,
		)
	}
	if err := lock.Unlock(); err != nil {
		return Restored{}, err
	}
	s, err := Open(ctx, path)
	if err != nil {
		return Restored{}, err
	}
	r, err := s.Restore(ctx, backup)
	return r, errors.Join(err, s.Close())
}

// stage makes a data file with the rows of a backup, at the newest version.
func stage(ctx context.Context, backup, to string) error {
	if err := copyRows(ctx, backup, to); err != nil {
		return disk(err)
	}
	brought, err := Open(ctx, to)
	if err != nil {
		return err
	}
	// One file with all in it, the WAL too.
	_, err = brought.write.ExecContext(ctx, `PRAGMA wal_checkpoint(TRUNCATE)`)
	return errors.Join(disk(err), brought.Close())
}

// goesOn makes a staged backup continue from the live file: no later change gets the number of one that a page still
// holds, no walk or job a version that was seen before, a demo stays one, and the passes are the live ones: one that
// was ended does not come back with a backup.
func goesOn(ctx context.Context, live *sql.Conn, staged string) error {
	var changes, heads int64
	var mark uint32
	if err := live.QueryRowContext(
		ctx,
		`SELECT coalesce((SELECT max(id) FROM changes), 0), coalesce((SELECT max(max(version, walk)) FROM jobs), 0)`,
	).Scan(&changes, &heads); err != nil {
		return err
	}
	passes, err := passesOf(ctx, live)
	if err != nil {
		return err
	}
	if err := live.QueryRowContext(ctx, `PRAGMA user_version`).Scan(&mark); err != nil {
		return err
	}
	db, err := connect(staged, url.Values{})
	if err != nil {
		return err
	}
	defer db.Close()
	db.SetMaxOpenConns(1)
	for _, q := range []struct {
		text string
		args []any
	}{
		{
			`INSERT INTO sqlite_sequence (name, seq) SELECT 'changes', 0 WHERE NOT EXISTS (SELECT 1
				FROM sqlite_sequence WHERE name = 'changes')`,
			nil,
		},
		{`UPDATE sqlite_sequence SET seq = max(seq, ?) WHERE name = 'changes'`, []any{changes}},
		{`UPDATE jobs SET version = version + ?1, walk = walk + ?1`, []any{heads + 1}},
		{fmt.Sprintf(`PRAGMA user_version = %d`, mark), nil},
		{`DELETE FROM passes`, nil},
	} {
		if _, err := db.ExecContext(ctx, q.text, q.args...); err != nil {
			return err
		}
	}
	for _, p := range passes {
		if _, err := db.ExecContext(
			ctx, `INSERT INTO passes (id, name, hash, made, seen, ended, runs) VALUES (?, ?, ?, ?, ?, ?, ?)`, p...,
		); err != nil {
			return err
		}
	}
	_, err = db.ExecContext(ctx, `PRAGMA wal_checkpoint(TRUNCATE)`)
	return err
}

// passesOf are all passes of a data file, ended ones included.
func passesOf(ctx context.Context, live *sql.Conn) (list [][]any, err error) {
	rows, err := live.QueryContext(ctx, `SELECT id, name, hash, made, seen, ended, runs FROM passes`)
	if err != nil {
		return nil, err
	}
	defer rows.Close()
	for rows.Next() {
		var id, name, made, seen, ended string
		var hash []byte
		var runs bool
		if err := rows.Scan(&id, &name, &hash, &made, &seen, &ended, &runs); err != nil {
			return nil, err
		}
		list = append(list, []any{id, name, hash, made, seen, ended, runs})
	}
	return list, rows.Err()
}

// overwrite copies every page of another data file over the live one's in one transaction, by SQLite's online backup.
func overwrite(live *sql.Conn, from string) error {
	return live.Raw(func(driver any) error {
		c, ok := driver.(interface {
			NewRestore(string) (*sqlite.Backup, error)
		})
		if !ok {
			return errors.New("the driver cannot restore")
		}
		b, err := c.NewRestore("file:" + (&url.URL{Path: from}).EscapedPath())
		if err != nil {
			return err
		}
		_, err = b.Step(-1)
		return errors.Join(err, b.Finish())
	})
}

// removeAll deletes a data file with its journals and its lock.
func removeAll(path string) {
	for _, tail := range []string{"", "-wal", "-shm", ".lock"} {
		_ = os.Remove(path + tail)
	}
}

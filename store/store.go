// Package store keeps jobs in SQLite: migrations and queries, nothing else.
// Each opening has an append-only history of changes; a save is one
// transaction, on the disk before it is acknowledged.
package store

import (
	"context"
	"crypto/rand"
	"database/sql"
	"embed"
	"encoding/json"
	"errors"
	"fmt"
	"io/fs"
	"net/url"
	"strings"

	"github.com/pressly/goose/v3"
	"modernc.org/sqlite"
	lib "modernc.org/sqlite/lib"

	"kindmargin/core/job"
	"kindmargin/core/measure"
)

//go:embed migrations/*.sql
var migrations embed.FS

// Errors of the store, to be told apart with errors.Is.
var (
	ErrNotFound = errors.New("not found")
	// ErrStale is a save made from an older version than the one kept.
	ErrStale = errors.New("stale version")
	// ErrNothing is an undo or redo with nothing left to undo or redo.
	ErrNothing = errors.New("nothing to undo or redo")
	// ErrDisk is a disk that is full, read-only or failing.
	ErrDisk = errors.New("disk")
)

// Store is an open data file. Its methods are safe for concurrent use.
type Store struct{ db *sql.DB }

// Open opens or makes the data file and brings it to the newest form.
func Open(ctx context.Context, path string) (*Store, error) {
	q := url.Values{"_txlock": {"immediate"}, "_pragma": {
		"busy_timeout(5000)", "journal_mode(WAL)", "synchronous(FULL)", "foreign_keys(1)",
	}}
	db, err := sql.Open("sqlite", "file:"+(&url.URL{Path: path}).EscapedPath()+"?"+q.Encode())
	if err != nil {
		return nil, err
	}
	s := &Store{db}
	if err := s.migrate(ctx); err != nil {
		_ = db.Close()
		return nil, fmt.Errorf("the data file %s cannot be used: %w", path, disk(err))
	}
	return s, nil
}

func (s *Store) migrate(ctx context.Context) error {
	files, err := fs.Sub(migrations, "migrations")
	if err != nil {
		return err
	}
	p, err := goose.NewProvider(goose.DialectSQLite3, s.db, files)
	if err != nil {
		return err
	}
	current, target, err := p.GetVersions(ctx)
	if err != nil {
		return err
	}
	if current > target {
		return fmt.Errorf("it was made by a newer program (form %d; this one knows %d): update the program", current, target)
	}
	_, err = p.Up(ctx)
	return err
}

// Close closes the data file.
func (s *Store) Close() error { return s.db.Close() }

// disk marks the errors of a disk that is full, read-only or failing.
func disk(err error) error {
	var e *sqlite.Error
	if errors.As(err, &e) {
		switch e.Code() & 0xff {
		case lib.SQLITE_FULL, lib.SQLITE_READONLY, lib.SQLITE_IOERR, lib.SQLITE_CANTOPEN, lib.SQLITE_PERM:
			return fmt.Errorf("%w: %w", ErrDisk, err)
		}
	}
	return err
}

// tx runs f in one transaction.
func (s *Store) tx(ctx context.Context, f func(*sql.Tx) error) error {
	tx, err := s.db.BeginTx(ctx, nil)
	if err != nil {
		return disk(err)
	}
	if err := f(tx); err != nil {
		_ = tx.Rollback()
		return disk(err)
	}
	return disk(tx.Commit())
}

// Head is a job without its openings.
type Head struct {
	ID       string
	Name     string
	Unit     measure.Unit
	Tape     measure.Tape
	Presets  []job.Preset
	Version  int64
	Openings int
}

// Job is the head as an empty job, for core.
func (h Head) Job() job.Job {
	return job.Job{ID: h.ID, Name: h.Name, Unit: h.Unit, Tape: h.Tape, Presets: h.Presets, Openings: []job.Opening{}}
}

// Kept is an opening as it stands.
type Kept struct {
	Job     Head
	Opening job.Opening
	Version int64  // of the opening: the change it stands at
	Undo    string // label of the change that undo takes back; empty when none
	Redo    string // label of the change that redo brings again; empty when none
}

const headColumns = `j.id, j.name, j.unit, j.tape, j.presets, j.version,
	(SELECT count(*) FROM openings o WHERE o.job_id = j.id AND NOT o.removed)`

func scanHead(row interface{ Scan(...any) error }) (h Head, err error) {
	var presets []byte
	err = row.Scan(&h.ID, &h.Name, &h.Unit, &h.Tape, &presets, &h.Version, &h.Openings)
	switch {
	case errors.Is(err, sql.ErrNoRows):
		return h, ErrNotFound
	case err != nil:
		return h, err
	}
	if err := json.Unmarshal(presets, &h.Presets); err != nil {
		return h, fmt.Errorf("reading the presets of job %s: %w", h.ID, err)
	}
	return h, nil
}

// Jobs lists all jobs, oldest first.
func (s *Store) Jobs(ctx context.Context) ([]Head, error) {
	rows, err := s.db.QueryContext(ctx, `SELECT `+headColumns+` FROM jobs j ORDER BY j.rowid`)
	if err != nil {
		return nil, disk(err)
	}
	defer rows.Close()
	heads := []Head{}
	for rows.Next() {
		h, err := scanHead(rows)
		if err != nil {
			return nil, err
		}
		heads = append(heads, h)
	}
	return heads, disk(rows.Err())
}

type querier interface {
	QueryRowContext(context.Context, string, ...any) *sql.Row
	QueryContext(context.Context, string, ...any) (*sql.Rows, error)
}

func headOf(ctx context.Context, q querier, id string) (Head, error) {
	return scanHead(q.QueryRowContext(ctx, `SELECT `+headColumns+` FROM jobs j WHERE j.id = ?`, id))
}

// Job reads one job with all its openings, in the order of the walk.
func (s *Store) Job(ctx context.Context, id string) (Head, []Kept, error) {
	var head Head
	var list []Kept
	err := s.tx(ctx, func(tx *sql.Tx) (err error) {
		if head, err = headOf(ctx, tx, id); err != nil {
			return err
		}
		list, err = kept(ctx, tx, head, `o.job_id = ? AND NOT o.removed ORDER BY o.position`, id)
		return err
	})
	return head, list, err
}

// Opening reads one opening.
func (s *Store) Opening(ctx context.Context, jobID, id string) (Kept, error) {
	var k Kept
	err := s.tx(ctx, func(tx *sql.Tx) (err error) {
		k, err = one(ctx, tx, jobID, id)
		return err
	})
	return k, err
}

func one(ctx context.Context, q querier, jobID, id string) (Kept, error) {
	head, err := headOf(ctx, q, jobID)
	if err != nil {
		return Kept{}, err
	}
	list, err := kept(ctx, q, head, `o.job_id = ? AND o.id = ? AND NOT o.removed`, jobID, id)
	if err != nil {
		return Kept{}, err
	}
	if len(list) == 0 {
		return Kept{}, ErrNotFound
	}
	return list[0], nil
}

func kept(ctx context.Context, q querier, head Head, where string, args ...any) ([]Kept, error) {
	rows, err := q.QueryContext(ctx, `
		SELECT c.id, c.doc, CASE WHEN c.parent IS NULL THEN '' ELSE c.label END,
			coalesce((SELECT n.label FROM changes n WHERE n.parent = c.id ORDER BY n.id DESC LIMIT 1), '')
		FROM openings o JOIN changes c ON c.id = o.head WHERE `+where, args...)
	if err != nil {
		return nil, err
	}
	defer rows.Close()
	list := []Kept{}
	for rows.Next() {
		k := Kept{Job: head}
		var doc []byte
		if err := rows.Scan(&k.Version, &doc, &k.Undo, &k.Redo); err != nil {
			return nil, err
		}
		if err := json.Unmarshal(doc, &k.Opening); err != nil {
			return nil, fmt.Errorf("reading change %d: %w", k.Version, err)
		}
		k.Opening.Normalise()
		list = append(list, k)
	}
	return list, rows.Err()
}

// NewID is a short random name for a job or an opening.
func NewID() string { return strings.ToLower(rand.Text()[:10]) }

// AddJob keeps a whole job, its openings each with a first change. An ID that
// is empty or taken is replaced by a new one.
func (s *Store) AddJob(ctx context.Context, j job.Job) (Head, error) {
	var head Head
	err := s.tx(ctx, func(tx *sql.Tx) error {
		var taken bool
		if err := tx.QueryRowContext(ctx, `SELECT EXISTS (SELECT 1 FROM jobs WHERE id = ?)`, j.ID).Scan(&taken); err != nil {
			return err
		}
		if taken || j.ID == "" {
			j.ID = NewID()
		}
		presets, err := json.Marshal(append([]job.Preset{}, j.Presets...))
		if err != nil {
			return err
		}
		if _, err := tx.ExecContext(ctx, `INSERT INTO jobs (id, name, unit, tape, presets) VALUES (?, ?, ?, ?, ?)`, j.ID, j.Name, j.Unit, j.Tape, string(presets)); err != nil {
			return err
		}
		for _, o := range j.Openings {
			if err := addOpening(ctx, tx, j.ID, o, "brought in"); err != nil {
				return err
			}
		}
		head, err = headOf(ctx, tx, j.ID)
		return err
	})
	return head, err
}

func addOpening(ctx context.Context, tx *sql.Tx, jobID string, o job.Opening, label string) error {
	change, err := addChange(ctx, tx, jobID, o, nil, label)
	if err != nil {
		return err
	}
	_, err = tx.ExecContext(ctx, `INSERT INTO openings (job_id, id, position, head)
		VALUES (?, ?, (SELECT coalesce(max(position), 0) + 1 FROM openings WHERE job_id = ?), ?)`, jobID, o.ID, jobID, change)
	return err
}

func addChange(ctx context.Context, tx *sql.Tx, jobID string, o job.Opening, parent any, label string) (int64, error) {
	o.Normalise()
	doc, err := json.Marshal(o)
	if err != nil {
		return 0, err
	}
	res, err := tx.ExecContext(ctx, `INSERT INTO changes (job_id, opening_id, parent, label, doc) VALUES (?, ?, ?, ?, ?)`,
		jobID, o.ID, parent, label, string(doc))
	if err != nil {
		return 0, err
	}
	return res.LastInsertId()
}

// SetHead changes a job's name, unit, tape and presets, if it still stands at version.
func (s *Store) SetHead(ctx context.Context, h Head, version int64) (Head, error) {
	err := s.tx(ctx, func(tx *sql.Tx) error {
		now, err := headOf(ctx, tx, h.ID)
		if err != nil {
			return err
		}
		if now.Version != version {
			return ErrStale
		}
		presets, err := json.Marshal(append([]job.Preset{}, h.Presets...))
		if err != nil {
			return err
		}
		if _, err := tx.ExecContext(ctx, `UPDATE jobs SET name = ?, unit = ?, tape = ?, presets = ?, version = version + 1 WHERE id = ?`,
			h.Name, h.Unit, h.Tape, string(presets), h.ID); err != nil {
			return err
		}
		h, err = headOf(ctx, tx, h.ID)
		return err
	})
	return h, err
}

// AddOpening puts an opening at the end of a job's walk, with a new ID.
func (s *Store) AddOpening(ctx context.Context, jobID string, o job.Opening) (Kept, error) {
	o.ID = NewID()
	var k Kept
	err := s.tx(ctx, func(tx *sql.Tx) error {
		if _, err := headOf(ctx, tx, jobID); err != nil {
			return err
		}
		if err := addOpening(ctx, tx, jobID, o, "added"); err != nil {
			return err
		}
		var err error
		k, err = one(ctx, tx, jobID, o.ID)
		return err
	})
	return k, err
}

// Save appends a change to an opening that still stands at version, and
// makes it the one it stands at.
func (s *Store) Save(ctx context.Context, jobID string, version int64, label string, o job.Opening) (Kept, error) {
	return s.move(ctx, jobID, o.ID, version, func(tx *sql.Tx, _ Kept) (int64, error) {
		return addChange(ctx, tx, jobID, o, version, label)
	})
}

// Undo takes an opening that still stands at version back to the change
// before it.
func (s *Store) Undo(ctx context.Context, jobID, id string, version int64) (Kept, error) {
	return s.move(ctx, jobID, id, version, func(tx *sql.Tx, now Kept) (to int64, err error) {
		if now.Undo == "" {
			return 0, ErrNothing
		}
		err = tx.QueryRowContext(ctx, `SELECT parent FROM changes WHERE id = ?`, version).Scan(&to)
		return to, err
	})
}

// Redo takes an opening that still stands at version to the newest change
// made from it.
func (s *Store) Redo(ctx context.Context, jobID, id string, version int64) (Kept, error) {
	return s.move(ctx, jobID, id, version, func(tx *sql.Tx, now Kept) (to int64, err error) {
		if now.Redo == "" {
			return 0, ErrNothing
		}
		err = tx.QueryRowContext(ctx, `SELECT max(id) FROM changes WHERE parent = ?`, version).Scan(&to)
		return to, err
	})
}

// move changes which change an opening stands at. When the version is stale
// the error is ErrStale and the opening as it stands is returned with it.
func (s *Store) move(ctx context.Context, jobID, id string, version int64, to func(*sql.Tx, Kept) (int64, error)) (Kept, error) {
	var k Kept
	err := s.tx(ctx, func(tx *sql.Tx) (err error) {
		if k, err = one(ctx, tx, jobID, id); err != nil {
			return err
		}
		if k.Version != version {
			return ErrStale
		}
		head, err := to(tx, k)
		if err != nil {
			return err
		}
		if _, err := tx.ExecContext(ctx, `UPDATE openings SET head = ? WHERE job_id = ? AND id = ?`, head, jobID, id); err != nil {
			return err
		}
		k, err = one(ctx, tx, jobID, id)
		return err
	})
	return k, err
}

// SetRemoved takes an opening out of the walk, or puts it back.
func (s *Store) SetRemoved(ctx context.Context, jobID, id string, removed bool) error {
	return s.tx(ctx, func(tx *sql.Tx) error {
		res, err := tx.ExecContext(ctx, `UPDATE openings SET removed = ? WHERE job_id = ? AND id = ?`, removed, jobID, id)
		if err != nil {
			return err
		}
		if n, err := res.RowsAffected(); err != nil || n == 0 {
			return errors.Join(err, ErrNotFound)
		}
		return nil
	})
}

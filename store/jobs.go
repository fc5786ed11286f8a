package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"

	"kindmargin/core/job"
	"kindmargin/core/measure"
)

// Head is a job without its openings.
type Head struct {
	ID       string
	Name     string
	Unit     measure.Unit
	Tape     measure.Tape
	Language job.Language
	Presets  []job.Preset
	Kit      job.Kit
	Usual    job.Usual
	Version  int64 // of the head itself
	Walk     int64 // counts every change of the job and its openings
	Removed  bool  // taken off the list of jobs
	Openings int
	Touched  string // when an opening of it was changed last, RFC 3339; in a list of all jobs alone
	Broken   error  // why it cannot be read back, where it cannot: in a list of all, so that the others can
}

// Job is the head as an empty job, for core.
func (h Head) Job() job.Job {
	return job.Job{
		ID: h.ID, Name: h.Name, Unit: h.Unit, Tape: h.Tape, Language: h.Language, Presets: h.Presets, Kit: h.Kit,
		Usual: h.Usual, Openings: []job.Opening{},
	}
}

const headColumns = `j.id, j.name, j.unit, j.tape, j.language, j.presets, j.kit, j.usual, j.version, j.walk, j.removed,
	(SELECT count(*) FROM openings o WHERE o.job_id = j.id AND NOT o.removed)`

func scanHead(row interface{ Scan(...any) error }, more ...any) (h Head, err error) {
	var presets, kit, usual []byte
	err = row.Scan(append([]any{
		&h.ID, &h.Name, &h.Unit, &h.Tape, &h.Language, &presets, &kit, &usual, &h.Version, &h.Walk, &h.Removed,
		&h.Openings,
	}, more...)...)
	switch {
	case errors.Is(err, sql.ErrNoRows):
		return h, ErrNotFound
	case err != nil:
		return h, err
	}
	if err := known(h.Unit, string(h.Tape), h.Language); err != nil {
		return h, fmt.Errorf("%w: job %s: %w", ErrDamaged, h.ID, err)
	}
	if err := json.Unmarshal(presets, &h.Presets); err != nil {
		return h, fmt.Errorf("%w: the presets of job %s: %w", ErrDamaged, h.ID, err)
	}
	if err := json.Unmarshal(kit, &h.Kit); err != nil {
		return h, fmt.Errorf("%w: the kit of job %s: %w", ErrDamaged, h.ID, err)
	}
	if err := json.Unmarshal(usual, &h.Usual); err != nil {
		return h, fmt.Errorf("%w: what is usual in job %s: %w", ErrDamaged, h.ID, err)
	}
	return h, nil
}

// Jobs lists all jobs, oldest first, with removed and unreadable ones.
func (s *Store) Jobs(ctx context.Context) ([]Head, error) {
	rows, err := s.read.QueryContext(ctx, `SELECT `+headColumns+` FROM jobs j ORDER BY j.rowid`)
	if err != nil {
		return nil, disk(err)
	}
	defer rows.Close()
	heads := []Head{}
	for rows.Next() {
		h, err := scanHead(rows)
		if h.Broken = err; err != nil && !errors.Is(err, ErrDamaged) {
			return nil, disk(err)
		}
		heads = append(heads, h)
	}
	if err := rows.Err(); err != nil {
		return nil, disk(err)
	}
	return heads, disk(s.touched(ctx, heads))
}

// touched sets when each of some jobs was changed last.
func (s *Store) touched(ctx context.Context, heads []Head) error {
	rows, err := s.read.QueryContext(ctx, `
		SELECT o.job_id, max(c.at) FROM openings o JOIN changes c ON c.id = o.head GROUP BY o.job_id`)
	if err != nil {
		return err
	}
	defer rows.Close()
	at := map[string]string{}
	for rows.Next() {
		var id, last string
		if err := rows.Scan(&id, &last); err != nil {
			return err
		}
		at[id] = last
	}
	for i := range heads {
		heads[i].Touched = at[heads[i].ID]
	}
	return rows.Err()
}

// Head reads a job without its openings, removed or not.
func (s *Store) Head(ctx context.Context, id string) (Head, error) {
	h, err := headOf(ctx, s.read, id)
	return h, disk(err)
}

func headOf(ctx context.Context, q querier, id string) (Head, error) {
	return scanHead(q.QueryRowContext(ctx, `SELECT `+headColumns+` FROM jobs j WHERE j.id = ?`, id))
}

// Names are the names of a job and of one of its openings, removed or not; empty for what is not there.
func (s *Store) Names(ctx context.Context, jobID, id string) (job, opening string, err error) {
	err = s.look(ctx, func(tx *sql.Tx) error {
		err := tx.QueryRowContext(ctx, `
			SELECT j.name, coalesce((
				SELECT CASE WHEN json_valid(c.doc) THEN coalesce(json_extract(c.doc, '$.name'), '') ELSE '' END
				FROM openings o JOIN changes c ON c.id = o.head WHERE o.job_id = j.id AND o.id = ?2
			), '') FROM jobs j WHERE j.id = ?1`, jobID, id).Scan(&job, &opening)
		if errors.Is(err, sql.ErrNoRows) {
			return nil
		}
		return err
	})
	return job, opening, err
}

// AddJob stores a whole job, its openings each with a first change. An ID that is empty or taken is replaced by a new
// one. For a used key it returns the job of that request.
func (s *Store) AddJob(ctx context.Context, j job.Job, once Once, photos ...Photo) (Head, error) {
	var head Head
	err := s.tx(ctx, func(tx *sql.Tx) error {
		if was, ok, err := once.before(ctx, tx, "job"); err != nil || ok {
			if err == nil {
				head, err = headOf(ctx, tx, was.job)
			}
			return err
		}
		var taken bool
		if err := tx.QueryRowContext(ctx, `SELECT EXISTS (SELECT 1 FROM jobs WHERE id = ?)`, j.ID).Scan(
			&taken,
		); err != nil {
			return err
		}
		if taken || j.ID == "" {
			j.ID = NewID()
		}
		presets, kit, usual, err := headDocs(j.Presets, j.Kit, j.Usual)
		if err != nil {
			return err
		}
		if _, err := tx.ExecContext(
			ctx,
			`INSERT INTO jobs (id, name, unit, tape, language, presets, kit, usual) VALUES (?, ?, ?, ?, ?, ?, ?, ?)`,
			j.ID, j.Name, j.Unit, j.Tape, j.Language, presets, kit, usual,
		); err != nil {
			return err
		}
		for _, o := range j.Openings {
			if _, err := s.addOpening(ctx, tx, j.ID, o, "brought in", ""); err != nil {
				return err
			}
		}
		for i := range photos {
			if err := addPhoto(ctx, tx, j.ID, &photos[i]); err != nil {
				return err
			}
		}
		if err := once.keep(ctx, tx, "job", answer{job: j.ID}); err != nil {
			return err
		}
		head, err = headOf(ctx, tx, j.ID)
		return err
	})
	return head, err
}

// SetHead changes a job's name, unit, tape, language, presets, kit and defaults, if it is still at version.
func (s *Store) SetHead(ctx context.Context, h Head, version int64, once Once) (Head, error) {
	return s.setJob(ctx, h.ID, version, once, func(tx *sql.Tx) error {
		presets, kit, usual, err := headDocs(h.Presets, h.Kit, h.Usual)
		if err != nil {
			return err
		}
		_, err = tx.ExecContext(ctx, `UPDATE jobs
			SET name = ?, unit = ?, tape = ?, language = ?, presets = ?, kit = ?, usual = ? WHERE id = ?`,
			h.Name, h.Unit, h.Tape, h.Language, presets, kit, usual, h.ID)
		return err
	})
}

// headDocs are a job's presets, kit and defaults as stored documents.
func headDocs(presets []job.Preset, kit job.Kit, usual job.Usual) (p, k, u string, err error) {
	var docs [3]string
	for i, v := range []any{append([]job.Preset{}, presets...), kit, usual} {
		b, err := json.Marshal(v)
		if err != nil {
			return "", "", "", err
		}
		docs[i] = string(b)
	}
	return docs[0], docs[1], docs[2], nil
}

// SetJobRemoved removes a job that is still at version from the list, or puts it back.
func (s *Store) SetJobRemoved(ctx context.Context, id string, version int64, removed bool, once Once) (Head, error) {
	return s.setJob(ctx, id, version, once, func(tx *sql.Tx) error {
		_, err := tx.ExecContext(ctx, `UPDATE jobs SET removed = ? WHERE id = ?`, removed, id)
		return err
	})
}

func (s *Store) setJob(
	ctx context.Context, id string, version int64, once Once, set func(*sql.Tx) error,
) (h Head, err error) {
	what := "head of " + id
	err = s.tx(ctx, func(tx *sql.Tx) error {
		now, err := headOf(ctx, tx, id)
		if err != nil {
			return err
		}
		if _, ok, err := once.before(ctx, tx, what); err != nil || ok {
			h = now
			return err
		}
		if now.Version != version {
			return ErrStale
		}
		if err := set(tx); err != nil {
			return err
		}
		if _, err := tx.ExecContext(
			ctx, `UPDATE jobs SET version = version + 1, walk = walk + 1 WHERE id = ?`, id,
		); err != nil {
			return err
		}
		if err := once.keep(ctx, tx, what, answer{job: id}); err != nil {
			return err
		}
		h, err = headOf(ctx, tx, id)
		return err
	})
	return h, err
}

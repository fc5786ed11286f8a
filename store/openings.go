package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"

	"modernc.org/sqlite"
	lib "modernc.org/sqlite/lib"

	"kindmargin/core/job"
)

// Kept is an opening with its version.
type Kept struct {
	Job     Head
	Opening job.Opening
	Version int64  // of the opening: the change it stands at
	Undo    string // label of the change that undo takes back; empty when none
	By      string // who makes the next change
	Once    Once   // of the request that makes it
	Redo    string // label of the change that redo brings again; empty when none
	// Broken is why the opening cannot be decoded; then only its name is known.
	Broken error
}

// Job reads one job with its openings in the order of the walk, and the removed ones, in the same order.
func (s *Store) Job(ctx context.Context, id string) (head Head, walk, off []Kept, err error) {
	err = s.look(ctx, func(tx *sql.Tx) (err error) {
		if head, err = headOf(ctx, tx, id); err != nil {
			return err
		}
		if walk, err = kept(ctx, tx, head, `o.job_id = ? AND NOT o.removed ORDER BY o.position`, id); err != nil {
			return err
		}
		off, err = kept(ctx, tx, head, `o.job_id = ? AND o.removed ORDER BY o.position`, id)
		return err
	})
	return head, walk, off, err
}

// Some reads one job with some openings of its walk, in that order.
func (s *Store) Some(ctx context.Context, jobID string, ids []string) (head Head, list []Kept, err error) {
	err = s.look(ctx, func(tx *sql.Tx) (err error) {
		head, list, err = some(ctx, tx, jobID, ids)
		return err
	})
	return head, list, err
}

func some(ctx context.Context, q querier, jobID string, ids []string) (head Head, list []Kept, err error) {
	chosen, err := json.Marshal(ids)
	if err != nil {
		return head, nil, err
	}
	if head, err = headOf(ctx, q, jobID); err != nil {
		return head, nil, err
	}
	list, err = kept(
		ctx, q, head, `o.job_id = ? AND NOT o.removed AND o.id IN (SELECT value FROM json_each(?)) ORDER BY o.position`,
		jobID, string(chosen),
	)
	return head, list, err
}

// Listed is an opening with whether it is signed off, and nothing else.
type Listed struct {
	ID     string
	Signed bool
}

// List lists a job's openings in the order of the walk. One that cannot be decoded counts as not signed off.
func (s *Store) List(ctx context.Context, jobID string) (list []Listed, err error) {
	err = s.look(ctx, func(tx *sql.Tx) error {
		rows, err := tx.QueryContext(ctx, `
			SELECT o.id, CASE WHEN json_valid(c.doc) THEN coalesce(json_type(c.doc, '$.signed'), 'null') <> 'null' ELSE 0 END
			FROM openings o JOIN changes c ON c.id = o.head WHERE o.job_id = ? AND NOT o.removed ORDER BY o.position`, jobID)
		if err != nil {
			return err
		}
		defer rows.Close()
		for rows.Next() {
			var l Listed
			if err := rows.Scan(&l.ID, &l.Signed); err != nil {
				return err
			}
			list = append(list, l)
		}
		return rows.Err()
	})
	return list, err
}

// Opening reads one opening. One that cannot be decoded is ErrDamaged.
func (s *Store) Opening(ctx context.Context, jobID, id string) (Kept, error) {
	k, err := scanOne(s.opening.QueryRowContext(ctx, jobID, id))
	return k, disk(err)
}

// oneQuery reads a job's head and one of its openings together.
const oneQuery = `SELECT ` + headColumns + `, ` + keptColumns + `
	FROM jobs j JOIN openings o ON o.job_id = j.id JOIN changes c ON c.id = o.head
	WHERE j.id = ? AND o.id = ? AND NOT o.removed`

func one(ctx context.Context, q querier, jobID, id string) (Kept, error) {
	return scanOne(q.QueryRowContext(ctx, oneQuery, jobID, id))
}

func scanOne(row *sql.Row) (Kept, error) {
	var k Kept
	var doc []byte
	var id string
	head, err := scanHead(row, &id, &k.Version, &doc, &k.Undo, &k.Redo)
	if err != nil {
		return k, err
	}
	k.Job = head
	k.read(id, doc)
	return k, k.Broken
}

// read decodes an opening, or records why it cannot be.
func (k *Kept) read(id string, doc []byte) {
	if err := json.Unmarshal(doc, &k.Opening); err != nil {
		k.Broken = fmt.Errorf("%w: change %d of this door: %w", ErrDamaged, k.Version, err)
		k.Opening = job.Opening{ID: id, Name: "A door that cannot be read"}
	}
	k.Opening.Normalise()
}

const keptColumns = `o.id, c.id, c.doc, CASE WHEN c.parent IS NULL THEN '' ELSE c.label END,
	coalesce((SELECT n.label FROM changes n WHERE n.parent = c.id ORDER BY n.id DESC LIMIT 1), '')`

func kept(ctx context.Context, q querier, head Head, where string, args ...any) ([]Kept, error) {
	rows, err := q.QueryContext(ctx, `
		SELECT `+keptColumns+` FROM openings o JOIN changes c ON c.id = o.head WHERE `+where, args...)
	if err != nil {
		return nil, err
	}
	defer rows.Close()
	list := []Kept{}
	for rows.Next() {
		k := Kept{Job: head}
		var id string
		var doc sql.RawBytes
		if err := rows.Scan(&id, &k.Version, &doc, &k.Undo, &k.Redo); err != nil {
			return nil, err
		}
		k.read(id, doc)
		list = append(list, k)
	}
	return list, rows.Err()
}

// MostOpenings is the largest number of openings of a job, removed ones included.
const MostOpenings = job.MostOpenings

const (
	addChangeQuery = `INSERT INTO changes (job_id, opening_id, parent, label, doc, by, at) VALUES (?, ?, ?, ?, ?, ?, ` +
		now + `)`
	// position is found by the index of a job's positions
	addOpeningQuery = `INSERT INTO openings (job_id, id, position, head)
		VALUES (?, ?, (SELECT coalesce(max(position), 0) + 1 FROM openings WHERE job_id = ?), ?)`
	moveQuery = `UPDATE openings SET head = ? WHERE job_id = ? AND id = ? AND head = ? AND NOT removed`
	walkQuery = `UPDATE jobs SET walk = walk + 1 WHERE id = ?`
)

func (s *Store) addOpening(
	ctx context.Context, tx *sql.Tx, jobID string, o job.Opening, label, by string,
) (change int64, err error) {
	if change, err = s.addChange(ctx, tx, jobID, o, nil, label, by); err != nil {
		return 0, err
	}
	_, err = tx.ExecContext(ctx, addOpeningQuery, jobID, o.ID, jobID, change)
	return change, err
}

func (s *Store) addChange(
	ctx context.Context, tx *sql.Tx, jobID string, o job.Opening, parent any, label, by string,
) (int64, error) {
	o.Normalise()
	doc, err := json.Marshal(o)
	if err != nil {
		return 0, err
	}
	res, err := tx.StmtContext(ctx, s.save[addChangeQuery]).ExecContext(
		ctx, jobID, o.ID, parent, label, string(doc), by,
	)
	var e *sqlite.Error
	// its parent is gone since a backup was restored
	if errors.As(err, &e) && e.Code() == lib.SQLITE_CONSTRAINT_FOREIGNKEY {
		return 0, ErrStale
	}
	if err != nil {
		return 0, err
	}
	return res.LastInsertId()
}

// AddOpening appends an opening to a job's walk, with a new ID. For a used key it returns the opening of that request.
func (s *Store) AddOpening(ctx context.Context, jobID string, o job.Opening, once Once) (Kept, error) {
	o.ID = NewID()
	what := "opening of " + jobID
	var k Kept
	err := s.tx(ctx, func(tx *sql.Tx) error {
		if was, ok, err := once.before(ctx, tx, what); err != nil || ok {
			if err == nil {
				k, err = one(ctx, tx, was.job, was.opening)
			}
			return err
		}
		head, err := headOf(ctx, tx, jobID)
		if err != nil {
			return err
		}
		var doors int
		if err := tx.QueryRowContext(ctx, `SELECT count(*) FROM openings WHERE job_id = ?`, jobID).Scan(
			&doors,
		); err != nil {
			return err
		}
		if doors >= MostOpenings {
			return ErrFull
		}
		change, err := s.addOpening(ctx, tx, jobID, o, "added", "")
		if err != nil {
			return err
		}
		head.Openings, head.Walk = head.Openings+1, head.Walk+1
		o.Normalise()
		k = Kept{Job: head, Opening: o, Version: change}
		if err := once.keep(ctx, tx, what, answer{job: jobID, opening: o.ID}); err != nil {
			return err
		}
		return s.walked(ctx, tx, jobID)
	})
	return k, err
}

// walked counts a change of a job's walk.
func (s *Store) walked(ctx context.Context, tx *sql.Tx, jobID string) error {
	_, err := tx.StmtContext(ctx, s.save[walkQuery]).ExecContext(ctx, jobID)
	return err
}

// Save appends a change to an opening and makes it current; for a used key, it returns the opening as it is now. Where
// it was changed in between the error is ErrStale.
func (s *Store) Save(ctx context.Context, from Kept, label string, o job.Opening) (to Kept, again bool, err error) {
	to = Kept{Job: from.Job, Opening: o, Undo: label}
	to.Job.Walk++
	err = s.tx(ctx, func(tx *sql.Tx) (err error) {
		if _, again, err = from.Once.before(ctx, tx, changeOf(from)); err != nil || again { // sent twice at once
			if err == nil {
				to, err = one(ctx, tx, from.Job.ID, from.Opening.ID)
			}
			return err
		}
		if to.Version, err = s.addChange(ctx, tx, from.Job.ID, o, from.Version, label, from.By); err != nil {
			return err
		}
		if err := from.Once.keep(ctx, tx, changeOf(from), answer{
			job: from.Job.ID, opening: from.Opening.ID,
		}); err != nil {
			return err
		}
		return s.move(ctx, tx, from, to.Version)
	})
	return to, again, err
}

func changeOf(k Kept) string { return "change of " + k.Job.ID + " " + k.Opening.ID }

// SentBefore reports whether an opening's change with a key was stored already. Asked after the opening was read, false
// means that what was read does not hold that change.
func (s *Store) SentBefore(ctx context.Context, k Kept) (sent bool, err error) {
	_, sent, err = k.Once.before(ctx, s.read, changeOf(k))
	return sent, disk(err)
}

// Undo makes the change before the current one current, if the opening is still at version.
func (s *Store) Undo(ctx context.Context, jobID, id string, version int64, once Once) (Kept, error) {
	return s.step(ctx, jobID, id, version, once, `SELECT parent FROM changes WHERE id = ?`, func(k Kept) bool {
		return k.Undo != ""
	})
}

// Redo makes the newest change after the current one current, if the opening is still at version.
func (s *Store) Redo(ctx context.Context, jobID, id string, version int64, once Once) (Kept, error) {
	return s.step(ctx, jobID, id, version, once, `SELECT max(id) FROM changes WHERE parent = ?`, func(k Kept) bool {
		return k.Redo != ""
	})
}

// step moves an opening along its changes; for a used key, it returns the opening as it is now.
func (s *Store) step(
	ctx context.Context, jobID, id string, version int64, once Once, to string, can func(Kept) bool,
) (Kept, error) {
	var k Kept
	err := s.tx(ctx, func(tx *sql.Tx) (err error) {
		if k, err = one(ctx, tx, jobID, id); err != nil {
			return err
		}
		what := "step of " + jobID + " " + id
		if _, ok, err := once.before(ctx, tx, what); err != nil || ok {
			return err
		}
		if k.Version != version {
			return ErrStale
		}
		if !can(k) {
			return ErrNothing
		}
		var change int64
		if err := tx.QueryRowContext(ctx, to, version).Scan(&change); err != nil {
			return err
		}
		if err := s.move(ctx, tx, k, change); err != nil {
			return err
		}
		if err := once.keep(ctx, tx, what, answer{job: jobID, opening: id}); err != nil {
			return err
		}
		k, err = one(ctx, tx, jobID, id)
		return err
	})
	return k, err
}

// move makes another change current, if the opening is still where it was.
func (s *Store) move(ctx context.Context, tx *sql.Tx, from Kept, change int64) error {
	res, err := tx.StmtContext(ctx, s.save[moveQuery]).ExecContext(
		ctx, change, from.Job.ID, from.Opening.ID, from.Version,
	)
	if err != nil {
		return err
	}
	n, err := res.RowsAffected()
	if err != nil {
		return err
	}
	if n == 0 {
		return ErrStale
	}
	return s.walked(ctx, tx, from.Job.ID)
}

// Remove removes an opening that is still at version from the walk.
func (s *Store) Remove(ctx context.Context, jobID, id string, version int64) error {
	return s.setRemoved(
		ctx, jobID, id, `UPDATE openings SET removed = 1 WHERE job_id = ? AND id = ? AND NOT removed AND head = ?`,
		version,
	)
}

// PutBack puts a removed opening back in its place on the walk.
func (s *Store) PutBack(ctx context.Context, jobID, id string) error {
	return s.setRemoved(ctx, jobID, id, `UPDATE openings SET removed = 0 WHERE job_id = ? AND id = ?`)
}

func (s *Store) setRemoved(ctx context.Context, jobID, id, query string, more ...any) error {
	return s.tx(ctx, func(tx *sql.Tx) error {
		res, err := tx.ExecContext(ctx, query, append([]any{jobID, id}, more...)...)
		if err != nil {
			return err
		}
		n, err := res.RowsAffected()
		if err != nil {
			return err
		}
		if n == 0 {
			if _, err := one(ctx, tx, jobID, id); err != nil && !errors.Is(err, ErrDamaged) {
				return err
			}
			return ErrStale
		}
		return s.walked(ctx, tx, jobID)
	})
}

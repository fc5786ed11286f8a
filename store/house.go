package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"slices"

	"kindmargin/core/frame"
	"kindmargin/core/job"
)

// Unread is an opening whose document is not decoded yet.
type Unread struct {
	Job        Head
	ID         string
	Version    int64
	Name, Room string
	Hand       frame.Hand
	doc        []byte
}

// Whole reports whether the document is there to be decoded, beyond ID and version.
func (u Unread) Whole() bool { return u.doc != nil }

// Read decodes it.
func (u Unread) Read() Kept {
	k := Kept{Job: u.Job, Version: u.Version}
	k.read(u.ID, u.doc)
	return k
}

// Walk reads one job with its openings in the order of the walk, by name alone, and the removed ones. Of an opening
// that is known at its version only ID and version are read.
func (s *Store) Walk(
	ctx context.Context, id string, known func(opening string, version int64) bool,
) (head Head, walk, off []Unread, err error) {
	err = s.look(ctx, func(tx *sql.Tx) error {
		var err error
		if head, err = headOf(ctx, tx, id); err != nil {
			return err
		}
		rows, err := tx.QueryContext(
			ctx,
			`SELECT o.id, c.id, o.removed, c.doc FROM openings o JOIN changes c ON c.id = o.head WHERE o.job_id = ?
				ORDER BY o.position`,
			id,
		)
		if err != nil {
			return err
		}
		defer rows.Close()
		for rows.Next() {
			u := Unread{Job: head}
			var removed bool
			var doc sql.RawBytes
			if err := rows.Scan(&u.ID, &u.Version, &removed, &doc); err != nil {
				return err
			}
			if removed || !known(u.ID, u.Version) {
				var named struct {
					Name, Room string
					Hand       frame.Hand
				}
				_ = json.Unmarshal(doc, &named) // one that cannot be read says so when it is
				u.Name, u.Room, u.Hand, u.doc = named.Name, named.Room, named.Hand, slices.Clone(doc)
			}
			if removed {
				off = append(off, u)
			} else {
				walk = append(walk, u)
			}
		}
		return rows.Err()
	})
	return head, walk, off, err
}

// AddOpenings appends openings to a job's walk, all or none, each with a new ID, and returns their versions and how
// many rows were skipped; for a used key, the result of that request.
func (s *Store) AddOpenings(
	ctx context.Context, jobID string, list []job.Opening, left int, o Once, by string,
) (in Added, err error) {
	in, _, err = once(ctx, s, o, addedTo(jobID), func(tx *sql.Tx) (Added, error) {
		at := Added{Standing: []Standing{}, Left: left}
		if _, err := headOf(ctx, tx, jobID); err != nil {
			return at, err
		}
		var doors int
		if err := tx.QueryRowContext(ctx, `SELECT count(*) FROM openings WHERE job_id = ?`, jobID).Scan(
			&doors,
		); err != nil {
			return at, err
		}
		if doors+len(list) > MostOpenings {
			return at, ErrFull
		}
		for _, o := range list {
			o.ID = NewID()
			change, err := s.addOpening(ctx, tx, jobID, o, "brought in from a schedule", by)
			if err != nil {
				return at, err
			}
			at.Standing = append(at.Standing, Standing{o.ID, change})
		}
		return at, s.walked(ctx, tx, jobID)
	})
	return in, err
}

// SaveAll appends a change to each of some openings of one job, all or none, and returns their versions. Where any was
// changed in between the error is ErrStale.
func (s *Store) SaveAll(
	ctx context.Context, jobID, label string, from []Kept, to []job.Opening, o Once,
) ([]Standing, error) {
	at, _, err := once(ctx, s, o, "changes of "+jobID, func(tx *sql.Tx) ([]Standing, error) {
		at := []Standing{}
		for i, k := range from {
			change, err := s.addChange(ctx, tx, k.Job.ID, to[i], k.Version, label, k.By)
			if err != nil {
				return at, err
			}
			if err := s.move(ctx, tx, k, change); err != nil {
				return at, fmt.Errorf("%w: %s", err, k.Opening.Name)
			}
			at = append(at, Standing{k.Opening.ID, change})
		}
		return at, nil
	})
	return at, err
}

// StaleOpening is ErrStale of one opening among several.
type StaleOpening struct{ Name string }

func (e StaleOpening) Error() string { return ErrStale.Error() + ": " + e.Name }

// Unwrap makes it an ErrStale.
func (StaleOpening) Unwrap() error { return ErrStale }

// Standing is an opening and its current change.
type Standing struct {
	ID      string
	Version int64
}

// Added is the result of an imported schedule.
type Added struct {
	Standing []Standing
	Left     int // lines that were left out
}

func addedTo(jobID string) string { return "openings of " + jobID }

// AddedBefore is the result of an earlier request with a key; ok is false where there was none.
func (s *Store) AddedBefore(ctx context.Context, jobID string, o Once) (in Added, ok bool, err error) {
	was, ok, err := o.before(ctx, s.read, addedTo(jobID))
	if err == nil && ok && was.more != "" {
		err = json.Unmarshal([]byte(was.more), &in)
	}
	return in, ok, disk(err)
}

// SavedAll is the result of an earlier SaveAll with a key; ok is false where there was none.
func (s *Store) SavedAll(ctx context.Context, jobID string, o Once) (at []Standing, ok bool, err error) {
	was, ok, err := o.before(ctx, s.read, "changes of "+jobID)
	if err == nil && ok {
		err = json.Unmarshal([]byte(was.more), &at)
	}
	return at, ok, disk(err)
}

// UndoAll undoes one change each of some openings of a job that are still at the given version; those that were just
// added are removed from the walk; all or none.
func (s *Store) UndoAll(ctx context.Context, jobID string, list []Standing, o Once) error {
	ids := make([]string, len(list))
	for i, at := range list {
		ids[i] = at.ID
	}
	_, _, err := once(ctx, s, o, "undo of "+jobID, func(tx *sql.Tx) (none struct{}, err error) {
		_, doors, err := some(ctx, tx, jobID, ids)
		if err != nil {
			return none, err
		}
		stand := map[string]Kept{}
		for _, k := range doors {
			stand[k.Opening.ID] = k
		}
		for _, at := range list {
			k, ok := stand[at.ID]
			delete(stand, at.ID) // named again, it is no longer there
			switch {
			case !ok:
				return none, ErrNotFound
			case k.Version != at.Version:
				return none, StaleOpening{k.Opening.Name}
			case k.Undo == "":
				if _, err := tx.ExecContext(
					ctx, `UPDATE openings SET removed = 1 WHERE job_id = ? AND id = ?`, jobID, at.ID,
				); err != nil {
					return none, err
				}
				if err := s.walked(ctx, tx, jobID); err != nil {
					return none, err
				}
				continue
			}
			var parent int64
			if err := tx.QueryRowContext(ctx, `SELECT parent FROM changes WHERE id = ?`, at.Version).Scan(
				&parent,
			); err != nil {
				return none, err
			}
			if err := s.move(ctx, tx, k, parent); err != nil {
				return none, err
			}
		}
		return none, nil
	})
	return err
}

// Place moves an opening before another one on the walk; to its end where none is named.
func (s *Store) Place(ctx context.Context, jobID, id, before string) error {
	return s.tx(ctx, func(tx *sql.Tx) error {
		order, err := walkOf(ctx, tx, jobID)
		if err != nil {
			return err
		}
		at := slices.Index(order, id)
		if at < 0 || before != "" && !slices.Contains(order, before) {
			return ErrNotFound
		}
		if before == id {
			return nil
		}
		to := slices.Delete(slices.Clone(order), at, at+1)
		if n := slices.Index(to, before); n >= 0 {
			to = slices.Insert(to, n, id)
		} else {
			to = append(to, id)
		}
		for n, door := range to {
			if _, err := tx.ExecContext(
				ctx, `UPDATE openings SET position = ? WHERE job_id = ? AND id = ? AND position <> ?`, n+1, jobID, door,
				n+1,
			); err != nil {
				return err
			}
		}
		return s.walked(ctx, tx, jobID)
	})
}

// walkOf are the IDs of a job's openings in the order of the walk, removed ones included.
func walkOf(ctx context.Context, tx *sql.Tx, jobID string) (order []string, err error) {
	rows, err := tx.QueryContext(ctx, `SELECT id FROM openings WHERE job_id = ? ORDER BY position`, jobID)
	if err != nil {
		return nil, err
	}
	defer rows.Close()
	for rows.Next() {
		var id string
		if err := rows.Scan(&id); err != nil {
			return nil, err
		}
		order = append(order, id)
	}
	return order, rows.Err()
}

// Matching is how the columns of a schedule with the same headers were matched last time; nil where none was.
func (s *Store) Matching(ctx context.Context, header string) (columns []string, err error) {
	var doc string
	err = s.read.QueryRowContext(ctx, `SELECT columns FROM matchings WHERE header = ?`, header).Scan(&doc)
	switch {
	case errors.Is(err, sql.ErrNoRows):
		return nil, nil
	case err != nil:
		return nil, disk(err)
	}
	if err := json.Unmarshal([]byte(doc), &columns); err != nil {
		return nil, nil // it is matched afresh
	}
	return columns, nil
}

// KeepMatching stores how a schedule's columns were matched.
func (s *Store) KeepMatching(ctx context.Context, header string, columns []string) error {
	doc, err := json.Marshal(columns)
	if err != nil {
		return err
	}
	return s.tx(ctx, func(tx *sql.Tx) error {
		_, err := tx.ExecContext(
			ctx,
			`INSERT INTO matchings (header, columns) VALUES (?, ?) ON CONFLICT (header) DO UPDATE
				SET columns = excluded.columns`,
			header, string(doc),
		)
		return err
	})
}

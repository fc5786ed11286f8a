package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"

	"kindmargin/core/job"
)

// now is SQLite's expression for the time, RFC 3339 in UTC.
const now = `strftime('%Y-%m-%dT%H:%M:%SZ', 'now')`

// Change is one change of an opening.
type Change struct {
	ID    int64
	At    string // RFC 3339; empty where it was made before times were kept
	By    string
	Label string
}

// mostTold is the largest number of changes returned of an opening.
const mostTold = 2000

// Changes are those that led to the opening's current state, the first one first; the last mostTold of them.
func (s *Store) Changes(ctx context.Context, jobID, id string) ([]Change, error) {
	list := []Change{}
	err := s.look(ctx, func(tx *sql.Tx) error {
		var head int64
		switch err := tx.QueryRowContext(
			ctx, `SELECT head FROM openings WHERE job_id = ? AND id = ? AND NOT removed`, jobID, id,
		).Scan(&head); {
		case errors.Is(err, sql.ErrNoRows):
			return ErrNotFound
		case err != nil:
			return err
		}
		rows, err := tx.QueryContext(ctx, `
			WITH RECURSIVE led (id, parent, at, by, label, n) AS (
				SELECT id, parent, at, by, label, 1 FROM changes WHERE id = ?
				UNION ALL
				SELECT c.id, c.parent, c.at, c.by, c.label, n + 1 FROM changes c JOIN led ON c.id = led.parent WHERE n < ?
			) SELECT id, at, by, label FROM led ORDER BY n DESC`, head, mostTold)
		if err != nil {
			return err
		}
		defer rows.Close()
		for rows.Next() {
			var c Change
			if err := rows.Scan(&c.ID, &c.At, &c.By, &c.Label); err != nil {
				return err
			}
			list = append(list, c)
		}
		return rows.Err()
	})
	return list, err
}

// Past is a change with the opening as it left it.
type Past struct {
	Change
	Opening job.Opening
}

// Past reads the last changes that led to the opening's current state, at most so many, the newest first. Where one cannot
// be decoded the list ends before it.
func (s *Store) Past(ctx context.Context, jobID, id string, most int) (list []Past, err error) {
	err = s.look(ctx, func(tx *sql.Tx) error {
		rows, err := tx.QueryContext(ctx, `
			WITH RECURSIVE led (id, parent, at, by, label, doc, n) AS (
				SELECT c.id, c.parent, c.at, c.by, c.label, c.doc, 1
				FROM openings o JOIN changes c ON c.id = o.head WHERE o.job_id = ? AND o.id = ? AND NOT o.removed
				UNION ALL
				SELECT c.id, c.parent, c.at, c.by, c.label, c.doc, n + 1
				FROM changes c JOIN led ON c.id = led.parent WHERE n < ?
			) SELECT id, at, by, label, doc FROM led ORDER BY n`, jobID, id, most)
		if err != nil {
			return err
		}
		defer rows.Close()
		for rows.Next() {
			var p Past
			var doc sql.RawBytes
			if err := rows.Scan(&p.ID, &p.At, &p.By, &p.Label, &doc); err != nil {
				return err
			}
			if err := json.Unmarshal(doc, &p.Opening); err != nil {
				return rows.Close()
			}
			p.Opening.Normalise()
			list = append(list, p)
		}
		if err := rows.Err(); err != nil {
			return err
		}
		if len(list) == 0 {
			return ErrNotFound
		}
		return nil
	})
	return list, err
}

// Photo is a photograph of an opening; Data is a JPEG, or Load reads it where that is set.
type Photo struct {
	ID            string
	Opening       string
	Step          job.Step
	At, By        string
	Caption       string
	Width, Height int
	Data          []byte
	Load          func() ([]byte, error) `json:"-"`
}

// MostPhotos is the largest number of photographs of an opening, removed ones included.
const MostPhotos = 60

// ErrPhotos is an opening with MostPhotos photographs.
var ErrPhotos = errors.New("as many photographs as are kept of a door")

// AddPhoto stores a photograph with a new ID; At is now, unless it is given. For a used key it returns the photograph
// of that request, without its data.
func (s *Store) AddPhoto(ctx context.Context, jobID string, p Photo, o Once) (Photo, error) {
	kept, _, err := once(ctx, s, o, "photo of "+jobID+" "+p.Opening, func(tx *sql.Tx) (Photo, error) {
		if err := addPhoto(ctx, tx, jobID, &p); err != nil {
			return p, err
		}
		told := p
		told.Data, told.Load = nil, nil
		return told, nil
	})
	return kept, err
}

func addPhoto(ctx context.Context, tx *sql.Tx, jobID string, p *Photo) error {
	p.ID = NewID()
	var known bool
	var count int
	if err := tx.QueryRowContext(ctx, `SELECT EXISTS (SELECT 1 FROM openings WHERE job_id = ?1 AND id = ?2 AND NOT removed),
		(SELECT count(*) FROM photos WHERE job_id = ?1 AND opening_id = ?2)`, jobID, p.Opening).Scan(&known, &count); err != nil {
		return err
	}
	switch {
	case !known:
		return ErrNotFound
	case count >= MostPhotos:
		return ErrPhotos
	}
	data := p.Data
	if p.Load != nil {
		var err error
		if data, err = p.Load(); err != nil {
			return err
		}
	}
	return tx.QueryRowContext(ctx, `INSERT INTO photos (id, job_id, opening_id, step, at, by, caption, width, height, data)
		VALUES (?, ?, ?, ?, coalesce(nullif(?, ''), `+now+`), ?, ?, ?, ?, ?) RETURNING at`,
		p.ID, jobID, p.Opening, p.Step, p.At, p.By, p.Caption, p.Width, p.Height, data).Scan(&p.At)
}

// Photos are the photographs of an opening, the first one first, without their data; of every opening of the job where
// none is named.
func (s *Store) Photos(ctx context.Context, jobID, opening string) ([]Photo, error) {
	rows, err := s.read.QueryContext(ctx, `SELECT id, opening_id, step, at, by, caption, width, height FROM photos
		WHERE job_id = ? AND (? = '' OR opening_id = ?) AND NOT removed ORDER BY rowid`, jobID, opening, opening)
	if err != nil {
		return nil, disk(err)
	}
	defer rows.Close()
	list := []Photo{}
	for rows.Next() {
		var p Photo
		if err := rows.Scan(&p.ID, &p.Opening, &p.Step, &p.At, &p.By, &p.Caption, &p.Width, &p.Height); err != nil {
			return nil, disk(err)
		}
		list = append(list, p)
	}
	return list, disk(rows.Err())
}

// PhotoData is the JPEG of a photograph.
func (s *Store) PhotoData(ctx context.Context, jobID, opening, id string) (b []byte, err error) {
	err = s.read.QueryRowContext(
		ctx, `SELECT data FROM photos WHERE job_id = ? AND opening_id = ? AND id = ?`, jobID, opening, id,
	).Scan(&b)
	if errors.Is(err, sql.ErrNoRows) {
		return nil, ErrNotFound
	}
	return b, disk(err)
}

// SetPhotoRemoved removes a photograph, or puts it back.
func (s *Store) SetPhotoRemoved(ctx context.Context, jobID, opening, id string, removed bool) error {
	return s.tx(ctx, func(tx *sql.Tx) error {
		res, err := tx.ExecContext(
			ctx, `UPDATE photos SET removed = ? WHERE job_id = ? AND opening_id = ? AND id = ?`, removed, jobID,
			opening, id,
		)
		if err != nil {
			return err
		}
		if n, err := res.RowsAffected(); err != nil || n == 0 {
			return errors.Join(err, ErrNotFound)
		}
		return nil
	})
}

// Spend adds seconds to a step of an opening, once for a key.
func (s *Store) Spend(ctx context.Context, jobID, opening string, step job.Step, seconds int, o Once) error {
	_, _, err := once(ctx, s, o, "time of "+jobID+" "+opening, func(tx *sql.Tx) (none struct{}, err error) {
		_, err = tx.ExecContext(ctx, `INSERT INTO spent (job_id, opening_id, step, seconds) VALUES (?, ?, ?, ?)
			ON CONFLICT DO UPDATE SET seconds = seconds + excluded.seconds`, jobID, opening, step, seconds)
		return none, err
	})
	return err
}

// Spent is the seconds spent on each step of an opening.
func (s *Store) Spent(ctx context.Context, jobID, opening string) (map[job.Step]int, error) {
	rows, err := s.read.QueryContext(
		ctx, `SELECT step, seconds FROM spent WHERE job_id = ? AND opening_id = ?`, jobID, opening,
	)
	if err != nil {
		return nil, disk(err)
	}
	defer rows.Close()
	spent := map[job.Step]int{}
	for rows.Next() {
		var step job.Step
		var seconds int
		if err := rows.Scan(&step, &seconds); err != nil {
			return nil, disk(err)
		}
		spent[step] = seconds
	}
	return spent, disk(rows.Err())
}

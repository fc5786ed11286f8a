package store

import (
	"context"
	"database/sql"
)

// Practised is one result of practice.
type Practised struct {
	ID    int64
	At    string // RFC 3339, UTC
	By    string
	Kind  string // "opening", or a drill's
	Name  string
	Right bool
	Says  string // what it came to, in a sentence
	Learn string // what would help most
	Doc   string // the attempt as a file, of an opening
}

// mostPractised is how many results are kept; the oldest are deleted.
const mostPractised = 2000

// AddPractised stores a result, once for a key.
func (s *Store) AddPractised(ctx context.Context, p Practised, o Once) error {
	_, _, err := once(ctx, s, o, "practice", func(tx *sql.Tx) (none struct{}, err error) {
		if _, err := tx.ExecContext(ctx, `INSERT INTO practice (at, by, kind, name, right, says, learn, doc) VALUES (`+
			now+`, ?, ?, ?, ?, ?, ?, ?)`,
			p.By, p.Kind, p.Name, p.Right, p.Says, p.Learn, p.Doc); err != nil {
			return none, err
		}
		_, err = tx.ExecContext(
			ctx, `DELETE FROM practice WHERE id <= (SELECT max(id) FROM practice) - ?`, mostPractised,
		)
		return none, err
	})
	return err
}

// Practised are all results, the oldest first, without their files.
func (s *Store) Practised(ctx context.Context) ([]Practised, error) {
	rows, err := s.read.QueryContext(ctx, `SELECT id, at, by, kind, name, right, says, learn FROM practice ORDER BY id`)
	if err != nil {
		return nil, disk(err)
	}
	defer rows.Close()
	list := []Practised{}
	for rows.Next() {
		var p Practised
		if err := rows.Scan(&p.ID, &p.At, &p.By, &p.Kind, &p.Name, &p.Right, &p.Says, &p.Learn); err != nil {
			return nil, disk(err)
		}
		list = append(list, p)
	}
	return list, disk(rows.Err())
}

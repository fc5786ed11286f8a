package store

import (
	"context"
	"crypto/rand"
	"crypto/sha256"
	"database/sql"
	"errors"
	"time"
)

// Pass admits one client, until it is ended.
type Pass struct {
	ID, Name   string
	Made, Seen string // RFC 3339, UTC; seen to the hour
	Ended      string // empty while it holds
	Runs       bool   // it runs the house; else it reads and enters
}

// holds is the SQL condition of a valid pass: not ended, and used in the last 90 days.
const holds = `ended = '' AND seen > strftime('%Y-%m-%dT%H:%M:%SZ', 'now', '-90 days')`

// mostPasses is the largest number of valid passes.
const mostPasses = 50

// ErrPasses is a data file with mostPasses valid passes.
var ErrPasses = errors.New("as many devices as are let in")

// AddPass makes a pass. The client gets the secret, 130 random bits; only its SHA-256 is stored, which is enough for a
// secret that nobody can guess.
func (s *Store) AddPass(ctx context.Context, name string) (p Pass, secret string, err error) {
	secret = rand.Text()
	hash := sha256.Sum256([]byte(secret))
	err = s.tx(ctx, func(tx *sql.Tx) error {
		var held int
		if err := tx.QueryRowContext(ctx, `SELECT count(*) FROM passes WHERE `+holds).Scan(&held); err != nil {
			return err
		}
		if held >= mostPasses {
			return ErrPasses
		}
		p = Pass{ID: NewID(), Name: name}
		return tx.QueryRowContext(
			ctx,
			`INSERT INTO passes (id, name, hash, made, seen) VALUES (?, ?, ?, `+now+`, `+now+`) RETURNING made, seen`,
			p.ID, name, hash[:],
		).Scan(&p.Made, &p.Seen)
	})
	return p, secret, err
}

// PassOf is the pass of a secret; ErrNotFound where there is none, it was ended, or it was not used for 90 days.
func (s *Store) PassOf(ctx context.Context, secret string) (p Pass, err error) {
	hash := sha256.Sum256([]byte(secret))
	err = s.read.QueryRowContext(
		ctx, `SELECT id, name, made, seen, runs FROM passes WHERE hash = ? AND `+holds, hash[:],
	).Scan(&p.ID, &p.Name, &p.Made, &p.Seen, &p.Runs)
	if errors.Is(err, sql.ErrNoRows) {
		return p, ErrNotFound
	}
	return p, disk(err)
}

// hour is the precision of a client's last use: RFC 3339 up to the hour.
const hour = len("2006-01-02T15")

// Unseen reports whether a pass's use in this hour is not recorded yet.
func (p Pass) Unseen(now time.Time) bool {
	return len(p.Seen) < hour || p.Seen[:hour] != now.UTC().Format(time.RFC3339)[:hour]
}

// SeePass records a pass's use, once an hour at most.
func (s *Store) SeePass(ctx context.Context, id string) error {
	return s.tx(ctx, func(tx *sql.Tx) error {
		_, err := tx.ExecContext(
			ctx, `UPDATE passes SET seen = `+now+` WHERE id = ? AND substr(seen, 1, 13) <> substr(`+now+`, 1, 13)`, id,
		)
		return err
	})
}

// Passes are all valid passes, the first one first.
func (s *Store) Passes(ctx context.Context) ([]Pass, error) {
	rows, err := s.read.QueryContext(
		ctx, `SELECT id, name, made, seen, runs FROM passes WHERE `+holds+` ORDER BY made, id`,
	)
	if err != nil {
		return nil, disk(err)
	}
	defer rows.Close()
	list := []Pass{}
	for rows.Next() {
		var p Pass
		if err := rows.Scan(&p.ID, &p.Name, &p.Made, &p.Seen, &p.Runs); err != nil {
			return nil, disk(err)
		}
		list = append(list, p)
	}
	return list, disk(rows.Err())
}

// RaisePass lets the client of a pass run the house, or no longer.
func (s *Store) RaisePass(ctx context.Context, id string, runs bool) error {
	return s.tx(ctx, func(tx *sql.Tx) error {
		res, err := tx.ExecContext(ctx, `UPDATE passes SET runs = ? WHERE id = ? AND `+holds, runs, id)
		if err != nil {
			return err
		}
		if n, err := res.RowsAffected(); err != nil || n == 0 {
			return errors.Join(err, ErrNotFound)
		}
		return nil
	})
}

// EndPass ends a pass.
func (s *Store) EndPass(ctx context.Context, id string) error {
	return s.tx(ctx, func(tx *sql.Tx) error {
		res, err := tx.ExecContext(ctx, `UPDATE passes SET ended = `+now+` WHERE id = ? AND ended = ''`, id)
		if err != nil {
			return err
		}
		if n, err := res.RowsAffected(); err != nil || n == 0 {
			return errors.Join(err, ErrNotFound)
		}
		return nil
	})
}

package store

import (
	"context"
	"crypto/rand"
	"database/sql"
	"encoding/json"
	"errors"
	"strings"
)

// NewID is a short random ID.
func NewID() string { return strings.ToLower(rand.Text()[:10]) }

// Once is an idempotency key with a digest of its request: the same request sent again has no further effect, and a
// different one with the key fails with ErrKey.
type Once struct {
	Key   string // the sender's own (an idempotency key); empty for none
	Asked string // a digest of what is asked for; empty where it is not told
}

// ErrKey is a key that was used for another request.
var ErrKey = errors.New("the key was used for another request")

// answer is the result of a request.
type answer struct{ job, opening, more string }

// before is the result of an earlier request with a key; ok is false where there was none. Keys are separate for each
// kind of result and each job.
func (o Once) before(ctx context.Context, q querier, what string) (a answer, ok bool, err error) {
	if o.Key == "" {
		return a, false, nil
	}
	var asked string
	err = q.QueryRowContext(
		ctx, `SELECT job_id, opening_id, asked, answer FROM made WHERE key = ?`, what+" "+o.Key,
	).Scan(&a.job, &a.opening, &asked, &a.more)
	switch {
	case errors.Is(err, sql.ErrNoRows):
		return a, false, nil
	case err == nil && asked != "" && o.Asked != "" && asked != o.Asked:
		return a, false, ErrKey
	}
	return a, err == nil, err
}

// keep stores the result of a request.
func (o Once) keep(ctx context.Context, tx *sql.Tx, what string, a answer) error {
	if o.Key == "" {
		return nil
	}
	_, err := tx.ExecContext(
		ctx, `INSERT INTO made (key, job_id, opening_id, asked, answer) VALUES (?, ?, ?, ?, ?)`, what+" "+o.Key, a.job,
		a.opening, o.Asked, a.more,
	)
	return err
}

// once runs f in one transaction and returns its result; for a used key it returns that request's result, and again is
// true.
func once[T any](
	ctx context.Context, s *Store, o Once, what string, do func(*sql.Tx) (T, error),
) (v T, again bool, err error) {
	err = s.tx(ctx, func(tx *sql.Tx) error {
		was, ok, err := o.before(ctx, tx, what)
		if err != nil {
			return err
		}
		if again = ok; ok {
			if was.more == "" { // kept before answers were
				return nil
			}
			return json.Unmarshal([]byte(was.more), &v)
		}
		if v, err = do(tx); err != nil {
			return err
		}
		b, err := json.Marshal(v)
		if err != nil {
			return err
		}
		return o.keep(ctx, tx, what, answer{more: string(b)})
	})
	return v, again, err
}

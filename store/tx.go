package store

import (
	"context"
	"database/sql"
)

// tx runs f in one transaction of the writing connection. It fails with ErrGone where the data file was removed before
// or meanwhile.
func (s *Store) tx(ctx context.Context, f func(*sql.Tx) error) error {
	if err := s.here(); err != nil {
		return err
	}
	if err := within(ctx, s.write, nil, f); err != nil {
		return err
	}
	return s.here()
}

// look runs f in one read-only transaction, which waits for no writer.
func (s *Store) look(ctx context.Context, f func(*sql.Tx) error) error {
	return within(ctx, s.read, &sql.TxOptions{ReadOnly: true}, f)
}

func within(ctx context.Context, db *sql.DB, how *sql.TxOptions, f func(*sql.Tx) error) error {
	tx, err := db.BeginTx(ctx, how)
	if err != nil {
		return disk(err)
	}
	if err := f(tx); err != nil {
		_ = tx.Rollback()
		return disk(err)
	}
	return disk(tx.Commit())
}

type querier interface {
	QueryRowContext(context.Context, string, ...any) *sql.Row
	QueryContext(context.Context, string, ...any) (*sql.Rows, error)
}

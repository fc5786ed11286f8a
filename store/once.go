package store

import (
	"context"
	"crypto/rand"
	"database/sql"
	"errors"
	"strings"
)

// NewID is a short random name for a job or an opening.
func NewID() string { return strings.ToLower(rand.Text()[:10]) }

// keyed is a request's key among those for the same thing, so that one key used
// for a job and a door, or for doors of two jobs, is two keys. An empty key is none.
func keyed(what, key string) string {
	if key == "" {
		return ""
	}
	return what + " " + key
}

// made tells what was made for a request's key before: the same request sent again
// makes nothing more.
func made(ctx context.Context, tx *sql.Tx, key string) (jobID, openingID string, err error) {
	if key == "" {
		return "", "", nil
	}
	err = tx.QueryRowContext(ctx, `SELECT job_id, opening_id FROM made WHERE key = ?`, key).Scan(&jobID, &openingID)
	if errors.Is(err, sql.ErrNoRows) {
		err = nil
	}
	return jobID, openingID, err
}

func keepMade(ctx context.Context, tx *sql.Tx, key, jobID, openingID string) error {
	if key == "" {
		return nil
	}
	_, err := tx.ExecContext(ctx, `INSERT INTO made (key, job_id, opening_id) VALUES (?, ?, ?)`, key, jobID, openingID)
	return err
}

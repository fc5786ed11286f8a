package store

import (
	"context"
	"database/sql"
	"time"

	"kindmargin/core/season"
)

// Aired is the air of a house at a moment.
type Aired struct {
	season.Air
	At   time.Time // UTC, to the second
	Name string    // of the hygrometer
}

// mostAir is how many readings of a house's air are kept: hourly ones of thirteen months; the oldest are deleted.
const mostAir = 10000

// AddAir stores a reading of a house's air; it replaces one of the same hygrometer and moment.
func (s *Store) AddAir(ctx context.Context, job string, a Aired) error {
	return s.tx(ctx, func(tx *sql.Tx) error {
		if _, err := headOf(ctx, tx, job); err != nil {
			return err
		}
		if _, err := tx.ExecContext(ctx, `INSERT OR REPLACE INTO air (job_id, at, name, celsius, humidity)
			VALUES (?, ?, ?, ?, ?)`,
			job, a.At.UTC().Format(time.RFC3339), a.Name, float64(a.Celsius), float64(a.Humidity)); err != nil {
			return err
		}
		_, err := tx.ExecContext(
			ctx,
			`DELETE FROM air WHERE job_id = ?1 AND at < (SELECT at FROM air WHERE job_id = ?1 ORDER BY at DESC
				LIMIT 1 OFFSET ?2)`,
			job, mostAir-1,
		)
		return err
	})
}

// AirOf are a house's readings since a moment, the newest first, up to a limit.
func (s *Store) AirOf(ctx context.Context, job string, since time.Time, most int) ([]Aired, error) {
	if _, err := s.Head(ctx, job); err != nil {
		return nil, err
	}
	rows, err := s.read.QueryContext(
		ctx, `SELECT at, name, celsius, humidity FROM air WHERE job_id = ? AND at >= ? ORDER BY at DESC LIMIT ?`, job,
		since.UTC().Format(time.RFC3339), most,
	)
	if err != nil {
		return nil, disk(err)
	}
	defer rows.Close()
	list := []Aired{}
	for rows.Next() {
		var a Aired
		var at string
		var c, h float64
		if err := rows.Scan(&at, &a.Name, &c, &h); err != nil {
			return nil, disk(err)
		}
		if a.At, err = time.Parse(time.RFC3339, at); err != nil {
			return nil, err
		}
		a.Celsius, a.Humidity = season.Celsius(c), season.Percent(h)
		list = append(list, a)
	}
	return list, disk(rows.Err())
}

package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"slices"

	"kindmargin/core/day"
	"kindmargin/core/job"
)

// Day is a job's stored day with its version; 0 where none was stored.
func (s *Store) Day(ctx context.Context, job string) (d day.Day, version int64, err error) {
	if _, err := s.Head(ctx, job); err != nil {
		return d, 0, err
	}
	d, version, err = dayOf(ctx, s.read, job)
	return d, version, disk(err)
}

func dayOf(ctx context.Context, q querier, job string) (d day.Day, version int64, err error) {
	var doc []byte
	switch err := q.QueryRowContext(ctx, `SELECT doc, version FROM days WHERE job_id = ?`, job).Scan(&doc, &version); {
	case errors.Is(err, sql.ErrNoRows):
		return d, 0, nil
	case err != nil:
		return d, 0, err
	}
	if err := json.Unmarshal(doc, &d); err != nil {
		return d, 0, fmt.Errorf("%w: the day of job %s: %w", ErrDamaged, job, err)
	}
	return d, version, nil
}

// SetDay stores a job's day if it is still at version; marks of tasks stay as they are stored.
func (s *Store) SetDay(ctx context.Context, job string, d day.Day, version int64) (day.Day, int64, error) {
	return s.changeDay(ctx, job, func(was day.Day, now int64) (day.Day, error) {
		if now != version {
			return d, ErrStale
		}
		d.Marks = was.Marks
		return d, nil
	})
}

// MarkTask stores what became of a task, in place of the mark before. Where no day was stored yet, usual is.
func (s *Store) MarkTask(ctx context.Context, job string, m day.Mark, usual day.Day) (day.Day, int64, error) {
	return s.changeDay(ctx, job, func(d day.Day, now int64) (day.Day, error) {
		if now == 0 {
			d = usual
		}
		d.Marks = slices.DeleteFunc(d.Marks, func(k day.Mark) bool { return k.Task == m.Task })
		if m != (day.Mark{Task: m.Task}) {
			d.Marks = append(d.Marks, m)
		}
		return d, d.Check()
	})
}

func (s *Store) changeDay(
	ctx context.Context, job string, change func(day.Day, int64) (day.Day, error),
) (d day.Day, version int64, err error) {
	err = s.tx(ctx, func(tx *sql.Tx) error {
		if _, err := headOf(ctx, tx, job); err != nil {
			return err
		}
		was, now, err := dayOf(ctx, tx, job)
		if err != nil {
			return err
		}
		if d, err = change(was, now); err != nil {
			return err
		}
		doc, err := json.Marshal(d)
		if err != nil {
			return err
		}
		version = now + 1
		_, err = tx.ExecContext(
			ctx,
			`INSERT INTO days (job_id, doc, version) VALUES (?1, ?2, ?3) ON CONFLICT (job_id) DO UPDATE
				SET doc = ?2, version = ?3`,
			job, string(doc), version,
		)
		return err
	})
	return d, version, err
}

// SpentAll is the seconds spent at each opening of a job, by step.
func (s *Store) SpentAll(ctx context.Context, jobID string) (map[string]map[job.Step]int, error) {
	rows, err := s.read.QueryContext(ctx, `SELECT opening_id, step, seconds FROM spent WHERE job_id = ?`, jobID)
	if err != nil {
		return nil, disk(err)
	}
	defer rows.Close()
	all := map[string]map[job.Step]int{}
	for rows.Next() {
		var opening string
		var step job.Step
		var seconds int
		if err := rows.Scan(&opening, &step, &seconds); err != nil {
			return nil, disk(err)
		}
		if all[opening] == nil {
			all[opening] = map[job.Step]int{}
		}
		all[opening][step] = seconds
	}
	return all, disk(rows.Err())
}

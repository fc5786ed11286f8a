package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"math"
	"slices"
	"strings"
	"time"

	"kindmargin/core/day"
	"kindmargin/core/job"
	"kindmargin/core/measure"
)

// Report is the content of a data file, counted.
type Report struct{ Jobs, Openings, Changes, Photos int }

// Check reads a whole data file: its pages, its references, and every field of every table, as far as its version has
// them. It writes nothing. What cannot be read is ErrDamaged, with the table and the row.
func Check(ctx context.Context, path string) (Report, error) {
	var r Report
	db, err := readOnly(ctx, path)
	if err != nil {
		return r, err
	}
	defer db.Close()
	if err := sound(ctx, db, "integrity_check"); err != nil {
		return r, err
	}
	links, err := db.QueryContext(ctx, `PRAGMA foreign_key_check`)
	if err != nil {
		return r, disk(err)
	}
	defer links.Close()
	if links.Next() {
		return r, fmt.Errorf("%w: a change belongs to an opening that is not there", ErrDamaged)
	}
	var astray int
	if err := db.QueryRowContext(
		ctx,
		`SELECT count(*) FROM openings o JOIN changes c ON c.id = o.head
			WHERE c.job_id <> o.job_id OR c.opening_id <> o.id`,
	).Scan(&astray); err != nil {
		return r, disk(err)
	}
	if astray > 0 {
		return r, fmt.Errorf("%w: %d openings stand at a change of another", ErrDamaged, astray)
	}
	for table, row := range rowChecks {
		n, err := checkTable(ctx, db, table, row)
		if err != nil {
			return r, err
		}
		switch table {
		case "jobs":
			r.Jobs = n
		case "openings":
			r.Openings = n
		case "changes":
			r.Changes = n
		case "photos":
			r.Photos = n
		}
	}
	return r, nil
}

// row is a row of a table by its columns; those that the file's version lacks are absent. SQLite has checked the types
// of values: the tables are STRICT.
type row map[string]any

func (r row) text(column string) string {
	s, _ := r[column].(string)
	return s
}

func (r row) whole(column string) int64 {
	n, _ := r[column].(int64)
	return n
}

// is decodes a JSON column; an absent one is valid.
func (r row) is(column string, as any) error {
	if _, ok := r[column]; !ok {
		return nil
	}
	if err := json.Unmarshal([]byte(r.text(column)), as); err != nil {
		return fmt.Errorf("its %s: %w", column, err)
	}
	return nil
}

// at reports a column that is no time, or empty where that is allowed.
func (r row) at(column string, orNone bool) error {
	text, ok := r[column].(string)
	if !ok || orNone && text == "" {
		return nil
	}
	if _, err := time.Parse(time.RFC3339, text); err != nil {
		return fmt.Errorf("its %s, %.40q, is no time", column, text)
	}
	return nil
}

func (r row) step() error {
	if !slices.Contains(job.Steps, job.Step(r.text("step"))) {
		return fmt.Errorf("there is no step %.40q", r.text("step"))
	}
	return nil
}

// rowChecks are the checks of each table's rows.
var rowChecks = map[string]func(row) error{
	"jobs": func(r row) error {
		return errors.Join(
			known(measure.Unit(r.text("unit")), r.text("tape"), job.Language(r.text("language"))),
			r.is("presets", &[]job.Preset{}), r.is("kit", &job.Kit{}), r.is("usual", &job.Usual{}),
		)
	},
	"openings": func(row) error { return nil }, // all of it is names of other rows
	"changes": func(r row) error {
		return errors.Join(r.is("doc", &job.Opening{}), r.at("at", true))
	},
	"photos": func(r row) error {
		data, _ := r["data"].([]byte)
		if !strings.HasPrefix(string(data[:min(len(data), 2)]), "\xFF\xD8") || r.whole("width") < 0 ||
			r.whole("height") < 0 {
			return errors.New("it is no photograph")
		}
		return errors.Join(r.step(), r.at("at", false))
	},
	"spent": func(r row) error {
		if r.whole("seconds") < 0 {
			return errors.New("less than no time was spent")
		}
		return r.step()
	},
	"air": func(r row) error {
		for _, column := range []string{"celsius", "humidity"} {
			if v, ok := r[column].(float64); !ok || math.Abs(v) > 200 {
				return fmt.Errorf("its %s is none", column)
			}
		}
		return r.at("at", false)
	},
	"days":      func(r row) error { return r.is("doc", &day.Day{}) },
	"matchings": func(r row) error { return r.is("columns", &[]string{}) },
	"practice":  func(r row) error { return r.at("at", false) },
	"made": func(r row) error {
		if r.text("answer") == "" { // some are kept without
			return nil
		}
		return r.is("answer", new(any))
	},
	"passes": func(r row) error {
		if hash, _ := r["hash"].([]byte); len(hash) != 32 {
			return errors.New("it lets nobody in")
		}
		return errors.Join(r.at("made", false), r.at("seen", false), r.at("ended", true))
	},
}

// known rejects an unknown unit, tape or language.
func known(u measure.Unit, tape string, l job.Language) error {
	if u != measure.Millimetres && u != measure.Inches {
		return fmt.Errorf("there is no unit %.40q", string(u))
	}
	if !slices.Contains(measure.Tapes(u), measure.Tape(tape)) {
		return fmt.Errorf("there is no tape %.40q in %s", tape, u)
	}
	if l != "" && !slices.Contains(job.Languages, l) {
		return fmt.Errorf("there is no language %.40q", string(l))
	}
	return nil
}

// checkTable checks and counts the rows of a table; one that the file's version lacks has none.
func checkTable(ctx context.Context, db *sql.DB, table string, check func(row) error) (n int, err error) {
	var has bool
	if err := db.QueryRowContext(
		ctx, `SELECT EXISTS (SELECT 1 FROM sqlite_schema WHERE type = 'table' AND name = ?)`, table,
	).Scan(&has); err != nil || !has {
		return 0, disk(err)
	}
	rows, err := db.QueryContext(ctx, `SELECT * FROM `+table)
	if err != nil {
		return 0, disk(err)
	}
	defer rows.Close()
	columns, err := rows.Columns()
	if err != nil {
		return 0, disk(err)
	}
	for ; rows.Next(); n++ {
		values, into := make([]any, len(columns)), make([]any, len(columns))
		for i := range values {
			into[i] = &values[i]
		}
		if err := rows.Scan(into...); err != nil {
			return n, disk(err)
		}
		r := row{}
		for i, c := range columns {
			r[c] = values[i]
		}
		if err := check(r); err != nil {
			return n, fmt.Errorf("%w: row %d of %s: %w", ErrDamaged, n+1, table, err)
		}
	}
	return n, disk(rows.Err())
}

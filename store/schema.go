package store

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"io/fs"
	"maps"
	"net/url"
	"regexp"
	"strings"
	"sync"

	"github.com/pressly/goose/v3"
)

// ErrForeign is a data file whose tables are not those that this program makes.
var ErrForeign = errors.New("it is not as Kind Margin makes it")

// versions is the migrations' own table.
const versions = "goose_db_version"

// schemaOf is the SQL of every table, index, trigger and view of a data file, by kind and name, without the table of
// versions; and the file's version, 0 where it has none. tables is their number.
func schemaOf(ctx context.Context, q querier) (schema map[string]string, version int64, tables int, err error) {
	rows, err := q.QueryContext(ctx, `SELECT type, name, coalesce(sql, '') FROM sqlite_schema`)
	if err != nil {
		return nil, 0, 0, err
	}
	defer rows.Close()
	schema = map[string]string{}
	versioned := false
	for rows.Next() {
		var kind, name, text string
		if err := rows.Scan(&kind, &name, &text); err != nil {
			return nil, 0, 0, err
		}
		if kind == "table" {
			tables++
		}
		if kind == "table" && name == versions {
			versioned = true
			continue
		}
		schema[kind+" "+name] = plainSQL(text)
	}
	if err := errors.Join(rows.Err(), rows.Close()); err != nil || !versioned {
		return schema, 0, tables, err
	}
	err = q.QueryRowContext(ctx, `SELECT coalesce(max(version_id), 0) FROM `+versions+` WHERE is_applied`).Scan(
		&version,
	)
	return schema, version, tables, err
}

var (
	sqlComment = regexp.MustCompile(`--[^\n]*`)
	sqlSpace   = regexp.MustCompile(`\s+`)
)

// plainSQL is SQL without comments and with single spaces.
func plainSQL(text string) string {
	return strings.TrimSpace(sqlSpace.ReplaceAllString(sqlComment.ReplaceAllString(text, ""), " "))
}

// madeSchemas caches the schemas that the migrations make, by version.
var madeSchemas struct {
	sync.Mutex
	of map[int64]map[string]string
}

// madeSchema is the schema that the migrations make at a version.
func madeSchema(ctx context.Context, version int64) (map[string]string, error) {
	madeSchemas.Lock()
	defer madeSchemas.Unlock()
	if s, ok := madeSchemas.of[version]; ok {
		return s, nil
	}
	db, err := sql.Open("sqlite", ":memory:")
	if err != nil {
		return nil, err
	}
	defer db.Close()
	db.SetMaxOpenConns(1)
	if err := migrateTo(ctx, db, version); err != nil {
		return nil, err
	}
	s, _, _, err := schemaOf(ctx, db)
	if err == nil {
		if madeSchemas.of == nil {
			madeSchemas.of = map[int64]map[string]string{}
		}
		madeSchemas.of[version] = s
	}
	return s, err
}

func provider(db *sql.DB) (*goose.Provider, error) {
	files, err := fs.Sub(migrations, "migrations")
	if err != nil {
		return nil, err
	}
	return goose.NewProvider(goose.DialectSQLite3, db, files)
}

// newest is the version that this program migrates to.
func newest() (int64, error) {
	db, err := sql.Open("sqlite", ":memory:")
	if err != nil {
		return 0, err
	}
	defer db.Close()
	p, err := provider(db)
	if err != nil {
		return 0, err
	}
	list := p.ListSources()
	return list[len(list)-1].Version, nil
}

// migrateTo migrates an empty data file to a version.
func migrateTo(ctx context.Context, db *sql.DB, version int64) error {
	p, err := provider(db)
	if err == nil && version > 0 {
		_, err = p.UpTo(ctx, version)
	}
	return err
}

// sameSchema rejects a data file whose schema is not what the migrations make at its version. One without tables is
// valid.
func sameSchema(ctx context.Context, q querier) error {
	has, version, tables, err := schemaOf(ctx, q)
	if err != nil {
		return damaged(err)
	}
	if tables == 0 && len(has) == 0 {
		return nil
	}
	most, err := newest()
	if err != nil {
		return err
	}
	if version > most {
		return fmt.Errorf("%w (form %d; this one knows %d): update the program", ErrNewer, version, most)
	}
	ours, err := madeSchema(ctx, version)
	if err != nil {
		return err
	}
	if maps.Equal(has, ours) {
		return nil
	}
	if version == 0 {
		return errors.New("it belongs to another program; nothing was written to it. Choose another file")
	}
	for name := range has {
		if has[name] != ours[name] {
			return fmt.Errorf(
				"%w (there is a %.60s): nothing was written to it. Choose another file, or go on from a backup",
				ErrForeign, name,
			)
		}
	}
	return fmt.Errorf(
		"%w (something is missing): nothing was written to it. Choose another file, or go on from a backup", ErrForeign,
	)
}

// copyRows makes a data file at a path, at the version of another one, with the other's rows and none of its schema,
// which is not trusted.
func copyRows(ctx context.Context, from, to string) error {
	old, err := readOnly(ctx, from)
	if err != nil {
		return err
	}
	_, version, _, err := schemaOf(ctx, old)
	if err := errors.Join(err, old.Close()); err != nil {
		return err
	}
	db, err := connect(to, url.Values{})
	if err != nil {
		return err
	}
	defer db.Close()
	db.SetMaxOpenConns(1)
	if err := migrateTo(ctx, db, version); err != nil {
		return err
	}
	tables, err := tablesOf(ctx, db)
	if err != nil {
		return err
	}
	// Attached last: names that are not found here would be looked up there.
	if _, err := db.ExecContext(
		ctx, `ATTACH ? AS old`, "file:"+(&url.URL{Path: from}).EscapedPath()+"?mode=ro",
	); err != nil {
		return err
	}
	if _, err := db.ExecContext(ctx, `PRAGMA foreign_keys = OFF`); err != nil {
		return err
	}
	tx, err := db.BeginTx(ctx, nil)
	if err != nil {
		return err
	}
	defer func() { _ = tx.Rollback() }() // of no effect once it is kept
	for _, t := range tables {
		if _, err := tx.ExecContext(ctx, `DELETE FROM main.`+t.name); err != nil {
			return err
		}
		if _, err := tx.ExecContext(
			ctx, `INSERT INTO main.`+t.name+` (`+t.columns+`) SELECT `+t.columns+` FROM old.`+t.name+t.order,
		); err != nil {
			return err
		}
	}
	if err := tx.Commit(); err != nil {
		return err
	}
	_, err = db.ExecContext(ctx, `DETACH old`)
	return err
}

// rowsOf is a table whose rows are copied.
type rowsOf struct{ name, columns, order string }

// tablesOf are the tables of a data file without that of versions, with SQLite's table of sequences.
func tablesOf(ctx context.Context, db *sql.DB) (list []rowsOf, err error) {
	rows, err := db.QueryContext(ctx, `SELECT t.name, (SELECT group_concat('"' || c.name || '"', ', ') FROM pragma_table_info(t.name) c), instr(upper(t.sql), 'WITHOUT ROWID') > 0
		FROM main.sqlite_schema t WHERE t.type = 'table' AND t.name <> ? ORDER BY t.name = 'sqlite_sequence', t.rowid`, versions)
	if err != nil {
		return nil, err
	}
	defer rows.Close()
	for rows.Next() {
		var t rowsOf
		var keyed bool
		if err := rows.Scan(&t.name, &t.columns, &keyed); err != nil {
			return nil, err
		}
		if !keyed { // jobs are listed in the order that they were made in
			t.order = " ORDER BY rowid"
		}
		list = append(list, t)
	}
	return list, rows.Err()
}

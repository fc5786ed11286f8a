package store

import (
	"context"
	"database/sql"
	"fmt"
	"os"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/job"
	"kindmargin/core/measure"
)

// spoilt is a copy of a sound backup that another program has worked on.
func spoilt(t *testing.T, backup string, does ...string) string {
	t.Helper()
	b, err := os.ReadFile(backup)
	require.NoError(t, err)
	path := filepath.Join(t.TempDir(), "spoilt.db")
	require.NoError(t, os.WriteFile(path, b, 0o600))
	db, err := sql.Open("sqlite", path)
	require.NoError(t, err)
	for _, q := range does {
		_, err = db.Exec(q)
		require.NoError(t, err, q)
	}
	require.NoError(t, db.Close())
	return path
}

// A backup that brings more than rows is refused: a trigger could let a device in, or keep one in.
func TestWhatABackupBringsBesideRows(t *testing.T) {
	s, _ := fresh(t)
	study(t, s)
	whole := filepath.Join(t.TempDir(), "whole.db")
	_, err := s.Backup(t.Context(), whole)
	require.NoError(t, err)
	for name, does := range map[string]string{
		"a trigger": `CREATE TRIGGER late AFTER DELETE ON passes BEGIN INSERT INTO passes
			VALUES ('x', 'x', zeroblob(32), '2026-01-01T00:00:00Z', '2026-01-01T00:00:00Z', ''); END`,
		"a view":       `CREATE VIEW walk AS SELECT * FROM jobs`,
		"an index":     `CREATE UNIQUE INDEX one ON jobs (unit)`,
		"a table":      `CREATE TABLE notes (a)`,
		"a column":     `ALTER TABLE passes ADD COLUMN more TEXT NOT NULL DEFAULT ''`,
		"a table less": `DROP TABLE matchings`,
		"another of it": `DROP TABLE matchings;
			CREATE TABLE matchings (header TEXT PRIMARY KEY, columns TEXT NOT NULL DEFAULT 'x') STRICT, WITHOUT ROWID`,
		"a rule on one":  `DROP TABLE spent; CREATE TABLE spent (job_id, opening_id, step, seconds)`,
		"another's mark": `PRAGMA application_id = 7`,
	} {
		bad := spoilt(t, whole, does)
		_, err := s.Restore(t.Context(), bad)
		assert.ErrorContains(t, err, "nothing was restored", name)
		_, err = Open(t.Context(), bad)
		assert.Error(t, err, "%s: nor is it served", name)
	}
	_, err = s.Restore(t.Context(), whole)
	require.NoError(t, err, "the sound one is")
	_, err = s.write.Exec(`PRAGMA writable_schema = ON; UPDATE sqlite_schema SET sql = 'x'`)
	assert.Error(t, err, "the schema is not written to by hand")
	var trusted int
	require.NoError(t, s.write.QueryRow(`PRAGMA trusted_schema`).Scan(&trusted))
	assert.Zero(t, trusted, "what stands in it is not trusted")
}

// A file of another program is refused whatever it looks like, and not a byte of it is changed.
func TestAForeignFileIsNeverTakenOver(t *testing.T) {
	for name, make := range map[string]string{
		"one table":          `CREATE TABLE songs (a)`,
		"three tables":       `CREATE TABLE songs (a); CREATE TABLE bands (b); CREATE TABLE years (c)`,
		"a mark of its own":  `PRAGMA application_id = 7; CREATE TABLE songs (a)`,
		"our names":          `CREATE TABLE jobs (a); CREATE TABLE openings (b); CREATE TABLE changes (c)`,
		"our mark":           fmt.Sprintf(`PRAGMA application_id = %d; CREATE TABLE songs (a)`, mark),
		"a table of forms":   `CREATE TABLE goose_db_version (id INTEGER PRIMARY KEY, version_id INTEGER, is_applied INTEGER); CREATE TABLE songs (a)`,
		"forms of its own":   `CREATE TABLE goose_db_version (id INTEGER PRIMARY KEY, version_id INTEGER, is_applied INTEGER); INSERT INTO goose_db_version VALUES (1, 3, 1); CREATE TABLE songs (a)`,
		"forms that are not": `CREATE VIEW goose_db_version AS SELECT 1 AS version_id, 1 AS is_applied`,
	} {
		path := filepath.Join(t.TempDir(), "songs.db")
		db, err := sql.Open("sqlite", path)
		require.NoError(t, err)
		_, err = db.Exec(make)
		require.NoError(t, err)
		require.NoError(t, db.Close())
		before, err := os.ReadFile(path)
		require.NoError(t, err)
		_, err = Open(t.Context(), path)
		assert.ErrorContains(t, err, "nothing was written to it", name)
		after, err := os.ReadFile(path)
		require.NoError(t, err)
		assert.Equal(t, before, after, name)
		left, err := filepath.Glob(path + "?*")
		require.NoError(t, err)
		assert.Empty(t, left, "%s: nor is anything put beside it", name)
	}
}

// Where the data file went while it is open, nothing more is said to be saved.
func TestADataFileThatGoesWhileItIsOpen(t *testing.T) {
	for name, goes := range map[string]func(path string) error{
		"removed": os.Remove,
		"renamed": func(path string) error { return os.Rename(path, path+".old") },
		"replaced": func(path string) error {
			b, err := os.ReadFile(path)
			if err == nil {
				err = os.Remove(path)
			}
			if err == nil {
				err = os.WriteFile(path, b, 0o600)
			}
			return err
		},
	} {
		s, path := fresh(t)
		k := study(t, s)
		require.NoError(t, s.Ready(t.Context()))
		require.NoError(t, goes(path))
		_, _, err := s.Save(t.Context(), k, "late", k.Opening)
		assert.ErrorIs(t, err, ErrGone, name)
		_, err = s.AddJob(t.Context(), job.NewJob("", "House", measure.Millimetres), Once{})
		assert.ErrorIs(t, err, ErrGone, name)
		assert.ErrorIs(t, s.Ready(t.Context()), ErrGone, name)
		_, err = s.Backup(t.Context(), filepath.Join(t.TempDir(), "b.db"))
		assert.ErrorIs(t, err, ErrGone, name)
		_, err = s.Restore(t.Context(), path)
		assert.ErrorIs(t, err, ErrGone, name)
	}
	// It goes in the middle of a save: that one is not acknowledged either.
	s, path := fresh(t)
	err := s.tx(t.Context(), func(*sql.Tx) error { return os.Remove(path) })
	assert.ErrorIs(t, err, ErrGone)
}

// One job that cannot be read hides no other, and a check and a restore name it.
func TestOneBadJobHidesNoOther(t *testing.T) {
	s, path := fresh(t)
	k := study(t, s)
	bad, err := s.AddJob(t.Context(), job.NewJob("", "Bad", measure.Millimetres), Once{})
	require.NoError(t, err)
	for column, value := range map[string]string{
		"unit": "furlong", "tape": "1/3in", "presets": "{", "kit": "[]", "usual": "3",
	} {
		var was string
		require.NoError(t, s.write.QueryRow(`SELECT `+column+` FROM jobs WHERE id = ?`, bad.ID).Scan(&was))
		set := func(v string) {
			_, err := s.write.Exec(`UPDATE jobs SET `+column+` = ? WHERE id = ?`, v, bad.ID)
			require.NoError(t, err)
		}
		set(value)
		heads, err := s.Jobs(t.Context())
		require.NoError(t, err, column)
		require.Len(t, heads, 2)
		assert.NoError(t, heads[0].Broken)
		assert.ErrorIs(t, heads[1].Broken, ErrDamaged, column)
		assert.Equal(t, "Bad", heads[1].Name)
		_, err = s.Head(t.Context(), bad.ID)
		assert.ErrorIs(t, err, ErrDamaged, column)
		_, err = s.Opening(t.Context(), k.Job.ID, k.Opening.ID)
		assert.NoError(t, err)
		_, err = Check(t.Context(), path)
		assert.ErrorIs(t, err, ErrDamaged, column)
		assert.ErrorContains(t, err, "row 2 of jobs")
		set(was)
	}
}

// Every table is read, and what is wrong in it is named.
func TestACheckReadsEveryTable(t *testing.T) {
	s, path := fresh(t)
	k := study(t, s)
	for table, q := range map[string]string{
		"changes": `UPDATE changes SET at = 'yesterday'`,
		"photos": `INSERT INTO photos VALUES ('p', '` + k.Job.ID + `', '` + k.Opening.ID +
			`', 'lunch', '2026-01-01T00:00:00Z', '', '', 1, 1, x'FFD8', 0)`,
		"spent":     `INSERT INTO spent VALUES ('` + k.Job.ID + `', '` + k.Opening.ID + `', 'cut', -5)`,
		"air":       `INSERT INTO air VALUES ('` + k.Job.ID + `', '2026-01-01T00:00:00Z', 'hall', 9e99, 50)`,
		"days":      `INSERT INTO days VALUES ('` + k.Job.ID + `', '[', 1)`,
		"matchings": `INSERT INTO matchings VALUES ('Door', '{}')`,
		"practice":  `INSERT INTO practice VALUES (1, 'once', '', 'hand', '', 1, '', '', '')`,
		"passes": `INSERT INTO passes (id, name, hash, made, seen)
			VALUES ('x', 'x', x'00', '2026-01-01T00:00:00Z', '2026-01-01T00:00:00Z')`,
	} {
		tx, err := s.write.Begin()
		require.NoError(t, err)
		_, err = tx.Exec(q)
		require.NoError(t, err, table)
		bad := filepath.Join(t.TempDir(), "bad.db")
		require.NoError(t, tx.Commit())
		_, err = s.write.Exec(`VACUUM INTO ?`, bad)
		require.NoError(t, err)
		_, err = Check(t.Context(), bad)
		assert.ErrorIs(t, err, ErrDamaged, table)
		assert.ErrorContains(t, err, "of "+table, table)
		if table == "changes" {
			_, err = s.write.Exec(`UPDATE changes SET at = ''`)
		} else {
			_, err = s.write.Exec(`DELETE FROM ` + table)
		}
		require.NoError(t, err)
	}
	_, err := Check(t.Context(), path)
	assert.NoError(t, err)
}

// It is noted once an hour that a client was here; whether it is need not be asked of the one that writes.
func TestAPassIsSeenOnceAnHour(t *testing.T) {
	at := time.Date(2026, 11, 30, 14, 59, 0, 0, time.FixedZone("", 3600))
	for seen, want := range map[string]bool{
		"2026-11-30T13:00:00Z": false, "2026-11-30T13:59:59Z": false, "2026-11-30T12:59:00Z": true,
		"2026-11-29T13:30:00Z": true, "": true,
	} {
		assert.Equal(t, want, Pass{Seen: seen}.Unseen(at), seen)
	}
	s, _ := fresh(t)
	p, secret, err := s.AddPass(context.Background(), "phone")
	require.NoError(t, err)
	assert.False(t, p.Unseen(time.Now()))
	p, err = s.PassOf(t.Context(), secret)
	require.NoError(t, err)
	assert.False(t, p.Unseen(time.Now()))
}

package store

import (
	"context"
	"errors"
	"fmt"
	"math/rand/v2"
	"os"
	"path/filepath"
	"strconv"
	"strings"
	"sync"
	"sync/atomic"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/thorough"
)

// A hundred backups are taken while eight hands save, and each is restored over another data
// file: every door then has all its changes up to the one it stands at, and no fewer than
// had been acknowledged before the backup was asked for.
func TestABackupTakenUnderLoadRestoresWhole(t *testing.T) {
	const hands, perRound = 8, 8
	rounds := thorough.Count(20, 100)
	dir := t.TempDir()
	s, err := Open(t.Context(), filepath.Join(dir, "live.db"))
	require.NoError(t, err)
	defer s.Close()
	other, err := Open(t.Context(), filepath.Join(dir, "other.db"))
	require.NoError(t, err)
	defer other.Close()
	head, err := s.AddJob(t.Context(), job.NewJob("house", "House", measure.Millimetres), Once{})
	require.NoError(t, err)
	var kept [hands]atomic.Int64
	var wg sync.WaitGroup
	defer wg.Wait()
	ctx, end := context.WithCancel(t.Context())
	defer end()
	work := make(chan struct{}, perRound) // else the hands outrun the backups, ever more
	for i := range kept {
		k, err := s.AddOpening(t.Context(), head.ID, job.NewOpening("", fmt.Sprint(i), measure.Millimetres), Once{})
		require.NoError(t, err)
		wg.Go(func() {
			for n := 1; ; n++ {
				select {
				case <-work:
				case <-ctx.Done():
					return
				}
				k.Opening.Room = fmt.Sprint(n)
				to, _, err := s.Save(context.WithoutCancel(ctx), k, "change "+k.Opening.Room, k.Opening)
				if !assert.NoError(t, err) {
					return
				}
				k = to
				kept[i].Store(int64(n))
			}
		})
	}
	r := rand.New(rand.NewPCG(11, 26))
	saves := int64(0)
	for round := range rounds {
		var before [hands]int64
		for i := range before {
			before[i] = kept[i].Load()
		}
		for len(work) < perRound {
			work <- struct{}{}
		}
		backup := filepath.Join(dir, "backup.db")
		_, err := s.Backup(t.Context(), backup)
		require.NoError(t, err)
		if r.IntN(3) == 0 { // something else stands in the other file, now and then
			_, err := other.AddJob(
				t.Context(), job.NewJob("", fmt.Sprintf("Another %d", round), measure.Inches), Once{},
			)
			require.NoError(t, err)
		}
		done, err := other.Restore(t.Context(), backup)
		require.NoError(t, err)
		require.NoError(t, os.Remove(backup))
		require.NoError(t, os.Remove(done.Before))
		heads, err := other.Jobs(t.Context())
		require.NoError(t, err)
		require.Len(t, heads, 1, "what was there is gone from it")
		_, walk, _, err := other.Job(t.Context(), head.ID)
		require.NoError(t, err)
		require.Len(t, walk, hands)
		saves = 0
		for i, k := range walk {
			at := int64(0)
			if k.Opening.Room != "" {
				at, err = strconv.ParseInt(k.Opening.Room, 10, 64)
				require.NoError(t, err)
			}
			require.GreaterOrEqual(t, at, before[i], "round %d: what was acknowledged is in it", round)
			story, err := other.Changes(t.Context(), head.ID, k.Opening.ID)
			require.NoError(t, err)
			require.Equal(t, min(int(at)+1, mostTold), len(story), "round %d: no change is missing", round)
			saves += at
		}
	}
	end()
	wg.Wait()
	t.Logf("%d saves in the last of %d backups", saves, rounds)
	_, err = Check(t.Context(), filepath.Join(dir, "other.db"))
	assert.NoError(t, err)
}

// A restore over a live job keeps what was there, is seen at once, and makes stale what pages
// hold: no change made after it bears a number that one of them knows.
func TestARestoreOverALiveJob(t *testing.T) {
	s, path := fresh(t)
	k := study(t, s)
	backup := filepath.Join(t.TempDir(), "backup.db")
	_, err := s.Backup(t.Context(), backup)
	require.NoError(t, err)
	was := k.Opening
	later := was
	later.Room = "Loft"
	page, _, err := s.Save(t.Context(), k, "room", later) // a page stands at this
	require.NoError(t, err)
	jobThen, err := s.Head(t.Context(), k.Job.ID)
	require.NoError(t, err)

	done, err := s.Restore(t.Context(), backup)
	require.NoError(t, err)
	assert.Equal(t, 1, done.Jobs)
	now, err := s.Opening(t.Context(), k.Job.ID, k.Opening.ID)
	require.NoError(t, err)
	assert.Equal(t, was.Room, now.Opening.Room, "as it was in the backup")
	assert.Equal(t, k.Version, now.Version)
	old, err := Check(t.Context(), done.Before)
	require.NoError(t, err)
	assert.Equal(t, done.Changes+1, old.Changes, "the copy holds what was there")

	_, _, err = s.Save(t.Context(), page, "from the page", later)
	assert.ErrorIs(t, err, ErrStale, "the page's change is not in the backup")
	now.Opening.Room = "Cellar"
	next, _, err := s.Save(t.Context(), now, "room", now.Opening)
	require.NoError(t, err)
	assert.Greater(t, next.Version, page.Version, "no number is used twice")
	jobNow, err := s.Head(t.Context(), k.Job.ID)
	require.NoError(t, err)
	assert.Greater(t, jobNow.Version, jobThen.Version)
	assert.Greater(t, jobNow.Walk, jobThen.Walk)
	require.NoError(t, s.Close())
	_, err = Check(t.Context(), path)
	assert.NoError(t, err)
}

func TestWhatIsNoBackupIsNotRestored(t *testing.T) {
	s, path := fresh(t)
	k := study(t, s)
	dir := t.TempDir()
	whole := filepath.Join(dir, "whole.db")
	_, err := s.Backup(t.Context(), whole)
	require.NoError(t, err)
	b, err := os.ReadFile(whole)
	require.NoError(t, err)
	newer := filepath.Join(dir, "newer.db")
	require.NoError(t, os.WriteFile(newer, b, 0o600))
	{
		n, err := Open(t.Context(), newer)
		require.NoError(t, err)
		_, err = n.write.Exec(`INSERT INTO goose_db_version (version_id, is_applied) VALUES (99, 1)`)
		require.NoError(t, err)
		require.NoError(t, n.Close())
	}
	write := func(name string, b []byte) string {
		p := filepath.Join(dir, name)
		require.NoError(t, os.WriteFile(p, b, 0o600))
		return p
	}
	spoilt := append([]byte{}, b...)
	for i := len(spoilt) / 2; i < len(spoilt)/2+9000; i++ {
		spoilt[i] ^= 0x5a
	}
	for _, c := range []struct{ path, says string }{
		{newer, "made by a newer program (form 99"},
		{write("short.db", b[:len(b)/2]), "damaged"},
		{write("spoilt.db", spoilt), "damaged"},
		{write("letter.db", []byte(
			"Dear carpenter, here are my doors. With best wishes, and all the doors that I can think of today "+
				"and ever will.",
		)), "no data file of Kind Margin"},
		{write("empty.db", nil), ""},
		{filepath.Join(dir, "none.db"), "no such file"},
		{filepath.Join(dir), ""},
	} {
		_, err := s.Restore(t.Context(), c.path)
		if assert.Error(t, err, c.path) {
			assert.Contains(t, err.Error(), c.says)
			assert.Contains(t, err.Error(), "nothing was restored")
		}
	}
	now, err := s.Opening(t.Context(), k.Job.ID, k.Opening.ID)
	require.NoError(t, err)
	assert.Equal(t, k.Opening, now.Opening, "all is as it was")
	left, err := filepath.Glob(path + ".*")
	require.NoError(t, err)
	assert.Equal(t, []string{path + ".lock"}, left, "and nothing lies about")

	// With no program running, also to where nothing was.
	_, err = RestoreFile(t.Context(), path, whole)
	assert.ErrorContains(t, err, "in use")
	require.NoError(t, s.Close())
	done, err := RestoreFile(t.Context(), path, whole)
	require.NoError(t, err)
	assert.FileExists(t, done.Before)
	_, err = RestoreFile(t.Context(), filepath.Join(dir, "elsewhere.db"), whole)
	assert.NoError(t, err)
}

// A restore that runs out of room half-way leaves everything as it was.
func TestARestoreThatTheDiskCannotHold(t *testing.T) {
	s, _ := fresh(t)
	k := study(t, s)
	big := filepath.Join(t.TempDir(), "big.db")
	{
		b, err := Open(t.Context(), big)
		require.NoError(t, err)
		j := job.NewJob("big", "Big", measure.Millimetres)
		for i := range 300 {
			o := job.NewOpening(fmt.Sprintf("d%d", i), "Door", measure.Millimetres)
			o.Notes = []job.Note{{Text: fmt.Sprint(make([]byte, 1500))[:1900]}}
			j.Openings = append(j.Openings, o)
		}
		_, err = b.AddJob(t.Context(), j, Once{})
		require.NoError(t, err)
		require.NoError(t, b.Close())
	}
	// SQLite itself calls the file full past so many pages.
	_, err := s.write.Exec(`PRAGMA max_page_count = 60`)
	require.NoError(t, err)
	_, err = s.Restore(t.Context(), big)
	require.Error(t, err)
	assert.True(t, errors.Is(err, ErrDisk), err.Error())
	now, err := s.Opening(t.Context(), k.Job.ID, k.Opening.ID)
	require.NoError(t, err)
	assert.Equal(t, k.Opening, now.Opening)
	now.Opening.Room = "Still at work"
	_, _, err = s.Save(t.Context(), now, "room", now.Opening)
	assert.NoError(t, err)
}

// Of what was there before, the last five copies are kept, whatever the data file is called.
func TestFiveCopiesOfBeforeAreKept(t *testing.T) {
	path := filepath.Join(t.TempDir(), "a [house] *.db")
	s := open(t, path)
	study(t, s)
	backup := filepath.Join(t.TempDir(), "b.db")
	_, err := s.Backup(t.Context(), backup)
	require.NoError(t, err)
	other := path + ".before-the-roof" // none of ours
	require.NoError(t, os.WriteFile(other, nil, 0o600))
	var last Restored
	for range MostBefore + 3 {
		last, err = s.Restore(t.Context(), backup)
		require.NoError(t, err)
		assert.FileExists(t, last.Before)
	}
	list, err := os.ReadDir(filepath.Dir(path))
	require.NoError(t, err)
	kept := 0
	for _, f := range list {
		if strings.Contains(f.Name(), ".before-restore") {
			kept++
		}
	}
	assert.Equal(t, MostBefore, kept)
	assert.FileExists(t, last.Before, "the newest is there")
	assert.FileExists(t, other)
}

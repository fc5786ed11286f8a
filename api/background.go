package api

import (
	"context"
	"fmt"
	"runtime/debug"
	"slices"
	"sync"

	"kindmargin/store"
)

// background holds tasks that outlive their request: imports and exports. V is a task's state as it is answered.
type background[V any] struct {
	sync.Mutex
	most  int   // that are under way at once
	kept  int   // of those that have ended
	many  error // where there are as many as may be
	tasks []*task[V]
}

// task is one background task. All but id, pass, once and stop is guarded by the mutex of background.
type task[V any] struct {
	id    string
	pass  string // of the client that asked for it; empty for this machine
	once  store.Once
	stop  context.CancelFunc
	view  V
	ended bool
	again bool   // it failed or was stopped: its key begins another
	drop  func() // lets go of what it left, when it is told of no more
}

// begin registers a task; begun is false, and the task the earlier one, where its key is in use.
func (b *background[V]) begin(t *task[V]) (at *task[V], begun bool, err error) {
	b.Lock()
	defer b.Unlock()
	underway := 0
	for _, x := range b.tasks {
		if !x.ended {
			underway++
		}
		if t.once.Key == "" || x.once.Key != t.once.Key || x.again {
			continue
		}
		if x.once.Asked != t.once.Asked {
			return nil, false, store.ErrKey
		}
		at = x
	}
	switch {
	case at != nil:
		return at, false, nil
	case underway >= b.most:
		return nil, false, b.many
	}
	b.tasks = append(b.tasks, t)
	for n := len(b.tasks) - underway - 1; n > b.kept; n-- {
		oldest := slices.IndexFunc(b.tasks, func(x *task[V]) bool { return x.ended })
		b.tasks[oldest].drop()
		b.tasks = slices.Delete(b.tasks, oldest, oldest+1)
	}
	return t, true, nil
}

// endPass stops the tasks of a client whose pass was ended.
func (b *background[V]) endPass(pass string) {
	b.Lock()
	defer b.Unlock()
	for _, t := range b.tasks {
		if t.pass == pass {
			t.stop()
		}
	}
}

// close stops all tasks and removes their files.
func (b *background[V]) close() {
	b.Lock()
	defer b.Unlock()
	for _, t := range b.tasks {
		t.stop()
		t.drop()
	}
}

// find returns the task of an ID, nil where there is none, and its state.
func (b *background[V]) find(id string) (t *task[V], view V) {
	b.Lock()
	defer b.Unlock()
	for _, t := range b.tasks {
		if t.id == id {
			return t, t.view
		}
	}
	return nil, view
}

// set changes a task's state.
func (b *background[V]) set(t *task[V], change func(*V)) {
	b.Lock()
	defer b.Unlock()
	change(&t.view)
}

// end sets a task's final state.
func (b *background[V]) end(t *task[V], again bool, change func(*V)) {
	b.Lock()
	defer b.Unlock()
	change(&t.view)
	t.ended, t.again = true, again
}

// recovered runs f and returns its error; a panic is one too.
func recovered(work func() error) (err error) {
	defer func() {
		if p := recover(); p != nil {
			err = fmt.Errorf("panic: %v\n%s", p, debug.Stack())
		}
	}()
	return work()
}

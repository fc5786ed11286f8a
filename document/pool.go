package document

import (
	"context"
	"fmt"
	"runtime"
	"runtime/debug"
	"sync"
	"sync/atomic"
)

// Panicked is the panic of a worker, with its stack.
type Panicked struct {
	Value any
	Stack []byte
}

func (p *Panicked) Error() string { return fmt.Sprintf("panic: %v\n%s", p.Value, p.Stack) }

// Together runs f for 0 to n − 1 on a worker pool, until all are done or the context is. It fails with the context's
// error, or, once the others are done, with a *Panicked for the first panic.
func Together(ctx context.Context, n int, does func(int)) error {
	var wg sync.WaitGroup
	var next atomic.Int64
	var panicked atomic.Pointer[Panicked]
	one := func(i int) {
		defer func() {
			if p := recover(); p != nil {
				panicked.CompareAndSwap(nil, &Panicked{p, debug.Stack()})
			}
		}()
		does(i)
	}
	for range min(n, runtime.GOMAXPROCS(0)) {
		wg.Go(func() {
			for i := int(next.Add(1)) - 1; i < n && ctx.Err() == nil; i = int(next.Add(1)) - 1 {
				one(i)
			}
		})
	}
	wg.Wait()
	if p := panicked.Load(); p != nil {
		return p
	}
	return ctx.Err()
}

// Command kindmargin fits new door slabs to old openings: it serves the
// program to a browser, and prints a plan from a job file.
package main

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"log/slog"
	"net"
	"net/http"
	"os"
	"os/signal"
	"path/filepath"
	"syscall"
	"text/tabwriter"
	"time"

	"github.com/alecthomas/kong"

	"kindmargin/api"
	"kindmargin/core/job"
	"kindmargin/core/simulate"
	"kindmargin/demo"
	"kindmargin/store"
	"kindmargin/web"
)

type cli struct {
	Serve    serveCmd    `cmd:"" help:"Serve Kind Margin to browsers on this machine."`
	Demo     demoCmd     `cmd:"" help:"Serve it with two invented houses to try."`
	Plan     planCmd     `cmd:"" help:"Print the plan of every opening in a job file."`
	Simulate simulateCmd `cmd:"" help:"Hang random openings by our plan and by the rule of thumb."`
	Contract contractCmd `cmd:"" hidden:"" help:"Write the OpenAPI document and the job file's schema."`
}

func main() {
	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt, syscall.SIGTERM)
	defer stop()
	var c cli
	k := kong.Parse(&c,
		kong.Name("kindmargin"),
		kong.Description("Hang a new slab in an old opening: from the first tape reading to even light all round."),
		kong.BindTo(ctx, (*context.Context)(nil)),
		kong.BindTo(os.Stdout, (*io.Writer)(nil)),
		kong.UsageOnError(),
	)
	k.FatalIfErrorf(k.Run())
}

type serveCmd struct {
	Addr string `help:"Address to listen on." default:"127.0.0.1:8137" env:"KINDMARGIN_ADDR"`
	Data string `help:"Data file; made when it is not there." default:"kindmargin.db" env:"KINDMARGIN_DATA" type:"path"`
	Log  string `help:"What to log: debug, info, warn or error." default:"info" enum:"debug,info,warn,error" env:"KINDMARGIN_LOG"`
}

func (c serveCmd) Run(ctx context.Context, out io.Writer) error {
	st, err := store.Open(ctx, c.Data)
	if err != nil {
		return err
	}
	defer st.Close()
	return c.serve(ctx, out, st)
}

func (c serveCmd) serve(ctx context.Context, out io.Writer, st *store.Store) error {
	var level slog.Level
	if err := level.UnmarshalText([]byte(c.Log)); err != nil {
		return err
	}
	log := slog.New(slog.NewJSONHandler(os.Stderr, &slog.HandlerOptions{Level: level}))
	l, err := net.Listen("tcp", c.Addr)
	if err != nil {
		return fmt.Errorf("cannot listen on %s (is it running already?): %w", c.Addr, err)
	}
	srv := &http.Server{
		Handler:           api.New(st, web.Handler(), log),
		ReadHeaderTimeout: 10 * time.Second,
		ReadTimeout:       time.Minute,
		ErrorLog:          slog.NewLogLogger(log.Handler(), slog.LevelWarn),
	}
	fmt.Fprintf(out, "Kind Margin is at http://%s\n", l.Addr())
	log.Info("listening", "address", l.Addr().String(), "data", c.Data)
	done := make(chan error, 1)
	go func() { done <- srv.Serve(l) }()
	select {
	case err := <-done:
		return err
	case <-ctx.Done():
	}
	log.Info("stopping")
	end, cancel := context.WithTimeout(context.Background(), 10*time.Second)
	defer cancel()
	if err := srv.Shutdown(end); err != nil {
		return err
	}
	if err := <-done; !errors.Is(err, http.ErrServerClosed) {
		return err
	}
	return nil
}

type demoCmd struct {
	serveCmd
	Keep bool `help:"Keep what was changed in the demo before, rather than begin afresh."`
}

func (c demoCmd) Run(ctx context.Context, out io.Writer) error {
	if c.Data == "" || filepath.Base(c.Data) == "kindmargin.db" {
		c.Data = filepath.Join(filepath.Dir(c.Data), "kindmargin-demo.db")
	}
	if !c.Keep {
		for _, tail := range []string{"", "-wal", "-shm"} {
			if err := os.Remove(c.Data + tail); err != nil && !errors.Is(err, os.ErrNotExist) {
				return fmt.Errorf("the old demo data cannot be cleared: %w", err)
			}
		}
	}
	st, err := store.Open(ctx, c.Data)
	if err != nil {
		return err
	}
	defer st.Close()
	have, err := st.Jobs(ctx)
	if err != nil {
		return err
	}
	if len(have) == 0 {
		jobs, err := demo.Jobs()
		if err != nil {
			return err
		}
		for _, j := range jobs {
			if _, err := st.AddJob(ctx, j); err != nil {
				return err
			}
		}
	}
	return c.serve(ctx, out, st)
}

type planCmd struct {
	File string `arg:"" help:"A job file; - for standard input."`
	JSON bool   `help:"Print the plan as JSON, as the program serves it."`
}

func (c planCmd) Run(out io.Writer) error {
	b, err := c.read()
	if err != nil {
		return err
	}
	j, err := job.Decode(b)
	if err != nil {
		return err
	}
	if c.JSON {
		type named struct {
			ID   string   `json:"id"`
			Name string   `json:"name"`
			Plan api.Plan `json:"plan"`
		}
		list := []named{}
		for _, o := range j.Openings {
			list = append(list, named{o.ID, o.Name, api.NewPlan(j, o)})
		}
		enc := json.NewEncoder(out)
		enc.SetIndent("", "  ")
		return enc.Encode(list)
	}
	return printPlans(out, j)
}

func (c planCmd) read() ([]byte, error) {
	if c.File == "-" {
		return io.ReadAll(os.Stdin)
	}
	return os.ReadFile(c.File)
}

type simulateCmd struct {
	Openings int    `help:"How many openings." default:"10000"`
	Seed     uint64 `help:"The same seed gives the same openings." default:"1"`
}

func (c simulateCmd) Run(out io.Writer) error {
	r, err := simulate.Run(c.Openings, c.Seed)
	if err != nil {
		return err
	}
	w := tabwriter.NewWriter(out, 0, 4, 2, ' ', 0)
	fmt.Fprintf(w, "%d openings, seed %d\tour plan\tlongest width less two margins, square head\n", r.Openings, c.Seed)
	row := func(what, format string, a, b float64) { fmt.Fprintf(w, "%s\t"+format+"\t"+format+"\n", what, a, b) }
	row("cut too small by over 1 mm", "%.2f %%", 100*r.Ours.TooSmall, 100*r.Thumb.TooSmall)
	row("  of these at the lock edge", "%.2f %%", 100*r.Ours.TooNarrow, 100*r.Thumb.TooNarrow)
	row("first-hang unevenness, median", "%.1f mm", r.Ours.UnevenMedian, r.Thumb.UnevenMedian)
	row("first-hang unevenness, 95 in 100 under", "%.1f mm", r.Ours.Uneven95, r.Thumb.Uneven95)
	row("returns to the trestles, mean", "%.2f", r.Ours.ReturnsMean, r.Thumb.ReturnsMean)
	row("returns, median", "%.0f", r.Ours.ReturnsMedian, r.Thumb.ReturnsMedian)
	row("returns, 95 in 100 at most", "%.0f", r.Ours.Returns95, r.Thumb.Returns95)
	return w.Flush()
}

type contractCmd struct {
	Dir string `arg:"" type:"existingdir"`
}

func (c contractCmd) Run() error {
	for file, make := range map[string]func() ([]byte, error){"openapi.json": api.OpenAPI, "job.schema.json": api.FileSchema} {
		b, err := make()
		if err != nil {
			return err
		}
		if err := os.WriteFile(filepath.Join(c.Dir, file), b, 0o644); err != nil {
			return err
		}
	}
	return nil
}

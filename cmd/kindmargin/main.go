// Command kindmargin fits new slabs to old openings: it serves the program to a browser, and prints a plan from a job
// file.
package main

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"os"
	"os/signal"
	"path/filepath"
	"runtime/debug"
	"slices"
	"strconv"
	"strings"
	"syscall"
	"text/tabwriter"

	"github.com/alecthomas/kong"

	"kindmargin"
	"kindmargin/api"
	"kindmargin/core/field"
	"kindmargin/core/job"
	"kindmargin/core/message"
	"kindmargin/core/simulate"
	"kindmargin/demo"
	"kindmargin/document"
	"kindmargin/store"
	"kindmargin/words"
)

type cli struct {
	Serve    serveCmd         `cmd:"" help:"Serve Kind Margin to browsers on this machine."`
	Demo     demoCmd          `cmd:"" help:"Serve it with two invented houses to try."`
	Plan     planCmd          `cmd:"" help:"Print the plan of every opening in a job file."`
	Template templateCmd      `cmd:"" aliases:"sheet" help:"Draw a template of an opening at full size."`
	Paper    paperCmd         `cmd:"" help:"Put doors on paper as PDF: their cards, the house book, what to order or to load."`
	Schedule scheduleCmd      `cmd:"" help:"Write a job's schedule and its other tables, as XLSX or CSV."`
	Restore  restoreCmd       `cmd:"" help:"Put a backup in the place of a data file; what was there is kept beside it."`
	Backup   backupCmd        `cmd:"" help:"Copy the data file whole, also while the program serves it, and read the copy back."`
	Check    checkCmd         `cmd:"" help:"Read the whole data file and say whether it is sound."`
	Code     codeCmd          `cmd:"" help:"Show a new pairing code of a Kind Margin that runs on this machine with --share."`
	Practice practiceCmd      `cmd:"" help:"Draw exercises, and grade attempts at them."`
	Air      airCmd           `cmd:"" help:"A simulated hygrometer that sends a house's air (docs/instruments.md)."`
	Tape     tapeCmd          `cmd:"" help:"A simulated tape that sends its lengths to the entry that waits (docs/instruments.md)."`
	Simulate simulateCmd      `cmd:"" help:"Hang random openings by our plan and by the schools it is up against."`
	Version  kong.VersionFlag `help:"Say which version this is."`
	Contract contractCmd      `cmd:"" hidden:"" help:"Write the OpenAPI document and the schemas of the job file and the plan."`
}

func main() {
	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt, syscall.SIGTERM)
	defer stop()
	context.AfterFunc(ctx, stop) // asked a second time, it stops where it is
	var c cli
	k := kong.Parse(&c,
		kong.Name("kindmargin"),
		kong.Description("Hang a new slab in an old opening: from the first tape reading to even light all round."),
		kong.BindTo(ctx, (*context.Context)(nil)),
		kong.BindTo(os.Stdout, (*io.Writer)(nil)),
		kong.Vars{"version": "Kind Margin " + version()},
		kong.UsageOnError(),
	)
	k.FatalIfErrorf(inWords(k.Run()))
}

// terminal is the voice of the command line without a job.
var terminal = words.Voice{}

// inWords is an error worded for people: those of core are IDs.
func inWords(err error) error {
	var said []message.Message
	var many field.Errors
	if errors.As(err, &many) {
		for _, e := range many {
			said = append(said, e.Problem)
		}
	} else if m, ok := message.Of(err); ok {
		said = append(said, m)
	} else {
		return err
	}
	text := err.Error()
	for _, m := range said {
		text = strings.Replace(text, m.String(), terminal.Say(m), 1)
	}
	return errors.New(text)
}

// version is the newest version in CHANGELOG.md and, where the program was built in its repository, the commit.
func version() string {
	v := kindmargin.Version()
	b, _ := debug.ReadBuildInfo()
	if b == nil {
		return v
	}
	set := map[string]string{}
	for _, s := range b.Settings {
		set[s.Key] = s.Value
	}
	if commit := set["vcs.revision"]; len(commit) >= 7 {
		v += " (" + commit[:7]
		if set["vcs.modified"] == "true" {
			v += ", changed"
		}
		v += ")"
	}
	return v
}

type demoCmd struct {
	listen
	Data string `help:"The demo's own data file; begun afresh, the one before is put aside." default:"kindmargin.demo.db" env:"KINDMARGIN_DEMO_DATA" type:"path"`
	Keep bool   `help:"Keep what was changed in the demo before, rather than begin afresh."`
}

func (c demoCmd) Run(ctx context.Context, out io.Writer) error {
	l, err := c.open(c.Data)
	if err != nil {
		return err
	}
	defer l.Close()
	if !c.Keep {
		if err := store.Fresh(c.Data); err != nil {
			return err
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
		if err := st.MarkDemo(ctx); err != nil {
			return err
		}
		for _, j := range jobs {
			if _, err := st.AddJob(ctx, j, store.Once{}); err != nil {
				return err
			}
		}
	}
	return c.serve(ctx, out, l, st, c.Data)
}

type backupCmd struct {
	dataFile
	To string `arg:"" help:"The file to make; one that is there is never overwritten." type:"path"`
}

func (c backupCmd) Run(ctx context.Context, out io.Writer) error {
	r, err := store.Backup(ctx, c.Data, c.To)
	if err != nil {
		return err
	}
	fmt.Fprintf(
		out, "%s holds %s, read back and found sound. To go on from it: kindmargin serve --data %s\n", c.To, holds(r),
		c.To,
	)
	return nil
}

type checkCmd struct{ dataFile }

func (c checkCmd) Run(ctx context.Context, out io.Writer) error {
	r, err := store.Check(ctx, c.Data)
	if err != nil {
		return err
	}
	fmt.Fprintf(out, "%s is sound: %s.\n", c.Data, holds(r))
	return nil
}

type restoreCmd struct {
	dataFile
	From string `arg:"" help:"The backup." type:"existingfile"`
}

func (c restoreCmd) Run(ctx context.Context, out io.Writer) error {
	r, err := store.RestoreFile(ctx, c.Data, c.From)
	if err != nil {
		return err
	}
	fmt.Fprintf(
		out, "%s now holds %s. What it held before lies in %s; the last %d such copies are kept.\n", c.Data,
		holds(r.Report), r.Before, store.MostBefore,
	)
	return nil
}

func holds(r store.Report) string {
	n := func(n int, one string) string {
		if n == 1 {
			return "1 " + one
		}
		return fmt.Sprintf("%d %ss", n, one)
	}
	return n(r.Jobs, "job") + ", " + n(r.Openings, "door") + ", " + n(r.Changes, "change") + ", " +
		n(r.Photos, "photograph")
}

type planCmd struct {
	File string `arg:"" help:"A job file; - for standard input."`
	// JSON is the version of the form to print; 0 for none.
	JSON planForm `help:"Print the plans as JSON for other programs (docs/planjson.md); --json=2 as version 2 of it."`
}

// planForm is a version of the form of plans. The flag alone is that of now.
type planForm int

// IsBool allows the flag without a value.
func (planForm) IsBool() bool { return true }

// Decode reads the version after --json=.
func (f *planForm) Decode(ctx *kong.DecodeContext) error {
	*f = document.FileVersion
	if ctx.Scan.Peek().Type != kong.FlagValueToken {
		return nil
	}
	given := ctx.Scan.Pop().String()
	version, err := strconv.Atoi(given)
	if err != nil || !slices.Contains(document.Versions, version) {
		return fmt.Errorf("there is no version %q of the plans: it is one of %v", given, document.Versions)
	}
	*f = planForm(version)
	return nil
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
	if c.JSON > 0 {
		plans, err := document.Plans(j).In(int(c.JSON))
		if err != nil {
			return err
		}
		enc := json.NewEncoder(out)
		enc.SetIndent("", "  ")
		return enc.Encode(plans)
	}
	return document.Print(out, j)
}

func (c planCmd) read() ([]byte, error) { return readFile(c.File) }

// readFile reads a file, or standard input for "-".
func readFile(name string) ([]byte, error) {
	if name == "-" {
		return io.ReadAll(os.Stdin)
	}
	return os.ReadFile(name)
}

type simulateCmd struct {
	Openings int      `help:"How many openings." default:"2000"`
	Seed     uint64   `help:"The same seed gives the same openings." default:"1"`
	Way      []string `help:"Only these: plain, feelers, sticks, rods, offered, longest, leave-3, scribe."`
	JSON     bool     `help:"As JSON, shares as fractions."`
	Costs    bool     `help:"What a door costs with every set of tools, as the table that ships."`
}

func (c simulateCmd) Run(out io.Writer) error {
	if c.Costs {
		t, err := simulate.Costs(c.Openings, c.Seed)
		if err != nil {
			return err
		}
		enc := json.NewEncoder(out)
		enc.SetIndent("", "\t")
		return enc.Encode(t)
	}
	r, err := simulate.Run(c.Openings, c.Seed, c.Way...)
	if err != nil {
		return err
	}
	if c.JSON {
		enc := json.NewEncoder(out)
		enc.SetIndent("", "  ")
		return enc.Encode(r)
	}
	fmt.Fprintf(
		out, "%d openings, six to a house; half of the houses of forms of their own, seed %d\n", r.Openings, c.Seed,
	)
	w := tabwriter.NewWriter(out, 0, 4, 2, ' ', 0)
	for _, t := range r.Ways {
		fmt.Fprintf(
			w, "\n%s\t(%s)\n", terminal.Text("simulate."+message.ID(t.ID)),
			terminal.Text("simulate-kit."+message.ID(t.ID)),
		)
		describe(w, t)
	}
	return w.Flush()
}

// describe prints a way's figures.
func describe(w io.Writer, t simulate.Tally) {
	line := func(what, format string, args ...any) { fmt.Fprintf(w, "  "+what+"\t"+format+"\n", args...) }
	line("fit at the first hang", "%.1f %%, go in %.1f %%", 100*t.Fits, 100*t.GoesIn)
	line(
		"fit when done", "%.1f %%, straight edges off the best by %.1f mm at most in 95 of 100, worst %.1f",
		100*t.Finished, t.Off95, t.OffWorst,
	)
	line("said to fit", "%.1f %%, and %.1f %% of those do not", 100*t.Called, 100*t.CalledFalse)
	line("never done", "%.2f %%", 100*t.Endless)
	x := t.Outside
	line(
		"in openings of forms of their own",
		"fit when done %.1f %%, first work %.1f %%, said to fit and do not %.1f %%, too small %.2f %%",
		100*x.Finished, 100*x.FirstWay, 100*x.CalledFalse, 100*x.TooSmall,
	)
	line("too small by over 1 mm", "%.2f %%, as it was cut %.2f %%", 100*t.TooSmall, 100*t.CutTooSmall)
	line(
		"first work, done exactly, brings all in", "%.1f %%, in crooked houses %.1f %%", 100*t.FirstWay,
		100*t.FirstCrooked,
	)
	line(
		"further trips to the trestles", "mean %.2f, median %.0f, 95 in 100 at most %.0f, worst %.0f", t.TripsMean,
		t.TripsMedian, t.Trips95, t.TripsWorst,
	)
	line("rounds", "mean %.1f, 95 in 100 at most %.0f; one trip and three rounds at most %.1f %%", t.RoundsMean,
		t.Rounds95, 100*t.OneTrip)
	line("minutes of the whole door, mean", "%.1f ± %.1f", t.MinutesMean, 2*t.MinutesError)
	s := t.Spent
	line(
		"of them", "readings %.1f, gaps %.1f, hinges %.1f, planing %.1f, trips %.1f, called back %.1f, bought again %.1f",
		s.Reading, s.Gaps, s.Hinges, s.Planing, s.Trips, s.CallBack, s.Again,
	)
	line(
		"readings", "mean %.1f, median %.0f, 95 in 100 at most %.0f; gaps %.1f; edges planed %.1f", t.ReadingsMean,
		t.ReadingsMedian, t.Readings95, t.GapsMean, t.EdgesMean,
	)
	line("unevenness at the first hang", "median %.1f mm, 95 in 100 under %.1f", t.UnevenMedian, t.Uneven95)
	line("unevenness when done", "median %.1f mm, 95 in 100 under %.1f", t.EndMedian, t.End95)
}

type contractCmd struct {
	Docs string `arg:"" type:"existingdir"`
	Web  string `arg:"" type:"existingdir"`
}

func (c contractCmd) Run() error {
	for file, make := range map[string]func() ([]byte, error){
		filepath.Join(c.Docs, "openapi.json"): api.OpenAPI, filepath.Join(c.Docs, "job.schema.json"): api.FileSchema,
		filepath.Join(c.Docs, "plan.schema.json"):    api.PlanSchema,
		filepath.Join(c.Web, "trade.en-GB.gen.json"): func() ([]byte, error) { return api.TradeJSON(job.British) },
		filepath.Join(c.Web, "trade.en-US.gen.json"): func() ([]byte, error) { return api.TradeJSON(job.American) },
		filepath.Join(c.Web, "texts.en-GB.gen.json"): func() ([]byte, error) { return api.TextsJSON(job.British) },
		filepath.Join(c.Web, "texts.en-US.gen.json"): func() ([]byte, error) { return api.TextsJSON(job.American) },
	} {
		b, err := make()
		if err != nil {
			return err
		}
		if err := os.WriteFile(file, b, 0o644); err != nil {
			return err
		}
	}
	return nil
}

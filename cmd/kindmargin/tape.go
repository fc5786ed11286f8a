package main

import (
	"bufio"
	"context"
	"crypto/rand"
	"fmt"
	"io"
	rnd "math/rand/v2"
	"os"
	"strings"
)

// tapeCmd is a simulated tape that speaks: the stand-in for one that sends its lengths.
type tapeCmd struct {
	Lengths    []string `arg:"" optional:"" help:"Lengths to send, with their unit; lines of standard input where none is given."`
	instrument `embed:""`
	Device     string  `help:"Name of the device at whose entry it is read; this machine where none is named."`
	Name       string  `help:"What the tape is called." default:"the simulated tape"`
	Span       float64 `help:"Read a span of so many mm instead, as a tape does: with noise, to half a millimetre."`
	Sigma      float64 `help:"Its noise, mm." default:"0.8"`
	Count      int     `help:"How often." default:"1"`
	Seed       uint64  `help:"The same seed reads the same." default:"1"`
}

func (c tapeCmd) Run(ctx context.Context, out io.Writer) error {
	line, err := c.reach(ctx, c.Name)
	if err != nil {
		return err
	}
	send := func(text string) error {
		if text = strings.TrimSpace(text); text == "" {
			return nil
		}
		if err := line.send(ctx, "/api/lengths", map[string]string{
			"text": text, "id": rand.Text(), "from": c.Name, "to": c.Device,
		}); err != nil {
			return err
		}
		_, err := fmt.Fprintln(out, "sent", text)
		return err
	}
	switch {
	case c.Span > 0:
		r := rnd.New(rnd.NewPCG(c.Seed, 0))
		for range c.Count {
			mm := c.Span + c.Sigma*r.NormFloat64()
			if err := send(fmt.Sprintf("%.1f mm", float64(int(mm*2+0.5))/2)); err != nil {
				return err
			}
		}
		return nil
	case len(c.Lengths) > 0:
		for _, l := range c.Lengths {
			if err := send(l); err != nil {
				return err
			}
		}
		return nil
	}
	lines := bufio.NewScanner(os.Stdin)
	for lines.Scan() {
		if err := send(lines.Text()); err != nil {
			fmt.Fprintln(out, err) // the next one may do
		}
	}
	return lines.Err()
}

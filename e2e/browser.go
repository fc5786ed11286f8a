// Package e2e drives the real program through a real browser: the tests of
// the whole, and the maker of the pictures in docs/screenshots.
package e2e

import (
	"bufio"
	"context"
	"fmt"
	"io"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"strings"
	"time"

	"github.com/chromedp/chromedp"
)

// Program is a running kindmargin.
type Program struct {
	URL  string
	Data string
	Code string // for pairing; empty where it is not shared
	cmd  *exec.Cmd
}

// PID is its process.
func (p *Program) PID() int { return p.cmd.Process.Pid }

// Build makes the program once, in dir, and returns its path.
func Build(ctx context.Context, dir string) (string, error) {
	bin := filepath.Join(dir, "kindmargin")
	out, err := exec.CommandContext(ctx, "go", "build", "-o", bin, "kindmargin/cmd/kindmargin").CombinedOutput()
	if err != nil {
		return "", fmt.Errorf("building: %w\n%s", err, out)
	}
	return bin, nil
}

// Start runs the program (verb "serve" or "demo") on a port that is free and
// waits until it says where it is.
func Start(ctx context.Context, bin, verb, data string) (*Program, error) {
	return StartAt(ctx, bin, verb, data, "127.0.0.1:0")
}

// StartAt is Start at an address, with more that it is told.
func StartAt(ctx context.Context, bin, verb, data, addr string, more ...string) (*Program, error) {
	cmd := exec.CommandContext(
		ctx, bin, append([]string{verb, "--addr", addr, "--data", data, "--log", "warn"}, more...)...,
	)
	cmd.Stderr = os.Stderr
	said, err := cmd.StdoutPipe()
	if err != nil {
		return nil, err
	}
	if err := cmd.Start(); err != nil {
		return nil, err
	}
	p := &Program{Data: data, cmd: cmd}
	out := bufio.NewReader(said)
	for p.URL == "" || slices.Contains(more, "--share") && p.Code == "" { // printed once it listens
		line, err := out.ReadString('\n')
		if _, url, ok := strings.Cut(line, " is at "); ok {
			p.URL = strings.Fields(url)[0]
		}
		if _, code, ok := strings.Cut(line, "Pairing code: "); ok {
			p.Code = strings.TrimSpace(code)
		}
		if err != nil {
			_ = cmd.Process.Kill()
			_ = cmd.Wait()
			return nil, fmt.Errorf("the program did not start: %q, %w", line, err)
		}
	}
	go func() { _, _ = io.Copy(io.Discard, out) }() // else it would wait to be heard
	return p, nil
}

// Stop asks the program to end and waits for it.
func (p *Program) Stop() error {
	if err := p.cmd.Process.Signal(os.Interrupt); err != nil {
		return err
	}
	return p.cmd.Wait()
}

// Kill ends the program at once, as a power cut would.
func (p *Program) Kill() error {
	if err := p.cmd.Process.Kill(); err != nil {
		return err
	}
	_ = p.cmd.Wait()
	return nil
}

// Browser starts a headless Chromium with an empty profile and returns its first tab. Cancelling ctx ends it.
func Browser(ctx context.Context, profile string) (context.Context, context.CancelFunc) {
	opts := append(
		chromedp.DefaultExecAllocatorOptions[:],
		chromedp.NoSandbox, chromedp.DisableGPU, chromedp.UserDataDir(profile),
		chromedp.Flag("disable-quic", true),
		chromedp.Flag("disable-component-update", true),
		chromedp.Flag("disable-domain-reliability", true),
		chromedp.Flag("force-prefers-reduced-motion", true),
		chromedp.Flag("accept-lang", "en-GB"), // what pages without a job speak
		chromedp.Flag("no-proxy-server", true),
		// Pages that live for seconds: optimised code costs more than it saves.
		chromedp.Flag("js-flags", "--no-maglev,--no-turbofan"),
		chromedp.Flag("disable-software-rasterizer", true),
		chromedp.WSURLReadTimeout(60*time.Second),
	)
	// The headless shell is the same engine without the windows of a desktop browser.
	for _, name := range []string{"chromium-headless-shell", "chromium", "chromium-browser", "google-chrome"} {
		if path, err := exec.LookPath(name); err == nil {
			opts = append(opts, chromedp.ExecPath(path))
			break
		}
	}
	alloc, stopAlloc := chromedp.NewExecAllocator(ctx, opts...)
	tab, stopTab := chromedp.NewContext(alloc)
	return tab, func() { stopTab(); stopAlloc() }
}

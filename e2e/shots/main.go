// Command shots makes the pictures in docs/screenshots from the demo data:
//
//	go run ./e2e/shots docs/screenshots
package main

import (
	"context"
	"fmt"
	"log"
	"os"
	"os/exec"
	"path/filepath"
	"time"

	"github.com/chromedp/chromedp"

	"kindmargin/e2e"
)

type shot struct {
	name, path, theme string
	width, height     int64
}

var shots = func() []shot {
	const chart = "/j/tern-house/chart/"
	list := []shot{
		{"devices", "/devices", "day", 1280, 800},
		{"walk", "/j/tern-house", "day", 1280, 800},
	}
	for _, step := range []string{"measure", "slab", "margins", "cut", "hinges"} {
		list = append(list, shot{step, chart + step, "day", 1280, 800})
	}
	return append(
		list,
		shot{"try", "/j/tern-house/linen/try", "day", 1280, 800},
		shot{"log", "/j/tern-house/boots/log", "day", 1280, 800},
		shot{"lock", "/j/tern-house/galley/lock", "day", 1280, 800},
		shot{"stops", "/j/tern-house/linen/stops", "day", 1280, 800},
		shot{"swing", "/j/tern-house/galley/swing", "day", 1280, 800},
		shot{"pair", "/j/tern-house/saloon/margins", "day", 1280, 800},
		shot{"rod", "/rod/tern-house/chart", "day", 1280, 800},
		shot{"load", "/load/tern-house?doors=chart,beam,galley", "day", 1280, 800},
		shot{"kit", "/kit/tern-house", "day", 1280, 800},
		shot{"card", "/cards/tern-house/galley", "day", 1280, 800},
		shot{"measure-phone", "/j/alder-cottage/pantry/measure", "night", 390, 844},
	)
}()

func main() {
	if len(os.Args) != 2 {
		log.Fatal("usage: shots FOLDER")
	}
	if err := run(os.Args[1]); err != nil {
		log.Fatal(err)
	}
}

func run(dir string) error {
	ctx, cancel := context.WithTimeout(context.Background(), 3*time.Minute)
	defer cancel()
	tmp, err := os.MkdirTemp("", "shots")
	if err != nil {
		return err
	}
	defer os.RemoveAll(tmp)
	bin, err := e2e.Build(ctx, tmp)
	if err != nil {
		return err
	}
	p, err := e2e.StartAt(ctx, bin, "demo", filepath.Join(tmp, "demo.db"), "127.0.0.1:0", "--share", "--name", "wren-laptop.lan")
	if err != nil {
		return err
	}
	defer func() { _ = p.Stop() }()
	tab, stop := e2e.Browser(ctx, filepath.Join(tmp, "profile"))
	defer stop()
	for _, s := range shots {
		if err := chromedp.Do(
			tab,
			chromedp.EmulateViewport(s.width, s.height),
			chromedp.Navigate(p.URL+"/icon.svg"),
		); err != nil {
			return err
		}
		if _, err := chromedp.Run(tab, chromedp.Evaluate[bool](fmt.Sprintf(`localStorage.setItem('theme', %q), true`, s.theme))); err != nil {
			return err
		}
		if err := chromedp.Do(tab, chromedp.Navigate(p.URL+s.path), chromedp.WaitVisible("h1")); err != nil {
			return fmt.Errorf("%s: %w", s.name, err)
		}
		// The page is whole when nothing is being fetched and the font is in.
		if _, err := chromedp.Run(tab, chromedp.Poll[bool](
			`document.fonts.status === 'loaded' && !document.querySelector('[role=status].p-6') && [...document.querySelectorAll('[data-door]')].every((d) => d.querySelector('svg[role=img]')) && (location.pathname === '/' || !!document.querySelector('svg[role=img], [data-tool], [data-card], [data-tick]'))`,
		)); err != nil {
			return fmt.Errorf("%s: %w", s.name, err)
		}
		png, err := chromedp.Run(tab, chromedp.CaptureScreenshot())
		if err != nil {
			return fmt.Errorf("%s: %w", s.name, err)
		}
		if err := os.WriteFile(filepath.Join(dir, s.name+".png"), png, 0o644); err != nil {
			return err
		}
	}
	return card(ctx, bin, tmp, dir)
}

// card is the picture of a door card, as poppler draws the PDF.
func card(ctx context.Context, bin, tmp, dir string) error {
	pdf := filepath.Join(tmp, "card.pdf")
	if out, err := exec.CommandContext(ctx, bin, "paper", "demo/tern-house.json", "--kind", "card", "--opening", "chart", "--out", pdf).CombinedOutput(); err != nil {
		return fmt.Errorf("%w: %s", err, out)
	}
	return exec.CommandContext(ctx, "pdftoppm", "-r", "96", "-png", "-singlefile", pdf, filepath.Join(dir, "door-card")).Run()
}

// Command shots makes the pictures in docs/screenshots from the demo data:
//
//	go run ./e2e/shots docs/screenshots
package main

import (
	"context"
	"encoding/json"
	"fmt"
	"image"
	"image/draw"
	"image/png"
	"log"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"time"

	"github.com/chromedp/cdproto/cdp"
	"github.com/chromedp/cdproto/page"
	"github.com/chromedp/chromedp"

	"kindmargin/e2e"
)

type shot struct {
	name, path, theme string
	width, height     int64
	js                string // done once it is there; empty for nothing
}

var shots = func() []shot {
	const chart = "/j/tern-house/chart/"
	list := []shot{
		{name: "sharing", path: "/sharing", theme: "day", width: 1280, height: 800},
		{name: "walk", path: "/j/tern-house", theme: "day", width: 1280, height: 800},
	}
	for _, step := range []string{"measure", "slab", "margins", "cut", "hinges"} {
		js := ""
		if step == "margins" { // what the seasons ask
			js = `document.querySelector('[data-seasons]').scrollIntoView()`
		}
		list = append(list, shot{name: step, path: chart + step, theme: "day", width: 1280, height: 800, js: js})
	}
	return append(
		list,
		shot{name: "try", path: "/j/tern-house/linen/try", theme: "day", width: 1280, height: 800},
		shot{name: "log", path: "/j/tern-house/boots/log", theme: "day", width: 1280, height: 800},
		shot{name: "lock", path: "/j/tern-house/galley/lock", theme: "day", width: 1280, height: 800},
		shot{name: "stops", path: "/j/tern-house/linen/stops", theme: "day", width: 1280, height: 800},
		shot{name: "swing", path: "/j/tern-house/galley/swing", theme: "day", width: 1280, height: 800},
		shot{name: "pair", path: "/j/tern-house/saloon/margins", theme: "day", width: 1280, height: 800},
		shot{name: "rod", path: "/rod/tern-house/chart", theme: "day", width: 1280, height: 800},
		shot{name: "load", path: "/load/tern-house?openings=chart,beam,galley", theme: "day", width: 1280, height: 800},
		shot{name: "kit", path: "/kit/tern-house", theme: "day", width: 1280, height: 800},
		shot{name: "card", path: "/cards/tern-house/galley", theme: "day", width: 1280, height: 800},
		shot{name: "measure-phone", path: "/j/alder-cottage/pantry/measure", theme: "night", width: 390, height: 844},
		shot{name: "day", path: "/day/tern-house", theme: "day", width: 1280, height: 800},
		shot{name: "practice", path: "/practice/opening/usual/7", theme: "day", width: 1280, height: 800},
		shot{
			name: "frame", path: "/j/tern-house/FRAME/measure", theme: "day", width: 1280, height: 800,
			js: `document.querySelector('[data-cut-list]').scrollIntoView()`,
		},
	)
}()

// stacked are pictures that are combined into one file, one above the other.
var stacked = [][3]string{{"kit-rod", "kit", "rod"}, {"slab-pair", "slab", "pair"}, {"stops-log", "stops", "log"}}

// morning is when the pictures are taken, by the page's clock.
const morning = `(() => {
	const True = Date, ahead = new True(2026, 10, 26, 7, 50).getTime() - True.now();
	window.Date = class extends True {
		constructor(...a) { a.length ? super(...a) : super(True.now() + ahead); }
		static now() { return True.now() + ahead; }
	};
})()`

// played are the moves of the practice opening that is shown.
const played = `[{"do":"read","reading":{"kind":"width","at":"200 mm"}},{"do":"read","reading":{"kind":"width","at":"1000 mm"}},{"do":"read","reading":{"kind":"width","at":"1800 mm"}},{"do":"read","reading":{"kind":"height","at":"50 mm"}},{"do":"read","reading":{"kind":"height","at":"776 mm"}},{"do":"read","reading":{"kind":"plumb","side":"lock","at":"1800 mm","from":"200 mm"}},{"do":"margins","school":"painted"},{"do":"slab","slab":3},{"do":"edge","edge":"keep-lock"},{"do":"cut","plan":true},{"do":"adjust","plan":true},{"do":"adjust","plan":true},{"do":"done"}]`

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
	p, err := e2e.StartAt(
		ctx, bin, "demo", filepath.Join(tmp, "demo.db"), "127.0.0.1:0", "--share", "--name", "wren-laptop.lan",
	)
	if err != nil {
		return err
	}
	defer func() { _ = p.Stop() }()
	tab, stop := e2e.Browser(ctx, filepath.Join(tmp, "profile"))
	defer stop()
	if _, err := chromedp.Run(tab, func(ctx context.Context, tab *chromedp.Target) (bool, error) {
		_, err := cdp.Call(ctx, tab, page.AddScriptToEvaluateOnNewDocument, page.AddScriptToEvaluateOnNewDocumentParams{
			Source: morning,
		})
		return true, err
	}); err != nil {
		return err
	}
	for _, s := range shots {
		if s.name == "day" {
			if err := planned(p.URL); err != nil {
				return err
			}
		}
		if s.name == "frame" {
			id, err := framed(p.URL)
			if err != nil {
				return err
			}
			s.path = strings.Replace(s.path, "FRAME", id, 1)
		}
		if err := chromedp.Do(
			tab,
			chromedp.EmulateViewport(s.width, s.height),
			chromedp.Navigate(p.URL+"/icon.svg"),
		); err != nil {
			return err
		}
		if _, err := chromedp.Run(tab, chromedp.Evaluate[bool](fmt.Sprintf(
			`localStorage.setItem('theme', %q), sessionStorage.setItem('play usual 7', %q), true`, s.theme, played,
		))); err != nil {
			return err
		}
		if err := chromedp.Do(tab, chromedp.Navigate(p.URL+s.path)); err != nil {
			return fmt.Errorf("%s: %w", s.name, err)
		}
		// The page is complete when nothing is being fetched and the font is loaded.
		if _, err := chromedp.Run(tab, chromedp.Poll[bool](
			`!!document.querySelector('h1') && document.fonts.status === 'loaded' &&
				!document.querySelector('[role=status].p-6') && [...document.querySelectorAll('[data-door]')].every((d) => d.querySelector('svg[role=img]')) && (location.pathname === '/' || !!document.querySelector('svg[role=img], [data-tool], [data-card], [data-tick], [data-now]'))`,
		)); err != nil {
			return fmt.Errorf("%s: %w", s.name, err)
		}
		if s.js != "" {
			if _, err := chromedp.Run(tab, chromedp.Evaluate[string](`(`+s.js+`, '')`)); err != nil {
				return fmt.Errorf("%s: %w", s.name, err)
			}
		}
		shown, err := chromedp.Run(tab, chromedp.CaptureScreenshot())
		if err != nil {
			return fmt.Errorf("%s: %w", s.name, err)
		}
		if err := os.WriteFile(filepath.Join(dir, s.name+".png"), shown, 0o644); err != nil {
			return err
		}
	}
	for _, s := range stacked {
		if err := stack(dir, s); err != nil {
			return err
		}
	}
	return card(ctx, bin, tmp, dir)
}

// stack combines two pictures into one file, one above the other, and deletes them.
func stack(dir string, names [3]string) error {
	var parts []image.Image
	for _, n := range names[1:] {
		path := filepath.Join(dir, n+".png")
		f, err := os.Open(path)
		if err != nil {
			return err
		}
		img, err := png.Decode(f)
		_ = f.Close()
		if err != nil {
			return err
		}
		parts = append(parts, img)
		if err := os.Remove(path); err != nil {
			return err
		}
	}
	high := parts[0].Bounds().Dy()
	out := image.NewRGBA(image.Rect(0, 0, parts[0].Bounds().Dx(), high+parts[1].Bounds().Dy()))
	for i, p := range parts {
		draw.Draw(out, p.Bounds().Add(image.Pt(0, i*high)), p, image.Point{}, draw.Src)
	}
	f, err := os.Create(filepath.Join(dir, names[0]+".png"))
	if err != nil {
		return err
	}
	defer f.Close()
	return png.Encode(f, out)
}

// ask sends a request to the program, and decodes the answer.
func ask(method, url, tag, body string, into any) error {
	req, err := http.NewRequest(method, url, strings.NewReader(body))
	if err != nil {
		return err
	}
	req.Header.Set("Content-Type", "application/json")
	req.Header.Set("If-Match", tag)
	res, err := http.DefaultClient.Do(req)
	if err != nil {
		return err
	}
	defer res.Body.Close()
	if res.StatusCode >= 300 {
		return fmt.Errorf("%s %s: %s", method, url, res.Status)
	}
	return json.NewDecoder(res.Body).Decode(into)
}

// planned plans the day of the demo's doors for two.
func planned(url string) error {
	var out any
	return ask(
		"PUT", url+"/api/jobs/tern-house/day", `"0"`,
		`{"date": "2026-11-26", "carpenters": [{"name": "Wren", "from": 480, "to": 1020}, {"name": "Lark", "from": 480, "to": 720}], "break": {"from": 720, "to": 750}, "openings": [], "coats": 2, "coatDries": 240}`,
		&out,
	)
}

// framed adds an opening whose frame is made to its slab.
func framed(url string) (id string, err error) {
	var v struct {
		Opening struct{ ID string }
		Version int
	}
	at := url + "/api/jobs/tern-house/openings"
	if err := ask("POST", at, "", `{"name": "Ice pantry"}`, &v); err != nil {
		return "", err
	}
	var out any
	return v.Opening.ID, ask("PATCH", at+"/"+v.Opening.ID, fmt.Sprintf("%q", fmt.Sprint(v.Version)), `[{"op": "add", "path": "/measuring", "value": "frame"}, {"op": "add", "path": "/margins/school", "value": "newframe"}, {"op": "add", "path": "/slab", "value": {"width": 762, "length": 1981, "thickness": 35}},
		{"op": "add", "path": "/lining", "value": {"thick": 28, "board": 140, "wall": [124, 125, 128, 124, 124, 126], "width": [841, 843, 838], "height": [2042, 2040], "floor": 3, "high": 4}}]`, &out)
}

// card is the picture of a door card, as poppler draws the PDF.
func card(ctx context.Context, bin, tmp, dir string) error {
	pdf := filepath.Join(tmp, "card.pdf")
	if out, err := exec.CommandContext(
		ctx, bin, "paper", "demo/tern-house.json", "--kind", "card", "--opening", "chart", "--out", pdf,
	).CombinedOutput(); err != nil {
		return fmt.Errorf("%w: %s", err, out)
	}
	return exec.CommandContext(
		ctx, "pdftoppm", "-r", "96", "-png", "-singlefile", pdf, filepath.Join(dir, "door-card"),
	).Run()
}

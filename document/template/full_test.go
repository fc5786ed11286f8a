package template

import (
	"bytes"
	"encoding/xml"
	"fmt"
	"math"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/job"
	"kindmargin/core/lock"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/trade"
	"kindmargin/demo"
	"kindmargin/thorough"
)

const pt = 25.4 / 72

// box is where a path of a page lies, mm from its upper left corner.
type box struct{ x0, y0, x1, y1 float64 }

func (b box) near(c box, by float64) bool {
	return math.Abs(b.x0-c.x0) < by && math.Abs(b.y0-c.y0) < by && math.Abs(b.x1-c.x1) < by && math.Abs(b.y1-c.y1) < by
}

var (
	sized   = regexp.MustCompile(`<svg[^>]* width="([\d.]+)pt" height="([\d.]+)pt"`)
	stroked = regexp.MustCompile(`<path [^>]*d="([^"]*)"(?: transform="matrix\(([^)]*)\)")?`)
	steps   = regexp.MustCompile(`([MLC])([^MLCZ]*)`)
	number  = regexp.MustCompile(`-?\d+(?:\.\d+)?`)
)

// readBack gives a page's size in mm and where its paths lie, by poppler's pdftocairo.
func readBack(t *testing.T, pdf string, page int) (w, h float64, paths []box) {
	t.Helper()
	out := filepath.Join(t.TempDir(), "page.svg")
	n := strconv.Itoa(page)
	require.NoError(
		t,
		exec.Command(
			"pdftocairo", "-svg", "-origpagesizes", "-noshrink", "-nocenter", "-f", n, "-l", n, pdf, out,
		).Run(),
		"Debian's poppler-utils: make readers",
	)
	b, err := os.ReadFile(out)
	require.NoError(t, err)
	size := sized.FindSubmatch(b)
	require.NotNil(t, size)
	num := func(s []byte) float64 {
		v, err := strconv.ParseFloat(string(s), 64)
		require.NoError(t, err)
		return v
	}
	w, h = num(size[1])*pt, num(size[2])*pt
	for _, m := range stroked.FindAllSubmatch(b, -1) {
		at := []float64{1, 0, 0, 1, 0, 0}
		if len(m[2]) > 0 {
			for i, v := range strings.Split(string(m[2]), ",") {
				at[i] = num([]byte(strings.TrimSpace(v)))
			}
		}
		b := box{math.Inf(1), math.Inf(1), math.Inf(-1), math.Inf(-1)}
		see := func(x, y float64) {
			px, py := (at[0]*x+at[2]*y+at[4])*pt, (at[1]*x+at[3]*y+at[5])*pt
			b = box{min(b.x0, px), min(b.y0, py), max(b.x1, px), max(b.y1, py)}
		}
		var x, y float64
		for _, step := range steps.FindAllSubmatch(m[1], -1) {
			var v []float64
			for _, n := range number.FindAll(step[2], -1) {
				v = append(v, num(n))
			}
			if string(step[1]) == "C" { // a cubic, looked at along its way
				for f := 0.0; f <= 1.001; f += 0.05 {
					g := 1 - f
					along := func(p0, p1, p2, p3 float64) float64 {
						return g*g*g*p0 + 3*g*g*f*p1 + 3*g*f*f*p2 + f*f*f*p3
					}
					see(along(x, v[0], v[2], v[4]), along(y, v[1], v[3], v[5]))
				}
				x, y = v[4], v[5]
			} else if len(v) == 2 {
				x, y = v[0], v[1]
				see(x, y)
			}
		}
		paths = append(paths, b)
	}
	return w, h, paths
}

// holds reads a draft's PDF back and holds every shape to its place on its sheet, to 0.1 mm.
func holds(t *testing.T, d Draft, p Paper) (checked int) {
	t.Helper()
	file := filepath.Join(t.TempDir(), "draft.pdf")
	var b bytes.Buffer
	require.NoError(t, d.PDF(&b, p, 1))
	require.NoError(t, os.WriteFile(file, b.Bytes(), 0o600))
	on := d.on(p)
	tiles, tw, th := d.Tiles(on)
	joined := map[Tile]int{} // on how many sheets each cross lies
	defer func() {
		for c, sheets := range joined {
			assert.GreaterOrEqual(t, sheets, 2, "%s on %s: the cross at %v lays one sheet on another", d.Title, p.ID, c)
		}
	}()
	for i, tile := range tiles {
		w, h, paths := readBack(t, file, i+1)
		assert.InDelta(t, on.Width, w, 0.1, "%s on %s", d.Title, p.ID)
		assert.InDelta(t, on.Height, h, 0.1)
		for _, s := range d.Shapes {
			want := box{s.X, s.Y, s.X + s.W, s.Y + s.H}
			switch s.Kind {
			case Text:
				continue
			case Circle:
				want = box{s.X - s.R, s.Y - s.R, s.X + s.R, s.Y + s.R}
			case Line:
				want = box{min(want.x0, want.x1), min(want.y0, want.y1), max(want.x0, want.x1), max(want.y0, want.y1)}
			}
			if want.x0 < tile.X || want.y0 < tile.Y || want.x1 > tile.X+tw || want.y1 > tile.Y+th {
				continue // on another sheet, or on two
			}
			dx, dy := edge-tile.X, edge-tile.Y
			want = box{want.x0 + dx, want.y0 + dy, want.x1 + dx, want.y1 + dy}
			found := false
			for _, path := range paths {
				found = found || path.near(want, 0.1)
			}
			assert.True(t, found, "%s on %s, sheet %d: nothing at %v", d.Title, p.ID, i+1, want)
			checked++
		}
		for _, c := range d.joins(tw, th) {
			x, y := c.X-tile.X+edge, c.Y-tile.Y+edge
			if x < edge+4 || y < edge+4 || x > edge+tw-4 || y > edge+th-4 {
				continue
			}
			for _, arm := range []box{{x - 4, y, x + 4, y}, {x, y - 4, x, y + 4}} {
				found := false
				for _, path := range paths {
					found = found || path.near(arm, 0.1)
				}
				assert.True(t, found, "%s on %s, sheet %d: no cross at %v", d.Title, p.ID, i+1, c)
			}
			joined[c]++
		}
		// The ruler: 100 mm, and 4 in over it.
		y := on.Height - edge
		for _, ruler := range []box{{edge, y, edge + 100, y}, {edge, y - 5, edge + 4*25.4, y - 5}} {
			found := false
			for _, path := range paths {
				found = found || path.near(ruler, 0.1)
			}
			assert.True(t, found, "the ruler on %s", p.ID)
		}
	}
	return checked
}

func demoDoor(t *testing.T, id string) (job.Job, job.Opening) {
	t.Helper()
	jobs, err := demo.Jobs()
	require.NoError(t, err)
	for _, j := range jobs {
		for _, o := range j.Openings {
			if o.ID == id {
				return j, o
			}
		}
	}
	require.Fail(t, "no door "+id)
	return job.Job{}, job.Opening{}
}

// The full-size sheets of all hardware in the list, printed and read back by poppler, are
// right to 0.1 mm on all four papers (ISO 216, ANSI/ASME Y14.1, from memory).
func TestEveryTemplateOfAllHardwareReadsBack(t *testing.T) {
	j, o := demoDoor(t, "linen")
	o.Slab.Thickness = 44 * measure.Millimetre
	checked := 0
	for _, d := range trade.AllHardware {
		o.Lock.Hardware = d.ID
		for _, id := range []string{"lock", "plate", "strike", "case", "block"} {
			draft, err := Make(id, j, o, 0, lock.Router{Bush: 11 * measure.Millimetre, Cutter: 8 * measure.Millimetre})
			if err != nil { // a pull has no faceplate
				said, _ := message.Of(err)
				assert.Contains(t, []message.ID{
					"refused.no-faceplate", "refused.no-strike", "refused.no-face-holes", "refused.jig-no-case",
					"refused.jig-holes-near", "refused.jig-liner",
				}, said.ID, d.ID)
				continue
			}
			for i, p := range Papers {
				// each piece of hardware on one of them, all on each in make thorough
				if i == checked%len(Papers) || thorough.On() {
					checked += holds(t, draft, p)
				}
			}
		}
	}
	for _, id := range []string{"hinge", "rod", "rail"} {
		draft, err := Make(id, j, o, 0, lock.UsualRouter)
		require.NoError(t, err)
		for _, p := range Papers {
			checked += holds(t, draft, p)
		}
	}
	assert.Greater(t, checked, thorough.Count(200, 1000))
}

// A printer that prints at 98 %: a hole of 54 is drawn 55.10, and its ruler 102.04.
func TestAPrinterThatIsNotTrue(t *testing.T) {
	d := Draft{
		Title: "hole", Width: 100, Height: 100, Shapes: []Shape{{Kind: Circle, Layer: CutLayer, X: 50, Y: 50, R: 27}},
	}
	file := filepath.Join(t.TempDir(), "draft.pdf")
	var b bytes.Buffer
	require.NoError(t, d.PDF(&b, Papers[0], 0.98))
	require.NoError(t, os.WriteFile(file, b.Bytes(), 0o600))
	_, _, paths := readBack(t, file, 1)
	wide := map[string]bool{}
	for _, p := range paths {
		wide[fmt.Sprintf("%.1f", p.x1-p.x0)] = true
	}
	assert.True(t, wide["55.1"], "54 / 0.98")
	assert.True(t, wide["102.0"], "100 / 0.98")
	assert.ErrorContains(t, d.PDF(&b, Papers[0], 0.7), "refused.printed percent=70")
}

// A strip of 60 by 600 on A4: 261 of it on each sheet, 12 shared: 261, 510, 600 make three.
func TestTiles(t *testing.T) {
	d := Draft{Width: 60, Height: 600}
	tiles, w, h := d.Tiles(Papers[0])
	assert.Equal(t, 190.0, w)
	assert.Equal(t, 261.0, h)
	require.Len(t, tiles, 3)
	assert.Equal(t, Tile{0, 498}, tiles[2])
	assert.Equal(t, []Tile{{15, 255}, {15, 504}}, d.joins(w, h), "in the middle of what two sheets share")
}

// The hole of a plate of 22 × 150, corners square, with a 12 mm cutter in a 16 mm bush is
// 26 × 154, its corners of 6 and 2: common practice.
func TestARoutersTemplate(t *testing.T) {
	j, o := demoDoor(t, "galley")
	d, err := Make("plate", j, o, 0, lock.UsualRouter)
	require.NoError(t, err)
	var hole Shape
	for _, s := range d.Shapes {
		if s.Kind == Rect && s.Layer == CutLayer {
			hole = s
		}
	}
	assert.Equal(t, [3]float64{26, 154, 8}, [3]float64{hole.W, hole.H, hole.R})
	for says, r := range map[string]lock.Router{
		"refused.bush-cutter bush=10 mm cutter=12 mm": {Bush: 10 * measure.Millimetre, Cutter: 12 * measure.Millimetre},
		"refused.bush bush=30000 mm":                  {Bush: 30 * measure.Metre, Cutter: 12 * measure.Millimetre},
		"refused.bush bush=9223372036854":             {Bush: measure.FromMM(1e308), Cutter: 12 * measure.Millimetre},
		"refused.cutter-wide cutter=25 mm wide=22 mm": {Bush: 30 * measure.Millimetre, Cutter: 25 * measure.Millimetre},
	} {
		_, err := Make("plate", j, o, 0, r)
		assert.ErrorContains(t, err, says)
	}
	o.Lock.Hardware = ""
	_, err = Make("lock", j, o, 0, lock.UsualRouter)
	assert.ErrorContains(t, err, "refused.nothing-to-bore")
	_, err = Make("lock", j, o, 1, lock.UsualRouter)
	assert.ErrorContains(t, err, "refused.leaf-1")
	_, err = Make("lock", j, o, -1, lock.UsualRouter)
	assert.ErrorContains(t, err, "refused.leaf-1")
	_, err = MakeSolid("lock", j, o, -1, lock.UsualRouter)
	assert.ErrorContains(t, err, "refused.leaf-1")
	assert.ErrorContains(
		t, Draft{Width: 30_000, Height: 300}.write(nil, "pdf", "a4", 1),
		"refused.template-size height=300 mm width=30000 mm",
	)
	assert.ErrorContains(
		t, Draft{Width: 300, Height: 300}.write(nil, "pdf", "a4", math.NaN()), "refused.printed percent=NaN",
	)
	_, err = Make("jig", j, o, 0, lock.UsualRouter)
	assert.ErrorContains(t, err, "refused.no-template given=jig")
}

// SVG by an XML parser: its size in mm is its viewBox, and the spindle of 22 stands 60 from
// the fold.
func TestSVGIsInMillimetres(t *testing.T) {
	j, o := demoDoor(t, "linen")
	d, err := Make("lock", j, o, 0, lock.UsualRouter)
	require.NoError(t, err)
	var b bytes.Buffer
	require.NoError(t, d.write(&b, "svg", "", 1))
	var v struct {
		Width   string `xml:"width,attr"`
		Height  string `xml:"height,attr"`
		ViewBox string `xml:"viewBox,attr"`
		G       []struct {
			ID     string `xml:"id,attr"`
			Circle []struct {
				X float64 `xml:"cx,attr"`
				R float64 `xml:"r,attr"`
			} `xml:"circle"`
			Line []struct {
				X float64 `xml:"x1,attr"`
			} `xml:"line"`
		} `xml:"g"`
	}
	require.NoError(t, xml.Unmarshal(b.Bytes(), &v))
	assert.Equal(
		t, fmt.Sprintf("0 0 %s %s", strings.TrimSuffix(v.Width, "mm"), strings.TrimSuffix(v.Height, "mm")), v.ViewBox,
	)
	require.Equal(t, "CUT", v.G[0].ID)
	require.Equal(t, "FOLD", v.G[2].ID)
	assert.Equal(t, 11.0, v.G[0].Circle[0].R)
	assert.InDelta(t, 60, v.G[2].Line[0].X-v.G[0].Circle[0].X, 1e-9)
	assert.InDelta(t, 60, v.G[0].Circle[1].X-v.G[2].Line[1].X, 1e-9, "and as far on the push face")
}

// The drawing that web/src/opening/dxf.test.ts reads with a reader of its own: 80 by 60, a bore of 22,
// a plate of 25 by 57 with corners of 4, and a fold.
func TestTheDXFThatAnotherReaderReads(t *testing.T) {
	d := Draft{Title: "known", Width: 80, Height: 60}
	d.circle(30, 20, 11)
	d.rect(CutLayer, 45, 1.5, 25, 57, 4)
	d.line(FoldLayer, 40, 0, 40, 60)
	d.text(2, 50, 3, "1 spindle 22 ±")
	var b bytes.Buffer
	require.NoError(t, d.write(&b, "dxf", "", 1))
	known, err := os.ReadFile("testdata/known.dxf")
	require.NoError(t, err)
	assert.Equal(t, string(known), b.String())
}

func TestWhatCannotBeWritten(t *testing.T) {
	j, o := demoDoor(t, "linen")
	var b bytes.Buffer
	assert.ErrorContains(
		t, Write(&b, j, o, Asked{Template: "lock", Format: "pdf", Paper: "b5", Printed: 1, Router: lock.UsualRouter}),
		"refused.paper given=b5",
	)
	assert.ErrorContains(
		t, Write(&b, j, o, Asked{Template: "lock", Format: "png", Router: lock.UsualRouter}),
		"refused.format given=png",
	)
}

// docs/template.svg, which the README shows, is what the program draws for the demo.
func TestTheTemplateInDocsIsCurrent(t *testing.T) {
	j, o := demoDoor(t, "linen")
	var b bytes.Buffer
	require.NoError(t, Write(&b, j, o, Asked{Template: "lock", Format: "svg", Router: lock.UsualRouter}))
	kept, err := os.ReadFile("../../docs/template.svg")
	require.NoError(t, err)
	assert.Equal(
		t, string(kept), b.String(),
		"bin/kindmargin sheet demo/tern-house.json --opening linen --template lock --format svg --out "+
			"docs/template.svg",
	)
}

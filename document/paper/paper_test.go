package paper

import (
	"bytes"
	"context"
	"encoding/xml"
	"errors"
	"fmt"
	"image"
	"image/color"
	"image/jpeg"
	"iter"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/plan"
	"kindmargin/core/survey"
	"kindmargin/demo"
	"kindmargin/document/template"
)

func house(t *testing.T, n int) job.Job {
	jobs, err := demo.Jobs()
	require.NoError(t, err)
	return jobs[n]
}

// only is a job with one of its doors, and that door's plan.
func only(t *testing.T, j job.Job, id string) (job.Job, plan.Plan) {
	i := slices.IndexFunc(j.Openings, func(o job.Opening) bool { return o.ID == id })
	require.GreaterOrEqual(t, i, 0, id)
	j.Openings = slices.Clone(j.Openings[i : i+1])
	return j, plan.Solve(j, j.Openings[0])
}

// word is a word as poppler finds it on a page, in points.
type word struct {
	X0   float64 `xml:"xMin,attr"`
	Y0   float64 `xml:"yMin,attr"`
	X1   float64 `xml:"xMax,attr"`
	Y1   float64 `xml:"yMax,attr"`
	Text string  `xml:",chardata"`
}

type sheetOf struct {
	Wide  float64 `xml:"width,attr"`
	High  float64 `xml:"height,attr"`
	Words []word  `xml:"word"`
}

// read reads a PDF back by poppler, page by page, with the place of each word.
func read(t *testing.T, pdf []byte) []sheetOf {
	t.Helper()
	file := filepath.Join(t.TempDir(), "p.pdf")
	require.NoError(t, os.WriteFile(file, pdf, 0o600))
	out, err := exec.CommandContext(t.Context(), "pdftotext", "-bbox", file, "-").Output()
	require.NoError(t, err)
	var doc struct {
		Pages []sheetOf `xml:"body>doc>page"`
	}
	require.NoError(t, xml.Unmarshal(out, &doc))
	return doc.Pages
}

func (s sheetOf) text() string {
	var list []string
	for _, w := range s.Words {
		list = append(list, w.Text)
	}
	return strings.Join(list, " ")
}

func write(t *testing.T, kind, size string, j job.Job, pictures Pictures) []byte {
	t.Helper()
	var b bytes.Buffer
	told := 0
	a := Asked{Kind: kind, Paper: size, Job: j, Pictures: pictures, Told: func() { told++ }}
	require.NoError(t, Write(t.Context(), &b, a))
	assert.Equal(t, Passes(kind)*len(j.Openings), told, "it says how far it is")
	return b.Bytes()
}

// A card is one page a leaf on every paper, with all of it on the paper, and what is cut, hung
// and bored large enough to be read at arm's length: 3 mm high, and more for the figures of
// the cuts. (8 mm at 2 m, as for signs, is 3 mm at 0.75 m; common practice.)
func TestTheDoorCard(t *testing.T) {
	for n, ids := range [][]string{{"linen", "chart", "boots", "beam", "galley", "saloon"}, {"pantry"}} {
		j := house(t, n)
		for _, id := range ids {
			for _, p := range template.Papers {
				one, solved := only(t, j, id)
				pages := read(t, write(t, "card", p.ID, one, nil))
				require.Len(t, pages, len(solved.Leaves), "%s on %s", id, p.ID)
				for i, page := range pages {
					assert.InDelta(t, p.Width/25.4*72, page.Wide, 0.1)
					assert.InDelta(t, p.Height/25.4*72, page.High, 0.1)
					for _, w := range page.Words {
						inside := w.X0 >= 20 && w.Y0 >= 10 && w.X1 <= page.Wide-20 && w.Y1 <= page.High-10
						assert.True(t, inside, "%s on %s: %q is at %v", id, p.ID, w.Text, w)
					}
					for _, h := range solved.Leaves[i].Hinges {
						figure := j.Tape.Show(h.Slab.Value)
						tallest := 0.0
						for _, w := range page.Words {
							if w.Text == strings.Fields(figure)[0] {
								tallest = max(tallest, w.Y1-w.Y0)
							}
						}
						assert.GreaterOrEqual(t, tallest/72*25.4, 3.0, "%s on %s: %s is too small", id, p.ID, figure)
					}
				}
			}
		}
	}
}

// A slab that was stood against its opening and pencilled round: the card says at each mark how far past the pencil the
// cut lies. It is 12 wider than the opening, so that 5 overlap one jamb and 7 the other.
func TestTheCardGoesByThePencil(t *testing.T) {
	j := house(t, 0)
	i := slices.IndexFunc(j.Openings, func(o job.Opening) bool { return o.ID == "chart" })
	o := &j.Openings[i]
	o.Readings, o.Measuring = nil, job.OfferedUp
	o.Offers = []survey.Offer{{ID: "slab", Width: o.Slab.Width, Length: o.Slab.Length}}
	for _, m := range []struct {
		side   frame.Side
		places []int
		over   int
	}{
		{frame.Hinge, []int{50, 1000, 1950}, 5},
		{frame.Head, []int{50, 400, 780}, 4},
		{frame.Lock, []int{50, 1000, 1950}, 7},
		{frame.Foot, []int{50, 400, 780}, 4},
	} {
		for _, at := range m.places {
			o.Readings = append(o.Readings, survey.Reading{
				ID: fmt.Sprint(m.side, at), Kind: survey.Gap, Offer: "slab", Side: m.side,
				At: measure.Length(at) * measure.Millimetre, Value: measure.Length(-m.over) * measure.Millimetre,
			})
		}
	}
	one, _ := only(t, j, "chart")
	text := read(t, write(t, "card", "a4", one, nil))[0].text()
	assert.Regexp(t, `at 90: [0-9.]+ mm past the pencil, into the slab`, text, "2040 less the 1950 up the edge")
}

// What the chart room's card says, by hand from its readings: its head hangs a millimetre tighter than
// the 3 wanted, since nobody read its middle; the pocket at 163 less 2 is 161; the strike at
// 1041 gives a latch at 1039; the drawing stands it with its hinges on the right.
func TestWhatTheCardSays(t *testing.T) {
	j := house(t, 0)
	chart, _ := only(t, j, "chart")
	page := read(t, write(t, "card", "a4", chart, nil))[0]
	text := page.text()
	for _, says := range []string{
		"Chart room", "Tern House", "Hinges on the RIGHT", "Top hinge: 161 / 163", "Bottom hinge: 1716 / 1718",
		"Latch 1039 down the door, keep 1041 down the jamb",
		"rim lock, cylinder", "100 mm (4 in) butt", "Your local code and a licensed trade come first.",
	} {
		assert.Contains(t, text, says)
	}
	place := map[string]word{}
	for _, w := range page.Words {
		if w.X1 < page.Wide/2 { // on the drawing
			place[w.Text] = w
		}
	}
	assert.Greater(t, place["161"].X0, place["1039"].X0, "the hinges are drawn on the right")
	assert.Less(t, place["161"].Y0, place["1039"].Y0)
	assert.Less(t, place["1039"].Y0, place["1716"].Y0)
	// 1716 and 161 are 1555 apart, 1039 and 161 are 878: to scale, but for the middle of a leaf.
	scale := (place["1716"].Y0 - place["161"].Y0) / 1555
	assert.InDelta(t, 878-50, (place["1039"].Y0-place["161"].Y0)/scale, 5)

	linen, _ := only(t, j, "linen")
	tries := read(t, write(t, "card", "a4", linen, nil))[0].text()
	assert.Contains(t, tries, "gaps read")
	assert.Contains(t, tries, "found, lock side:")
	bare := j
	o := j.Begin("new", "Attic")
	bare.Openings = []job.Opening{o}
	assert.Contains(t, read(t, write(t, "card", "a4", bare, nil))[0].text(), "Measure, take a width and a height")
}

// A doubt stands at the top of the card, and no name breaks it, in whatever letters.
func TestDoubtsAndNamesOnPaper(t *testing.T) {
	j, _ := only(t, house(t, 0), "chart")
	o := &j.Openings[0]
	o.Name = "Küche Ελλάς Дверь \u202E🚪\n" + strings.Repeat("long ", 40)
	o.Readings[0].Value += measure.FromMM(10)
	page := read(t, write(t, "card", "a4", j, nil))[0]
	text := page.text()
	assert.Contains(t, text, "Küche Ελλάς Дверь")
	assert.Contains(t, text, "Readings clash: do not cut or mark to any figure here.")
	assert.Less(t, strings.Index(text, "Readings clash"), strings.Index(text, "MARGINS WANTED"))
}

func shot(t *testing.T, wide, high int) []byte {
	img := image.NewGray(image.Rect(0, 0, wide, high))
	for i := range img.Pix {
		img.Pix[i] = uint8(i)
	}
	img.SetGray(0, 0, color.Gray{200})
	var b bytes.Buffer
	require.NoError(t, jpeg.Encode(&b, img, nil))
	return b.Bytes()
}

// shown gives pictures, and then an error where there is one.
func shown(list []Photo, err error) iter.Seq2[Photo, error] {
	return func(yield func(Photo, error) bool) {
		for _, p := range list {
			if !yield(p, nil) {
				return
			}
		}
		if err != nil {
			yield(Photo{}, err)
		}
	}
}

// The book has the schedule, a card and a story a door, its pictures, and the order; a picture
// that the paper cannot hold is told in its place, and the rest is there.
func TestTheHouseBook(t *testing.T) {
	j := house(t, 0)
	whole := shot(t, 400, 300)
	pictures := func(opening string) iter.Seq2[Photo, error] {
		if opening != "linen" {
			return shown(nil, nil)
		}
		at := "2026-11-20T10:00:00Z"
		return shown([]Photo{
			{Opening: opening, Step: job.StepTry, At: at, By: "Wren", Caption: "the lock edge", Data: whole},
			{
				Opening: opening, Step: job.StepTry, At: at, By: "Wren", Caption: "cut short",
				Data: whole[:len(whole)/2],
			},
			{
				Opening: opening, Step: job.StepLog, At: at, By: "Wren", Caption: "no picture",
				Data: []byte("a letter"),
			},
			{Opening: opening, Step: job.StepLog, At: at, By: "Wren", Caption: "a thread", Data: shot(t, 2000, 2)},
			{Opening: opening, Step: job.StepLog, At: at, By: "Wren", Caption: "a tower", Data: shot(t, 3, 2000)},
		}, nil)
	}
	pdf := write(t, "book", "a4", j, pictures)
	pages := read(t, pdf)
	assert.Contains(t, pages[0].text(), "6 doors in the house")
	all := ""
	for _, p := range pages {
		all += p.text() + "\n"
		for _, w := range p.Words {
			assert.True(t, w.X0 >= 20 && w.X1 <= p.Wide-20 && w.Y1 <= p.High-10, "%q is off the paper", w.Text)
		}
	}
	for _, o := range j.Openings {
		assert.GreaterOrEqual(
			t, strings.Count(all, o.Name), 3, "in the schedule, on its card, over its story: %s", o.Name,
		)
	}
	for _, says := range []string{
		"the lock edge · Try", "There is a picture here that the paper cannot hold: cut short",
		"There is a picture here that the paper cannot hold: no picture",
		"Signed off.", "Looked at again", "To order, Tern House", "84 × no. 10 × 38 mm",
	} {
		assert.Contains(t, all, says)
	}
	file := filepath.Join(t.TempDir(), "book.pdf")
	require.NoError(t, os.WriteFile(file, pdf, 0o600))
	out, err := exec.CommandContext(t.Context(), "pdfimages", "-list", file).Output()
	require.NoError(t, err)
	assert.Len(t, strings.Split(strings.TrimSpace(string(out)), "\n"), 2+3, "three pictures are in it")
	for _, line := range strings.Split(strings.TrimSpace(string(out)), "\n")[2:] {
		fields := strings.Fields(line) // page, number, type, width, height
		assert.LessOrEqual(t, len(fields[3]+fields[4]), len("732717"), "with no more dots than are seen: %s", line)
	}
	var b bytes.Buffer
	fails := func(string) iter.Seq2[Photo, error] { return shown(nil, errors.New("the disk is gone")) }
	assert.ErrorContains(
		t, Write(t.Context(), &b, Asked{Kind: "book", Paper: "a4", Job: j, Pictures: fails}), "the disk is gone",
	)
}

// The lists say what the counts of core/load are, over as many pages as it takes.
func TestListsOnPaper(t *testing.T) {
	j := house(t, 0)
	for len(j.Openings) < 80 {
		o := j.Openings[1]
		o.Name = fmt.Sprintf("Door %d with a long name to tell it from all the others", len(j.Openings))
		j.Openings = append(j.Openings, o)
	}
	pages := read(t, write(t, "load", "letter", j, nil))
	assert.Greater(t, len(pages), 5)
	all := ""
	for _, p := range pages {
		all += p.text() + "\n"
		for _, w := range p.Words {
			assert.True(t, w.X1 <= p.Wide-20 && w.Y1 <= p.High-10, "%q is off the paper", w.Text)
		}
	}
	assert.Contains(t, all, fmt.Sprintf("%d × rim lock, cylinder", 1+74))
	assert.Contains(t, all, "Set once")
	var b bytes.Buffer
	fails := func(a Asked, says string) {
		assert.ErrorContains(t, Write(t.Context(), &b, a), says)
	}
	fails(Asked{Kind: "poem", Paper: "a4", Job: j}, "refused.paper-kind given=poem")
	fails(Asked{Kind: "card", Paper: "b5", Job: j}, "refused.paper given=b5")
	ended, end := context.WithCancel(t.Context())
	end()
	for _, k := range Kinds {
		assert.ErrorIs(t, Write(ended, &b, Asked{Kind: k.ID, Paper: "a4", Job: j}), context.Canceled, k.ID)
	}
	j.Openings = nil
	fails(Asked{Kind: "card", Paper: "a4", Job: j}, "refused.no-doors")
}

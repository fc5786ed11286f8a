package document

import (
	"bufio"
	"bytes"
	"compress/gzip"
	"encoding/json"
	"fmt"
	"io"
	"math"
	"math/rand/v2"
	"os"
	"slices"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/plan"
	"kindmargin/core/site"
	"kindmargin/demo"
	"kindmargin/words"
)

// figuresOf are all numbers of a JSON document in order, to 1 µm (or a thousandth of what they are in), without
// its keys, its texts, and the arguments of what is said.
func figuresOf(doc []byte) (line string, err error) {
	var out strings.Builder
	d := json.NewDecoder(bytes.NewReader(doc))
	d.UseNumber()
	var value func(told bool) error
	value = func(told bool) error {
		t, err := d.Token()
		if err != nil {
			return err
		}
		switch t := t.(type) {
		case json.Number:
			f, err := t.Float64()
			if err != nil {
				return err
			}
			if told {
				out.WriteString(" " + strconv.FormatFloat(math.Round(f*1000)/1000+0, 'f', -1, 64))
			}
		case json.Delim:
			for d.More() {
				inner := told
				if t == '{' {
					key, err := d.Token()
					if err != nil {
						return err
					}
					inner = told && key != "args"
				}
				if err := value(inner); err != nil {
					return err
				}
			}
			_, err = d.Token()
			return err
		}
		return nil
	}
	err = value(true)
	return strings.TrimSpace(out.String()), err
}

// seeded is a job of openings that no hand made: the demo's, each reading some way off, with other choices.
func seeded(jobs []job.Job, n int) job.Job {
	rng := rand.New(rand.NewPCG(uint64(n), 23))
	j := jobs[n%len(jobs)]
	o := j.Openings[rng.IntN(len(j.Openings))]
	o.ID, o.Name = fmt.Sprint("seeded", n), fmt.Sprint("Seeded ", n)
	o.Signed, o.Done, o.Ticked = nil, nil, nil
	o.Readings = slices.Clone(o.Readings)
	for i := range o.Readings {
		o.Readings[i].Value += measure.FromMM(float64(rng.IntN(9)-4) / 4)
	}
	if rng.IntN(4) == 0 && len(o.Readings) > 3 {
		o.Readings = o.Readings[:3+rng.IntN(len(o.Readings)-3)]
	}
	pick := func(list ...string) string { return list[rng.IntN(len(list))] }
	o.Margins.School = pick("prefinished", "painted", "newframe", "inch", "thin")
	if rng.IntN(3) == 0 {
		o.Hand = o.Hand.Other()
	}
	o.Slab.Construction = pick("solid", "engineered", "hollow", "moulded", "planked", "flush", o.Slab.Construction)
	o.Slab.Width += measure.FromMM(float64(rng.IntN(5) - 2))
	if rng.IntN(3) == 0 {
		o.Tried = nil
	}
	if rng.IntN(5) == 0 {
		o.Lock.Hardware = pick("tubular-22", "bathroom-64", "surface-60", "")
	}
	j.Openings = []job.Opening{o}
	return j
}

// No figure of a plan changes while its words are moved and rewritten: the demo's houses and a hundred seeded
// openings, as the program before that worked them out. KINDMARGIN_FIGURES names a file to write what is worked
// out now to, so that the two can be compared.
func TestFiguresStay(t *testing.T) {
	jobs, err := demo.Jobs()
	require.NoError(t, err)
	var now bytes.Buffer
	put := func(j job.Job) {
		for _, d := range Plans(j).Openings {
			d.Said = nil // no words
			doc, err := json.Marshal(d)
			require.NoError(t, err)
			line, err := figuresOf(doc)
			require.NoError(t, err)
			fmt.Fprintf(&now, "%s: %s\n", d.ID, line)
		}
	}
	for _, j := range jobs {
		put(j)
	}
	for n := range 100 {
		put(seeded(jobs, n))
	}
	if file := os.Getenv("KINDMARGIN_FIGURES"); file != "" {
		var packed bytes.Buffer
		z, err := gzip.NewWriterLevel(&packed, gzip.BestCompression)
		require.NoError(t, err)
		_, err = io.Copy(z, bytes.NewReader(now.Bytes()))
		require.NoError(t, err)
		require.NoError(t, z.Close())
		require.NoError(t, os.WriteFile(file, packed.Bytes(), 0o600))
	}
	f, err := os.Open("testdata/figures.gz")
	require.NoError(t, err)
	defer f.Close()
	z, err := gzip.NewReader(f)
	require.NoError(t, err)
	before, is := bufio.NewScanner(z), bufio.NewScanner(&now)
	for _, s := range []*bufio.Scanner{before, is} {
		s.Buffer(nil, 16<<20)
	}
	doors, figures := 0, 0
	for before.Scan() {
		require.True(t, is.Scan())
		doors++
		was, now := strings.Fields(before.Text()), strings.Fields(is.Text())
		figures += len(was) - 1
		if slices.Equal(was, now) {
			continue
		}
		at := 0
		for at < min(len(was), len(now)) && was[at] == now[at] {
			at++
		}
		assert.Fail(t, "a figure changed", "%s: %d figures were %d; the first that differs is the %dth: …%v was …%v",
			was[0], len(now), len(was), at, now[max(0, at-3):min(len(now), at+3)],
			was[max(0, at-3):min(len(was), at+3)])
	}
	require.NoError(t, before.Err())
	assert.Equal(t, 107, doors)
	assert.Greater(t, figures, 60_000)
}

// What is compared: numbers in order, to a µm; keys, texts and arguments are not.
func TestWhatIsAFigure(t *testing.T) {
	line, err := figuresOf([]byte(
		`{"b": 1.00049, "a": [2, {"text": {"mm": "3.5"}, "mm": -0.0001}], "args": {"by": 7, "in": [8]}, "ok": true, "z": 9e2}`,
	))
	require.NoError(t, err)
	assert.Equal(t, "1 2 0 900", line)
}

// All that is found in those houses is said, in each language and each unit: nothing is left out of the catalogue, no
// argument is missing, and no figure of nought is told.
func TestFindingsAreSaid(t *testing.T) {
	jobs, err := demo.Jobs()
	require.NoError(t, err)
	for n := range 100 {
		jobs = append(jobs, seeded(jobs[:2], n))
	}
	said := map[site.Code]bool{}
	for _, j := range jobs {
		for _, o := range j.Openings {
			for _, f := range plan.Solve(j, o).All() {
				said[f.Code] = true
				for _, l := range job.Languages {
					for _, v := range []words.Voice{
						words.In(l, measure.Millimetres, measure.HalfMillimetre),
						words.In(l, measure.Inches, measure.ThirtySeconds),
					} {
						text := v.Say(f.Message())
						assert.NotRegexp(t, `[\[\]{}]|  |\.\.|\b0 (mm|in)\b|±0\b`, text)
					}
				}
			}
		}
	}
	assert.Greater(t, len(said), 35, "many things are found there")
}

// The arguments of findings are of the kinds that version 2 of the plan JSON has them in: testdata/args.json was
// written by the program before their words moved, from the same doors.
func TestArgumentsStayOfTheirKind(t *testing.T) {
	b, err := os.ReadFile("testdata/args.json")
	require.NoError(t, err)
	var before map[string]map[string]string
	require.NoError(t, json.Unmarshal(b, &before))
	require.Greater(t, len(before), 30)
	jobs, err := demo.Jobs()
	require.NoError(t, err)
	for n := range 100 {
		jobs = append(jobs, seeded(jobs[:2], n))
	}
	for _, j := range jobs {
		for _, d := range Plans(j).Openings {
			found := d.Plan.Findings
			for _, l := range d.Plan.Leaves {
				found = append(found, l.Findings...)
			}
			for _, f := range found {
				b, err := json.Marshal(f.Args)
				require.NoError(t, err)
				var args map[string]any
				require.NoError(t, json.Unmarshal(b, &args))
				for name, kind := range before[string(f.Code)] {
					assert.Equal(t, kind, fmt.Sprintf("%T", args[name]), "%s of %s", name, f.Code)
				}
			}
		}
	}
}

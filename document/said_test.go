package document

import (
	"encoding/json"
	"regexp"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/demo"
	"kindmargin/words"
)

// texts are the strings of a plan by their JSON pointers.
func texts(t *testing.T, p Plan) map[string]string {
	t.Helper()
	b, err := json.Marshal(p)
	require.NoError(t, err)
	var tree any
	require.NoError(t, json.Unmarshal(b, &tree))
	all := map[string]string{}
	eachText("", tree, func(at, text string) { all[at] = text })
	return all
}

// Each text of a plan has its code, which is the same in both Englishes, and names what is said. What has none is a
// figure, a source or somebody's own words.
func TestEachTextHasItsCode(t *testing.T) {
	own := regexp.MustCompile(`/(weight|pull|revisit)$|/sources/\d+$`)
	said := regexp.MustCompile(`[a-z]{2}[ ,]`)
	plain := words.In(job.British, measure.Millimetres, measure.HalfMillimetre)
	n := 0
	jobs, err := demo.Jobs()
	require.NoError(t, err)
	for _, j := range jobs {
		j.Language = job.British
		british := Plans(j)
		j.Language = job.American
		american := Plans(j)
		for i, d := range british.Openings {
			assert.Equal(t, d.Said, american.Openings[i].Said, d.Name)
			all := texts(t, d.Plan)
			for at, text := range all {
				codes := d.Said[at]
				if said.MatchString(text) && !own.MatchString(at) {
					assert.NotEmpty(t, codes, "%s %s: %s", d.Name, at, text)
				}
				if len(codes) == 1 && codes[0].Args == nil {
					assert.Equal(t, plain.Text(codes[0].Code), text, at)
					n++
				}
			}
			for at := range d.Said {
				assert.Contains(t, all, at)
			}
		}
	}
	assert.Greater(t, n, 1000)
}

package api

import (
	"net/url"
	"os"
	"strconv"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/measure"
)

func TestASheetTakesLengthsAsTheyAreTyped(t *testing.T) {
	s := run(t)
	file, err := os.ReadFile("../demo/tern-house.json")
	require.NoError(t, err)
	head := got[JobHead](t, s.do("POST", "/jobs/file", "", file))
	ask := func(bush, cutter string) answer {
		q := url.Values{"template": {"plate"}, "format": {"svg"}, "bush": {bush}, "cutter": {cutter}}
		return s.do("GET", "/jobs/"+head.ID+"/openings/linen/template?"+q.Encode(), "", nil)
	}
	a := ask(`5/8"`, "12,7 mm")
	require.Equal(t, 200, a.status, string(a.raw))
	assert.Contains(t, string(a.raw), "cutter 12.7 mm, bush 15.875 mm", "5/8 in is 15.875 mm")

	// Without either, the kit's own.
	head.Kit.Bush, head.Kit.Cutter = 20*measure.Millimetre, 10*measure.Millimetre
	s.do("PATCH", "/jobs/"+head.ID, `"`+strconv.FormatInt(head.Version, 10)+`"`, map[string]any{"kit": head.Kit})
	own := s.do("GET", "/jobs/"+head.ID+"/openings/linen/template?template=plate&format=svg", "", nil)
	assert.Contains(t, string(own.raw), "cutter 10 mm, bush 20 mm")

	for field, a := range map[string]answer{"/bush": ask("30 m", "12"), "/cutter": ask("16", "12 13")} {
		assert.Equal(t, 422, a.status)
		p := a.trouble(t)
		require.Len(t, p.Errors, 1)
		assert.Equal(t, field, p.Errors[0].Location)
	}
	for _, path := range []string{
		"sheet?template=lock&leaf=0", "sheet?template=lock&leaf=2", "stock?leaf=0", "hinges?leaf=0", "hinges?leaf=3",
	} {
		a := s.do("GET", "/jobs/"+head.ID+"/openings/linen/"+path, "", nil)
		assert.Equal(t, 400, a.status, path)
		assert.Equal(t, "query.leaf", a.trouble(t).Errors[0].Location)
	}
}

package template

import (
	"bytes"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strconv"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/lock"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/trade"
)

var told = regexp.MustCompile(
	`(?m)(Volume|Number of parts|Total disconnected facets|Backwards edges|Degenerate facets|Facets reversed|Edges fixed)\s*:\s*(-?[\d.]+)`,
)

// sound holds a body's STL to what Debian's admesh says of it: closed, of one part, all its
// facets the right way round, and of the right volume.
func sound(t *testing.T, s *Solid) {
	t.Helper()
	file := filepath.Join(t.TempDir(), "body.stl")
	var b bytes.Buffer
	require.NoError(t, s.STL(&b))
	require.NoError(t, os.WriteFile(file, b.Bytes(), 0o600))
	out, err := exec.Command("admesh", file).CombinedOutput()
	require.NoError(t, err, "Debian's admesh: make readers: %s", out)
	said := map[string]float64{}
	for _, m := range told.FindAllSubmatch(out, -1) {
		v, err := strconv.ParseFloat(string(m[2]), 64)
		require.NoError(t, err)
		if _, ok := said[string(m[1])]; !ok { // before it mends anything
			said[string(m[1])] = v
		}
	}
	assert.Equal(t, 1.0, said["Number of parts"], "%s", out)
	for _, none := range []string{
		"Total disconnected facets", "Backwards edges", "Degenerate facets", "Facets reversed", "Edges fixed",
	} {
		v, ok := said[none]
		assert.True(t, ok, none)
		assert.Zero(t, v, none)
	}
	assert.InEpsilon(t, s.Volume(), said["Volume"], 1e-4)
}

// A block of 20 × 30 × 10 with one bore of 8: 6000 less a polygon of 48 sides, 4² π short of
// 0.3 %.
func TestABlockWithABore(t *testing.T) {
	block := []Block{{[3]float64{0, 0, 0}, [3]float64{20, 30, 10}}}
	s, ok := NewSolid(block, nil, []Bore{{Axis: 2, At: [3]float64{10, 12, 0}, Radius: 4}})
	require.True(t, ok)
	_, ok = NewSolid(block, nil, []Bore{
		{Axis: 2, At: [3]float64{10, 12, 0}, Radius: 4}, {Axis: 2, At: [3]float64{12, 24, 0}, Radius: 4},
	})
	assert.False(t, ok, "the second's planes cut the first")
	assert.InDelta(t, 6000-3.14159265*16*10, s.Volume(), 2)
	sound(t, s)
}

// An L with bores both ways and a window: the shape of the boring jig.
func TestAnAngleWithBoresBothWays(t *testing.T) {
	s, ok := NewSolid(
		[]Block{{[3]float64{0, 0, 0}, [3]float64{80, 100, 10}}, {[3]float64{0, 0, 0}, [3]float64{10, 100, 50}}},
		[]Block{{[3]float64{60, 40, 0}, [3]float64{70, 60, 10}}},
		[]Bore{
			{Axis: 2, At: [3]float64{40, 50, 0}, Radius: 5, Half: [3]float64{0, 9, 0}},
			{Axis: 0, At: [3]float64{0, 50, 30}, Radius: 8},
		},
	)
	require.True(t, ok)
	sound(t, s)
}

// The boring block of all hardware of the list that has one, and a hinge's pocket template.
func TestEveryJigIsSound(t *testing.T) {
	j, o := demoDoor(t, "linen")
	made := 0
	for _, thick := range []float64{35, 44} {
		o.Slab.Thickness = measure.FromMM(thick)
		for _, d := range trade.AllHardware {
			o.Lock.Hardware = d.ID
			s, err := MakeSolid("block", j, o, 0, lock.UsualRouter)
			if err != nil {
				said, _ := message.Of(err)
				assert.Contains(t, []message.ID{
					"refused.no-face-holes", "refused.jig-holes-near", "refused.jig-deep", "refused.jig-edge",
				}, said.ID, d.ID)
				continue
			}
			sound(t, s)
			made++
		}
	}
	assert.Greater(t, made, 12)
	s, err := MakeSolid("hinge", j, o, 0, lock.UsualRouter)
	require.NoError(t, err)
	sound(t, s)
	_, err = MakeSolid("rod", j, o, 0, lock.UsualRouter)
	assert.ErrorContains(t, err, "refused.no-body given=rod")
}

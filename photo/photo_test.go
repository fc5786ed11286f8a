package photo

import (
	"bytes"
	"encoding/binary"
	"image"
	"image/color"
	"image/jpeg"
	"image/png"
	"os"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/field"
	"kindmargin/core/message"
)

func gray(t *testing.T, w, h int) []byte {
	var b bytes.Buffer
	require.NoError(t, jpeg.Encode(&b, image.NewGray(image.Rect(0, 0, w, h)), nil))
	return b.Bytes()
}

// A picture in ten passes, written by another program, is taken and written anew.
func TestAPictureInPasses(t *testing.T) {
	raw, err := os.ReadFile("testdata/progressive.jpg") // 96 × 64, by libjpeg
	require.NoError(t, err)
	assert.Equal(t, bytes.Count(raw, []byte{0xff, 0xda}), scans(raw))
	assert.Greater(t, scans(raw), 5)
	k, err := Keep(raw)
	require.NoError(t, err)
	assert.Equal(t, [2]int{96, 64}, [2]int{k.Width, k.Height})
	assert.Equal(t, 1, scans(k.Data), "kept in one")
	fits, err := Fit(k.Data, Widest, Widest)
	require.NoError(t, err)
	assert.Equal(t, k, fits, "as it is")
}

// A picture is brought down to the room there is, with its shape, and dark stays dark where it was.
func TestAPictureIsBroughtDown(t *testing.T) {
	img := image.NewGray(image.Rect(0, 0, 1200, 800))
	for x := range 600 {
		for y := range 800 {
			img.SetGray(x, y, color.Gray{250})
		}
	}
	var b bytes.Buffer
	require.NoError(t, jpeg.Encode(&b, img, nil))
	for _, c := range []struct{ width, height, wide, high int }{
		{300, 800, 300, 200}, {1200, 100, 150, 100}, {5, 1, 2, 1}, {1, 1, 1, 1},
	} {
		k, err := Fit(b.Bytes(), c.width, c.height)
		require.NoError(t, err)
		small, err := jpeg.Decode(bytes.NewReader(k.Data))
		require.NoError(t, err)
		assert.Equal(t, image.Rect(0, 0, c.wide, c.high), small.Bounds())
		assert.Equal(t, [2]int{c.wide, c.high}, [2]int{k.Width, k.Height})
		if c.wide > 2 {
			left, _, _, _ := small.At(c.wide/4, c.high/2).RGBA()
			right, _, _, _ := small.At(c.wide*3/4, c.high/2).RGBA()
			assert.InDelta(t, 250, left>>8, 3)
			assert.InDelta(t, 0, right>>8, 3)
		}
	}
}

// Each pass goes over the whole picture: thousands of them are refused before the first (OWASP ASVS 4.0.3, 12.1.1,
// from memory: no file uses up what others need).
func TestAPictureInAThousandPasses(t *testing.T) {
	raw, err := os.ReadFile("testdata/progressive.jpg")
	require.NoError(t, err)
	last := bytes.LastIndex(raw, []byte{0xff, 0xda})
	pass := raw[last : len(raw)-2]
	many := append(append([]byte{}, raw[:len(raw)-2]...), bytes.Repeat(pass, 1000)...)
	many = append(many, 0xff, 0xd9)
	for _, read := range []func() error{
		func() error { _, err := Keep(many); return err },
		func() error { _, err := Fit(many, 100, 100); return err },
	} {
		var own field.Error
		require.ErrorAs(t, read(), &own)
		assert.Equal(t, message.ID("refused.photo-passes"), own.Problem.ID)
	}
}

func TestWhatIsNoPicture(t *testing.T) {
	huge := gray(t, 8, 8)
	at := bytes.Index(huge, []byte{0xff, 0xc0})
	require.Positive(t, at)
	copy(huge[at+5:], []byte{0xff, 0xdc, 0xff, 0xdc}) // says that it is 65,500 each way
	var drawn bytes.Buffer
	require.NoError(t, png.Encode(&drawn, image.NewGray(image.Rect(0, 0, 30, 40))))
	whole := gray(t, 400, 300)
	for says, raw := range map[string][]byte{
		"refused.photo-unread": []byte("the lock margin is tight"),
		"damaged":              whole[:len(whole)/3],
		"refused.photo-large":  huge,
		"refused.photo-wide":   gray(t, 3000, 10),
	} {
		_, err := Keep(raw)
		assert.ErrorContains(t, err, says)
	}
	k, err := Keep(drawn.Bytes())
	require.NoError(t, err, "a PNG is taken")
	assert.Equal(t, 40, k.Height)
	_, err = Fit(drawn.Bytes(), 100, 100)
	assert.ErrorContains(t, err, "refused.photo-no-jpeg", "and is not kept as one")
}

// Markers are counted, whatever stands between them, and reading them always ends.
func FuzzScans(f *testing.F) {
	f.Add([]byte{0xff, 0xd8, 0xff, 0xda, 0, 2, 1, 2, 0xff, 0, 0xff, 0xd9})
	f.Add([]byte{0xff, 0xff, 0xff, 0xda, 0, 0})
	f.Add(binary.BigEndian.AppendUint16([]byte{0xff, 0xe1}, 65535))
	f.Fuzz(func(t *testing.T, b []byte) {
		if n := scans(b); n > bytes.Count(b, []byte{0xff, 0xda}) {
			t.Fatal(n)
		}
	})
}

package share

import (
	"bytes"
	"crypto/sha256"
	"crypto/x509"
	"encoding/hex"
	"image"
	"image/color"
	"net"
	"os"
	"path/filepath"
	"regexp"
	"strings"
	"testing"

	"github.com/makiuchi-d/gozxing"
	"github.com/makiuchi-d/gozxing/qrcode"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// decoded is what an independent reader makes of squares, true where they are dark.
func decoded(t *testing.T, rows [][]bool) string {
	t.Helper()
	const size, quiet = 8, 4
	n := (max(len(rows), len(rows[0])) + 2*quiet) * size
	img := image.NewGray(image.Rect(0, 0, n, n))
	for y := range n {
		for x := range n {
			r, c := y/size-quiet, x/size-quiet
			img.SetGray(x, y, color.Gray{255})
			if r >= 0 && r < len(rows) && c >= 0 && c < len(rows[r]) && rows[r][c] {
				img.SetGray(x, y, color.Gray{0})
			}
		}
	}
	bmp, err := gozxing.NewBinaryBitmapFromImage(img)
	require.NoError(t, err)
	got, err := qrcode.NewQRCodeReader().Decode(bmp, nil)
	require.NoError(t, err)
	return got.GetText()
}

// A code is read back by another library's reader, as squares and as it is printed in a terminal.
func TestTheCodeIsReadBack(t *testing.T) {
	for _, text := range []string{
		"http://192.168.1.23:8137/pair#7KQM-XW3D", "https://[fd00::1234:5678]:8137/pair#CDFG-HJKM",
		"https://wren-laptop.local:8137/pair#2345-6789",
	} {
		rows, err := QR(text)
		require.NoError(t, err)
		assert.Equal(t, text, decoded(t, rows))
		var b bytes.Buffer
		require.NoError(t, Print(&b, rows))
		assert.Equal(t, text, decoded(t, printed(b.String())), "as it is printed")
	}
}

// printed are the squares that a terminal shows, without their quiet zone.
func printed(s string) (rows [][]bool) {
	for _, line := range strings.Split(
		strings.TrimSpace(regexp.MustCompile(`\x1b\[[0-9;]*m`).ReplaceAllString(s, "")+"."), "\n",
	) {
		var up, down []bool
		for _, c := range strings.TrimSuffix(line, ".") {
			up, down = append(up, c == '█' || c == '▀'), append(down, c == '█' || c == '▄')
		}
		if len(up) > 10 {
			rows = append(rows, up, down)
		}
	}
	return rows
}

func TestPairingCodes(t *testing.T) {
	seen := map[string]bool{}
	for range 1000 {
		c := Code()
		assert.Regexp(t, `^[2-9CDFGHJKMPQRTVWXY]{4}-[2-9CDFGHJKMPQRTVWXY]{4}$`, c)
		seen[c] = true
	}
	assert.Len(t, seen, 1000)
	assert.Equal(t, Plain("7KQM-XW3D"), Plain(" 7kqm xw3d\t"))
}

// A certificate made here is kept, is for the addresses that it was made for, and is made anew
// where those change; its fingerprint is the SHA-256 of it.
func TestACertificateOfOnesOwn(t *testing.T) {
	path := filepath.Join(t.TempDir(), "house.db.pem")
	at := []net.IP{net.ParseIP("192.168.1.23")}
	c, err := Own(path, at, nil)
	require.NoError(t, err)
	again, err := Own(path, at, nil)
	require.NoError(t, err)
	assert.Equal(t, c.Certificate, again.Certificate)
	leaf, err := x509.ParseCertificate(c.Certificate[0])
	require.NoError(t, err)
	for _, host := range []string{"192.168.1.23", "127.0.0.1", "::1", "localhost"} {
		assert.NoError(t, leaf.VerifyHostname(host))
	}
	assert.Error(t, leaf.VerifyHostname("192.168.1.24"))
	assert.LessOrEqual(t, leaf.NotAfter.Sub(leaf.NotBefore).Hours(), 398*24.0, "no longer than browsers take")
	sum := sha256.Sum256(c.Certificate[0])
	assert.Equal(t, strings.ToUpper(hex.EncodeToString(sum[:])), strings.ReplaceAll(Fingerprint(c), ":", ""))
	other, err := Own(path, append(at, net.ParseIP("10.0.0.7")), nil)
	require.NoError(t, err)
	assert.NotEqual(t, c.Certificate, other.Certificate)
	named, err := Own(path, at, []string{"trestles.local"})
	require.NoError(t, err)
	assert.NoError(t, named.Leaf.VerifyHostname("trestles.local"), "a name that it is reached by stands in it")
	assert.NotEqual(t, other.Certificate, named.Certificate, "one that does not have it is made anew")
	stat, err := os.Stat(path)
	require.NoError(t, err)
	assert.Equal(t, os.FileMode(0o600), stat.Mode().Perm(), "its key is its owner's alone")
	require.NoError(t, os.WriteFile(path, []byte("a letter"), 0o600))
	_, err = Own(path, at, nil)
	assert.ErrorContains(t, err, "take it away")
}

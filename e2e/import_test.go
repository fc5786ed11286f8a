package e2e

import (
	"archive/zip"
	"bytes"
	"encoding/json"
	"fmt"
	"image"
	"image/jpeg"
	"os"
	"path/filepath"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A house with its photographs comes in from the screen, which says how far it is; one that is stopped does not, and
// one that is damaged says what is.
func TestABundleFromTheScreen(t *testing.T) {
	u := sit(t, "demo")
	whole := u.get("/api/jobs/tern-house/bundle")
	z, err := zip.NewReader(bytes.NewReader(whole), int64(len(whole)))
	require.NoError(t, err)
	img := image.NewGray(image.Rect(0, 0, 2400, 2400))
	for i := range img.Pix {
		img.Pix[i] = uint8(i / 97)
	}
	var pic bytes.Buffer
	require.NoError(t, jpeg.Encode(&pic, img, nil))
	make := func(pictures int) string {
		var list []map[string]string
		var buf bytes.Buffer
		w := zip.NewWriter(&buf)
		put := func(name string, b []byte) {
			f, err := w.Create(name)
			require.NoError(t, err)
			_, err = f.Write(b)
			require.NoError(t, err)
		}
		for _, f := range z.File {
			if f.Name == "job.json" {
				require.NoError(t, w.Copy(f))
			}
		}
		for i := range pictures {
			name := fmt.Sprintf("photos/%d.jpg", i)
			put(name, pic.Bytes())
			list = append(list, map[string]string{"file": name, "opening": "linen", "step": "try"})
		}
		b, err := json.Marshal(list)
		require.NoError(t, err)
		put("photos.json", b)
		require.NoError(t, w.Close())
		file := filepath.Join(t.TempDir(), "house.zip")
		require.NoError(t, os.WriteFile(file, buf.Bytes(), 0o600))
		return file
	}
	const bring = `[data-bring-in] input[type=file]`
	u.open("/")
	u.until("it is there", `document.querySelector('[data-bring-in]')`)
	u.do(chromedp.SetUploadFiles(bring, []string{make(40)}))
	u.until(
		"it says how far",
		`/Reading photographs: \d+ of 40/.test(document.querySelector('[data-import-says]')?.innerText)`,
	)
	u.click("[data-stop-import]")
	u.until("stopped", `document.querySelector('[data-bring-in]').innerText.includes('Stopped. Nothing came in.')`)
	bad := filepath.Join(t.TempDir(), "half.zip")
	require.NoError(t, os.WriteFile(bad, whole[:len(whole)/2], 0o600))
	u.do(chromedp.SetUploadFiles(bring, []string{bad}))
	u.until(
		"it says why", `document.querySelector('[data-bring-in] [role=alert]')?.innerText.includes('not a whole zip')`,
	)
	var jobs []struct{ ID string }
	require.NoError(t, json.Unmarshal(u.get("/api/jobs"), &jobs))
	assert.Len(t, jobs, 2, "neither came in")
	u.do(chromedp.SetUploadFiles(bring, []string{make(1)}))
	u.until(
		"it is in, and open",
		`location.pathname.startsWith('/j/') && document.querySelectorAll('[data-door]').length === 6`,
	)
}

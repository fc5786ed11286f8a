// Package web holds the built front end, so that the program needs no file
// beside it.
package web

import (
	"bytes"
	"compress/gzip"
	"embed"
	"io/fs"
	"mime"
	"net/http"
	"path"
	"regexp"
	"slices"
	"strings"
	"sync"
	"time"
)

//go:embed all:dist
var dist embed.FS

var script = regexp.MustCompile(`src="/assets/([^"]+\.js)"`)

// Build is the name of the front end's build, its script: a page that runs another is of another build. Empty where it
// is not built.
func Build() string {
	b, _ := dist.ReadFile("dist/index.html")
	if m := script.FindSubmatch(b); m != nil {
		return string(m[1])
	}
	return ""
}

// Handler serves the front end: files as they are, and the page itself at every other address, whose route the page
// then handles. Compressible files are compressed once, not at every request.
func Handler() http.Handler {
	files, err := fs.Sub(dist, "dist")
	if err != nil {
		panic(err) // the folder is embedded above
	}
	packed, err := pack(files)
	if err != nil {
		panic(err) // an embedded file cannot fail to be read
	}
	server := http.FileServerFS(files)
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		name := strings.TrimPrefix(path.Clean(r.URL.Path), "/")
		if f, err := fs.Stat(files, name); err != nil || f.IsDir() {
			if strings.HasPrefix(name, "assets/") { // of another build: the page is not one of its parts
				http.NotFound(w, r)
				return
			}
			if _, err := fs.Stat(files, "index.html"); err != nil {
				http.Error(w, "The front end is not built: run make demo.", http.StatusServiceUnavailable)
				return
			}
			w.Header().Set("Cache-Control", "no-cache")
			http.ServeFileFS(w, r, files, "index.html")
			return
		}
		if name == "sw.js" || name == "manifest.webmanifest" { // of the build that there is
			w.Header().Set("Cache-Control", "no-cache")
		}
		if strings.HasPrefix(name, "assets/") { // named by their contents
			w.Header().Set("Cache-Control", "public, max-age=31536000, immutable")
		}
		if b, ok := packed[name]; ok {
			w.Header().Set("Vary", "Accept-Encoding")
			if strings.Contains(r.Header.Get("Accept-Encoding"), "gzip") {
				w.Header().Set("Content-Encoding", "gzip")
				w.Header().Set("Content-Type", mime.TypeByExtension(path.Ext(name)))
				http.ServeContent(w, r, name, time.Time{}, bytes.NewReader(b()))
				return
			}
		}
		server.ServeHTTP(w, r)
	})
}

// pack returns the scripts, styles and drawings compressed, each at the first request for it.
func pack(files fs.FS) (map[string]func() []byte, error) {
	packed := map[string]func() []byte{}
	return packed, fs.WalkDir(files, ".", func(name string, f fs.DirEntry, err error) error {
		if err != nil || f.IsDir() || !slices.Contains([]string{".js", ".css", ".svg"}, path.Ext(name)) {
			return err
		}
		b, err := fs.ReadFile(files, name)
		packed[name] = sync.OnceValue(func() []byte { return compressed(b) })
		return err
	})
}

func compressed(b []byte) []byte {
	var to bytes.Buffer
	z, err := gzip.NewWriterLevel(&to, gzip.BestCompression)
	if err != nil {
		panic(err) // the level is one of its own
	}
	_, _ = z.Write(b) // a buffer takes all
	_ = z.Close()
	return to.Bytes()
}

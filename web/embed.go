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
	"strings"
	"time"
)

//go:embed all:dist
var dist embed.FS

var script = regexp.MustCompile(`src="/assets/([^"]+\.js)"`)

// Build names the build of the front end, by its script: a page that runs another is of
// another build. Empty where it is not built.
func Build() string {
	b, _ := dist.ReadFile("dist/index.html")
	if m := script.FindSubmatch(b); m != nil {
		return string(m[1])
	}
	return ""
}

// Handler serves the front end: files as they are, and the page itself for
// every other address, which the page then reads. What compresses well is
// compressed once, here, and not at every request.
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
				http.ServeContent(w, r, name, time.Time{}, bytes.NewReader(b))
				return
			}
		}
		server.ServeHTTP(w, r)
	})
}

// pack compresses scripts, styles and drawings.
func pack(files fs.FS) (map[string][]byte, error) {
	packed := map[string][]byte{}
	return packed, fs.WalkDir(files, ".", func(name string, f fs.DirEntry, err error) error {
		if err != nil || f.IsDir() || !strings.Contains(".js .css .svg", path.Ext(name)) || path.Ext(name) == "" {
			return err
		}
		b, err := fs.ReadFile(files, name)
		if err != nil {
			return err
		}
		var to bytes.Buffer
		z, err := gzip.NewWriterLevel(&to, gzip.BestCompression)
		if err != nil {
			return err
		}
		if _, err := z.Write(b); err != nil {
			return err
		}
		if err := z.Close(); err != nil {
			return err
		}
		packed[name] = to.Bytes()
		return nil
	})
}

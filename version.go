// Package kindmargin has the version of the program and its changelog.
package kindmargin

import (
	_ "embed"
	"regexp"
)

//go:embed CHANGELOG.md
var changelog []byte

var release = regexp.MustCompile(`(?m)^## (\d+\.\d+\.\d+) \(\d{4}-\d{2}-\d{2}\)$`)

// Version returns the newest version in CHANGELOG.md. It panics where there is none.
func Version() string { return string(release.FindSubmatch(changelog)[1]) }

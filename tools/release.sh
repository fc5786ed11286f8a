#!/bin/sh
# Writes bin/release: an archive for each system, with what a user should read, and SHA256SUMS. The same commit
# gives the same bytes. Run from the project's root, by make release; arguments are the systems, all where there are none.
set -eu
version=$(sed -n 's/^## \([0-9.]*\) .*/\1/p' CHANGELOG.md | head -1)
rm -rf bin/release
mkdir -p bin/release
for system in ${*:-linux/amd64 linux/arm64 darwin/amd64 darwin/arm64 windows/amd64 windows/arm64}; do
	os=${system%/*} arch=${system#*/} end=
	test "$os" = windows && end=.exe
	name=kindmargin-$version-$os-$arch
	mkdir "bin/release/$name"
	CGO_ENABLED=0 GOOS=$os GOARCH=$arch go build -buildvcs=auto -trimpath -ldflags '-s -w -buildid=' \
		-o "bin/release/$name/kindmargin$end" ./cmd/kindmargin
	git archive HEAD NOTICES README.md CHANGELOG.md CONTRIBUTING.md docs | tar -C "bin/release/$name" -xf -
	tar -C bin/release --sort=name --owner=0 --group=0 --numeric-owner --mode=u+rwX,go+rX,go-w \
		--mtime="@$(git log -1 --format=%ct)" -cf - "$name" | gzip -n -9 >"bin/release/$name.tar.gz"
	rm -r "bin/release/$name"
done
(cd bin/release && sha256sum ./*.tar.gz >SHA256SUMS && cat SHA256SUMS)

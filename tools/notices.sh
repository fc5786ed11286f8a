#!/bin/sh
# Writes NOTICES: what ships inside the program, and its licences. Run from the project's root, by make notices.
set -eu
dir=$(mktemp -d)
trap 'rm -r "$dir"' EXIT
GOBIN=$dir go install github.com/google/go-licenses@v1.6.0

# modules writes the licences of the modules of one system that no system before it had.
modules() {
	# shellcheck disable=SC2046 # each word is an argument
	GOOS=$1 CGO_ENABLED=0 GOROOT=$(go env GOROOT) "$dir/go-licenses" report ./cmd/kindmargin \
		$(sed 's/^/--ignore /' "$dir/seen") --template tools/notices.tpl 2>/dev/null |
		while IFS= read -r line; do
			case $line in
			"## "*" (Unknown)") # not a text that the tool knows, or none
				name=${line#"## "} name=${name%% *}
				echo "## $name $(go list -f '{{.Module.Version}}' "$name")"
				echo
				cat "$(go list -f '{{.Module.Dir}}' "$name")/LICENSE" 2>/dev/null || echo "The module holds no licence text."
				;;
			*) printf '%s\n' "$line" ;;
			esac
		done
	GOOS=$1 CGO_ENABLED=0 go list -deps -f '{{with .Module}}{{.Path}}{{end}}' ./cmd/kindmargin | sort -u >>"$dir/seen"
}

echo kindmargin >"$dir/seen"
{
	echo "Kind Margin ships with the following. Their licences stand below each."
	echo
	echo "# In the program"
	echo
	echo "## Go ($(go env GOVERSION)), its runtime and standard library"
	echo
	cat "$(go env GOROOT)/LICENSE"
	for system in linux darwin windows; do modules $system; done
	echo
	echo "# In the page"
	echo
	(cd web && npx --yes license-checker-rseidelsohn@4.4.2 --production --excludePrivatePackages \
		--excludePackagesStartingWith "typescript;@types/" --plainVertical) |
		sed -E 's/^(@?[a-z0-9@/._-]+ [0-9]+\.[0-9]+\.[0-9]+)$/## \1/'
} >"$dir/notices"
cp "$dir/notices" NOTICES

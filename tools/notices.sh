#!/bin/sh
# Writes NOTICES: what ships inside the program, and its licences. Run from the project's root, by make notices.
set -eu
to=$(mktemp)
trap 'rm -f "$to"' EXIT
{
	echo "Kind Margin ships with the following. Their licences stand below each."
	echo
	echo "# In the program"
	echo
	echo "## Go ($(go env GOVERSION)), its runtime and standard library"
	echo
	cat "$(go env GOROOT)/LICENSE"
	GOROOT=$(go env GOROOT) go run github.com/google/go-licenses@v1.6.0 report ./cmd/kindmargin \
		--ignore kindmargin --template tools/notices.tpl 2>/dev/null |
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
	echo
	echo "# In the page"
	echo
	(cd web && npx --yes license-checker-rseidelsohn@4.4.2 --production --excludePrivatePackages \
		--excludePackagesStartingWith "typescript;@types/" --plainVertical) |
		sed -E 's/^(@?[a-z0-9@/._-]+ [0-9]+\.[0-9]+\.[0-9]+)$/## \1/'
} >"$to"
mv "$to" NOTICES

# Kind Margin. Needs Go, Node, make and git; everything else is installed from the lock files.

GOFILES := $(shell git ls-files -co --exclude-standard '*.go')
WEBFILES := $(shell git ls-files -co --exclude-standard web ':!web/src/api/contract.gen.ts')

# Tests write thousands of small files that nobody keeps: in memory, where there is room for them.
ROOMY := $(shell df -Pk /dev/shm 2>/dev/null | awk 'NR == 2 && $$4 > 8000000 { print "/dev/shm" }')
SCRATCH := $(or $(ROOMY),$(TMPDIR),/tmp)/kindmargin-test-$(shell echo $(CURDIR) | cksum | cut -d' ' -f1)
test: export TMPDIR := $(SCRATCH)

.PHONY: demo test costs scratch test-page test-go dev screenshots fmt lint types drift chromium bench kills hidden thousand soak thorough readers notices release

demo: bin/kindmargin ## serve two invented houses to try, at http://127.0.0.1:8137
	bin/kindmargin demo

bin/kindmargin: web/dist/index.html $(GOFILES) CHANGELOG.md go.mod go.sum
	go build -buildvcs=auto -o $@ ./cmd/kindmargin

web/node_modules/.package-lock.json: web/package.json web/package-lock.json
	cd web && npm ci --no-audit --no-fund
	@touch $@

web/dist/index.html: web/node_modules/.package-lock.json $(WEBFILES) web/src/api/contract.gen.ts
	cd web && npm run --silent build

test: scratch web/dist/index.html chromium readers ## everything that CI checks
	@# What each of these does is its own, and none fills two processors.
	$(MAKE) --no-print-directory -j2 --output-sync=target lint drift test-page test-go
	@# What these two look at is no input that the cache knows, so a cached answer says nothing.
	go tool gotestsum --format pkgname --jsonfile bin/test-page.json -- -count=1 -timeout 40m -parallel 3 ./core ./e2e
	@echo "What took longest:" && cat bin/test.json bin/test-page.json | go tool gotestsum tool slowest --threshold 1s --num 12
	@rm -rf $(SCRATCH)

scratch: # first: what is installed uses it too
	@rm -rf $(SCRATCH) && mkdir -p $(SCRATCH)

test-page: web/node_modules/.package-lock.json # the page's unit tests
	cd web && npm run --silent test

test-go: web/dist/index.html # all Go tests but the browser's
	GOOS=js GOARCH=wasm go build ./core/... # the rules must run in a phone one day
	@mkdir -p bin
	go tool gotestsum --format pkgname --jsonfile bin/test.json -- $$(go list ./... | grep -v /e2e)

lint: web/node_modules/.package-lock.json
	@out=$$(go tool gofumpt -l $(GOFILES)); test -z "$$out" || { echo "not formatted, run make fmt:"; echo "$$out"; exit 1; }
	go vet ./...
	go tool staticcheck ./...
	cd web && npm run --silent lint && npx --no-install tsc --noEmit

drift: web/node_modules/.package-lock.json ## fails when docs/openapi.json or the front end's types are stale
	@tmp=$$(mktemp -d) && trap 'rm -rf "$$tmp"' EXIT && \
	go run ./cmd/kindmargin contract "$$tmp" "$$tmp" && \
	diff -u docs/openapi.json "$$tmp/openapi.json" && diff -u docs/job.schema.json "$$tmp/job.schema.json" && diff -u docs/plan.schema.json "$$tmp/plan.schema.json" && \
	for l in en-GB en-US; do for f in trade texts; do diff -u web/src/words/$$f.$$l.gen.json "$$tmp/$$f.$$l.gen.json" || exit 1; done; done && \
	(cd web && npx --no-install openapi-typescript ../docs/openapi.json -o "$$tmp/contract.gen.ts" >/dev/null) && \
	diff -u web/src/api/contract.gen.ts "$$tmp/contract.gen.ts" || { echo "stale: run make types"; exit 1; }

types: web/node_modules/.package-lock.json ## makes docs/openapi.json, the schemas in docs and the front end's types
	go run ./cmd/kindmargin contract docs web/src/words
	cd web && npm run --silent types

fmt: web/node_modules/.package-lock.json
	go tool gofumpt -w $(GOFILES)
	cd web && npm run --silent fmt

dev: bin/kindmargin ## hot reload of the front end at http://127.0.0.1:5173, against the running program
	bin/kindmargin demo --keep & pid=$$!; trap "kill $$pid" EXIT; cd web && npx --no-install vite

screenshots: web/dist/index.html chromium readers ## the pictures in docs/screenshots, from the demo
	go run ./e2e/shots docs/screenshots

notices: web/node_modules/.package-lock.json ## renews NOTICES, what ships inside the program; it fetches its tools
	tools/notices.sh

release: web/dist/index.html ## bin/release: the program for each system with what it ships, and their checksums
	tools/release.sh

bench:
	go test ./core/... ./api -run '^$$' -bench . -benchmem

kills: web/dist/index.html ## kills the program ten thousand times in eight streams of saves; nothing acknowledged or waiting may be lost
	KINDMARGIN_THOROUGH=1 go test -count=1 -timeout 120m -v ./e2e -run KillsLoseNo

thousand: web/dist/index.html ## a thousand doors and a hundred pages that listen: answers, list, search, saves, memory
	KINDMARGIN_THOROUGH=1 go test -count=1 -v ./e2e -run 'AThousandDoors|ManyPagesListen|APhoneAtTheOpening'

soak: web/dist/index.html ## an hour of saves, imports, papers, restores and listeners at once: memory flat, nothing left open
	KINDMARGIN_SOAK=$${KINDMARGIN_SOAK:-60m} go test -count=1 -timeout 120m -v ./e2e -run ASoak

costs: ## what a door costs with every set of tools, by simulation: the table on the kit's page; five minutes
	go run ./cmd/kindmargin simulate --costs --openings 480 --seed 28 > bin/costs.json
	mv bin/costs.json core/simulate/costs.json

hidden: ## eight thousand hidden openings by each school: none called ready may be too small
	KINDMARGIN_THOROUGH=1 go test -count=1 -v ./core/simulate -run Hidden

FUZZTIME ?= 30s

thorough: web/dist/index.html ## all seeds, hidden openings, kills, the thousand doors, an hour of soak, 20,000 simulated, fuzzing; says its figures
	@mkdir -p bin
	KINDMARGIN_THOROUGH=1 KINDMARGIN_SOAK=$${KINDMARGIN_SOAK:-60m} go test -count=1 -timeout 300m -p 1 -parallel 1 -v ./... > bin/thorough.txt; \
		all=$$?; grep -E 'inside|readings|surveys|openings|ask for|acknowledged|doors:|listening|cases|soak|^(---|ok|FAIL|PASS)' bin/thorough.txt; exit $$all
	for seed in 20261201 20261202; do go run ./cmd/kindmargin simulate --openings 10000 --seed $$seed; done
	@for f in $$(grep -rl '^func Fuzz' --include='*_test.go' .); do for n in $$(sed -n 's/^func \(Fuzz[A-Za-z]*\).*/\1/p' $$f); do \
		echo "fuzzing $$n for $(FUZZTIME)"; go test -run '^$$' -fuzz "^$$n$$" -fuzztime $(FUZZTIME) $$(dirname $$f) || exit 1; done; done

readers: ## tools that read back what is printed and written
	@{ command -v pdftocairo && command -v admesh && command -v unzip && /usr/bin/python3 -c 'import openpyxl'; } >/dev/null 2>&1 || { \
		sudo=$$(test "$$(id -u)" = 0 || echo sudo); \
		$$sudo apt-get update -qq && $$sudo apt-get install -y -qq --no-install-recommends poppler-utils admesh unzip python3-openpyxl; }

chromium: ## Debian's, without windows where it is to be had
	@command -v chromium-headless-shell >/dev/null || { \
		sudo=$$(test "$$(id -u)" = 0 || echo sudo); \
		{ $$sudo apt-get update -qq && $$sudo apt-get install -y -qq --no-install-recommends chromium-headless-shell; } || \
		command -v chromium || command -v chromium-browser || command -v google-chrome || \
		$$sudo apt-get install -y -qq --no-install-recommends chromium; }

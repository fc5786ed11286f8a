module kindmargin

go 1.26.8

require (
	codeberg.org/go-pdf/fpdf v0.12.0
	filippo.io/age v1.3.2
	github.com/BurntSushi/toml v1.6.0
	github.com/alecthomas/kong v1.17.0
	github.com/anishathalye/porcupine v1.3.1
	github.com/arran4/golang-ical v0.3.4
	github.com/chromedp/cdproto v0.159.0
	github.com/chromedp/chromedp v0.23.0
	github.com/danielgtaylor/huma/v2 v2.37.2
	github.com/emersion/go-ical v0.0.0-20250329121855-f41e73efc392
	github.com/evanphx/json-patch/v5 v5.9.11
	github.com/go-chi/chi/v5 v5.5.0
	github.com/go-chi/httprate v0.16.1
	github.com/gofrs/flock v0.13.2
	github.com/makiuchi-d/gozxing v0.1.1
	github.com/nicksnyder/go-i18n/v2 v2.7.0
	github.com/peterstace/simplefeatures v0.50.0
	github.com/pressly/goose/v3 v3.29.0
	github.com/santhosh-tekuri/jsonschema/v6 v6.0.3
	github.com/stretchr/testify v1.12.1
	github.com/xuri/excelize/v2 v2.11.1
	github.com/yeqown/go-qrcode/v2 v2.3.0
	golang.org/x/image v0.48.0
	golang.org/x/sync v0.25.0
	golang.org/x/text v0.44.0
	gonum.org/v1/gonum v0.17.0
	modernc.org/sqlite v1.62.0
	pgregory.net/rapid v1.3.0
)

require (
	filippo.io/hpke v0.4.0 // indirect
	github.com/bitfield/gotestdox v0.2.2 // indirect
	github.com/dnephin/pflag v1.0.7 // indirect
	github.com/dustin/go-humanize v1.1.0 // indirect
	github.com/fatih/color v1.18.0 // indirect
	github.com/fsnotify/fsnotify v1.9.0 // indirect
	github.com/go-json-experiment/json v0.0.0-20260213210345-44df1a37e875 // indirect
	github.com/google/shlex v0.0.0-20191202100458-e7afc7fbc510 // indirect
	github.com/google/uuid v1.6.0 // indirect
	github.com/klauspost/cpuid/v2 v2.3.0 // indirect
	github.com/mattn/go-colorable v0.1.14 // indirect
	github.com/mattn/go-isatty v0.0.24 // indirect
	github.com/mfridman/interpolate v0.0.2 // indirect
	github.com/ncruces/go-strftime v1.1.0 // indirect
	github.com/remyoudompheng/bigfft v0.0.0-20230129092748-24d4a6f8daec // indirect
	github.com/richardlehane/mscfb v1.0.9 // indirect
	github.com/richardlehane/msoleps v1.0.6 // indirect
	github.com/sethvargo/go-retry v0.5.0 // indirect
	github.com/teambition/rrule-go v1.8.2 // indirect
	github.com/tiendc/go-deepcopy v1.7.2 // indirect
	github.com/xuri/efp v0.0.3-0.20260924042702-217b81952dec // indirect
	github.com/xuri/nfp v0.0.2-0.20250530014748-2ddeb826f9a9 // indirect
	github.com/yeqown/reedsolomon v1.0.0 // indirect
	github.com/zeebo/xxh3 v1.0.2 // indirect
	go.uber.org/multierr v1.11.0 // indirect
	go.yaml.in/yaml/v3 v3.0.5 // indirect
	golang.org/x/crypto v0.58.0 // indirect
	golang.org/x/exp/typeparams v0.0.0-20231108232855-2478ac86f678 // indirect
	golang.org/x/mod v0.42.0 // indirect
	golang.org/x/net v0.62.0 // indirect
	golang.org/x/sys v0.50.0 // indirect
	golang.org/x/term v0.47.0 // indirect
	golang.org/x/tools v0.52.0 // indirect
	golang.org/x/xerrors v0.0.0-20200804184101-5ec99f83aff1 // indirect
	gotest.tools/gotestsum v1.13.0 // indirect
	honnef.co/go/tools v0.8.2 // indirect
	modernc.org/libc v1.80.1 // indirect
	modernc.org/mathutil v1.7.1 // indirect
	modernc.org/memory v1.12.1 // indirect
	mvdan.cc/gofumpt v0.12.0 // indirect
)

tool (
	gotest.tools/gotestsum
	honnef.co/go/tools/cmd/staticcheck
	mvdan.cc/gofumpt
)

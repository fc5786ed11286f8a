package words

import (
	"embed"

	"github.com/BurntSushi/toml"
	"github.com/nicksnyder/go-i18n/v2/i18n"

	"kindmargin/core/job"
)

//go:embed page/*.toml
var pageFiles embed.FS

// PageTexts are the page's own texts in a language, by ID. A text with plural forms has one entry for each, with the
// form after its ID, as in i18next: "walk.doors_one", "walk.doors_other". A text that is missing in another language
// falls back to British, which a test reports.
func PageTexts(l job.Language) (map[string]string, error) {
	all := map[string]string{}
	for _, l := range []job.Language{job.British, l} {
		name := "page/" + string(l) + ".toml"
		b, err := pageFiles.ReadFile(name)
		if err != nil {
			return nil, err
		}
		file, err := i18n.ParseMessageFileBytes(b, name, map[string]i18n.UnmarshalFunc{"toml": toml.Unmarshal})
		if err != nil {
			return nil, err
		}
		for _, m := range file.Messages {
			if m.One == "" {
				all[m.ID] = m.Other
				continue
			}
			all[m.ID+"_one"], all[m.ID+"_other"] = m.One, m.Other
		}
	}
	return all, nil
}

package document

import (
	"encoding/json"
	"fmt"
	"strings"

	"kindmargin/core/plan"
)

// Versions are the supported versions of the plan's form, the present one last.
var Versions = []int{2, FileVersion}

// keys2 maps keys of version 3 to those of version 2 where they differ, by the object: "" the file, "plan", "leaf" and
// "clash".
var keys2 = map[string]map[string]string{
	"":      {"openings": "doors"},
	"plan":  {"steps": "rod"},
	"leaf":  {"hardware": "devices"},
	"clash": {"againId": "againID"},
}

// codes2 maps prefixes of codes of version 3 to those of version 2.
var codes2 = strings.NewReplacer(
	"\x00finding.hardware-", "finding.device-", "\x00hardware-of-other-hand", "device-of-other-hand",
	"\x00hardware-in-the-way", "device-in-the-way", "\x00hardware-kind.", "device-kind.", "\x00hardware-note.",
	"device-note.", "\x00hardware.", "device.", "\x00term.hardware-", "term.device-", "\x00step-now.", "notch.",
	"\x00refused.hardware-", "refused.device-", "\x00refused.no-hardware", "refused.no-device",
)

func code2(code string) string { return strings.TrimPrefix(codes2.Replace("\x00"+code), "\x00") }

// In converts plans to an earlier version of the form. It fails for an unknown version.
func (f File) In(version int) (any, error) {
	switch version {
	case FileVersion:
		return f, nil
	case 2:
		b, err := json.Marshal(f)
		if err != nil {
			return nil, err
		}
		var tree map[string]any
		d := json.NewDecoder(strings.NewReader(string(b)))
		d.UseNumber()
		if err := d.Decode(&tree); err != nil {
			return nil, err
		}
		for _, o := range tree["openings"].([]any) {
			opening2(o.(map[string]any))
		}
		rename2(tree, "")
		tree["version"] = 2
		return tree, nil
	}
	return nil, fmt.Errorf("plans have versions 2 and %d", FileVersion)
}

func rename2(object map[string]any, kind string) {
	for now, was := range keys2[kind] {
		if v, ok := object[now]; ok {
			object[was] = v
			delete(object, now)
		}
	}
}

func opening2(o map[string]any) {
	plan2(o["plan"].(map[string]any))
	said := map[string]any{}
	for at, codes := range o["said"].(map[string]any) {
		codesIn2(codes)
		said[pointer2(at)] = codes
	}
	o["said"] = said
}

// pointer2 is a JSON pointer into a plan of version 2.
func pointer2(at string) string {
	parts := strings.Split(at, "/")
	for i := 1; i < len(parts); i++ {
		switch {
		case parts[i] == "without" && i+2 < len(parts) && parts[i+2] == "plan":
			i += 2
			continue
		case parts[i] == "steps":
			parts[i] = "rod"
		case parts[i] == "leaves" && i+2 < len(parts) && parts[i+2] == "hardware":
			parts[i+2] = "devices"
		}
		break
	}
	return strings.Join(parts, "/")
}

func plan2(p map[string]any) {
	for _, s := range p["steps"].([]any) {
		if s := s.(map[string]any); s["state"] == string(plan.Changed) {
			s["state"] = "nicked"
		}
	}
	rename2(p, "plan")
	for _, l := range p["leaves"].([]any) {
		leaf := l.(map[string]any)
		rename2(leaf, "leaf")
		findings2(leaf["findings"])
	}
	findings2(p["findings"])
	for _, c := range p["clashes"].([]any) {
		rename2(c.(map[string]any), "clash")
	}
	for _, w := range p["without"].([]any) {
		plan2(w.(map[string]any)["plan"].(map[string]any))
	}
}

func findings2(list any) {
	for _, f := range list.([]any) {
		f := f.(map[string]any)
		delete(f, "at")
		f["code"] = code2(f["code"].(string))
		if p, ok := strings.CutPrefix(f["pointer"].(string), "/lock/hardware"); ok {
			f["pointer"] = "/lock/device" + p
		}
	}
}

// codesIn2 renames codes, and those among their arguments.
func codesIn2(said any) {
	switch v := said.(type) {
	case []any:
		for _, x := range v {
			codesIn2(x)
		}
	case map[string]any:
		if c, ok := v["code"].(string); ok {
			v["code"] = code2(c)
		}
		if args, ok := v["args"].(map[string]any); ok {
			for _, arg := range args {
				codesIn2(arg)
			}
			if d, ok := args["hardware"]; ok {
				args["device"] = d
				delete(args, "hardware")
			}
		}
	}
}

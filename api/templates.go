package api

import (
	"bytes"
	"context"
	"fmt"

	"kindmargin/core/field"
	"kindmargin/core/job"
	"kindmargin/core/lock"
	"kindmargin/core/measure"
	"kindmargin/document/paper"
	"kindmargin/document/template"
)

// SheetIn is a requested template.
type SheetIn struct {
	OpeningPath
	LeafIn
	Template string `query:"template" required:"true" doc:"card, lock, plate, strike, case, block, hinge, rail or rod."`
	Format   string `query:"format" default:"pdf" doc:"pdf, svg, dxf or stl."`
	Paper    string `query:"paper" default:"a4" doc:"a4, a3, letter or tabloid; for pdf."`
	Bush     string `query:"bush" doc:"The router's guide bush, as a person writes a length; the kit's where it is not given."`
	Cutter   string `query:"cutter" doc:"Its cutter."`
	Printed  string `query:"printed" default:"100 mm" doc:"How long the ruler of 100 mm comes out of the printer."`
}

// sheet draws a template at full size.
func (s server) sheet(ctx context.Context, in *SheetIn) (*sheetOut, error) {
	k, err := s.store.Opening(ctx, in.Job, in.Opening)
	if err != nil {
		return nil, problem(ctx, err)
	}
	leaf, err := in.of(k.Opening)
	if err != nil {
		return nil, err
	}
	if in.Template == "card" {
		var b bytes.Buffer
		j := k.Job.Job()
		j.Openings = []job.Opening{k.Opening}
		if err := paper.Write(ctx, &b, paper.Asked{Kind: "card", Paper: in.Paper, Job: j}); err != nil {
			return nil, problem(ctx, err)
		}
		return &sheetOut{typePDF, attached(fileStem(k.Opening.Name) + "-card.pdf"), b.Bytes()}, nil
	}
	own := k.Job.Kit.Router()
	lengths := [3]measure.Length{own.Bush, own.Cutter}
	for i, t := range []struct{ at, text string }{
		{"/bush", in.Bush}, {"/cutter", in.Cutter}, {"/printed", in.Printed},
	} {
		if t.text == "" {
			continue
		}
		if lengths[i], err = measure.Parse(t.text, k.Job.Unit); err != nil {
			var bad field.Errors
			bad.Under(t.at, err)
			return nil, problem(ctx, bad.Err())
		}
	}
	var b bytes.Buffer
	asked := template.Asked{
		Template: in.Template, Format: in.Format, Paper: in.Paper, Leaf: leaf, Printed: lengths[2].MM() / 100,
		Router: lock.Router{Bush: lengths[0], Cutter: lengths[1]},
	}
	j := k.Job.Job()
	if in.Template == "rod" { // which shows where the other openings differ, where they are few
		if all, err := s.few(ctx, in.Job, nil); err == nil {
			j = all
		}
	}
	if err := template.Write(&b, j, k.Opening, asked); err != nil {
		return nil, problem(ctx, err)
	}
	f, _ := template.FormatByID(in.Format)
	name := fmt.Sprintf("%s-%s.%s", fileStem(k.Opening.Name), in.Template, in.Format)
	return &sheetOut{f.Type, `attachment; filename="` + name + `"`, b.Bytes()}, nil
}

type sheetOut struct {
	ContentType string `header:"Content-Type"`
	Disposition string `header:"Content-Disposition"`
	Body        []byte `contentType:"application/octet-stream"`
}

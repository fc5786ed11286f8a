package api

import (
	"context"
	"fmt"
	"math"

	"kindmargin/core/field"
	"kindmargin/core/figure"
	"kindmargin/core/measure"
	"kindmargin/core/survey"
	"kindmargin/core/trade"
	"kindmargin/store"
)

// keepsKit refuses a kit that lacks a tool with which a door was read, or a hinge that one hangs on.
func (s server) keepsKit(ctx context.Context, head store.Head) error {
	_, walk, off, err := s.store.Job(ctx, head.ID)
	if err != nil {
		return err
	}
	for _, k := range append(walk, off...) {
		if k.Broken == nil && k.Opening.CheckKit(head.Kit) != nil {
			return field.Fault("/kit", "%s was read with a tool, or hangs on hinges, that this would take out of the kit: keep it, or choose another there first.", k.Opening.Name)
		}
	}
	return nil
}

// ProofFound is what a proof found of a tool, and the same in words.
type ProofFound struct {
	Proved survey.Proved `json:"proved"`
	Says   string        `json:"says"`
}

// prove works out a proof of a tool of the kit; nothing is kept.
func (s server) prove(ctx context.Context, in *struct {
	JobPath
	Tool string `path:"tool"`
	raw
},
) (*body[ProofFound], error) {
	head, err := s.store.Head(ctx, in.Job)
	if err != nil {
		return nil, problem(ctx, err)
	}
	p, err := read[proof](in.RawBody)
	if err != nil {
		return nil, problem(ctx, err)
	}
	asked, err := p.lengths(head.Unit)
	if err != nil {
		return nil, problem(ctx, err)
	}
	got, err := head.Kit.Tools.Prove(in.Tool, asked, head.Tape.Step().MM(), head.Unit)
	if err != nil {
		return nil, problem(ctx, err)
	}
	return &body[ProofFound]{Body: ProofFound{got, proofSays(head.Kit.Tools, in.Tool, got, head.Unit)}}, nil
}

// proof is a survey.Proof with lengths as a person writes them.
type proof struct {
	Kind    survey.Kind `json:"kind"`
	Span    string      `json:"span,omitempty"`
	Own     []string    `json:"own"`
	Better  []string    `json:"better"`
	Against string      `json:"against,omitempty"`
}

func (p proof) lengths(u measure.Unit) (survey.Proof, error) {
	out := survey.Proof{Kind: p.Kind, Against: p.Against}
	var bad field.Errors
	parse := func(at, text string) measure.Length {
		l, err := measure.Parse(text, u)
		if err != nil {
			bad.Add(at, "%s", err.Error())
		}
		return l
	}
	if p.Span != "" {
		out.Span = parse("/span", p.Span)
	}
	for i, text := range p.Own {
		out.Own = append(out.Own, parse(fmt.Sprintf("/own/%d", i), text))
	}
	for i, text := range p.Better {
		out.Better = append(out.Better, parse(fmt.Sprintf("/better/%d", i), text))
	}
	return out, bad.Err()
}

// proofSays tells what was found, and how sure (2σ).
func proofSays(kit survey.Kit, id string, p survey.Proved, u measure.Unit) string {
	var instrument *trade.Instrument
	for _, t := range kit {
		if t.ID == id {
			instrument, _ = trade.InstrumentByID(t.Instrument)
		}
	}
	by, sure := measure.FromMM(math.Abs(p.Bias)), measure.FromMM(figure.Coverage*p.Sure)
	each := ""
	if instrument.PerMetre {
		each = " in each metre"
	}
	say := func(l measure.Length, way measure.Way) string { return measure.Fine(l, way, u) + " " + string(u) }
	if p.Bias > -p.Sure/2 && p.Bias < p.Sure/2 {
		return fmt.Sprintf("No error was found, to ±%s%s: it is taken as true, and as sure as that.", say(sure, measure.Up), each)
	}
	way := instrument.Way
	if p.Bias < 0 {
		way = instrument.Other
	}
	return fmt.Sprintf("It %s by %s%s (±%s): that is allowed for.", way, say(by, measure.Nearest), each, say(sure, measure.Up))
}

package api

import (
	"context"
	"fmt"
	"math"

	"kindmargin/core/field"
	"kindmargin/core/figure"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/survey"
	"kindmargin/core/trade"
	"kindmargin/document"
	"kindmargin/store"
)

// keepsKit rejects a kit without a tool that a reading of the job uses, or a hinge that an opening uses.
func (s server) keepsKit(ctx context.Context, head store.Head) error {
	_, walk, off, err := s.store.Job(ctx, head.ID)
	if err != nil {
		return err
	}
	for _, k := range append(walk, off...) {
		if k.Broken == nil && k.Opening.CheckKit(head.Kit) != nil {
			return field.Fault("/kit", "refused.kit-in-use", message.Args{"door": k.Opening.Name})
		}
	}
	return nil
}

// ProofFound is the result of a proof, and the same in words.
type ProofFound struct {
	Proved survey.Proved `json:"proved"`
	Says   string        `json:"says"`
}

// prove works out a proof; nothing is stored.
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
	got, err := head.Kit.Tools.Prove(in.Tool, asked, head.Tape.Step().MM())
	if err != nil {
		return nil, problem(ctx, err)
	}
	return &body[ProofFound]{
		Body: ProofFound{got, document.Voice(head.Job()).Say(proofSays(head.Kit.Tools, in.Tool, got))},
	}, nil
}

// proof is a survey.Proof with lengths as typed.
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
			bad.Under(at, err)
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

// proofSays is the result with its ± (2σ) in words.
func proofSays(kit survey.Kit, id string, p survey.Proved) message.Message {
	var instrument *trade.Instrument
	for _, t := range kit {
		if t.ID == id {
			instrument, _ = trade.InstrumentByID(t.Instrument)
		}
	}
	args := message.Args{
		"by":   message.Near(measure.FromMM(math.Abs(p.Bias))),
		"sure": message.Fine(measure.FromMM(figure.Coverage * p.Sure)), "way": instrument.Way,
	}
	if p.Bias < 0 {
		args["way"] = instrument.Other
	}
	none := p.Bias > -p.Sure/2 && p.Bias < p.Sure/2
	switch {
	case none && instrument.PerMetre:
		return message.Message{ID: "proof.true-metre", Args: args}
	case none:
		return message.Message{ID: "proof.true", Args: args}
	case instrument.PerMetre:
		return message.Message{ID: "proof.wrong-metre", Args: args}
	}
	return message.Message{ID: "proof.wrong", Args: args}
}

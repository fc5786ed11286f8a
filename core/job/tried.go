package job

import (
	"slices"
	"strconv"
	"strings"

	"kindmargin/core/field"
	"kindmargin/core/frame"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/season"
	"kindmargin/core/survey"
)

// Tried is the record of a leaf from its first cut on.
type Tried struct {
	Made  *Made  `json:"made,omitempty"` // nil until it was cut
	Hangs []Hang `json:"hangs"`
}

// Made is a slab as it was cut, and its hinges as they were let in; as planned where nothing else was recorded. Its
// edges are relative to its hinge edge and its head's corner there.
type Made struct {
	On   string           `json:"on,omitempty"` // when
	By   string           `json:"by,omitempty"` // who
	Hand frame.Hand       `json:"hand"`         // of the leaf
	Lock []measure.Length `json:"lock"`         // width of the slab at even places from its foot to its head
	// how far its head is above square, at even places from the hinge edge
	Head []measure.Length `json:"head"`
	Foot []measure.Length `json:"foot"` // its length, at even places from the hinge edge
	// Hollow is how far the hinge edge is behind a straight one, at even places from its foot; empty where it is
	// straight.
	Hollow []measure.Length `json:"hollow,omitempty"`
	Hinges []MadeHinge      `json:"hinges"`
	Margin measure.Length   `json:"margin"` // head margin at the hinge corner, as it was hung
	// version of the rules that its marks came from; 0 for the first
	Rules int `json:"rules,omitempty"`
}

// MadeHinge is a hinge as it was let in.
type MadeHinge struct {
	Down measure.Length `json:"down"`           // slab's finished top to the leaf's top
	Slab measure.Length `json:"slab"`           // depth of the slab's pocket
	Jamb measure.Length `json:"jamb"`           // and of the jamb's
	Pack measure.Length `json:"pack,omitempty"` // behind the jamb leaf
}

// Hang is one hang of the slab on its screws, and what was found.
type Hang struct {
	ID      string `json:"id"`
	On      string `json:"on,omitempty"`
	By      string `json:"by,omitempty"`
	Revisit string `json:"revisit,omitempty"` // the season, or why the opening was looked at again
	// Of a revisit: the air in the room that day, and the slab's moisture by a meter; either or none.
	Air      *season.Air    `json:"air,omitempty"`
	Moisture season.Percent `json:"moisture,omitempty"`
	Did      *Did           `json:"did,omitempty"` // before it; nil for the first, and where nothing was done
	// Gaps are those beside the slab, each of kind survey.Gap with this hang's ID as its offer.
	Gaps []survey.Reading `json:"gaps"`
	// Outside is a slab that does not go in: it is shut against the frame, and its gaps are ticks (trade.TickSigma).
	Outside bool `json:"outside,omitempty"`
	Slid    bool `json:"slid,omitempty"`  // a packer of the least margin was slid all round and passed
	Bound   bool `json:"bound,omitempty"` // it bound, and the gap was read there
	// Looked says that the light was looked along, and every lump or hollow between two gaps was read.
	Looked bool `json:"looked,omitempty"`

	Drags   []int    `json:"drags,omitempty"`   // opening angles at which the foot drags on the floor
	Springs bool     `json:"springs,omitempty"` // it springs back as it shuts
	Drifts  Drift    `json:"drifts,omitempty"`
	Proud   []int    `json:"proud,omitempty"` // hinges behind whose leaf there is light, the top one being 0
	Rattles bool     `json:"rattles,omitempty"`
	With    []string `json:"with,omitempty"` // what alone may be done next; empty for anything
	Way     int      `json:"way,omitempty"`  // which of the ways is looked at
	Fits    bool     `json:"fits,omitempty"` // it was called done
}

// Drift is the way in which a slab swings by itself.
type Drift string

// The ways.
const (
	DriftsOpen Drift = "open"
	DriftsShut Drift = "shut"
)

// Did is what was done to a hung slab.
type Did struct {
	// how much further out each hinge was packed, top first; negative is let in
	Pack   []measure.Length `json:"pack,omitempty"`
	Fore   []measure.Length `json:"fore,omitempty"` // how far each was moved toward the pull face
	Up     measure.Length   `json:"up,omitempty"`   // of all hinges
	Planed []Planed         `json:"planed,omitempty"`
}

// Planed is what was planed off one edge, linear between three places.
type Planed struct {
	Side frame.Side        `json:"side"`
	Off  [3]measure.Length `json:"off"` // at its foot or hinge corner, its middle, its head or lock corner
	// of the hinge edge: the slab's recesses were let in by as much, so that the slab came nearer to its jamb
	Deeper bool `json:"deeper,omitempty"`
}

// Note is a note about an opening.
type Note struct {
	On   string `json:"on,omitempty"`
	By   string `json:"by,omitempty"`
	Step Step   `json:"step,omitempty"` // that it belongs to
	Text string `json:"text"`
}

// Signed is the sign-off of an opening: nothing changes until it is reopened with a reason.
type Signed struct {
	On      string         `json:"on"`
	By      string         `json:"by"`
	Note    string         `json:"note,omitempty"`
	Margins []SignedMargin `json:"margins,omitempty"` // as they were found, against what was wanted
}

// SignedMargin is one margin at the sign-off.
type SignedMargin struct {
	Leaf   int            `json:"leaf,omitempty"` // of a pair: 0 or 1
	Side   frame.Side     `json:"side"`
	Where  string         `json:"where"`
	Wanted measure.Length `json:"wanted"`
	Found  measure.Length `json:"found"`
}

// Reopened is a sign-off that was taken back: for a reason, or for a revisit.
type Reopened struct {
	On      string `json:"on"`
	By      string `json:"by,omitempty"`
	Why     string `json:"why,omitempty"`
	Revisit string `json:"revisit,omitempty"` // the season that it is looked at again in, as its hang has it
	Was     Signed `json:"was"`
}

// Upper bounds on a leaf's record.
const (
	mostHangs   = 40
	mostGaps    = 60
	mostPlaces  = 9
	mostNotes   = 200
	longestNote = 2000
)

// checkLog reports invalid notes and sign-offs.
func (o Opening) checkLog(bad *field.Errors) {
	if len(o.Notes) > mostNotes || len(o.Reopened) > mostNotes {
		bad.Add("/notes", "refused.too-many-notes", message.Args{
			"given": message.Number(len(o.Notes)), "most": message.Number(mostNotes),
		})
		return
	}
	for i, n := range o.Notes {
		at := "/notes/" + strconv.Itoa(i)
		bad.Under(at, when(n.On, n.By))
		if l := letters(n.Text); l == 0 || l > longestNote {
			bad.Add(at+"/text", "refused.note-text", message.Args{"most": message.Number(longestNote)})
		}
		if n.Step != "" && !slices.Contains(Steps, n.Step) {
			bad.Add(at+"/step", "refused.no-step", message.Args{"given": message.Quote(n.Step)})
		}
	}
	if s := o.Signed; s != nil {
		bad.Under("/signed", s.check())
	}
	for i, r := range o.Reopened {
		at := "/reopened/" + strconv.Itoa(i)
		bad.Under(at, when(r.On, r.By))
		if l := letters(strings.TrimSpace(r.Why + r.Revisit)); l == 0 || l > longestNote {
			bad.Add(at+"/why", "refused.reopen-why", message.Args{"most": message.Number(longestNote)})
		}
		bad.Under(at+"/was", r.Was.check())
	}
}

func (s Signed) check() error {
	var bad field.Errors
	bad.Under("", when(s.On, s.By))
	if strings.TrimSpace(s.By) == "" {
		bad.Add("/by", "refused.who-signs", nil)
	}
	if letters(s.Note) > longestNote || len(s.Margins) > mostNotes {
		bad.Add("/note", "refused.note-long", message.Args{"most": message.Number(longestNote)})
	}
	return bad.Err()
}

// checkTried reports invalid tries.
func (o Opening) checkTried(bad *field.Errors) {
	leaves := 1
	if o.Pair != nil {
		leaves = 2
	}
	if len(o.Tried) > leaves {
		bad.Add("/tried", "refused.too-many-tries", message.Args{
			"leaves": message.Number(leaves), "given": message.Number(len(o.Tried)),
		})
		return
	}
	seen := map[string]bool{}
	for i, t := range o.Tried {
		at := "/tried/" + strconv.Itoa(i)
		if t.Made != nil {
			bad.Under(at+"/made", t.Made.check())
		}
		if t.Made == nil && len(t.Hangs) > 0 {
			bad.Add(at+"/hangs", "refused.not-cut-yet", nil)
			continue
		}
		if len(t.Hangs) > mostHangs {
			bad.Add(at+"/hangs", "refused.too-many-hangs", message.Args{
				"given": message.Number(len(t.Hangs)), "most": message.Number(mostHangs),
			})
			continue
		}
		for k, h := range t.Hangs {
			at := at + "/hangs/" + strconv.Itoa(k)
			if !identifies(h.ID) || seen[h.ID] {
				bad.Add(at+"/id", "refused.hang-id", message.Args{"given": message.Quote(h.ID)})
			}
			seen[h.ID] = true
			bad.Under(at, h.check(*t.Made))
			bad.Under(at, t.moved(k))
		}
	}
}

func (m Made) check() error {
	const mm = measure.Millimetre
	var bad field.Errors
	if m.Hand != frame.Left && m.Hand != frame.Right {
		bad.Add("/hand", "refused.hand", message.Args{"given": message.Quote(m.Hand)})
	}
	bad.Under("", when(m.On, m.By))
	for at, list := range map[string][]measure.Length{
		"/lock": m.Lock, "/head": m.Head, "/foot": m.Foot, "/hollow": m.Hollow,
	} {
		if len(list) > mostPlaces || len(list) < 2 && at != "/hollow" || len(list) == 1 {
			bad.Add(at, "refused.edge-places", message.Args{
				"most": message.Number(mostPlaces), "given": message.Number(len(list)),
			})
		}
		for i, v := range list {
			r := field.Range{Pointer: at + "/" + strconv.Itoa(i), Value: v}
			switch at {
			case "/lock":
				r.Is, r.Least, r.Most = "size.width-of-a-slab", 100*mm, 2*measure.Metre
			case "/foot":
				r.Is, r.Least, r.Most = "size.length-of-a-slab", 300*mm, 4*measure.Metre
			default:
				r.Is, r.Least, r.Most = "size.place-of-an-edge", -100*mm, 100*mm
			}
			bad.Under("", r.Check())
		}
	}
	if len(m.Hinges) < 2 || len(m.Hinges) > 4 {
		bad.Add("/hinges", "refused.hinges-2-to-4", message.Args{"given": message.Number(len(m.Hinges))})
	}
	for i, h := range m.Hinges {
		at := "/hinges/" + strconv.Itoa(i)
		for _, r := range []field.Range{
			{Pointer: at + "/down", Is: "size.place-of-a-hinge", Value: h.Down, Most: 4 * measure.Metre},
			{Pointer: at + "/slab", Is: "size.depth-of-a-recess", Value: h.Slab, Most: 15 * mm},
			{Pointer: at + "/jamb", Is: "size.depth-of-a-recess", Value: h.Jamb, Most: 15 * mm},
			{Pointer: at + "/pack", Is: "size.packer-behind-a-leaf", Value: h.Pack, Least: -10 * mm, Most: 10 * mm},
		} {
			bad.Under("", r.Check())
		}
		if i > 0 && h.Down < m.Hinges[i-1].Down+20*mm {
			bad.Add(at+"/down", "refused.hinges-top-first", nil)
		}
	}
	bad.Under("", field.Range{
		Pointer: "/margin", Is: "size.margin-at-the-top", Value: m.Margin, Least: -10 * mm, Most: 60 * mm,
	}.Check())
	return bad.Err()
}

// when checks a date and a name.
func when(on, by string) error {
	var bad field.Errors
	if letters(on) > longestID || !plain(on) {
		bad.Add("/on", "refused.when", message.Args{"most": message.Number(longestID)})
	}
	if letters(by) > longestName || !plain(by) {
		bad.Add("/by", "refused.name", message.Args{"most": message.Number(longestName)})
	}
	return bad.Err()
}

func (h Hang) check(m Made) error {
	var bad field.Errors
	bad.Under("", when(h.On, h.By))
	if letters(h.Revisit) > longestName || !plain(h.Revisit) {
		bad.Add("/revisit", "refused.revisit", message.Args{"most": message.Number(longestName)})
	}
	if len(h.Gaps) > mostGaps {
		bad.Add("/gaps", "refused.too-many-gaps", message.Args{
			"given": message.Number(len(h.Gaps)), "most": message.Number(mostGaps),
		})
		return bad
	}
	ids := map[string]bool{}
	for i, g := range h.Gaps {
		at := "/gaps/" + strconv.Itoa(i)
		if !identifies(g.ID) || ids[g.ID] {
			bad.Add(at+"/id", "refused.gap-id", message.Args{"given": message.Quote(g.ID)})
		}
		ids[g.ID] = true
		reach := m.Lock[0]
		if g.Side.Upright() {
			reach = m.Foot[0]
		}
		switch {
		case g.Kind != survey.Gap || g.Offer != h.ID:
			bad.Add(at+"/offer", "refused.gap-hang", nil)
		case bad.Under(at, g.Check()):
		case g.At > reach:
			bad.Add(at+"/at", "refused.gap-past-slab", message.Args{
				"value": message.Exact(g.At), "long": message.Exact(reach),
			})
		}
		for _, f := range h.Gaps[:i] {
			if f.Side == g.Side && f.At == g.At && f.Struck == "" && g.Struck == "" &&
				(f.Sight == "rubs") != (g.Sight == "rubs") {
				bad.Add(at+"/sight", "refused.rubs-and-gap", message.Args{
					"at": message.Exact(g.At), "edge": message.Edge(g.Side),
				})
			}
		}
	}
	for i, a := range h.Drags {
		if a < 1 || a > 180 || len(h.Drags) > 10 {
			bad.Add("/drags/"+strconv.Itoa(i), "refused.drag-angle", message.Args{"given": message.Number(a)})
		}
	}
	if h.Air != nil {
		bad.Under("/air", h.Air.Check())
	}
	bad.Under("", season.CheckMoisture("/moisture", h.Moisture))
	if h.Drifts != "" && h.Drifts != DriftsOpen && h.Drifts != DriftsShut {
		bad.Add("/drifts", "refused.drifts", message.Args{"given": message.Quote(h.Drifts)})
	}
	for i, p := range h.Proud {
		if p < 0 || p >= len(m.Hinges) {
			bad.Add("/proud/"+strconv.Itoa(i), "refused.no-hinge", message.Args{"given": message.Number(p)})
		}
	}
	if len(h.With) > 10 || h.Way < 0 || h.Way > 10 {
		bad.Add("/with", "refused.no-ways", nil)
	}
	return bad.Err()
}

// moved reports a hinge of hang k that was moved further than its recess or screws allow, all moves since the first
// hang added up, and wood that was put back.
func (t Tried) moved(k int) error {
	var bad field.Errors
	did := t.Hangs[k].Did
	if did == nil {
		return nil
	}
	if len(did.Pack) > len(t.Made.Hinges) {
		bad.Add("/did/pack", "refused.too-many-moves", message.Args{
			"hinges": message.Number(len(t.Made.Hinges)), "given": message.Number(len(did.Pack)),
		})
		return bad.Err()
	}
	for i := range did.Pack {
		out := t.Out(k, i)
		bad.Under("", field.Range{
			Pointer: "/did/pack/" + strconv.Itoa(i), Is: "size.move-of-a-hinge-in-all", Value: out, Least: -mostLetIn,
			Most: mostOut,
		}.Check())
	}
	if len(did.Fore) > len(t.Made.Hinges) {
		bad.Add("/did/fore", "refused.too-many-moves", message.Args{
			"hinges": message.Number(len(t.Made.Hinges)), "given": message.Number(len(did.Fore)),
		})
	}
	for i, v := range did.Fore {
		bad.Under("", field.Range{
			Pointer: "/did/fore/" + strconv.Itoa(i), Is: "size.move-of-a-hinge-to-or-fro", Value: v, Least: -mostOut,
			Most: mostOut,
		}.Check())
	}
	bad.Under("", field.Range{
		Pointer: "/did/up", Is: "size.move-of-all-hinges-up-or-down", Value: did.Up, Least: -mostUp, Most: mostUp,
	}.Check())
	for i, p := range did.Planed {
		at := "/did/planed/" + strconv.Itoa(i)
		if p.Side == frame.NoSide {
			bad.Add(at+"/side", "refused.which-planed", nil)
		}
		if p.Deeper && p.Side != frame.Hinge {
			bad.Add(at+"/deeper", "refused.deeper-edge", nil)
		}
		for j, v := range p.Off {
			bad.Under("", field.Range{
				Pointer: at + "/off/" + strconv.Itoa(j), Is: "size.depth-to-plane-off", Value: v,
				Most: 30 * measure.Millimetre,
			}.Check())
		}
	}
	return bad.Err()
}

// Limits of a hinge's moves, whether as advised or not.
const (
	mostLetIn = 3 * measure.Millimetre
	mostOut   = 5 * measure.Millimetre
	mostUp    = 20 * measure.Millimetre
)

// Out is the total by which hinge i was packed out, up to and with hang k.
func (t Tried) Out(k, i int) (out measure.Length) {
	for _, h := range t.Hangs[:k+1] {
		if h.Did != nil && i < len(h.Did.Pack) {
			out += h.Did.Pack[i]
		}
	}
	return out
}

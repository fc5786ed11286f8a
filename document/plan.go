package document

import (
	"encoding/json"
	"slices"
	"strconv"

	"kindmargin/core/fit"
	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/plan"
	"kindmargin/core/site"
	"kindmargin/core/survey"
	"kindmargin/core/trade"
	"kindmargin/words"
)

// The JSON of plans for other programs: docs/planjson.md. Its version goes up when a field changes its meaning or is
// removed; new fields may come without.
const (
	FileFormat  = "kindmargin plan"
	FileVersion = 3 // since then the names are those of docs/glossary.md
)

// File is the plans of a job's openings.
type File struct {
	Format   string       `json:"format"`
	Version  int          `json:"version" doc:"Of this form; it goes up when a field changes its meaning or goes."`
	Job      string       `json:"job" doc:"The job's name."`
	Unit     measure.Unit `json:"unit" doc:"The unit that the sentences speak in."`
	Tape     measure.Tape `json:"tape" doc:"What figures are rounded to."`
	Openings []Opening    `json:"openings" doc:"In the order of the walk."`
}

// Opening is one opening and its plan.
type Opening struct {
	ID   string     `json:"id"`
	Name string     `json:"name"`
	Room string     `json:"room"`
	Hand frame.Hand `json:"hand" doc:"The side of the hinges, seen from the pull face."`
	Plan Plan       `json:"plan"`

	// The texts of the plan without their words.
	Said map[string][]words.Code `json:"said" doc:"What each text of the plan says, by its JSON pointer in the plan: one code, or several where it is put together. A text that is not here is somebody's own, or a figure."`
}

// Plans plans every opening of a job.
func Plans(j job.Job) File {
	f := File{Format: FileFormat, Version: FileVersion, Job: j.Name, Unit: j.Unit, Tape: j.Tape, Openings: []Opening{}}
	for _, o := range j.Openings {
		p := plan.Solve(j, o)
		f.Openings = append(f.Openings, Opening{
			ID: o.ID, Name: o.Name, Room: o.Room, Hand: o.Hand, Plan: NewPlan(j, o, p), Said: said(j, o, p),
		})
	}
	return f
}

// said are the codes of a plan's texts, by their JSON pointers.
func said(j job.Job, o job.Opening, p plan.Plan) map[string][]words.Code {
	pr := newPrinter(j)
	pr.voice = pr.voice.Coded()
	b, err := json.Marshal(pr.plan(j, o, p))
	var tree any
	if err == nil {
		err = json.Unmarshal(b, &tree)
	}
	if err != nil {
		panic(err) // as the plan itself would be
	}
	all := map[string][]words.Code{}
	eachText("", tree, func(at, text string) {
		if codes := words.Codes(text); codes != nil {
			all[at] = codes
		}
	})
	return all
}

// eachText calls f with each string of a decoded JSON value and its JSON pointer; no key of a plan has a slash.
func eachText(at string, v any, f func(at, text string)) {
	switch v := v.(type) {
	case map[string]any:
		for name, x := range v {
			eachText(at+"/"+name, x, f)
		}
	case []any:
		for i, x := range v {
			eachText(at+"/"+strconv.Itoa(i), x, f)
		}
	case string:
		f(at, v)
	}
}

// Plan is the answer for one opening, for other programs. Lengths are millimetres, with their texts to the job's tape.
type Plan struct {
	Steps    []Step      `json:"steps" doc:"The steps in the order of this opening."`
	Next     job.Step    `json:"next" doc:"The first step that is not done; empty when all are."`
	Findings []Finding   `json:"findings" doc:"Of the opening; each leaf has its own."`
	Clashes  []Clash     `json:"clashes" doc:"Readings that contradict the others: while there are any, every figure is doubtful and none is to be cut or marked to."`
	Without  []Settled   `json:"without" doc:"The plans that settling the first clash would give."`
	ToRead   []ToRead    `json:"toRead" doc:"Readings worth taking next, in order; empty when enough was measured."`
	OfferUp  string      `json:"offerUp" doc:"That the slab itself is stood against the opening and marked instead, and what that saves; empty where it is not."`
	Trip     float64     `json:"trip" doc:"The chance of another trip to the trestles after the first hang, cut as the readings stand; 1 while there is no answer."`
	Readings []ReadingOn `json:"readings"`
	Lining   *LiningOf   `json:"lining,omitempty" doc:"Absent where no frame is made to the slab, or the slab is not measured."`
	Places   []Place     `json:"places" doc:"Where the readings were taken, and where the next one is."`
	Leaves   []Leaf      `json:"leaves" doc:"One, or for a pair two, the one on the hinge jamb first."`
}

// Before reports whether a step comes before another in this opening's order.
func (p Plan) Before(a, b job.Step) bool {
	at := func(s job.Step) int {
		return slices.IndexFunc(p.Steps, func(n Step) bool { return n.Step == s })
	}
	return at(a) < at(b)
}

// Leaf is the plan of one slab. What cannot be computed yet is absent or empty.
type Leaf struct {
	Jamb     frame.Side     `json:"jamb" doc:"The jamb of the opening that it hangs on. It calls its own jamb the hinge jamb, and the meeting line of a pair the lock jamb."`
	Findings []Finding      `json:"findings"`
	Wanted   []Sided        `json:"wanted" doc:"The margins wanted."`
	Season   *SeasonOf      `json:"season,omitempty" doc:"Absent where the seasons are left out."`
	Light    []Light        `json:"light" doc:"The margins as planned: three places of each side."`
	Finished *Finished      `json:"finished,omitempty"`
	Cut      *CutList       `json:"cut,omitempty"`
	Gauges   Gauges         `json:"gauges"`
	Hinges   []Hinge        `json:"hinges" doc:"Top one first."`
	Swing    *Swing         `json:"swing,omitempty" doc:"Absent while the slab's thickness is not known."`
	Hanging  *Hanging       `json:"hanging,omitempty"`
	Rod      []RodMark      `json:"rod" doc:"The marks of a story rod, from the head down."`
	Latch    *Latch         `json:"latch,omitempty"`
	Hardware []HardwareWork `json:"hardware" doc:"That go in at the latch line: none where none was chosen."`
	Stops    *StopsOf       `json:"stops,omitempty"`
	Try      *TryOf         `json:"try,omitempty" doc:"From the first cut on; absent while there is none to record."`
	Strikes  []string       `json:"strikes" doc:"How the strike is let in, or the fixed leaf of a pair is bolted; in words, in order."`
	Drawing  *DrawingView   `json:"drawing,omitempty"`
	Works    []Work         `json:"works" doc:"The pieces of work, in order. One that was ticked opens again as its figures change."`
	Jigs     []JigOf        `json:"jigs" doc:"That it could be worked with, and from how many doors each pays."`
}

// Work is a piece of work, and the figures that it is done by.
type Work struct {
	ID string `json:"id" doc:"head and the other edges, check, slab-pockets, jamb-pockets, screws, hang, hardware-1, strike, stops, try."`
	By string `json:"by" doc:"In mm, or a short print of them."`
}

// Step is one step with its state.
type Step struct {
	Step  job.Step   `json:"step"`
	State plan.State `json:"state"`
	Ready bool       `json:"ready" doc:"Its answer is there and nothing stops it."`
	Says  string     `json:"says"`
	Mark  string     `json:"mark" doc:"What /done/{step} is set to when the step is finished."`
}

// Finding is a finding: what, and what to do.
type Finding struct {
	Gravity site.Gravity   `json:"gravity"`
	Step    job.Step       `json:"step"`
	Pointer string         `json:"pointer" doc:"JSON pointer into the opening; may be empty."`
	At      job.Step       `json:"at" doc:"The step whose form has what the pointer leads to."`
	Code    site.Code      `json:"code" doc:"What was found; the list is in docs/planjson.md."`
	Args    map[string]any `json:"args" doc:"Lengths in mm, readings by ID, else text."`
	Text    string         `json:"text" doc:"The same in words."`
}

// Clash is a reading that the others contradict.
type Clash struct {
	ID      string   `json:"id"`
	Or      []string `json:"or" doc:"IDs of readings that would explain it as well."`
	Swapped string   `json:"swapped" doc:"ID of the reading that it was changed round with; empty where with none."`
	Again   ToRead   `json:"again" doc:"What to read to settle it."`
	AgainID string   `json:"againId" doc:"The ID of the reading to read again; empty where it is a new one."`
	Text    string   `json:"text"`
}

// Settled is the plan with a clash settled one way.
type Settled struct {
	ID      string `json:"id"`
	Name    string `json:"name"`
	Swapped string `json:"swapped" doc:"ID of the reading that it is changed round with; empty where the reading is struck out."`
	Plan    Plan   `json:"plan"`
}

// ToRead is a reading worth taking next; it lacks only its value.
type ToRead struct {
	Name   string         `json:"name"`
	How    string         `json:"how"`
	Brings string         `json:"brings" doc:"What it would make surer, and how far."`
	Needed bool           `json:"needed"`
	With   string         `json:"with" doc:"The tool, by name."`
	Tool   string         `json:"tool" doc:"The tool, by its ID in the job's kit; empty for the usual one."`
	Turned bool           `json:"turned" doc:"With the level turned end for end."`
	Worth  Worth          `json:"worth"`
	Kind   survey.Kind    `json:"kind"`
	Side   frame.Side     `json:"side"`
	At     measure.Length `json:"at"`
	From   measure.Length `json:"from"`
	To     measure.Length `json:"to"`
	Offer  string         `json:"offer" doc:"For a gap: the ID of the placing."`
}

// Worth is what a reading is worth, with those that best follow it.
type Worth struct {
	Minutes float64 `json:"minutes" doc:"What it spares, less what it takes; nought where a threshold rules, and for those that follow the first."`
	Takes   float64 `json:"takes" doc:"Minutes, of it and of those that follow."`
	More    int     `json:"more" doc:"How many follow."`
	From    float64 `json:"from" doc:"The chance of another trip, before."`
	To      float64 `json:"to" doc:"And after them all."`
}

// ReadingOn is a reading as it is listed.
type ReadingOn struct {
	ID     string `json:"id"`
	Name   string `json:"name"`
	Text   Text   `json:"text"`
	With   string `json:"with" doc:"The tool, by name."`
	Struck string `json:"struck" doc:"Why it was struck out; empty where it counts."`
}

// Sided is a figure of one side.
type Sided struct {
	Side      frame.Side `json:"side"`
	Figure    Figure     `json:"figure"`
	PlusMinus Text       `json:"plusMinus" doc:"Of the least sure margin on the side."`
}

// Light is the margin at one place of a side.
type Light struct {
	Side   frame.Side `json:"side"`
	Place  string     `json:"place" doc:"foot, middle or head; of head and foot hinge-corner, middle or lock-corner."`
	Where  string     `json:"where" doc:"The same in words."`
	Figure Figure     `json:"figure"`
	Read   bool       `json:"read,omitempty" doc:"Of a hung slab: a gap was read there; else it is known from the others alone."`
}

// Finished is the finished slab's greatest size.
type Finished struct {
	Width  Figure `json:"width"`
	Length Figure `json:"length"`
}

// CutList is the marks of each edge, in the order of cutting.
type CutList struct {
	Edges  []EdgeCut        `json:"edges"`
	Width  []Figure         `json:"width" doc:"After the first cut: head, middle, foot."`
	Length []Figure         `json:"length" doc:"After the first cut: hinge edge, middle, lock edge."`
	Others []Way            `json:"others" doc:"Every way of laying the slab, the chosen one among them."`
	Across fit.Registration `json:"across"`
	Along  fit.Ends         `json:"along"`
	Why    []string         `json:"why" doc:"Why one lays a slab so: across, and along."`
	Rules  []string         `json:"rules" doc:"What decided it, in order; empty where it was forced."`
	Weight string           `json:"weight" doc:"Of the uncut slab, about, in the unit that goes with the job's lengths."`
	// Inserts are none for a slab that stays closed.
	Inserts []InsertOf `json:"inserts" doc:"Edges of a hollow slab that are cut open, and closed again."`
}

// EdgeCut is the marks of one edge.
type EdgeCut struct {
	Side    frame.Side   `json:"side"`
	Method  string       `json:"method"`
	Ways    []EdgeWay    `json:"ways" doc:"Saw and plane, the fewer minutes first; empty where nothing comes off."`
	Sawing  *Sawing      `json:"sawing,omitempty" doc:"Where a saw goes first."`
	Says    string       `json:"says"`
	Left    Figure       `json:"left" doc:"Left on for the next try."`
	Bevel   Figure       `json:"bevel" doc:"How much narrower the push face is planed; nought where the edge stays square."`
	Marks   []CutMark    `json:"marks" doc:"Down the uncut edge from its head, or across from its hinge edge."`
	Passes  []Pass       `json:"passes" doc:"Of a plane, 1 mm at a time; empty where a saw goes first."`
	Pencils []PencilMark `json:"pencils" doc:"Of a slab that was offered up: where the cut lies from the frame's line on it."`
}

// PencilMark is a mark of the frame on a slab that was offered up.
type PencilMark struct {
	At   Length `json:"at" doc:"Along the uncut edge, as its marks are."`
	Says string `json:"says" doc:"Where the cut lies from the line, in words."`
}

// JigOf is a jig for a leaf.
type JigOf struct {
	ID   string `json:"id" doc:"Of its template."`
	Name string `json:"name"`
	Says string `json:"says" doc:"From how many doors of a kind it pays, in minutes."`
}

// EdgeWay is a means for an edge.
type EdgeWay struct {
	Means   trade.Means `json:"means"`
	Name    string      `json:"name"`
	Minutes float64     `json:"minutes" doc:"Beside those that every edge takes."`
	Chosen  bool        `json:"chosen"`
}

// Sawing is how an edge is sawn before it is planed to its line.
type Sawing struct {
	Clamps []Clamp  `json:"clamps" doc:"Marks for the guide's edge, at the edge's first and last end; empty for a table saw."`
	Fence  *Figure  `json:"fence,omitempty" doc:"Of a table saw: from blade to fence."`
	Steps  []string `json:"steps" doc:"In words, in their order."`
}

// Clamp is one mark for a guide: along the edge beside the cut, from the corner as it is by then.
type Clamp struct {
	From  string     `json:"from" doc:"The corner, and the edge that it is measured along, in words."`
	End   frame.Side `json:"end" doc:"head or foot: with edge the corner."`
	Edge  frame.Side `json:"edge"`
	On    frame.Side `json:"on" doc:"The edge that it is measured along."`
	Along Figure     `json:"along"`
}

// CutMark is one mark: the place along the uncut edge, and the depth.
type CutMark struct {
	At    Length `json:"at"`
	Depth Figure `json:"depth"`
}

// InsertOf closes one edge of a hollow slab again after its cut, or two that are closed alike.
type InsertOf struct {
	Ends      []frame.Side `json:"ends" doc:"One, or two that are closed alike."`
	Name      string       `json:"name" doc:"Of the edges."`
	Width     Length       `json:"width" doc:"Between the stiles; of a long edge, between the rails."`
	Thickness Length       `json:"thickness" doc:"Between the skins."`
	Deep      Length       `json:"deep" doc:"How far the core is pushed back."`
	Freed     bool         `json:"freed" doc:"The offcut holds the rail or stile whole."`
	Steps     []string     `json:"steps" doc:"How it is closed, in order."`
}

// Pass is one pass of the plane, between two places along the uncut edge.
type Pass struct {
	From Length `json:"from"`
	To   Length `json:"to"`
	Bite Text   `json:"bite" doc:"What it takes off."`
}

// Way is a way of laying the slab.
type Way struct {
	Across fit.Registration `json:"across"`
	Along  fit.Ends         `json:"along"`
	Chosen bool             `json:"chosen"`
	Short  bool             `json:"short" doc:"The slab does not reach."`
	Over   []frame.Side     `json:"over" doc:"Edges that would lose more than they may."`
	Hinge  []Length         `json:"hinge" doc:"Off the hinge edge at head and foot."`
	Lock   []Length         `json:"lock" doc:"Off the lock edge at head and foot."`
	Head   Length           `json:"head"`
	Foot   Length           `json:"foot"`
}

// Hinge is one hinge's marks, to the top of the leaf.
type Hinge struct {
	ID   string `json:"id" doc:"The same for every opening that hangs on as many."`
	Name string `json:"name"`
	Slab Figure `json:"slab" doc:"Down from the finished head."`
	Jamb Figure `json:"jamb" doc:"Down from the head of the opening."`
	Pack Figure `json:"pack" doc:"Packer behind the jamb leaf; below nought, a deeper pocket."`
	// Packed is core's rule, so that no page has one of its own.
	Packed bool `json:"packed" doc:"It is worth a hand: less than two tenths no one sees."`
}

// Swing is how the slab swings as planned. Angles are in degrees from closed.
type Swing struct {
	Bevel     Figure         `json:"bevel" doc:"How much narrower the push face is at the lock edge; of a rebated one, each half."`
	Relief    Figure         `json:"relief" doc:"How far the push face is planed back at the hinge edge; nought where it need not be."`
	Clear     Figure         `json:"clear" doc:"The least that it passes the lock jamb, or the other leaf, by."`
	ClearAt   float64        `json:"clearAt" doc:"At which angle."`
	Second    bool           `json:"second" doc:"Of a pair: it opens only once the other leaf stands open."`
	Opens     float64        `json:"opens" doc:"How far it opens."`
	OpensWhy  []string       `json:"opensWhy"`
	Against   string         `json:"against" doc:"What stops it there; empty where it folds right back."`
	AgainstID string         `json:"againstId" doc:"Which of things that is."`
	Rests     float64        `json:"rests" doc:"Where it comes to rest, let go at 45."`
	RestsWhy  []string       `json:"restsWhy"`
	Least     Figure         `json:"least" doc:"The least between the foot and the floor through the swing."`
	LeastAt   float64        `json:"leastAt" doc:"At which angle."`
	Foot      []FootAt       `json:"foot" doc:"The free corner over the floor, from closed to open."`
	Slab      [][2]float64   `json:"slab" doc:"The closed slab from above, mm from the pin: x toward the lock jamb, z toward the viewer. Hinge edge pull face first, then the lock edge, then the push face."`
	Parts     [][][2]float64 `json:"parts" doc:"The same in convex parts: two where its edge is rebated."`
	Beside    Beside         `json:"beside"`
	Stop      [][2]float64   `json:"stop" doc:"On the hinge jamb, behind the slab; empty where none was read."`
	Things    []InPlan       `json:"things" doc:"What it could open against."`
}

// Beside is what the lock edge passes.
type Beside struct {
	Name  string         `json:"name" doc:"The lock jamb, or the other leaf."`
	Leaf  bool           `json:"leaf" doc:"It is the other leaf."`
	Parts [][][2]float64 `json:"parts"`
}

// FootAt is the free corner over the floor at an angle, in mm.
type FootAt struct {
	Angle float64 `json:"angle"`
	Rise  float64 `json:"rise" doc:"Of the corner, against closed."`
	Floor float64 `json:"floor" doc:"Of the floor, against that under the closed opening."`
	Clear Length  `json:"clear"`
}

// InPlan is something seen from above, as a convex outline.
type InPlan struct {
	ID    string       `json:"id" doc:"casing, or thing-0 for the first that was said."`
	Name  string       `json:"name"`
	Shape [][2]float64 `json:"shape"`
}

// Hanging is how the marks are carried to the jamb, and the slab to its hinges.
type Hanging struct {
	Head   []Figure `json:"head" doc:"Packers at the head: hinge corner, lock corner."`
	Shut   Figure   `json:"shut" doc:"Wedge under the free corner, shut."`
	Open   Figure   `json:"open" doc:"Wedge under the free corner, open at 90 degrees."`
	Two    bool     `json:"two" doc:"Two people lift it."`
	Goes   string   `json:"goes" doc:"Which leaf goes on the slab, and which way the pin comes out; empty where the kind is not known."`
	Screws []string `json:"screws" doc:"Screws, pilots, and which for the trial; empty where nobody said."`
	Steps  []string `json:"steps" doc:"In words, in their order."`
}

// RodMark is one mark of a story rod.
type RodMark struct {
	ID   string `json:"id" doc:"The same for every opening."`
	Name string `json:"name"`
	Jamb Figure `json:"jamb" doc:"Down from the head."`
	Slab Figure `json:"slab" doc:"Down from the slab's finished top."`
}

// Gauges are the two settings of the marking gauge, and what they leave.
type Gauges struct {
	Depth   Figure   `json:"depth"`
	Width   Figure   `json:"width"`
	Setback Figure   `json:"setback"`
	Flush   Figure   `json:"flush" doc:"The hinge margin with both leaves flush."`
	Pull    string   `json:"pull" doc:"With what load the slab pulls at the top hinge, about; empty while it is not known."`
	PullWhy []string `json:"pullWhy"`
}

// HingeWay is a hinge that could be used; its measures are in mm.
type HingeWay struct {
	ID      string   `json:"id"`
	Name    string   `json:"name"`
	Own     bool     `json:"own" doc:"Kept with the job."`
	Kind    string   `json:"kind"`
	Goes    string   `json:"goes" doc:"Which leaf goes on the slab, and which way the pin comes out."`
	Note    string   `json:"note" doc:"What its kind is for, and what it costs."`
	Load    string   `json:"load" doc:"The heaviest slab that two carry; empty where nobody said."`
	Leaf    float64  `json:"leaf"`
	Width   float64  `json:"width"`
	Plate   float64  `json:"plate"`
	Closed  float64  `json:"closed"`
	Pin     float64  `json:"pin"`
	Fits    bool     `json:"fits" doc:"Nothing speaks against it."`
	Against []string `json:"against" doc:"What speaks against it, in words."`
	Flush   Figure   `json:"flush" doc:"The hinge margin that it gives, leaves flush."`
}

// Latch is the places of latch and strike.
type Latch struct {
	Slab    Figure `json:"slab" doc:"Down the lock edge from the finished head."`
	Jamb    Figure `json:"jamb" doc:"Down from the head of the opening."`
	Floor   Figure `json:"floor" doc:"The handle above the floor."`
	Backset Figure `json:"backset"`
	Centre  Figure `json:"centre" doc:"Of the bore, from either face."`
	Wall    Figure `json:"wall" doc:"The wood beside the bore."`
}

// HardwareWork is a latch, lock or bolt as it goes into one leaf. Places are down the lock edge from the slab's
// finished top and in from its finished lock edge; in the jamb, from the head.
type HardwareWork struct {
	Name    string     `json:"name"`
	Second  bool       `json:"second" doc:"The second one, above or below the latch."`
	Gauge   Figure     `json:"gauge" doc:"Set for the centre of the edge, marked from both faces."`
	Holes   []HoleOf   `json:"holes" doc:"In the faces, in the order of boring."`
	Edge    *EdgeOf    `json:"edge,omitempty"`
	Plate   *RecessOf  `json:"plate,omitempty" doc:"The faceplate."`
	Strike  *StrikeOf  `json:"strike,omitempty"`
	Lengths []LengthOf `json:"lengths" doc:"What is cut to this slab."`
	Steps   []string   `json:"steps" doc:"In words, in their order."`
}

// HoleOf is a hole in the faces.
type HoleOf struct {
	What string  `json:"what"`
	Down Figure  `json:"down"`
	In   Figure  `json:"in"`
	Dia  Length  `json:"dia"`
	Bit  Length  `json:"bit" doc:"Of those at hand; nought where none is near."`
	Up   float64 `json:"up" doc:"Above the latch line, mm."`
	From string  `json:"from" doc:"both, pull or push."`
	Deep Length  `json:"deep" doc:"Nought right through."`
}

// EdgeOf is the bore or the slot in the edge.
type EdgeOf struct {
	Down  Figure `json:"down" doc:"Its middle."`
	Deep  Figure `json:"deep"`
	Wall  Figure `json:"wall" doc:"Wood left each side."`
	Long  Length `json:"long" doc:"Of a slot; nought for a bore."`
	Wide  Length `json:"wide"`
	Cover Length `json:"cover" doc:"Of the faceplate past it, each side."`
}

// RecessOf is a plate let in flush.
type RecessOf struct {
	Top    Figure `json:"top" doc:"Down to its upper end."`
	Long   Length `json:"long"`
	Wide   Length `json:"wide"`
	Thick  Length `json:"thick"`
	Radius Length `json:"radius"`
}

// StrikeOf is the plate in the jamb and the hole behind it.
type StrikeOf struct {
	Plate RecessOf `json:"plate"`
	Bolt  Figure   `json:"bolt" doc:"Its middle, down from the head."`
	In    Figure   `json:"in" doc:"Its middle in from the jamb's pull-side arris."`
	Hole  Length   `json:"hole"`
	Deep  Length   `json:"deep"`
}

// StopsOf is the places of the stops.
type StopsOf struct {
	From  Figure       `json:"from" doc:"From the jamb's pull-side arris to the stop's face."`
	Moves []StopMoveOf `json:"moves" doc:"Of the stops that are there; empty where they were not read."`
	Cross Figure       `json:"cross" doc:"How far the four corners are out of one plane; without terms where they were not read."`
	Steps []string     `json:"steps"`
}

// StopMoveOf is the move of one end of a stop toward the slab; negative is away from it.
type StopMoveOf struct {
	Of   frame.Side `json:"of" doc:"head, or the leg at the hinge or the lock jamb."`
	At   frame.Side `json:"at" doc:"At which of its ends."`
	Stop string     `json:"stop" doc:"The stop in words."`
	End  string     `json:"end"`
	By   Figure     `json:"by"`
}

// LengthOf is a part that is cut to the slab.
type LengthOf struct {
	What string `json:"what"`
	Cut  Figure `json:"cut"`
}

// Place is the place of a reading, in mm in the elevation frame.
type Place struct {
	ID    string      `json:"id" doc:"Empty for one that is still to be taken."`
	Kind  survey.Kind `json:"kind"`
	Side  frame.Side  `json:"side"`
	At    float64     `json:"at"`
	From  float64     `json:"from"`
	To    float64     `json:"to"`
	Clash bool        `json:"clash"`
	Next  bool        `json:"next"`
}

package api

import (
	"bytes"
	"encoding/binary"
	"image"
	"image/jpeg"
	"image/png"
	"net/http"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/demo"
)

// bring brings the demo's first job in.
func (s running) bring() JobHead {
	jobs, err := demo.Jobs()
	require.NoError(s.t, err)
	b, err := job.Encode(jobs[0])
	require.NoError(s.t, err)
	return got[JobHead](s.t, s.do("POST", "/jobs/file", "", b))
}

func jpegOf(t *testing.T, w, h int) []byte {
	var b bytes.Buffer
	require.NoError(t, jpeg.Encode(&b, image.NewGray(image.Rect(0, 0, w, h)), nil))
	return b.Bytes()
}

// placed is a JPEG with an Exif segment that says where it was taken.
func placed(t *testing.T, w, h int) []byte {
	exif := "Exif\x00\x00GPS 52.1 N 1.6 E"
	head := append([]byte{0xff, 0xd8, 0xff, 0xe1}, binary.BigEndian.AppendUint16(nil, uint16(len(exif)+2))...)
	return append(append(head, exif...), jpegOf(t, w, h)[2:]...)
}

func TestPhotographsAreKeptWithoutWhereTheyWereTaken(t *testing.T) {
	s := run(t)
	path, _, _ := s.begin(measure.Millimetres)
	a := s.do("POST", path+"/photos?step=try&by=Wren&caption=the+lock+margin", "", placed(t, 120, 90))
	p := got[PhotoView](t, a)
	assert.Equal(t, "Wren", p.By)
	assert.Equal(t, 120, p.Width)
	b := s.do("GET", path+"/photos/"+p.ID, "", nil)
	assert.Equal(t, "image/jpeg", b.header.Get("Content-Type"))
	assert.NotContains(t, string(b.raw), "GPS")
	known, err := jpeg.DecodeConfig(bytes.NewReader(b.raw))
	require.NoError(t, err)
	assert.Equal(t, 90, known.Height)
	var drawn bytes.Buffer
	require.NoError(t, png.Encode(&drawn, image.NewGray(image.Rect(0, 0, 30, 40))))
	assert.Less(t, s.do("POST", path+"/photos?step=log", "", drawn.Bytes()).status, 300, "a PNG is taken as well")

	v := got[LogView](t, s.do("GET", path+"/log", "", nil))
	require.Len(t, v.Photos, 2)
	assert.Equal(t, "the lock margin", v.Photos[0].Caption)
	require.Equal(t, http.StatusNoContent, s.do("DELETE", path+"/photos/"+p.ID, "", nil).status)
	assert.Len(t, got[LogView](t, s.do("GET", path+"/log", "", nil)).Photos, 1)
	require.Equal(t, http.StatusNoContent, s.do("POST", path+"/photos/"+p.ID+"/restore", "", nil).status)
	assert.Len(t, got[LogView](t, s.do("GET", path+"/log", "", nil)).Photos, 2, "nothing is lost")
}

func TestPicturesThatAreNone(t *testing.T) {
	s := run(t)
	path, _, _ := s.begin(measure.Millimetres)
	whole := jpegOf(t, 400, 300)
	bomb := jpegOf(t, 8, 8) // says that it is 65500 by 65500
	at := bytes.Index(bomb, []byte{0xff, 0xc0})
	if at < 0 {
		at = bytes.Index(bomb, []byte{0xff, 0xc2})
	}
	copy(bomb[at+5:], []byte{0xff, 0xdc, 0xff, 0xdc})
	for _, c := range []struct {
		name   string
		data   []byte
		status int
		says   string
	}{
		{"a note", []byte("the lock margin is tight"), 422, "not a JPEG or PNG"},
		{"nothing", []byte{}, 400, "nothing was changed"},
		{"cut short", whole[:len(whole)/3], 422, "damaged"},
		{"too many dots", bomb, 422, "too large"},
		{"not brought down", jpegOf(t, 3000, 10), 422, "make it smaller first"},
		{"200 MB", append(whole, make([]byte, 200<<20)...), 413, ""},
	} {
		t.Run(c.name, func(t *testing.T) {
			a := s.do("POST", path+"/photos?step=try", "", c.data)
			assert.Equal(t, c.status, a.status)
			assert.Contains(t, a.trouble(t).Detail, c.says)
		})
	}
	assert.Equal(t, 422, s.do("POST", path+"/photos?step=lunch", "", whole).status)
	assert.Equal(t, 404, s.do("POST", "/jobs/x/openings/y/photos?step=try", "", whole).status)
	assert.Empty(t, got[LogView](t, s.do("GET", path+"/log", "", nil)).Photos, "none was kept")
}

func TestAChangeSaysWhenAndByWhom(t *testing.T) {
	s := run(t)
	path, _, etag := s.begin(measure.Millimetres)
	a := s.do("PATCH", path+"?label=the+room&by=Wren", etag, patch("/room", "Loft"))
	require.Equal(t, 200, a.status, string(a.raw))
	v := got[LogView](t, s.do("GET", path+"/log", "", nil))
	require.Len(t, v.Changes, 2)
	assert.Equal(t, "added", v.Changes[0].Label)
	assert.Equal(t, "the room", v.Changes[1].Label)
	assert.Equal(t, "Wren", v.Changes[1].By)
	at, err := time.Parse(time.RFC3339, v.Changes[1].At)
	require.NoError(t, err)
	assert.WithinDuration(t, time.Now(), at, time.Minute)
	// What was undone did not lead to where it stands.
	require.Equal(t, 200, s.do("POST", path+"/undo", a.etag, nil).status)
	assert.Len(t, got[LogView](t, s.do("GET", path+"/log", "", nil)).Changes, 1)

	for range 2 {
		require.Equal(
			t, http.StatusNoContent,
			s.do("POST", path+"/time", "", map[string]any{"step": "cut", "seconds": 90}).status,
		)
	}
	assert.InDelta(t, 3, got[LogView](t, s.do("GET", path+"/log", "", nil)).Minutes["cut"], 1e-9)
	assert.Equal(t, 422, s.do("POST", path+"/time", "", map[string]any{"step": "cut", "seconds": -1}).status)
	assert.Equal(
		t, 404, s.do("POST", "/jobs/x/openings/y/time", "", map[string]any{"step": "cut", "seconds": 9}).status,
	)
}

func TestASignedDoorIsLockedUntilItIsOpenedAgain(t *testing.T) {
	s := run(t)
	path, _, etag := s.begin(measure.Millimetres)
	signed := map[string]any{"on": "2026-11-25 10:00", "by": "Wren"}
	a := s.do("PATCH", path, etag, patch("/signed", signed))
	require.Equal(t, 200, a.status, string(a.raw))
	refused := s.do("PATCH", path, a.etag, patch("/room", "Loft"))
	assert.Equal(t, http.StatusConflict, refused.status)
	assert.Contains(t, refused.trouble(t).Detail, "signed off by Wren")
	assert.Equal(t, http.StatusConflict, s.do("POST", path+"/undo", a.etag, nil).status, "undo is no way round it")
	assert.Equal(
		t, http.StatusConflict, s.do("PATCH", path, a.etag, []Op{{Op: "remove", Path: "/signed"}}).status,
		"nor is taking the signature away",
	)
	a = s.do("PATCH", path, a.etag, patch("/notes/-", map[string]any{"text": "oiled the hinges"}))
	require.Equal(t, 200, a.status, "a note may be added")
	why := []map[string]any{{"on": "2026-12-01", "by": "Wren", "why": "the stops were moved", "was": signed}}
	a = s.do("PATCH", path, a.etag, append(patch("/reopened", why), Op{Op: "remove", Path: "/signed"}))
	require.Equal(t, 200, a.status, string(a.raw))
	assert.Equal(t, 200, s.do("PATCH", path, a.etag, patch("/room", "Loft")).status)
}

func TestHangsAndGapsAreNumbered(t *testing.T) {
	s := run(t)
	head := s.bring()
	path := "/jobs/" + head.ID + "/openings/linen"
	a := s.do("GET", path, "", nil)
	a = s.do("PATCH", path, a.etag, patch("/tried/0/hangs/-", map[string]any{
		"id": "", "gaps": []any{}, "did": map[string]any{"pack": []any{"-0.75", 0}},
	}))
	require.Equal(t, 200, a.status, string(a.raw))
	a = s.do("PATCH", path, a.etag, patch("/tried/0/hangs/2/gaps/-", map[string]any{
		"id": "", "kind": "gap", "side": "lock", "at": "500", "value": "2.5",
	}))
	v := got[OpeningView](t, a)
	h := v.Opening.Tried[0].Hangs[2]
	assert.Equal(t, "h3", h.ID)
	assert.Equal(t, "g1", h.Gaps[0].ID)
	assert.Equal(t, "h3", h.Gaps[0].Offer)
	assert.Equal(t, measure.FromMM(-0.75), h.Did.Pack[0])
	assert.NotEmpty(t, v.Plan.Leaves[0].Try.ToRead)
	planed := map[string]any{"side": "lock", "off": []any{0, "0.5", "1"}}
	a = s.do("PATCH", path, a.etag, patch("/tried/0/hangs/2/did/planed", []any{planed}))
	require.Equal(t, 200, a.status, string(a.raw))
	a = s.do("PATCH", path, a.etag, []Op{{Op: "replace", Path: "/tried/0/hangs/2/did/planed/0/off/2", Value: "1.5"}})
	v = got[OpeningView](t, a)
	assert.Equal(
		t, [3]measure.Length{0, measure.FromMM(0.5), measure.FromMM(1.5)},
		v.Opening.Tried[0].Hangs[2].Did.Planed[0].Off,
	)
	planed["off"] = []any{0, 1}
	short := s.do("PATCH", path, a.etag, patch("/tried/0/hangs/2/did/planed", []any{planed}))
	assert.Equal(t, 422, short.status)
	assert.Contains(t, short.trouble(t).Detail, "2 values where 3 belong", "nothing is filled up silently")
	assert.Equal(
		t, 422,
		s.do("PATCH", path, a.etag, []Op{
			{Op: "replace", Path: "/tried/0/hangs/2/did/planed/0/off/3", Value: 1},
		}).status,
	)
	assert.Contains(t, v.Plan.Leaves[0].Try.Hangs[2].Did, "top hinge let in by 0.75 mm")
}

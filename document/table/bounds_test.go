package table

import (
	"archive/zip"
	"bytes"
	"fmt"
	"runtime"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// handMade is a workbook of one sheet, written part by part as none of the libraries would.
func handMade(t *testing.T, parts map[string]string) []byte {
	t.Helper()
	all := map[string]string{
		"[Content_Types].xml": `<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"/>`,
		"xl/workbook.xml": `<workbook xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main"
			xmlns:r="http://schemas.openxmlformats.org/officeDocument/2006/relationships"><sheets><sheet name="Doors" sheetId="1" r:id="rId1"/></sheets></workbook>`,
		"_rels/.rels": `<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships">
			<Relationship Id="rId1" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/officeDocument" Target="xl/workbook.xml"/></Relationships>`,
		"xl/_rels/workbook.xml.rels": `<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships">
			<Relationship Id="rId1" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/worksheet" Target="worksheets/sheet1.xml"/>
			<Relationship Id="rId2" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/sharedStrings" Target="sharedStrings.xml"/></Relationships>`,
	}
	for name, text := range parts {
		all[name] = text
	}
	var b bytes.Buffer
	z := zip.NewWriter(&b)
	for name, text := range all {
		w, err := z.Create(name)
		require.NoError(t, err)
		_, err = w.Write([]byte(text))
		require.NoError(t, err)
	}
	require.NoError(t, z.Close())
	return b.Bytes()
}

const (
	sheetPart  = "xl/worksheets/sheet1.xml"
	stringPart = "xl/sharedStrings.xml"
)

func sheetOf(rows string) string {
	return `<worksheet xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main"><sheetData>` + rows +
		`</sheetData></worksheet>`
}

func stringsOf(texts ...string) string {
	return `<sst xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main">` + strings.Join(texts, "") +
		`</sst>`
}

// allocated is how many bytes a call asks for in all, which bounds what it ever holds.
func allocated(does func()) uint64 {
	var before, after runtime.MemStats
	runtime.ReadMemStats(&before)
	does()
	runtime.ReadMemStats(&after)
	return after.TotalAlloc - before.TotalAlloc
}

// What a small file unpacks to is bounded before it is unpacked (OWASP ASVS 4.0.3, 12.1.2, from memory).
func TestASmallFileTakesNoMuchRoom(t *testing.T) {
	cells := func(n int) string {
		var s strings.Builder
		for i := range n {
			fmt.Fprintf(&s, `<row r="%d"><c r="A%d" t="s"><v>0</v></c></row>`, i+1, i+1)
		}
		return s.String()
	}
	long := strings.Repeat("door ", 6<<20)
	for name, c := range map[string]struct {
		b    []byte
		says string
	}{
		"one string of 30 MB in 4,999 cells": {handMade(t, map[string]string{
			sheetPart: sheetOf(cells(4999)), stringPart: stringsOf("<si><t>" + long + "</t></si>"),
		}), "refused.table-workbook"},
		"that in many runs": {handMade(t, map[string]string{
			sheetPart:  sheetOf(cells(4999)),
			stringPart: stringsOf("<si>" + strings.Repeat("<r><t>"+long[:30_000]+"</t></r>", 400) + "</si>"),
		}), "refused.table-workbook"},
		"that with signs that look like tags": {handMade(t, map[string]string{
			sheetPart:  sheetOf(cells(4999)),
			stringPart: stringsOf("<si><t>" + strings.Repeat("si>", 5<<20) + "</t></si>"),
		}), "refused.table-workbook"},
		"that in a section of text": {handMade(t, map[string]string{
			sheetPart:  sheetOf(cells(4999)),
			stringPart: stringsOf("<si><t><![CDATA[" + strings.Repeat("<si>", 3<<20) + "]]></t></si>"),
		}), "refused.table-workbook"},
		"a row of long strings": {handMade(t, map[string]string{
			sheetPart:  sheetOf(`<row r="1">` + strings.Repeat(`<c t="s"><v>0</v></c>`, 16_384) + `</row>`),
			stringPart: stringsOf("<si><t>" + long[:100_000] + "</t></si>"),
		}), "refused.table-workbook"},
		"240 MB of spaces": {
			handMade(t, map[string]string{sheetPart: sheetOf(strings.Repeat(" ", 240<<20))}), "refused.table-workbook",
		},
		"a million strings": {handMade(t, map[string]string{
			sheetPart: sheetOf(cells(2)), stringPart: stringsOf(strings.Repeat("<si/>", 1_000_000)),
		}), "refused.table-workbook"},
		"a million styles": {handMade(t, map[string]string{
			sheetPart:       sheetOf(cells(2)),
			"xl/styles.xml": "<styleSheet><cellXfs>" + strings.Repeat("<xf/>", 1_000_000) + "</cellXfs></styleSheet>",
		}), "refused.table-workbook"},
		"escapes in a cell": {handMade(t, map[string]string{
			sheetPart:  sheetOf(cells(4999)),
			stringPart: stringsOf("<si><t>" + strings.Repeat("_x0041_", 18_000) + "</t></si>"),
		}), "refused.table-workbook"},
		"a cell too long": {handMade(t, map[string]string{
			sheetPart: sheetOf(cells(1)), stringPart: stringsOf("<si><t>" + long[:32_768] + "</t></si>"),
		}), "refused.table-cell-long column=1 line=1"},
		"far too much text": {handMade(t, map[string]string{
			sheetPart: sheetOf(cells(4999)), stringPart: stringsOf("<si><t>" + long[:32_000] + "</t></si>"),
		}), "refused.table-text name=Doors"},
		"12 MB of commas":     {bytes.Repeat([]byte(","), 12<<20), "refused.table-line-long line=1"},
		"commas in quotes":    {bytes.Repeat([]byte("\"\n\","), 3<<20), "refused.table-line-long line=1"},
		"a quote left open":   {[]byte("Door,Room\n1,\"Hall" + long[:1<<20]), "refused.table-line-long line=2"},
		"a CSV cell too long": {[]byte("Door,Room\n1," + long[:40_000]), "refused.table-cell-long column=2 line=2"},
	} {
		var err error
		took := allocated(func() { _, err = Read(c.b, 5000, anything) })
		assert.ErrorContains(t, err, c.says, name)
		assert.Less(t, took, uint64(64<<20), name)
	}
}

// A sheet that ends in a million empty rows is read as far as it says something.
func TestEmptyRowsCostLittle(t *testing.T) {
	var s strings.Builder
	s.WriteString(`<row r="1"><c t="inlineStr"><is><t>Door</t></is></c></row><row r="2"><c><v>1</v></c></row>`)
	for i := range 1_000_000 {
		fmt.Fprintf(&s, `<row r="%d"/>`, i+3)
	}
	b := handMade(t, map[string]string{sheetPart: sheetOf(s.String())})
	var got Table
	took := allocated(func() {
		var err error
		got, err = Read(b, 5000, anything)
		require.NoError(t, err)
	})
	assert.Equal(t, [][]string{{"Door"}, {"1"}}, got.Rows)
	assert.Less(t, took, uint64(128<<20))
}

// As long as a spreadsheet lets it be, a cell is read whole.
func TestACellAsLongAsTheyCome(t *testing.T) {
	long := strings.Repeat("ü", 32_767)
	for name, b := range map[string][]byte{
		"workbook": handMade(t, map[string]string{
			sheetPart:  sheetOf(`<row r="1"><c t="s"><v>0</v></c></row>`),
			stringPart: stringsOf("<si><t>" + long + "</t></si>"),
		}),
		"CSV": []byte("\uFEFF" + long),
	} {
		got, err := Read(b, 10, anything)
		require.NoError(t, err, name)
		assert.Equal(t, [][]string{{long}}, got.Rows, name)
	}
}

// Ranges that lie over each other by the thousand are taken apart no further than the sheet has cells.
func TestMergedCellsOverEachOther(t *testing.T) {
	s := sheetOf(`<row r="1"><c t="inlineStr"><is><t>Door</t></is></c></row><row r="4000"><c><v>1</v></c></row>`)
	s = strings.Replace(
		s, "</worksheet>",
		"<mergeCells>"+strings.Repeat(`<mergeCell ref="A1:GR4000"/>`, 15_000)+"</mergeCells></worksheet>", 1,
	)
	var got Table
	took := allocated(func() {
		var err error
		got, err = Read(handMade(t, map[string]string{sheetPart: s}), 5000, anything)
		require.NoError(t, err)
	})
	assert.Equal(t, "Door", got.Rows[3999][199])
	assert.Less(t, took, uint64(128<<20))
}

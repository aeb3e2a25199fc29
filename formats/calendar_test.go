package formats

import (
	"bytes"
	"encoding/csv"
	"os"
	"os/exec"
	"path/filepath"
	"strconv"
	"strings"
	"testing"

	"zapbarn/core/order"
	"zapbarn/core/stores"
	"zapbarn/core/work"
	"zapbarn/demo"
	"zapbarn/testkit/shop"

	ics "github.com/arran4/golang-ical"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"github.com/xuri/excelize/v2"
)

// The calendar file holds every time that hands are on something, and the opening; lines
// end and fold as RFC 5545 has it (3.1), and a reader of the format gives it all back.
func TestCalendarFile(t *testing.T) {
	w := work.Do(demo.Apiary(today), shop.Kept, today)
	x := order.In(w)
	var b bytes.Buffer
	require.NoError(t, ICS(&b, w, ""))
	for _, l := range strings.Split(strings.TrimSuffix(b.String(), "\r\n"), "\r\n") {
		assert.LessOrEqual(t, len(l), 75)
		assert.NotContains(t, l, "\n")
	}
	cal, err := ics.ParseCalendar(bytes.NewReader(b.Bytes()))
	require.NoError(t, err)
	want := map[string]string{}
	for i, r := range x.Row {
		for _, piece := range x.Slots[i].Pieces {
			if piece.End > piece.Start {
				want[titled(w, r)+x.At(piece.Start).Format("20060102T150405")] = x.At(piece.End).Format("20060102T150405")
			}
		}
	}
	n := 0
	for _, e := range cal.Events() {
		key := e.GetProperty(ics.ComponentPropertySummary).Value + e.GetProperty(ics.ComponentPropertyDtStart).Value
		if end, ok := want[key]; ok {
			assert.Equal(t, end, e.GetProperty(ics.ComponentPropertyDtEnd).Value, key)
			n++
		}
	}
	assert.Equal(t, len(want), n)
	// nobody is at two tasks at once
	busy := map[string][][2]string{}
	for _, e := range cal.Events() {
		text := e.GetProperty(ics.ComponentPropertyDescription)
		if text == nil || strings.Contains(e.GetProperty(ics.ComponentPropertySummary).Value, " arrives") {
			continue
		}
		from, to := e.GetProperty(ics.ComponentPropertyDtStart).Value, e.GetProperty(ics.ComponentPropertyDtEnd).Value
		who, _, _ := strings.Cut(text.Value, "\n")
		for _, one := range strings.Split(who, " and ") {
			for _, s := range busy[one] {
				assert.True(t, to <= s[0] || s[1] <= from, "%s is at two tasks: %s to %s and %v", one, from, to, s)
			}
			busy[one] = append(busy[one], [2]string{from, to})
		}
	}
	assert.NotEmpty(t, busy)
	assert.Contains(t, b.String(), "SUMMARY:The Midnight Apiary opens")
	var again bytes.Buffer
	require.NoError(t, ICS(&again, w, ""))
	assert.Equal(t, b.String(), again.String(), "the same each time")
}

// The table has a row for each task that is left, those with a time in its order.
func TestTasksTable(t *testing.T) {
	w := work.Do(demo.Apiary(today), shop.Kept, today)
	x := order.In(w)
	var b bytes.Buffer
	require.NoError(t, TasksCSV(&b, w, ""))
	rows, err := csv.NewReader(&b).ReadAll()
	require.NoError(t, err)
	require.Len(t, rows, 1+len(x.Row))
	last := ""
	for _, r := range rows[1:] {
		assert.GreaterOrEqual(t, r[0], last)
		last = r[0]
		assert.NotNil(t, x.Task(r[10]), r)
	}
}

// A day sheet names each person with their day, and each task of it once.
func TestDaySheets(t *testing.T) {
	w := work.Do(demo.Apiary(today), shop.Kept, today)
	var b bytes.Buffer
	require.NoError(t, DaySheets(&b, w, "", Letter))
	if _, err := exec.LookPath("pdftotext"); err != nil && os.Getenv("ZAPBARN_NEED_TOOLS") == "" {
		t.Skip("pdftotext is not installed; make test installs it")
	}
	file := filepath.Join(t.TempDir(), "day.pdf")
	require.NoError(t, os.WriteFile(file, b.Bytes(), 0o600))
	text, err := exec.Command("pdftotext", "-layout", file, "-").Output()
	require.NoError(t, err)
	x := order.In(w)
	for _, i := range x.InTime() {
		if x.Row[i].Hands > 0 && x.Slots[i].Start() < 14*24*60 {
			first, _, _ := strings.Cut(titled(w, x.Row[i]), ",")
			assert.Contains(t, string(text), first)
		}
	}
	assert.Contains(t, string(text), "Ola, Sunday Sep 20")
	assert.Contains(t, string(text), "Leave it ")
}

// The buy list has a row for each thing that is needed, in a table and in a spreadsheet.
func TestBuyList(t *testing.T) {
	w := work.Do(demo.Apiary(today), shop.Kept, today)
	needs := stores.Of(w)
	var b bytes.Buffer
	require.NoError(t, BuyListCSV(&b, w, ""))
	rows, err := csv.NewReader(&b).ReadAll()
	require.NoError(t, err)
	require.Len(t, rows, 1+len(needs))
	var x bytes.Buffer
	require.NoError(t, BuyListXLSX(&x, w, ""))
	f, err := excelize.OpenReader(&x)
	require.NoError(t, err)
	same, err := f.GetRows("To buy")
	require.NoError(t, err)
	require.Len(t, same, len(rows))
	for i, n := range needs {
		assert.Equal(t, n.What, rows[i+1][0])
		assert.Equal(t, n.What, same[i+1][0])
		packs, err := strconv.Atoi(rows[i+1][8])
		require.NoError(t, err)
		assert.Equal(t, n.Packs, packs)
	}
}

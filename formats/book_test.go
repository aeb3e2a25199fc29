package formats

import (
	"bytes"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"zapbarn/core/plan"
	"zapbarn/core/work"
	"zapbarn/demo"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var bookDay = time.Date(2026, 9, 20, 0, 0, 0, 0, time.UTC)

// pageText is what one page of a PDF says, by a general-purpose reader.
func pageText(t *testing.T, pdf []byte, page int) string {
	file := filepath.Join(t.TempDir(), "x.pdf")
	require.NoError(t, os.WriteFile(file, pdf, 0o600))
	if _, err := exec.LookPath("pdftotext"); err != nil {
		if os.Getenv("ZAPBARN_NEED_TOOLS") != "" {
			require.NoError(t, err)
		}
		t.Skip("pdftotext is not installed")
	}
	n := fmt.Sprint(page)
	out, err := exec.Command("pdftotext", "-f", n, "-l", n, "-layout", file, "-").Output()
	require.NoError(t, err)
	return string(out)
}

// The whole display is one print: its contents name each prop's page, where it is found;
// the pages are as many as was said; every font is in the file.
func TestTheWholeDisplayInOnePrint(t *testing.T) {
	w := work.Do(demo.Apiary(bookDay), shop.Kept, bookDay)
	for _, paper := range []Paper{Letter, A4} {
		var b bytes.Buffer
		list, pages, err := Book(&b, w, func(prop string) string { return "open in " + prop }, paper)
		require.NoError(t, err)
		assert.Contains(t, poppler(t, "pdfinfo", b.Bytes()), fmt.Sprintf("Pages:           %d\n", pages))
		assert.Contains(t, poppler(t, "pdfinfo", b.Bytes()), "Title:           The Midnight Apiary, all of it")
		first := pageText(t, b.Bytes(), 1)
		require.Len(t, list, len(w.Plan.Props()))
		last := 1
		for _, c := range list {
			assert.Regexp(t, c.Name+` .* `+fmt.Sprint(c.Page)+"\n", first)
			assert.True(t, strings.HasPrefix(strings.TrimSpace(pageText(t, b.Bytes(), c.Page)), c.Name), c.Name)
			assert.Greater(t, c.Page, last-1, "in order")
			last = c.Page
		}
		assert.Contains(t, first, "open in riser")
		for i, line := range strings.Split(strings.TrimSpace(poppler(t, "pdffonts", b.Bytes())), "\n") {
			if i > 1 {
				f := strings.Fields(line)
				assert.Equal(t, "yes", f[len(f)-5], "embedded: "+line)
			}
		}
		all := poppler(t, "pdftotext", b.Bytes(), "-layout")
		for _, says := range []string{"Prove on the bench", "cut list", "Order of work", "joint of Hive box", "front at 1:"} {
			assert.Contains(t, all, says)
		}
		n, err := Pages(w, paper)
		require.NoError(t, err)
		assert.Equal(t, pages, n)
	}
}

// Names in any of the font's scripts come out of a print as they went in, and long ones
// are written out, on as many lines as they take.
func TestNamesInPrint(t *testing.T) {
	p := demo.Apiary(bookDay).In(shop.Kept)
	long := "The very long board that holds up the second of four shelves"
	names := map[string]string{
		"riser":  "Żółw Łódź",
		"shelf":  "Μελίσσι",
		"skep":   "Улей ночной",
		"keeper": "Čmelák ñandú",
	}
	for i := range p.Props() {
		if n := names[p.Props()[i].ID]; n != "" {
			p.Props()[i].Name = n
		}
	}
	s := p.Solid("riser-box")
	s.Name = long
	w := work.Do(p, shop.Kept, bookDay)
	b, err := BookBytes(w, nil, Letter)
	require.NoError(t, err)
	all := poppler(t, "pdftotext", b, "-layout")
	for _, n := range names {
		assert.Contains(t, all, n)
	}
	var cut bytes.Buffer
	require.NoError(t, CutSheet(&cut, w, "riser", Letter))
	words := strings.Join(strings.Fields(poppler(t, "pdftotext", cut.Bytes(), "-raw")), " ")
	assert.Contains(t, words, long+", front")
	p.Props()[0].Name = "Bee 🐝 gate" // no letter of it is in the font
	_, err = BookBytes(work.Do(p, shop.Kept, bookDay), nil, Letter)
	require.NoError(t, err)
	empty := plan.New("x", "X", "in", "").In(shop.Kept)
	pages, err := Pages(work.Do(empty, shop.Kept, bookDay), Letter)
	require.NoError(t, err)
	assert.Equal(t, 1, pages)
}

func BenchmarkBook(b *testing.B) {
	w := work.Do(demo.Apiary(bookDay), shop.Kept, bookDay)
	for b.Loop() {
		if _, err := BookBytes(w, nil, Letter); err != nil {
			b.Fatal(err)
		}
	}
}

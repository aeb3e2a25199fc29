package formats

import (
	"bytes"
	"errors"
	"net/url"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strings"
	"testing"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/work"
	"zapbarn/demo"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// pdfInfo runs one of poppler's programs on a PDF.
func poppler(t *testing.T, program string, pdf []byte, args ...string) string {
	t.Helper()
	path, err := exec.LookPath(program)
	require.NoError(t, err, "poppler-utils is missing: make test installs it")
	file := filepath.Join(t.TempDir(), "x.pdf")
	require.NoError(t, os.WriteFile(file, pdf, 0o600))
	out, err := exec.Command(path, append(args, file, "-")[:len(args)+map[bool]int{true: 2,
		false: 1}[program == "pdftotext"]]...).
		CombinedOutput()
	require.NoError(t, err, string(out))
	return string(out)
}

func TestEveryCopyHasItsLabel(t *testing.T) {
	p := demo.Apiary(today).In(shop.Kept)
	p.Doc().Offcuts = []plan.Offcut{
		{ID: "o", Stock: "xps1", W: measure.Len("18 in"), H: measure.Len("30 in"), Label: "from the gate"},
	}
	w := work.Do(p, shop.Kept, today)
	for _, prop := range []string{"riser", "sunflowers", "skep"} {
		copies := 0
		for _, part := range w.Parts() {
			if part.Solid.Prop == prop {
				copies += part.Panel.Copies
			}
		}
		var b bytes.Buffer
		require.NoError(t, Labels(&b, w, prop, A4))
		text := poppler(t, "pdftotext", b.Bytes(), "-layout")
		assert.Len(t, regexp.MustCompile(`no\. \d+ of`).FindAllString(text, -1), copies, prop)
		assert.Contains(t, text, "OFFCUT")
		assert.Contains(t, text, `18" x 30"`)
		assert.Contains(t, text, w.Plan.Prop(prop).Name)
	}
	var b bytes.Buffer
	require.NoError(t, Labels(&b, w, "sunflowers", Letter))
	text := poppler(t, "pdftotext", b.Bytes(), "-layout")
	assert.Contains(t, text, "RIGHT of a pair")
	assert.Contains(t, text, "grain run up")
	assert.ErrorContains(t, Labels(&b, w, "nowhere", A4), "open one first")
}

// On a roll a part is one page, as wide as the roll and as long as the part;
// its cut line measures what it should.
func TestRollAndMockup(t *testing.T) {
	w := work.Do(demo.Apiary(today), shop.Kept, today)
	var b bytes.Buffer
	require.NoError(t, FlatPart(w, w.Part("gate-pillar/face")).Tiles(&b, Roll36, false))
	info := poppler(t, "pdfinfo", b.Bytes())
	assert.Contains(t, info, "Pages:           2", "the map and the part")
	assert.Contains(t, info, "2592 x", "36 in is 2592 pt")
	m, err := FlatMockup(w, "riser")
	require.NoError(t, err)
	assert.InDelta(t, 25*measure.Inch, m.W, 4, "lid of 22 in with 1 1/2 in over each side")
	assert.InDelta(t, 27.5*measure.Inch, m.H, 4)
	b.Reset()
	require.NoError(t, m.SVG(&b))
	assert.Contains(t, b.String(), "from the front")
	b.Reset()
	require.NoError(t, m.Tiles(&b, Letter, false))
	assert.True(t, strings.HasPrefix(b.String(), "%PDF"))
	_, err = FlatMockup(w, "nowhere")
	assert.ErrorContains(t, err, "open one first")
}

// The codes of a page of labels, as a general reader of codes (zbarimg, Debian's zbar-tools)
// reads them off the print: each opens its part, its bin, its bottle.
func TestCodesAreRead(t *testing.T) {
	if _, err := exec.LookPath("zbarimg"); err != nil && os.Getenv("ZAPBARN_NEED_TOOLS") == "" {
		t.Skip("zbarimg is not installed; make test installs it")
	}
	p := demo.Apiary(today).In(shop.Kept)
	p.Doc().Shelf = []plan.Stocked{
		{
			ID:   "a",
			What: "lamp:puck12",
			Have: "3",
			Bin:  "B 4",
		}, {ID: "b", What: "material:none", Have: "1", Bin: "B 4"},
	}
	p.Doc().Lots = p.Lots()[:1]
	p.Doc().Offcuts = nil
	w := work.Do(p, shop.Kept, today)
	p = w.Plan // the one that is printed
	read := func(print func(b *bytes.Buffer) error) (out []string) {
		var b bytes.Buffer
		require.NoError(t, print(&b))
		file := filepath.Join(t.TempDir(), "x.pdf")
		require.NoError(t, os.WriteFile(file, b.Bytes(), 0o600))
		page := strings.TrimSuffix(file, ".pdf")
		require.NoError(t, exec.Command("pdftoppm", "-png", "-singlefile", "-r", "200", file, page).Run())
		codes, err := exec.Command("zbarimg", "-q", "--raw", page+".png").Output()
		if e, none := errors.AsType[*exec.ExitError](err); !none || e.ExitCode() != 4 { // 4 is that there is no code
			require.NoError(t, err)
		}
		return strings.Fields(string(codes))
	}
	bins := func(b *bytes.Buffer) error { return BinLabels(b, w, "", A4) }
	riser := func(b *bytes.Buffer) error { return Labels(b, w, "riser", Letter) }
	assert.Empty(t, read(riser), "no code opens nothing")

	p.Doc().Display.Reach = "http://barn.home/"
	const at = "http://barn.home/p/midnight-apiary"
	assert.ElementsMatch(t, []string{at + "/stores?bin=B+4", at + "/bench?sel=lot%3A" + p.Lots()[0].ID}, read(bins))
	var own, anchors []string
	for _, part := range w.Parts() {
		if part.Solid.Prop == "riser" {
			own = append(own, at+"/bench?prop=riser&sel="+url.QueryEscape("part:"+part.Ref)+"&way=parts")
			anchors = append(anchors, "https://barn.home/apiary.html#"+plan.Anchor("part", part.Ref))
		}
	}
	assert.Len(t, own, 6)
	assert.ElementsMatch(t, own, read(riser), "each part its own")

	p.Doc().Display.Reach = "https://barn.home/apiary.html"
	assert.ElementsMatch(t, anchors, read(riser), "in the page to take along, where that is put up")
	assert.ElementsMatch(t, []string{"https://barn.home/apiary.html#bin-B+4", "https://barn.home/apiary.html#lot-" +
		p.Lots()[0].ID}, read(bins))

	p.Doc().Display.Reach = ""
	var b bytes.Buffer
	require.NoError(t, bins(&b))
	text := poppler(t, "pdftotext", b.Bytes(), "-layout")
	assert.Contains(t, text, "BIN")
	assert.Contains(t, text, "opened")
	p.Doc().Shelf, p.Doc().Lots = nil, nil
	assert.ErrorContains(t, BinLabels(&b, work.Do(p, shop.Kept, today), "", A4), "nothing lies in a bin")
}

package web

import (
	"bufio"
	"bytes"
	"context"
	"encoding/json"
	"image"
	"image/png"
	"io"
	"mime/multipart"
	"net/http"
	"net/http/httptest"
	"net/url"
	"path"
	"strings"
	"testing"
	"time"

	"zapbarn/web/bench"
	"zapbarn/web/displays"
	"zapbarn/web/shell"

	"zapbarn/core/plan"
	"zapbarn/demo"
	"zapbarn/store"
	"zapbarn/testkit"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// opened is the whole site on a store of its own with the Apiary in it.
func opened(t *testing.T) (*httptest.Server, *store.Store) {
	st := testkit.Open(t)
	require.NoError(t, st.Create(context.Background(), demo.Apiary(today).In(shop.Kept), false))
	s, err := New(st, func() time.Time { return today })
	require.NoError(t, err)
	s.First = time.Minute
	srv := httptest.NewServer(s.Handler())
	t.Cleanup(srv.Close)
	return srv, st
}

const apiary = "/p/midnight-apiary"

func got(t *testing.T, srv *httptest.Server, path string) (int, string, http.Header) {
	t.Helper()
	r, err := http.Get(srv.URL + path)
	require.NoError(t, err)
	defer r.Body.Close()
	b, err := io.ReadAll(r.Body)
	require.NoError(t, err)
	return r.StatusCode, string(b), r.Header
}

// post sends a form from a page of the bench and gives the answer, not followed.
func post(t *testing.T, srv *httptest.Server, path string, form url.Values) (int, string) {
	t.Helper()
	if !form.Has("back") {
		form.Set("back", apiary+"/bench?prop=riser&way=sheets")
	}
	c := testkit.Page()
	r, err := c.PostForm(srv.URL+path, form)
	require.NoError(t, err)
	defer r.Body.Close()
	b, err := io.ReadAll(r.Body)
	require.NoError(t, err)
	return r.StatusCode, string(b)
}

func TestEveryDownload(t *testing.T) {
	srv, _ := opened(t)
	starts := map[string]string{
		".pdf":  "%PDF",
		".xlsx": "PK",
		".svg":  "<svg",
		".dxf":  "  0",
		".mid":  "MThd",
		".zip":  "PK",
	}
	for name, d := range displays.Downloads {
		ext := name[strings.LastIndex(name, "."):]
		prop := "shelf"
		if ext == ".mid" || name == "program.zip" || name == "commission.pdf" {
			prop = "riser" // something happens there
		}
		code, body, h := got(t, srv, apiary+"/"+name+"?prop="+prop)
		require.Equal(t, 200, code, name)
		assert.True(t, strings.HasPrefix(body, starts[ext]), name)
		assert.Equal(t, shell.MediaTypes[ext], h.Get("Content-Type"), name)
		assert.Contains(t, h.Get("Content-Disposition"), `filename="`+prop+`-`+d.Name+ext+`"`)
		code, _, _ = got(t, srv, apiary+"/"+name)
		assert.Equal(t, map[bool]int{true: 200, false: 404}[d.All], code, "%s of the whole display", name)
		code, body, _ = got(t, srv, apiary+"/"+name+"?prop=nowhere")
		assert.Equal(t, 404, code, name)
		assert.Contains(t, body, "taken away")
	}
	for path, want := range map[string]int{
		"/part.svg?ref=riser-box/front": 200, "/part.dxf?ref=riser-box/front": 200,
		"/part.pdf?ref=riser-box/front&paper=roll36": 200, "/sheet.svg?stock=xps1&n=1": 200, "/mockup.pdf?mockup=riser": 200,
		"/board.pdf?board=shelf&paper=A4": 200,
		"/part.svg?ref=none":              404, "/sheet.svg?stock=xps1&n=99": 404, "/mockup.svg?mockup=none": 404,
		"/board.svg?board=skep": 200, "/picture?id=none": 404, "/picture?id=skep-sketch": 200,
		"/picture?id=skep-sketch&squared=1": 200,
	} {
		code, body, _ := got(t, srv, apiary+path)
		assert.Equal(t, want, code, path)
		assert.NotContains(t, body, "goroutine", path)
	}
	code, body, h := got(t, srv, apiary+"/harness.pdf?prop=skep")
	assert.Equal(t, 200, code)
	assert.Contains(t, body, "no runs to build yet")
	assert.Contains(t, h.Get("Content-Type"), "text/html")
}

// What has nothing in it yet is no file and no fault: a page says so, and what to do first.
func TestNothingToPrintIsSaid(t *testing.T) {
	srv, st := opened(t)
	p := plan.New("bare", "Bare", "in", "2026-10-10").In(shop.Kept)
	p.Doc().Props = []plan.Prop{{ID: "a", Name: "Crate"}}
	require.NoError(t, st.Create(context.Background(), p, false))
	heads := map[string]bool{".csv": true, ".xlsx": true, ".json": true, ".ics": true} // with a heading, to be filled in
	asked := []string{"mockup.pdf?mockup=a", "board.svg?board=a"}
	for name, d := range displays.Downloads {
		if !heads[path.Ext(name)] || name == "harness.xlsx" {
			asked = append(asked, name+"?prop=a")
		}
		if d.All && !heads[path.Ext(name)] {
			asked = append(asked, name)
		}
	}
	for _, at := range asked {
		code, body, h := got(t, srv, "/p/bare/"+at)
		require.Equal(t, 200, code, at)
		if strings.HasPrefix(at, "rounds") { // a bare prop is opened and closed too
			continue
		}
		assert.Contains(t, h.Get("Content-Type"), "text/html", at)
		assert.Contains(t, body, "Nothing to print yet", at)
		assert.Contains(t, body, "Back to the display", at)
	}
}

// Nonsense in any of the forms is refused in words, changes nothing, and never
// shows a trace.
func TestNonsenseInTheSheetsAndLoomForms(t *testing.T) {
	srv, st := opened(t)
	before, _, err := st.Load(context.Background(), "midnight-apiary")
	require.NoError(t, err)
	v := func(pairs ...string) url.Values {
		out := url.Values{}
		for i := 0; i < len(pairs); i += 2 {
			out.Set(pairs[i], pairs[i+1])
		}
		return out
	}
	for _, c := range []struct {
		path string
		form url.Values
		want string
	}{
		{"/lay", v("stock", "unobtainium"), "Nothing is cut from that stock"},
		{"/lay", v("stock", "xps1", "piece", "0", "sheet", "0", "x", "left", "y", "1"), "left&#34; is no number"},
		{"/lay", v("stock", "xps1", "piece", "0", "sheet", "0", "x", "NaN", "y", "1"), "no place on a sheet"},
		{"/lay", v("piece", "0"), "Stock: is empty"},
		{"/lay", v("stock", "xps1", "piece", "999", "sheet", "0", "x", "1", "y", "1"), "gone; load the page again"},
		{"/lay", v("stock", "xps1", "piece", "0", "sheet", "77", "x", "1", "y", "1"), "gone; load the page again"},
		{"/lay", v("stock", "xps1", "do", "cut", "sheet", "-4"), "cut already, or gone"},
		{"/keep", v("stock", "xps1", "layout", "{"), "cannot be read"},
		{"/keep", v("stock", "xps1", "layout", `{"id":"xps2","pins":[]}`), "cannot be read"},
		{"/keep", v("stock", "xps1", "layout", `{"id":"xps1","pins":[{"part":"riser-box/front","copy":0,"sheet":0,"x":"1 in","y":"1 in"}]}`), "no longer fits"},
		{"/slide", v("device", "ghost", "at", "10"), "gone; load the page again"},
		{"/slide", v("device", "jar-1", "at", "far"), "gone; load the page again"},
		{"/slide", v("device", "fill", "at", "10"), "hangs on no run"},
		{"/reading", v("device", "glow-1", "volts", "2 bananas"), "volts:"},
		{"/reading", v("device", "glow-1", "volts", "-3 A"), "out of range"},
		{"/reading", v("device", "glow-1 far", "volts", "20 mA"), "only volts"},
		{"/point", v("id", "none", "handle", "A"), "taken away already"},
		{"/point", v("id", "skep-sketch", "handle", "A", "x", "NaN", "y", "2"), "X: is too small"},
		{"/point", v("id", "skep-sketch", "handle", "A", "x", "1e9", "y", "2"), "X: is too large; at most 9000"},
		{"/step", v("to", "noon"), "noon&#34; is no number"},
		{"/remove", v("kind", "solid"), "Id: is empty"},
		{"/quick", v("prop", "riser", "line", "outlet 15a 9v"), "120 V or 230 V"},
	} {
		code, body := post(t, srv, apiary+c.path, c.form)
		assert.GreaterOrEqual(t, code, 400, "%s %v", c.path, c.form)
		assert.Contains(t, body, c.want, "%s %v", c.path, c.form)
		assert.NotContains(t, body, "goroutine")
		assert.Contains(t, body, `id="page"`, "the page stays")
	}
	after, _, err := st.Load(context.Background(), "midnight-apiary")
	require.NoError(t, err)
	assert.Equal(t, string(before.Encode()), string(after.Encode()))
	_, body, _ := got(t, srv, apiary+"/slide?device=jar-5&at=99999999")
	assert.Contains(t, body, `"at":"420`, "past the end is the end")
	_, body, _ = got(t, srv, apiary+"/slide?device=ghost&at=1")
	assert.Contains(t, body, "error")
}

// sendFile posts a file with fields, as the forms that bring things in do.
func sendFile(
	t *testing.T,
	srv *httptest.Server,
	path, name string,
	data []byte,
	fields map[string]string,
) (int, string) {
	t.Helper()
	var b bytes.Buffer
	m := multipart.NewWriter(&b)
	require.NoError(t, m.WriteField("back", apiary+"/bench?prop=riser&way=whole"))
	for k, v := range fields {
		require.NoError(t, m.WriteField(k, v))
	}
	if name != "" {
		f, err := m.CreateFormFile("file", name)
		require.NoError(t, err)
		_, err = f.Write(data)
		require.NoError(t, err)
	}
	require.NoError(t, m.Close())
	c := testkit.Page()
	r, err := c.Post(srv.URL+path, m.FormDataContentType(), &b)
	require.NoError(t, err)
	defer r.Body.Close()
	body, err := io.ReadAll(r.Body)
	require.NoError(t, err)
	return r.StatusCode, string(body)
}

func TestWhatIsBroughtInIsReadDefensively(t *testing.T) {
	srv, st := opened(t)
	leaf := []byte(`<svg viewBox="0 0 10 20"><polygon points="0,20 10,20 5,0"/></svg>`)
	ok := map[string]string{"prop": "riser", "size": "12 in", "stock": "ply1/4", "of": "width"}
	but := func(k, v string) map[string]string {
		out := map[string]string{}
		for a, b := range ok {
			out[a] = b
		}
		out[k] = v
		return out
	}
	code, _ := sendFile(t, srv, apiary+"/bring", "ivy-leaf.svg", leaf, ok)
	require.Equal(t, http.StatusSeeOther, code)
	p, _, err := st.Load(context.Background(), "midnight-apiary")
	require.NoError(t, err)
	ivy := p.Solid("riser-ivy-leaf")
	require.NotNil(t, ivy)
	assert.Equal(t, "12 in", ivy.Length("w").String())
	var small bytes.Buffer
	require.NoError(t, png.Encode(&small, image.NewRGBA(image.Rect(0, 0, 4, 4))))
	for _, c := range []struct {
		path, name string
		data       []byte
		fields     map[string]string
		want       string
	}{
		{"/bring", "", nil, ok, "is missing; choose one"},
		{"/bring", "x.svg", leaf, but("prop", "nowhere"), "open one first"},
		{"/bring", "x.svg", leaf, but("size", "tall"), "one known size gives the scale"},
		{"/bring", "x.svg", leaf, but("size", "9000 ft"), "larger than any prop"},
		{"/bring", "x.svg", leaf, but("stock", "gold"), "the shop has no"},
		{"/bring", "x.svg", []byte("not a drawing"), ok, "neither an SVG nor a DXF"},
		{"/bring", "x.stl", []byte("solid x\nendsolid"), ok, "no triangles"},
		{"/picture", "", nil, ok, "is missing; choose one"},
		{"/picture", "x.png", []byte("GIF89a"), ok, "neither a JPEG nor a PNG"},
		{"/picture", "x.png", small.Bytes(), ok, "only 4 x 4 pixels"},
		{"/picture", "x.png", bytes.Repeat([]byte{1}, 9<<20), ok, ""},
	} {
		code, body := sendFile(t, srv, apiary+c.path, c.name, c.data, c.fields)
		assert.GreaterOrEqual(t, code, 400, "%s %s", c.path, c.want)
		assert.Contains(t, body, c.want, "%s %v", c.path, c.fields)
		assert.NotContains(t, body, "goroutine")
	}
	after, _, err := st.Load(context.Background(), "midnight-apiary")
	require.NoError(t, err)
	assert.Equal(t, string(p.Encode()), string(after.Encode()), "what was refused changed nothing")
}

// The search streams what it has found, better and better, and a layout it
// sent can be kept.
func TestSearchStreams(t *testing.T) {
	srv, st := opened(t)
	ctx, cancel := context.WithTimeout(context.Background(), 20*time.Second)
	defer cancel()
	req, err := http.NewRequestWithContext(ctx, http.MethodGet, srv.URL+apiary+"/search?stock=eva5&prop=bee", nil)
	require.NoError(t, err)
	r, err := http.DefaultClient.Do(req)
	require.NoError(t, err)
	defer r.Body.Close()
	assert.Equal(t, "text/event-stream", r.Header.Get("Content-Type"))
	in := bufio.NewScanner(r.Body)
	in.Buffer(nil, 8<<20)
	var last bench.Found
	share, layout, messages := 0.0, "", 0
	for in.Scan() && messages < 6 {
		text, ok := strings.CutPrefix(in.Text(), "data: ")
		if !ok {
			continue
		}
		last = bench.Found{}
		require.NoError(t, json.Unmarshal([]byte(text), &last))
		require.GreaterOrEqual(t, last.Share, share)
		share = last.Share
		if len(last.Layout) > 0 {
			layout = string(last.Layout)
		}
		messages++
	}
	require.Equal(t, 6, messages)
	cancel() // closing the stream ends the search
	require.NotEmpty(t, layout)
	code, _ := post(t, srv, apiary+"/keep", url.Values{"stock": {"eva5"}, "layout": {layout}})
	require.Equal(t, http.StatusSeeOther, code)
	p, _, err := st.Load(context.Background(), "midnight-apiary")
	require.NoError(t, err)
	var kept plan.Layout
	require.NoError(t, json.Unmarshal([]byte(layout), &kept))
	require.Len(t, p.Layouts(), 1)
	assert.Equal(t, len(kept.Pins), len(p.Layouts()[0].Pins))
}

// What slides answers with every lamp's volts, and keeps to the run it is on.
func TestSlidingAnswers(t *testing.T) {
	srv, st := opened(t)
	ask := func(device, at string) (out struct {
		At    string
		Volts map[string]string
		Error string
	}) {
		_, body, _ := got(t, srv, apiary+"/slide?device="+device+"&at="+at)
		require.NoError(t, json.Unmarshal([]byte(body), &out))
		return
	}
	start := ask("W2", "0")
	assert.Equal(t, "", start.At, "fed at its start again")
	middle := ask("W2", "5300")
	assert.Equal(t, `208 3/4"`, middle.At, "to the quarter of an inch")
	assert.Len(t, middle.Volts, 25, "the jars and the fill")
	assert.Greater(t, middle.Volts["jar-24"], start.Volts["jar-24"], "its far end gains")
	assert.Less(t, middle.Volts["jar-1"], start.Volts["jar-1"], "and its start loses")
	past := ask("W2", "99999999")
	assert.Equal(t, `420"`, past.At, "no further than its end")
	code, _ := post(t, srv, apiary+"/slide", url.Values{"device": {"W2"}, "at": {"5300"}})
	assert.Equal(t, http.StatusSeeOther, code)
	p, _, err := st.Load(context.Background(), "midnight-apiary")
	require.NoError(t, err)
	assert.InDelta(t, 5300, p.Device("W2").FedAt.Value(), 4)
}

// A reading is kept in the unit it is written in, the far end as such, and
// cards and fault finder each take their own.
func TestReadingsInEveryUnit(t *testing.T) {
	srv, st := opened(t)
	for _, c := range [][2]string{{"cells", "4.7 V"}, {"cells far", "4.6"}, {"cells", "2.5 A"}, {"cells", "5 Mohm"},
		{"cells", "120 kohms"}} {
		code, body := post(t, srv, apiary+"/reading", url.Values{"device": {c[0]}, "volts": {c[1]}, "by": {"Ola"}})
		require.Equal(t, http.StatusSeeOther, code, "%s %s: %s", c[0], c[1], body)
	}
	p, _, err := st.Load(context.Background(), "midnight-apiary")
	require.NoError(t, err)
	mine := p.Readings()[len(p.Readings())-5:]
	assert.Equal(t, "4.7 V", mine[0].Volts.String())
	assert.True(t, mine[1].Far)
	assert.InDelta(t, 2.5, mine[2].Amps.Value(), 1e-9)
	assert.InDelta(t, 5e6, mine[3].Ohms.Value(), 1e-3)
	assert.InDelta(t, 120e3, mine[4].Ohms.Value(), 1e-3)
	for _, r := range mine {
		assert.Equal(t, "Ola", r.By)
	}
	_, prove, _ := got(t, srv, apiary+"/loom?prop=comb&way=prove")
	assert.Contains(t, prove, "4.7 V, 2.5 A, 120 kohm to ground")
	assert.Contains(t, prove, "st-fail", "120 kohm says that something touches")
	_, fault, _ := got(t, srv, apiary+"/loom?prop=comb&way=fault")
	assert.Contains(t, fault, "at its far end")
	assert.NotContains(t, fault, "<b>120 kohm", "ohms are for the card")
}

// Every mend in the gutter that touches wiring says what it costs, as core does.
func TestMendsShowTheirEffect(t *testing.T) {
	srv, _ := opened(t)
	_, body, _ := got(t, srv, apiary+"/loom?prop=shelf")
	assert.Contains(t, body, "drops 4.2 %, then 2.9 %; copper")
	_, body, _ = got(t, srv, apiary+"/walkdown")
	assert.Contains(t, body, "costs $2.00", "a level shifter")
}

// The Walkdown's snags are narrowed to a prop, a place, a trade and a person, and no
// other is left.
func TestSnagsAreNarrowed(t *testing.T) {
	srv, _ := opened(t)
	_, body, _ := got(t, srv, apiary+"/walkdown?of=shelf&in=loom")
	assert.Contains(t, body, "Honey shelf")
	assert.NotContains(t, body, "Skep fill is seen")
	_, all, _ := got(t, srv, apiary+"/walkdown")
	assert.Contains(t, all, "Skep fill is seen")
	assert.Contains(t, all, `<option value="yard"`)
	_, iras, _ := got(t, srv, apiary+"/walkdown?for=ira") // wiring and foam
	assert.Contains(t, iras, `value="ira" selected`)
	assert.NotContains(t, iras, "Skep fill is seen")
	assert.NotContains(t, iras, "glue holds")
	_, wires, _ := got(t, srv, apiary+"/walkdown?trade=wiring")
	for _, body := range []string{iras, wires} {
		assert.Contains(t, body, "Honey shelf")
	}
	_, none, _ := got(t, srv, apiary+"/walkdown?trade=paint&in=loom")
	assert.Contains(t, none, "No snag is all of that at once")
}

// fetched gets a page.
func fetched(t *testing.T, srv *httptest.Server, path string) (int, string) {
	t.Helper()
	r, err := http.Get(srv.URL + path)
	require.NoError(t, err)
	defer r.Body.Close()
	b, err := io.ReadAll(r.Body)
	require.NoError(t, err)
	return r.StatusCode, string(b)
}

// What a metric display offers to type is in millimetres and metres.
func TestHintsAreInThePlansUnits(t *testing.T) {
	srv, st := opened(t)
	require.NoError(t, st.Create(context.Background(), demo.Metric(today).In(shop.Kept), false))
	for _, place := range []string{"bench", "loom", "yard"} {
		_, body, _ := got(t, srv, "/p/"+demo.Metric(today).In(shop.Kept).Display().ID+"/"+place)
		assert.NotRegexp(t, `placeholder="[^"]*\d (ft|in)\b`, body, place)
		_, body, _ = got(t, srv, apiary+"/"+place)
		assert.Regexp(t, `placeholder="[^"]*\d`, body, place)
	}
}

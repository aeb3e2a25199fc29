package calc

import (
	"strconv"
	"strings"

	"zapbarn/core/measure"
	"zapbarn/core/pattern"
	"zapbarn/core/source"
)

var (
	_ = register("rings-at-pitch", "Rings of tube or rope round a pole at a pitch.", []Param{{"height", "length", "of the pole", ""}, {"pitch", "length", "from one ring to the next", ""}, {"pole", "length", "diameter of the pole", ""}, {"d", "length", "thickness of the ring", ""}}, func(in Inputs) ([]source.Result, error) {
		return pattern.RingsAtPitch(in.N("height"), in.N("pitch"), in.N("pole"), in.N("d"))
	})
	_ = register("scales", "Rows of scales or shingles over a face.", []Param{{"w", "length", "width of the face", ""}, {"h", "length", "height of the face", ""}, {"wide", "length", "width of a scale", ""}, {"tall", "length", "height of a scale", ""}, {"show", "length", "what shows of each row", ""}}, func(in Inputs) ([]source.Result, error) {
		return pattern.Scales(in.N("w"), in.N("h"), in.N("wide"), in.N("tall"), in.N("show"))
	})
	_ = register("banding", "Strips that wrap the edges of a rectangle.", []Param{{"w", "length", "width", ""}, {"d", "length", "depth", ""}, {"t", "length", "thickness of the strip", ""}, {"joint", "text", "mitre or butt", "mitre"}}, func(in Inputs) ([]source.Result, error) {
		if j := in.T("joint"); j != "mitre" && j != "butt" {
			return nil, measure.Bad("joint", "%q is not a corner; choose mitre or butt", j)
		}
		return pattern.Banding(in.N("w"), in.N("d"), in.N("t"), in.T("joint") == "mitre")
	})
	_ = register("armature", "Wire for a twisted armature.", []Param{{"path", "length", "along the armature", ""}, {"d", "length", "wire diameter", "3 mm"}, {"pitch", "length", "of the twist", "2 in"}, {"strands", "count", "twisted together", "2"}, {"hooks", "length", "for hooks and ends", "0 in"}}, func(in Inputs) ([]source.Result, error) {
		return one(pattern.Armature(in.N("path"), in.N("d"), in.N("pitch"), int(in.N("strands")), in.N("hooks")))
	})
	_ = register("hangers", "Hangers evenly spaced along a length.", []Param{{"length", "length", "of what hangs", ""}, {"n", "count", "how many", ""}, {"inset", "length", "of the outer two", "0 in"}}, func(in Inputs) ([]source.Result, error) {
		return one(pattern.Hangers(in.N("length"), in.N("inset"), int(in.N("n"))))
	})
	_ = register("wedge", "Leveling wedge on a slope.", []Param{{"base", "length", "length of the base", ""}, {"rise", "length", "of the ground", ""}, {"run", "length", "over which it rises", "4 ft"}}, func(in Inputs) ([]source.Result, error) {
		return one(pattern.Wedge(in.N("base"), in.N("rise"), in.N("run")))
	})
	_ = register("hollow", "A pocket for a board, pack or lamp against the part's thickness.", []Param{{"thick", "length", "of the part", ""}, {"depth", "length", "of the pocket", ""}, {"edge", "length", "from the pocket to the edge", "1 in"}}, func(in Inputs) ([]source.Result, error) {
		return one(pattern.Hollow(in.N("thick"), in.N("depth"), in.N("edge")))
	})
	_ = register("screen", "Picture size from its diagonal.", []Param{{"diagonal", "length", "of the picture", ""}, {"aspect", "text", "such as 16:9", "16:9"}, {"way", "text", "landscape or portrait", "landscape"}}, func(in Inputs) ([]source.Result, error) {
		a, b, ok := strings.Cut(in.T("aspect"), ":")
		x, e1 := strconv.ParseFloat(a, 64)
		y, e2 := strconv.ParseFloat(b, 64)
		if !ok || e1 != nil || e2 != nil || x <= 0 || y <= 0 {
			return nil, measure.Bad("aspect", "%q is not understood; write such as 16:9", in.T("aspect"))
		}
		if w := in.T("way"); w != "landscape" && w != "portrait" {
			return nil, measure.Bad("way", "%q; choose landscape or portrait", w)
		}
		return pattern.Screen(in.N("diagonal"), x, y, in.T("way") == "portrait")
	})
	_ = register("fit", "Size to cut a plug for a hole.", []Param{{"hole", "length", "diameter or width", ""}, {"kind", "text", "press or slide", "press"}}, func(in Inputs) ([]source.Result, error) {
		return one(pattern.Fit(in.N("hole"), in.T("kind")))
	})
	_ = register("scale", "A length off a reference, by one known dimension.", []Param{{"known", "length", "the known dimension on the prop", ""}, {"ref", "length", "the same on the reference", ""}, {"other", "length", "another on the reference", ""}}, func(in Inputs) ([]source.Result, error) {
		return one(pattern.Scale(in.N("known"), in.N("ref"), in.N("other")))
	})
)

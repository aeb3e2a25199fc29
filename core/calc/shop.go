package calc

import (
	"strconv"
	"strings"

	"zapbarn/core/bond"
	"zapbarn/core/measure"
	"zapbarn/core/pattern"
	"zapbarn/core/source"
	"zapbarn/core/stock"
)

var (
	_ = register(
		"rings-at-pitch",
		"Rings of tube or rope round a pole at a pitch.",
		[]Param{
			{"height", "length", "of the pole", ""},
			{"pitch", "length", "from one ring to the next", ""},
			{"pole", "length", "diameter of the pole", ""},
			{"d", "length", "thickness of the ring", ""},
		},
		func(in Inputs) ([]source.Result, error) {
			return pattern.RingsAtPitch(in.N("height"), in.N("pitch"), in.N("pole"), in.N("d"))
		},
	)
	_ = register(
		"scales",
		"Rows of scales or shingles over a face.",
		[]Param{
			{"w", "length", "width of the face", ""},
			{"h", "length", "height of the face", ""},
			{"wide", "length", "width of a scale", ""},
			{"tall", "length", "height of a scale", ""},
			{"show", "length", "what shows of each row", ""},
		},
		func(in Inputs) ([]source.Result, error) {
			return pattern.Scales(in.N("w"), in.N("h"), in.N("wide"), in.N("tall"), in.N("show"))
		},
	)
	_ = register(
		"banding",
		"Strips that wrap the edges of a rectangle.",
		[]Param{
			{"w", "length", "width", ""},
			{"d", "length", "depth", ""},
			{"t", "length", "thickness of the strip", ""},
			{"joint", "text", "mitre or butt", "mitre"},
		},
		func(in Inputs) ([]source.Result, error) {
			if j := in.T("joint"); j != "mitre" && j != "butt" {
				return nil, measure.Bad("joint", "%q is not a corner; choose mitre or butt", j)
			}
			return pattern.Banding(in.N("w"), in.N("d"), in.N("t"), in.T("joint") == "mitre")
		},
	)
	_ = register(
		"armature",
		"Wire for a twisted armature.",
		[]Param{
			{"path", "length", "along the armature", ""},
			{"d", "length", "wire diameter", "3 mm"},
			{"pitch", "length", "of the twist", "2 in"},
			{"strands", "count", "twisted together", "2"},
			{"hooks", "length", "for hooks and ends", "0 in"},
		},
		func(in Inputs) ([]source.Result, error) {
			return one(pattern.Armature(in.N("path"), in.N("d"), in.N("pitch"), int(in.N("strands")), in.N("hooks")))
		},
	)
	_ = register(
		"hangers",
		"Hangers evenly spaced along a length.",
		[]Param{
			{"length", "length", "of what hangs", ""},
			{"n", "count", "how many", ""},
			{"inset", "length", "of the outer two", "0 in"},
		},
		func(in Inputs) ([]source.Result, error) {
			return one(pattern.Hangers(in.N("length"), in.N("inset"), int(in.N("n"))))
		},
	)
	_ = register(
		"wedge",
		"Leveling wedge on a slope.",
		[]Param{
			{"base", "length", "length of the base", ""},
			{"rise", "length", "of the ground", ""},
			{"run", "length", "over which it rises", "4 ft"},
		},
		func(in Inputs) ([]source.Result, error) {
			return one(pattern.Wedge(in.N("base"), in.N("rise"), in.N("run")))
		},
	)
	_ = register(
		"hollow",
		"A pocket for a board, pack or lamp against the part's thickness.",
		[]Param{
			{"thick", "length", "of the part", ""},
			{"depth", "length", "of the pocket", ""},
			{"edge", "length", "from the pocket to the edge", "1 in"},
		},
		func(in Inputs) ([]source.Result, error) {
			return one(pattern.Hollow(in.N("thick"), in.N("depth"), in.N("edge")))
		},
	)
	_ = register(
		"screen",
		"Picture size from its diagonal.",
		[]Param{
			{"diagonal", "length", "of the picture", ""},
			{"aspect", "text", "such as 16:9", "16:9"},
			{"way", "text", "landscape or portrait", "landscape"},
		},
		func(in Inputs) ([]source.Result, error) {
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
		},
	)
	_ = register(
		"fit",
		"Size to cut a plug for a hole.",
		[]Param{{"hole", "length", "diameter or width", ""}, {"kind", "text", "press or slide", "press"}},
		func(in Inputs) ([]source.Result, error) {
			return one(pattern.Fit(in.N("hole"), in.T("kind")))
		},
	)
	_ = register(
		"scale",
		"A length off a reference, by one known dimension.",
		[]Param{
			{"known", "length", "the known dimension on the prop", ""},
			{"ref", "length", "the same on the reference", ""},
			{"other", "length", "another on the reference", ""},
		},
		func(in Inputs) ([]source.Result, error) {
			return one(pattern.Scale(in.N("known"), in.N("ref"), in.N("other")))
		},
	)
)

var (
	_ = register(
		"outline",
		"A silhouette from its corners: area, scale, and its narrowest place.",
		[]Param{
			{"path", "text", "corners x,y parted by blanks, rings parted by ;", ""},
			{"h", "length", "known height, 0 in follows the width", "0 in"},
			{"w", "length", "known width, 0 in follows the height", "0 in"},
			{"t", "length", "stock thickness", "1/4 in"},
			{"neck", "length", "narrowest the stock bears", "3/4 in"},
		},
		func(in Inputs) ([]source.Result, error) {
			rings, err := pattern.ReadRings(in.T("path"))
			if err != nil {
				return nil, err
			}
			if in.N("h") == 0 && in.N("w") == 0 {
				return nil, measure.Bad("h", "is nothing; give a height or a width")
			}
			s, err := pattern.Outline{Rings: rings, W: in.N("w"), H: in.N("h"), T: in.N("t"), Copies: 1}.Lay()
			if err != nil {
				return nil, err
			}
			*in.drawn = s
			out := s.Results
			for _, p := range s.Panels {
				for _, n := range p.Necks(in.N("neck")) {
					what := "waist"
					if n.Limb {
						what = "limb"
					}
					out = append(
						out,
						source.Result{
							Key:   source.What("neck"),
							Label: p.Name + ", " + what,
							Value: n.Width,
							Unit:  "mm",
							Text:  measure.Marked(n.Width),
						}.
							With(
								"narrower than the stock bears",
								"at "+measure.Marked(n.At.X)+" from the left, "+measure.Marked(n.At.Y)+" up",
								measure.Marked(n.Width)+" < "+measure.Marked(in.N("neck")),
								source.FromMemory("safe necks by stock"),
							),
					)
				}
			}
			return out, nil
		},
	)
	_ = register(
		"staves",
		"A cylinder of n equal staves.",
		[]Param{
			{"d", "length", "outside, across the flats", ""},
			{"h", "length", "height", ""},
			{"n", "count", "staves", "12"},
			{"t", "length", "stock thickness", "1 in"},
		},
		func(in Inputs) ([]source.Result, error) {
			return in.shape(
				pattern.Tower{N: int(in.N("n")), H: in.N("h"), Bottom: in.N("d"), Top: in.N("d"), T: in.N("t")}.Lay(),
			)
		},
	)
	_ = register(
		"seam",
		"A part too large for its sheet, in pieces with a seam.",
		[]Param{
			{"w", "length", "width of the part", ""},
			{"h", "length", "height of the part", ""},
			{"t", "length", "stock thickness", "1 in"},
			{"kind", "text", "butt or half-lap", "half-lap"},
			{"lap", "length", "of a half-lap", "2 in"},
			{"sheet-w", "length", "sheet", "4 ft"},
			{"sheet-h", "length", "sheet, the long way", "8 ft"},
		},
		func(in Inputs) ([]source.Result, error) {
			s, err := pattern.Flat{W: in.N("w"), H: in.N("h"), T: in.N("t"), Copies: 1}.Lay()
			if err != nil {
				return nil, err
			}
			if err := s.Split(pattern.Seam{Kind: in.T("kind"), Lap: in.N("lap"), W: in.N("sheet-w") - measure.Inch,
				H: in.N("sheet-h") - measure.Inch}); err != nil {
				return nil, err
			}
			*in.drawn = s
			var out []source.Result
			for _, p := range s.Panels {
				lo, hi := p.Bounds()
				text := measure.Marked(hi.X-lo.X) + " x " + measure.Marked(hi.Y-lo.Y)
				out = append(
					out,
					source.Result{Key: source.What(p.ID), Label: p.Name, Value: hi.Y - lo.Y, Unit: "mm", Text: text}.
						With(
							"equal shares, half the lap past the seam",
							measure.Marked(in.N("w"))+" by "+measure.Marked(in.N("h")),
							text,
							source.Exact("half an inch kept off each edge of the sheet"),
						),
				)
			}
			return out, nil
		},
	)
	_ = register(
		"grid",
		"Grid transfer, or a projector's throw: one known size gives the squares.",
		[]Param{
			{"known", "length", "a size on the prop", ""},
			{"ref", "length", "the same on the drawing", ""},
			{"square", "length", "square of the grid on the drawing", "1/2 in"},
			{"throw", "number", "the projector's throw ratio, distance over picture width; 0 for none", "0"},
			{"picture", "length", "picture width on the drawing", "8 in"},
		},
		func(in Inputs) ([]source.Result, error) {
			r, err := pattern.Scale(in.N("known"), in.N("ref"), in.N("square"))
			if err != nil {
				return nil, err
			}
			r.Label = "Square on the stock"
			out := []source.Result{r}
			if k := in.N("throw"); k > 0 {
				f := in.N("known") / in.N("ref")
				d := k * f * in.N("picture")
				out = append(
					out,
					source.Result{
						Key:   source.What("throw"),
						Label: "Lens to stock",
						Value: d,
						Unit:  "mm",
						Text:  measure.Marked(d),
					}.
						With(
							"distance = throw ratio x picture width on the stock",
							measure.Decimal(k, 2)+" x "+measure.Marked(f*in.N("picture")),
							measure.Marked(d),
							source.Exact("throw ratio by definition"),
						),
				)
			}
			return out, nil
		},
	)
	_ = register(
		"glue-use",
		"What a glue line takes: sticks of hot glue, or millilitres.",
		[]Param{
			{"glue", "text", "such as pu, pva, hotlow, contact", ""},
			{"length", "length", "of the glue line", ""},
			{"width", "length", "of the faces that meet", "1 in"},
		},
		func(in Inputs) ([]source.Result, error) {
			g, ok := stock.Shop.Glues[in.T("glue")]
			if !ok {
				return nil, measure.Bad(
					"glue",
					"the shop has no %q; choose %s",
					in.T("glue"),
					strings.Join(stock.IDs(stock.Shop.Glues), ", "),
				)
			}
			return one(bond.Quantity(g, in.N("length"), in.N("width")))
		},
	)
	_ = register(
		"foam-cans",
		"Cans of one-part foam that fill a hollow.",
		[]Param{{"w", "length", "width", ""}, {"d", "length", "depth", ""}, {"h", "length", "height", ""}},
		func(in Inputs) ([]source.Result, error) {
			return one(bond.FoamCans(in.N("w") * in.N("d") * in.N("h")))
		},
	)
)

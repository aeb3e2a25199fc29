package calc

import (
	"zapbarn/core/measure"
	"zapbarn/core/pattern"
	"zapbarn/core/source"
)

var (
	_ = register(
		"gores",
		"Gores of a solid of revolution: length, width, bevel.",
		[]Param{
			{
				"profile",
				"text",
				"sphere, dome, egg, bell, squash, onion, or radius,height points in inches from the bottom up",
				"sphere",
			},
			{"w", "length", "widest place", "1 in"},
			{"h", "length", "height", "1 in"},
			{"n", "count", "number of gores", "8"},
			{"t", "length", "stock thickness", "10 mm"},
			{"crease", "count", "1 for a creased rib, bevelled at 45", "0"},
		},
		func(in Inputs) ([]source.Result, error) {
			p, err := pattern.NewProfile(in.T("profile"), in.N("w"), in.N("h"), measure.Inch)
			if err != nil {
				return nil, err
			}
			return in.shape(pattern.Gores{Profile: p, N: int(in.N("n")), T: in.N("t"), Crease: in.N("crease") > 0}.Lay())
		},
	)
	_ = register(
		"slices",
		"A solid of revolution in layers of the stock.",
		[]Param{
			{"profile", "text", "as for gores", "dome"},
			{"w", "length", "widest place", ""},
			{"h", "length", "height", ""},
			{"wall", "length", "radial, 0 for solid", "0 in"},
			{"allow", "length", "carve allowance on the radius", "1/4 in"},
			{"t", "length", "stock thickness", "2 in"},
		},
		func(in Inputs) ([]source.Result, error) {
			p, err := pattern.NewProfile(in.T("profile"), in.N("w"), in.N("h"), measure.Inch)
			if err != nil {
				return nil, err
			}
			return in.shape(pattern.Slices{Profile: p, T: in.N("t"), Wall: in.N("wall"), Allow: in.N("allow")}.Lay())
		},
	)
	_ = register(
		"cone",
		"Flat sector of a cone or truncated cone.",
		[]Param{
			{"bottom", "length", "outside, across", ""},
			{"top", "length", "outside, across; 0 comes to a point", "0 in"},
			{"h", "length", "height", ""},
			{"t", "length", "stock thickness", "5 mm"},
			{"overlap", "length", "seam allowance", "0 in"},
		},
		func(in Inputs) ([]source.Result, error) {
			return in.shape(
				pattern.Cone{
					Bottom:  in.N("bottom"),
					Top:     in.N("top"),
					H:       in.N("h"),
					T:       in.N("t"),
					Overlap: in.N("overlap"),
				}.Lay(),
			)
		},
	)
	_ = register(
		"wrap",
		"A tube bent from one sheet, with kerfs where it is stiff.",
		[]Param{
			{"d", "length", "outside, across", ""},
			{"h", "length", "height", ""},
			{"t", "length", "stock thickness", "5 mm"},
			{"kerf", "length", "width of a kerf, 0 bends without", "0 in"},
			{"skin", "length", "left under a kerf", "0 in"},
		},
		func(in Inputs) ([]source.Result, error) {
			return in.shape(
				pattern.Wrap{D: in.N("d"), H: in.N("h"), T: in.N("t"), Kerf: in.N("kerf"), Skin: in.N("skin")}.Lay(),
			)
		},
	)
	_ = register(
		"boards",
		"A disc over several boards: pieces, string, seams.",
		[]Param{
			{"d", "length", "diameter", ""},
			{"board", "length", "width of a board", "4 ft"},
			{"t", "length", "stock thickness", "1 in"},
			{"offset", "length", "of the seams", "0 in"},
			{"brace", "length", "width of a brace", "6 in"},
		},
		func(in Inputs) ([]source.Result, error) {
			return in.shape(
				pattern.Boards{
					D:      in.N("d"),
					T:      in.N("t"),
					Board:  in.N("board"),
					Offset: in.N("offset"),
					Brace:  in.N("brace"),
				}.Lay(),
			)
		},
	)
	_ = register(
		"layers",
		"Layers of stock that reach a thickness.",
		[]Param{{"want", "length", "thickness wanted", ""}, {"t", "length", "stock thickness", "1 in"}},
		func(in Inputs) ([]source.Result, error) {
			return one(pattern.Layers(in.N("want"), in.N("t")))
		},
	)
	_ = register(
		"discs-in-disc",
		"Least disc that holds n equal discs, such as lamps under a base.",
		[]Param{{"n", "count", "how many", ""}, {"d", "length", "diameter of one", ""}},
		func(in Inputs) ([]source.Result, error) {
			return one(pattern.DiscsInDisc(int(in.N("n")), in.N("d")))
		},
	)
)

package demo

import (
	"time"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
)

// setOut is the yard of Thistledown House, 60 by 40 ft: the house at the top, the street at
// the bottom, one lamp in plain view, one cord across the path, sunflowers that the wind of
// the opening tips.
func setOut(p *plan.Plan, today time.Time) {
	deg := measure.Must[measure.AngleKind]
	mph := measure.Must[measure.SpeedKind]
	p.Doc().Display.DoorWide, p.Doc().Display.DoorHigh = l("36 in"), l("80 in")
	p.Doc().Display.CarLong, p.Doc().Display.CarWide, p.Doc().Display.CarHigh = l("70 in"), l("42 in"), l("30 in")
	p.Doc().Display.ShelfDeep, p.Doc().Display.ShelfHigh = l("24 in"), l("20 in")
	plots(p)
	ways(p)
	screens(p)
	lanterns(p)
	extensions(p)
	p.Doc().Viewpoints = []plan.Viewpoint{
		{ID: "gate", Name: "Gate", X: l("4 ft"), Y: l("37 ft"), Look: deg("-70 deg")},
		{ID: "bend", Name: "Bend", X: l("17 ft"), Y: l("22 ft"), Look: deg("-30 deg")},
	}
	p.Doc().Forecasts = []plan.Forecast{
		{ID: "opening", On: today.AddDate(0, 0, 18).Format(time.DateOnly), Wind: mph("22 mph"), Gusts: mph("31 mph")},
	}
}

// plots are where the props stand.
func plots(p *plan.Plan) {
	deg, kg := measure.Must[measure.AngleKind], measure.Must[measure.MassKind]
	p.Doc().Plots = []plan.Plot{
		{ID: "gate", Prop: "gate", X: l("9 ft 6 in"), Y: l("33 ft 6 in"), Turn: deg("70 deg"), Held: "stakes"},
		{ID: "riser", Prop: "riser", X: l("8 ft 6 in"), Y: l("20 ft"), Turn: deg("-30 deg"), Held: "stakes"},
		{ID: "keeper", Prop: "keeper", X: l("23 ft"), Y: l("16 ft"), Held: "guys", Open: 40},
		{ID: "skep", Prop: "skep", X: l("14 ft"), Y: l("10 ft"), Face: "round", Held: "stakes"},
		{
			ID:   "shelf",
			Prop: "shelf",
			X:    l("36 ft"),
			Y:    l("12 ft"),
			Turn: deg("15 deg"),
			Held: "stakes",
			Mass: kg("60 lb"),
		},
		{ID: "sunflowers", Prop: "sunflowers", X: l("30 ft"), Y: l("28 ft"), Turn: deg("180 deg"), Open: 85,
			Wide: l(
				"7 ft",
			), Deep: l("28 in"), High: l("6 ft 2 in"), Mass: kg("25 lb"), Held: "ballast", Ballast: kg("20 lb")},
		{ID: "comb", Prop: "comb", X: l("53 ft 6 in"), Y: l("22 ft"), Turn: deg("90 deg"), Held: "wall"},
	}
}

// ways are the guests' path, the way out and the street.
func ways(p *plan.Plan) {
	p.Doc().Walkways = []plan.Walkway{
		{ID: "path", Name: "Guests' path", Kind: "path", Wide: l("4 ft"),
			Through: "4 ft, 37 ft; 6 ft, 28 ft; 16 ft, 22 ft; 30 ft, 22 ft; 42 ft, 18 ft; 44 ft, 8 ft"},
		{ID: "out", Name: "Way out", Kind: "way out", Through: "44 ft, 8 ft; 57 ft, 6 ft", Wide: l("4 ft")},
		{ID: "street", Name: "Street", Kind: "street", Through: "0 ft, 39 ft; 60 ft, 39 ft", Wide: l("2 ft")},
	}
}

// screens are what stands in the way of the eye.
func screens(p *plan.Plan) {
	p.Doc().Walls = []plan.Wall{
		{ID: "house", Name: "House", Kind: "wall", X: l("2 ft"), Y: l("1 ft"), ToX: l("42 ft"), ToY: l("1 ft"),
			High: l("10 ft"), Fixed: true},
		{
			ID:   "reed",
			Name: "Reed screen",
			Kind: "screen",
			X:    l("20 ft"),
			Y:    l("5 ft"),
			ToX:  l("20 ft"),
			ToY:  l("11 ft"),
			High: l("5 ft"),
		},
		{
			ID:   "reed-2",
			Name: "Low screen",
			Kind: "screen",
			X:    l("20 ft"),
			Y:    l("11 ft"),
			ToX:  l("24 ft"),
			ToY:  l("11 ft"),
			High: l("18 in"),
		},
		{ID: "fence", Name: "Side fence", Kind: "fence", X: l("54 ft"), Y: l("17 ft"), ToX: l("54 ft"),
			ToY: l("27 ft"), High: l("4 ft"), Fixed: true},
		{ID: "hedge", Name: "Hedge", Kind: "hedge", X: l("1 ft"), Y: l("3 ft"), ToX: l("1 ft"), ToY: l("27 ft"),
			High: l("5 ft"), Fixed: true},
	}
}

// lanterns are the lamps that are set out, one of them in plain view.
func lanterns(p *plan.Plan) {
	deg := measure.Must[measure.AngleKind]
	on := func(id, name, prop, y, high string, lumens int) plan.Fixture {
		return plan.Fixture{ID: id, Name: name, Prop: prop, Use: "practical", Y: l(y), High: l(high), Lumens: lumens}
	}
	free := func(id, name, x, y, high string, lumens int) plan.Fixture {
		f := on(id, name, "", y, high, lumens)
		f.X = l(x)
		return f
	}
	jars := on("jars", "Honey jars", "shelf", "7 in", "40 in", 90)
	jars.Device = "jar-1"
	p.Doc().Fixtures = []plan.Fixture{
		{ID: "skep-fill", Name: "Skep fill", Use: "fill", X: l("22 ft"), Y: l("9 ft"), High: l("12 in"), Lumens: 250,
			Beam: deg("60 deg"), Aim: deg("172 deg"), Tilt: deg("-8 deg")},
		on("skep-door", "Skep doorway", "skep", "2 ft", "20 in", 60),
		jars,
		on("frames", "Frames' glow", "riser", "11 in", "30 in", 60),
		free("lamp-1", "Path lamp 1", "3 ft 6 in", "27 ft", "24 in", 150),
		free("lamp-2", "Path lamp 2", "16 ft", "25 ft", "24 in", 150),
		free("lamp-3", "Path lamp 3", "27 ft", "19 ft 6 in", "24 in", 150),
		free("lamp-4", "Path lamp 4", "46 ft 6 in", "10 ft", "24 in", 150),
		free("lamp-5", "Way out lamp", "52 ft", "9 ft 6 in", "3 ft", 300),
		on("lamp-6", "Gate lantern", "gate", "14 in", "6 ft", 200),
	}
}

// extensions are the outlets' places and the cords from them, one across the path.
func extensions(p *plan.Plan) {
	for i := range p.Outlets() {
		switch p.Outlets()[i].ID {
		case "porch":
			p.Outlets()[i].X, p.Outlets()[i].Y = l("3 ft"), l("2 ft")
		case "shed":
			p.Outlets()[i].X, p.Outlets()[i].Y = l("58 ft"), l("14 ft")
		}
	}
	p.Doc().Cords = []plan.Cord{
		{
			ID:      "skep",
			Name:    "Skep cord",
			Outlet:  "porch",
			Prop:    "skep",
			Through: "3 ft, 9 ft",
			Long:    l("50 ft"),
			End:     "in a box",
		},
		{
			ID:      "flowers",
			Name:    "Sunflower cord",
			Outlet:  "porch",
			Prop:    "sunflowers",
			Through: "3 ft, 14 ft; 19 ft, 14 ft",
			Long:    l("75 ft"),
			End:     "in a box",
		},
		{ID: "shelf", Name: "Shelf cord", Outlet: "shed", Prop: "shelf", Through: "56 ft, 4 ft; 44 ft, 3 ft",
			Long: l("50 ft"), Over: "covered", End: "off the ground"},
	}
}

package plan

// The lists of the document as they are read, each read recorded by its kind.

// The kinds of element by their bit in what was read, in the order of the document.
const (
	atDisplay KindSet = 1 << iota
	atGood
	atProp
	atSolid
	atJoint
	atFinish
	atDevice
	atMechanism
	atScene
	atInput
	atTrigger
	atPromise
	atClip
	atLot
	atReading
	atOffcut
	atLayout
	atPhoto
	atPicture
	atOutlet
	atPlug
	atWaiver
	atNote
	atPerson
	atJob
	atDelivery
	atStocked
	atPlot
	atWall
	atWalkway
	atFixture
	atCord
	atViewpoint
	atForecast
	atSketch
	atTried
	atNight
	atIncident
	atTicked
)

// Format is the version of its file.
func (p *Plan) Format() string { return p.doc.Format }

// Display is the display itself: its name, place, dates and limits.
func (p *Plan) Display() Display {
	p.reads.Saw(atDisplay)
	return p.doc.Display
}

// Props are the prop list of the document.
func (p *Plan) Props() []Prop { return read(p, atProp, p.doc.Props) }

// Solids are the solid list of the document.
func (p *Plan) Solids() []Solid { return read(p, atSolid, p.doc.Solids) }

// Joints are the joint list of the document.
func (p *Plan) Joints() []Joint { return read(p, atJoint, p.doc.Joints) }

// Finishes are the finish list of the document.
func (p *Plan) Finishes() []Finish { return read(p, atFinish, p.doc.Finishes) }

// Devices are the device list of the document.
func (p *Plan) Devices() []Device { return read(p, atDevice, p.doc.Devices) }

// Inputs are the input list of the document.
func (p *Plan) Inputs() []Input { return read(p, atInput, p.doc.Inputs) }

// Scenes are the scene list of the document.
func (p *Plan) Scenes() []Scene { return read(p, atScene, p.doc.Scenes) }

// Triggers are the trigger list of the document.
func (p *Plan) Triggers() []Trigger { return read(p, atTrigger, p.doc.Triggers) }

// Mechanisms are the mechanism list of the document.
func (p *Plan) Mechanisms() []Mechanism { return read(p, atMechanism, p.doc.Mechanisms) }

// Promises are the promise list of the document.
func (p *Plan) Promises() []Promise { return read(p, atPromise, p.doc.Promises) }

// Clips are the clip list of the document.
func (p *Plan) Clips() []Clip { return read(p, atClip, p.doc.Clips) }

// Lots are the lot list of the document.
func (p *Plan) Lots() []Lot { return read(p, atLot, p.doc.Lots) }

// Waivers are the waiver list of the document.
func (p *Plan) Waivers() []Waiver { return read(p, atWaiver, p.doc.Waivers) }

// Readings are the reading list of the document.
func (p *Plan) Readings() []Reading { return read(p, atReading, p.doc.Readings) }

// Offcuts are the offcut list of the document.
func (p *Plan) Offcuts() []Offcut { return read(p, atOffcut, p.doc.Offcuts) }

// Layouts are the layout list of the document.
func (p *Plan) Layouts() []Layout { return read(p, atLayout, p.doc.Layouts) }

// Photos are the photo list of the document.
func (p *Plan) Photos() []Photo { return read(p, atPhoto, p.doc.Photos) }

// Pictures are the picture list of the document.
func (p *Plan) Pictures() []Picture { return read(p, atPicture, p.doc.Pictures) }

// Outlets are the outlet list of the document.
func (p *Plan) Outlets() []Outlet { return read(p, atOutlet, p.doc.Outlets) }

// Plugs are the plug list of the document.
func (p *Plan) Plugs() []Plug { return read(p, atPlug, p.doc.Plugs) }

// Notes are the note list of the document.
func (p *Plan) Notes() []Note { return read(p, atNote, p.doc.Notes) }

// Goods are the good list of the document.
func (p *Plan) Goods() []Good { return read(p, atGood, p.doc.Goods) }

// People are the person list of the document.
func (p *Plan) People() []Person { return read(p, atPerson, p.doc.People) }

// Jobs are the job list of the document.
func (p *Plan) Jobs() []Job { return read(p, atJob, p.doc.Jobs) }

// Deliveries are the delivery list of the document.
func (p *Plan) Deliveries() []Delivery { return read(p, atDelivery, p.doc.Deliveries) }

// Shelf are the stocked list of the document.
func (p *Plan) Shelf() []Stocked { return read(p, atStocked, p.doc.Shelf) }

// Plots are the plot list of the document.
func (p *Plan) Plots() []Plot { return read(p, atPlot, p.doc.Plots) }

// Walls are the wall list of the document.
func (p *Plan) Walls() []Wall { return read(p, atWall, p.doc.Walls) }

// Walkways are the walkway list of the document.
func (p *Plan) Walkways() []Walkway { return read(p, atWalkway, p.doc.Walkways) }

// Fixtures are the fixture list of the document.
func (p *Plan) Fixtures() []Fixture { return read(p, atFixture, p.doc.Fixtures) }

// Cords are the cord list of the document.
func (p *Plan) Cords() []Cord { return read(p, atCord, p.doc.Cords) }

// Viewpoints are the viewpoint list of the document.
func (p *Plan) Viewpoints() []Viewpoint { return read(p, atViewpoint, p.doc.Viewpoints) }

// Forecasts are the forecast list of the document.
func (p *Plan) Forecasts() []Forecast { return read(p, atForecast, p.doc.Forecasts) }

// Sketches are the sketch list of the document.
func (p *Plan) Sketches() []Sketch { return read(p, atSketch, p.doc.Sketches) }

// Trials are the tried list of the document.
func (p *Plan) Trials() []Tried { return read(p, atTried, p.doc.Trials) }

// NightBook are the night list of the document.
func (p *Plan) NightBook() []Night { return read(p, atNight, p.doc.NightBook) }

// Incidents are the incident list of the document.
func (p *Plan) Incidents() []Incident { return read(p, atIncident, p.doc.Incidents) }

// Ticks are the ticked list of the document.
func (p *Plan) Ticks() []Ticked { return read(p, atTicked, p.doc.Ticks) }

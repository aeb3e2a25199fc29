package shell

// Key is a single key and what it does; each can be changed by whoever uses it.
type Key struct{ ID, Key, Does string }

// keymap are the single keys, as they are at first.
func keymap() []Key {
	return []Key{
		{"line", "/", "quick line; arrows recall, Tab completes, Esc leaves"},
		{"before", "[", "previous thing in the drawing"},
		{"next", "]", "next thing in the drawing"},
		{"mend", "m", "to the mend of the worst snag in sight; Enter takes it"},
		{"working", "w", "show the first working"},
		{"larger", "+", "zoom in"},
		{"smaller", "-", "zoom out"},
		{"whole", "0", "the whole drawing"},
	}
}

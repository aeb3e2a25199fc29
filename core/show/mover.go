package show

// glide takes every mover to a time, at the speed it has.
func (s *sim) glide(t int) {
	long := t - s.now
	for i := range s.p.movers {
		m := &s.p.movers[i]
		switch s.dir[i] {
		case 1:
			s.pos[i] += long * m.upBy
		case -1:
			s.pos[i] -= long * m.downBy
		}
		if m.Circles {
			s.pos[i] = (s.pos[i]%m.travel + m.travel) % m.travel
		}
		s.pos[i] = max(0, min(m.travel, s.pos[i]))
	}
	s.now = t
}

// reaches is in how many ms a mover comes to its next switch or its end; 0 for never.
func (s *sim) reaches(i int) int {
	m := &s.p.movers[i]
	best := 0
	to := func(edge int) {
		far, by := edge-s.pos[i], m.upBy
		if s.dir[i] < 0 {
			far, by = -far, m.downBy
		}
		if far <= 0 || s.dir[i] == 0 {
			return
		}
		if t := (far + by - 1) / by; best == 0 || t < best {
			best = t
		}
	}
	if !m.Circles {
		to(0)
		to(m.travel)
	}
	for _, k := range m.switches {
		edge := s.p.inputs[k].edge
		to(edge)
		if s.dir[i] > 0 && s.pos[i] == edge { // it leaves the switch it stands on
			to(edge + 1)
		}
		if s.dir[i] < 0 && s.pos[i] == edge {
			to(edge - 1)
		}
	}
	return best
}

// works is whether a limit switch was closed, and is by where its mover stands.
func (s *sim) works(i int) (was, is bool) {
	in := &s.p.inputs[i]
	pos := s.pos[in.mover]
	if in.Below {
		return s.raw[i] || s.settle[i] > 0, pos <= in.edge
	}
	return s.raw[i] || s.settle[i] > 0, pos >= in.edge
}

// steer sets which way each mover goes from now on.
func (s *sim) steer() {
	for i := range s.p.movers {
		m := &s.p.movers[i]
		dir := 0
		up, down := m.up >= 0 && s.out[m.up] > 0, m.down >= 0 && s.out[m.down] > 0
		switch {
		case up && !down:
			dir = 1
		case down && !up, m.Falls && !up && !down:
			dir = -1
		}
		if !m.Circles && (dir > 0 && s.pos[i] >= m.travel || dir < 0 && s.pos[i] <= 0) {
			dir = 0
		}
		if dir == s.dir[i] {
			continue
		}
		s.dir[i] = dir
		if s.trace != nil {
			s.trace.Moves = append(s.trace.Moves, Move{s.now, m.ID, s.pos[i] * 1000 / m.travel, dir})
		}
	}
}

// At is where a mover is at a moment, in thousandths of its travel. upTime and downTime
// are those of its travel, in ms.
func (t Trace) At(m Mover, at int) int {
	pos, from, dir := 0, 0, 0
	for _, v := range t.Moves {
		if v.Mover == m.ID && v.At <= at {
			pos, from, dir = v.Pos, v.At, v.Dir
		}
	}
	long := m.UpTime
	if dir < 0 && m.DownTime > 0 {
		long = m.DownTime
	}
	pos += dir * (at - from) * 1000 / max(1, long)
	if m.Circles {
		return (pos%1000 + 1000) % 1000
	}
	return max(0, min(1000, pos))
}

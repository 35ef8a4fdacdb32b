package book

import "tincup/internal/core/day"

// PlanFor sets when the person means to do it; the zero Horizon clears it.
type PlanFor struct {
	ID   ID
	Plan day.Horizon
}

func (PlanFor) kind() Kind { return "plan" }

func (c PlanFor) run(d *draft) error {
	t, err := d.alive(c.ID)
	if err != nil {
		return err
	}
	stood := t.driver().Date
	if t.IsNote && !c.Plan.IsZero() {
		return refuseNote(&t, "planned")
	}
	t.Plan = c.Plan
	d.put(t)
	defer func() { d.says += d.postponed(&t, stood) }()
	switch {
	case c.Plan.IsZero():
		d.did("No longer planned", &t, d.was(t.ID, "plan"))
	case c.Plan.Precision() == day.Parked:
		d.did("Parked", &t, d.was(t.ID, "plan"))
	default:
		d.did("Planned for "+c.Plan.Words(), &t, d.was(t.ID, "plan"))
	}
	return nil
}

// PlanEach plans many to-dos, each for a time of its own.
type PlanEach struct{ Plans []PlanFor }

func (PlanEach) kind() Kind { return "plan" }

func (c PlanEach) run(d *draft) error {
	ids := make([]ID, len(c.Plans))
	for i, p := range c.Plans {
		ids[i] = p.ID
	}
	if err := checkMany(ids); err != nil {
		return err
	}
	if set, _ := eachOnce(ids); len(set) < len(ids) {
		return refuse("plans", "A to-do is named twice. Each has one plan.")
	}
	for _, p := range c.Plans {
		if _, err := d.todo(p.ID); err != nil {
			return goneOfMany(p.ID)
		}
		if err := p.run(d); err != nil {
			return allOrNone(err)
		}
	}
	if len(ids) > 1 {
		d.verb = "Planned day by day"
		d.sayMany(ids)
	}
	return nil
}

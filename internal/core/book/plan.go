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

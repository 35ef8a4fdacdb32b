// Package device is a small simulated device that knows where it is, as a telephone does: it
// walks from place to place and connects to things, and tells a Tin Cup of it over its API. The
// demo and the tests use it in place of a real one; Page serves it to a browser.
package device

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"io"
	"math/rand/v2"
	"net/http"
	"strings"
	"sync"
	"time"

	"tincup/internal/core/geo"
)

// Place is one that the Tin Cup knows.
type Place struct {
	ID     string    `json:"id"`
	Name   string    `json:"name"`
	Middle geo.Point `json:"middle"`
	Thing  bool      `json:"thing"`
	Here   bool      `json:"here"`
}

// Device is at a point, or nowhere yet. It is safe for concurrent use.
type Device struct {
	// Accuracy is by how many metres the positions that it tells are wrong at most.
	Accuracy float64
	// Every is the time between two positions of a walk, Steps how many there are.
	Every time.Duration
	Steps int

	client *http.Client
	server string

	mu sync.Mutex
	at geo.Point
	// walks to the place of this name; "" stands.
	walks string
	stop  context.CancelFunc
}

// New makes a device that tells the Tin Cup at an address such as http://127.0.0.1:7420.
func New(server string) *Device {
	return &Device{Accuracy: 20, Every: time.Second, Steps: 12, client: &http.Client{Timeout: 10 * time.Second}, server: strings.TrimRight(server, "/")}
}

// At is where it is, and the name of the place it walks to; "" where it stands.
func (d *Device) At() (at geo.Point, walks string) {
	d.mu.Lock()
	defer d.mu.Unlock()
	return d.at, d.walks
}

// Put sets it down somewhere, and tells that.
func (d *Device) Put(ctx context.Context, at geo.Point) error {
	d.mu.Lock()
	d.at = at
	d.mu.Unlock()
	return d.tell(ctx)
}

// tell tells where it is, to its accuracy.
func (d *Device) tell(ctx context.Context) error {
	d.mu.Lock()
	at := d.at
	d.mu.Unlock()
	const metre = 1 / 111_195.08 // degrees
	off := func() float64 { return (rand.Float64()*2 - 1) * d.Accuracy * metre / 2 }
	return d.post(ctx, "/api/here", map[string]float64{"latitude": at.Latitude() + off(), "longitude": at.Longitude() + off(), "accuracy": d.Accuracy})
}

// Places returns the places that the Tin Cup knows.
func (d *Device) Places(ctx context.Context) (places []Place, err error) {
	req, err := http.NewRequestWithContext(ctx, http.MethodGet, d.server+"/api/places", nil)
	if err != nil {
		return nil, err
	}
	body, err := d.do(req)
	if err == nil {
		err = json.Unmarshal(body, &places)
	}
	return places, err
}

// Find returns a place by its name, whatever its case.
func (d *Device) Find(ctx context.Context, name string) (Place, error) {
	places, err := d.Places(ctx)
	if err != nil {
		return Place{}, err
	}
	var names []string
	for _, p := range places {
		if strings.EqualFold(p.Name, name) {
			return p, nil
		}
		names = append(names, "“"+p.Name+"”")
	}
	return Place{}, fmt.Errorf("there is no place called “%s”; there are %s", name, strings.Join(names, ", "))
}

// Walk goes to a place in Steps, in a straight line, and tells of each step. Where it is nowhere
// yet it begins a kilometre to the north. Another walk ends this one.
func (d *Device) Walk(ctx context.Context, to Place) error {
	if to.Middle.IsZero() {
		return fmt.Errorf("“%s” has no position to walk to", to.Name)
	}
	ctx, cancel := context.WithCancel(ctx)
	defer cancel()
	d.mu.Lock()
	if d.stop != nil {
		d.stop()
	}
	d.stop, d.walks = cancel, to.Name
	from := d.at
	if from.IsZero() {
		from = geo.MustAt(min(to.Middle.Latitude()+0.009, 90), to.Middle.Longitude())
	}
	d.mu.Unlock()
	defer func() {
		d.mu.Lock()
		defer d.mu.Unlock()
		if ctx.Err() == nil { // another walk has taken its place otherwise
			d.walks, d.stop = "", nil
		}
	}()
	for step := range d.Steps + 1 {
		part := float64(step) / float64(d.Steps)
		next, err := geo.At(from.Latitude()+(to.Middle.Latitude()-from.Latitude())*part, from.Longitude()+(to.Middle.Longitude()-from.Longitude())*part)
		if err == nil {
			err = d.Put(ctx, next)
		}
		if err != nil {
			return err
		}
		select {
		case <-ctx.Done():
			return ctx.Err()
		case <-time.After(d.Every):
		}
	}
	return nil
}

// Connect tells that it connected to a thing, or disconnected from it.
func (d *Device) Connect(ctx context.Context, thing Place, on bool) error {
	return d.post(ctx, "/api/places/"+thing.ID+"/connection", map[string]bool{"connected": on})
}

func (d *Device) post(ctx context.Context, path string, body any) error {
	packed, err := json.Marshal(body)
	if err != nil {
		return err
	}
	req, err := http.NewRequestWithContext(ctx, http.MethodPost, d.server+path, bytes.NewReader(packed))
	if err != nil {
		return err
	}
	req.Header.Set("Content-Type", "application/json")
	_, err = d.do(req)
	return err
}

func (d *Device) do(req *http.Request) ([]byte, error) {
	res, err := d.client.Do(req)
	if err != nil {
		return nil, fmt.Errorf("the Tin Cup at %s does not answer: %w", d.server, err)
	}
	defer res.Body.Close()
	body, err := io.ReadAll(io.LimitReader(res.Body, 1<<22))
	if err == nil && res.StatusCode >= 400 {
		var problem struct{ Detail string }
		_ = json.Unmarshal(body, &problem) // what is no problem has no detail
		err = fmt.Errorf("the Tin Cup at %s answered %s: %s", d.server, res.Status, problem.Detail)
	}
	return body, err
}

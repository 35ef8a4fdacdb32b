package main

import (
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"net/http"
	"os"
	"strings"
	"time"

	"github.com/spf13/cobra"

	"tincup/internal/app"
	"tincup/internal/httpapi/contract"
	"tincup/internal/store"
)

func addCommand() *cobra.Command {
	f := &flags{}
	cmd := &cobra.Command{
		Use:   `add "sentence"`,
		Short: "Put a to-do in, as the capture line does",
		Long: `Add puts in what a sentence means, into the Cup unless it names a list. Where a
server has the data file open, it is asked to; where none has, the file is
opened for the moment. "tincup explain capture" says how a sentence is read.`,
		Example: `  tincup add "Order mount board, by Friday 4pm, high"
  tincup add --db ~/notes/mine.db "Ring the framer tomorrow"`,
		Args: cobra.MinimumNArgs(1),
		RunE: func(cmd *cobra.Command, args []string) error {
			if strings.ContainsAny(strings.TrimSpace(strings.Join(args, " ")), "\r\n") {
				return usageError{errors.New("the sentence has several lines; put them in one by one, or paste them into the page")}
			}
			path, err := f.path("tincup.db")
			if err != nil {
				return err
			}
			says, err := f.add(cmd.Context(), path, strings.Join(args, " "))
			if err == nil {
				fmt.Fprintln(os.Stdout, says)
			}
			return err
		},
	}
	f.onFile(cmd)
	f.onTime(cmd)
	return cmd
}

// holderPatience is how long add waits for a holder that is just starting or
// stopping.
const holderPatience = 5 * time.Second

func (f *flags) add(ctx context.Context, path, sentence string) (string, error) {
	key := app.NewID().String() // one key: whichever try arrives counts once
	deadline := time.Now().Add(holderPatience)
	for {
		says, err := f.addToFile(ctx, path, key, sentence)
		var held *store.HeldError
		if !errors.As(err, &held) {
			return says, explained(err)
		}
		if held.Holder.Address != "" {
			says, err = addToServer(ctx, held.Holder.Address, key, sentence)
			var refused *refusal
			if err == nil || errors.As(err, &refused) {
				return says, err
			}
		}
		if time.Now().After(deadline) {
			return "", fmt.Errorf("the to-do was not put in: %w", err)
		}
		time.Sleep(50 * time.Millisecond)
	}
}

func (f *flags) addToFile(ctx context.Context, path, key, sentence string) (says string, err error) {
	settings, source, err := f.world()
	if err != nil {
		return "", err
	}
	f.quiet = true
	settings.Once = true
	a, err := app.Open(ctx, path, source, settings, f.logger())
	if err != nil {
		return "", err
	}
	_, err = a.Owner().PutIn(ctx, app.Request{Window: "tincup add", Key: key, Fingerprint: []byte(sentence)}, app.Sentence{Text: sentence},
		func(o *app.Outcome) (*store.Reply, error) {
			says = o.Change.Says
			return &store.Reply{Status: http.StatusCreated, Body: []byte{}}, nil
		})
	return says, errors.Join(err, a.Close())
}

// refusal is a server's no, which another try would not change.
type refusal struct{ detail string }

func (r *refusal) Error() string { return r.detail }

func addToServer(ctx context.Context, address, key, sentence string) (string, error) {
	packed, err := json.Marshal(map[string]string{"text": sentence})
	if err != nil {
		return "", err
	}
	ctx, cancel := context.WithTimeout(ctx, holderPatience)
	defer cancel()
	req, err := http.NewRequestWithContext(ctx, http.MethodPost, "http://"+address+"/api/sentence/todos", bytes.NewReader(packed))
	if err != nil {
		return "", err
	}
	req.Header.Set("Content-Type", "application/json")
	req.Header.Set("Idempotency-Key", key)
	req.Header.Set("Window-Id", "tincup add")
	res, err := http.DefaultClient.Do(req)
	if err != nil {
		return "", fmt.Errorf("the server at http://%s does not answer: %w", address, err)
	}
	answer, err := io.ReadAll(io.LimitReader(res.Body, 1<<20))
	if err := errors.Join(err, res.Body.Close()); err != nil {
		return "", err
	}
	if res.StatusCode != http.StatusCreated {
		var p contract.Problem
		if json.Unmarshal(answer, &p) != nil || p.Detail == "" {
			p.Detail = "the server at http://" + address + " answered " + res.Status
		}
		return "", &refusal{p.Detail}
	}
	var made contract.ChangedTodo
	if err := json.Unmarshal(answer, &made); err != nil {
		return "", fmt.Errorf("the server's answer cannot be read: %w", err)
	}
	return made.Change.Says, nil
}

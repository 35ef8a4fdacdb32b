package store

import (
	"context"
	"database/sql"
	"fmt"
	"io/fs"

	"github.com/pressly/goose/v3"
)

// MakeAtSchema makes a file as an older version would have left it.
func MakeAtSchema(ctx context.Context, path string, version int64) error {
	made, err := Open(ctx, path)
	if err != nil {
		return err
	}
	if err := made.Close(); err != nil {
		return err
	}
	db, err := sql.Open("sqlite", source(path))
	if err != nil {
		return err
	}
	defer db.Close()
	sub, err := fs.Sub(migrations, "migrations")
	if err != nil {
		return err
	}
	p, err := goose.NewProvider(goose.DialectSQLite3, db, sub)
	if err != nil {
		return err
	}
	for _, table := range []string{"history", "replies", "todo_tags", "notes", "views", "todos", "people", "tags", "sections", "lists", "shelves", "goose_db_version"} {
		if _, err := db.ExecContext(ctx, "DROP TABLE "+table); err != nil {
			return err
		}
	}
	if _, err := p.UpTo(ctx, version); err != nil {
		return err
	}
	if now, err := p.GetDBVersion(ctx); err != nil || now != version {
		return fmt.Errorf("the file is at schema %d, %w", now, err)
	}
	return nil
}

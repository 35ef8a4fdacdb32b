package book

import (
	"slices"
	"strings"
)

// Limits on attachments, in bytes.
const (
	MaxAttachment  = 25 << 20
	MaxAttachments = 200 << 20 // of one to-do
)

// Attach adds a file to a to-do. Its bytes are kept before. A file that the
// to-do has already, by its bytes, takes the new name.
type Attach struct {
	ID   ID
	File Attachment
}

// Detach takes a file away, by its hash.
type Detach struct {
	ID   ID
	Hash string
}

func (Attach) kind() Kind { return "attach" }
func (Detach) kind() Kind { return "detach" }

func (c Attach) run(d *draft) error {
	t, err := d.alive(c.ID)
	if err != nil {
		return err
	}
	if t.Attachments, err = withFile(t.Attachments, c.File); err != nil {
		return err
	}
	d.put(t)
	d.did("Attached "+quote(c.File.Name), &t, "")
	return nil
}

// withFile returns the files of a to-do with one more.
func withFile(files []Attachment, f Attachment) ([]Attachment, error) {
	var err error
	if f.Name, err = CheckFileName(f.Name); err != nil {
		return nil, err
	}
	files = slices.DeleteFunc(slices.Clone(files), func(a Attachment) bool { return a.Hash == f.Hash })
	files = append(files, f)
	total := int64(0)
	for _, f := range files {
		total += f.Size
	}
	switch {
	case f.Size <= 0:
		return nil, refuse("file", "“%s” is empty. A file has at least one byte.", f.Name)
	case f.Size > MaxAttachment:
		return nil, refuse("file", "“%s” has %d MB; %d MB is the most.", f.Name, f.Size>>20, MaxAttachment>>20)
	case total > MaxAttachments:
		return nil, refuse("file", "With “%s” the files of this to-do have %d MB; %d MB is the most.", f.Name, total>>20, MaxAttachments>>20)
	}
	return files, nil
}

func (c Detach) run(d *draft) error {
	t, err := d.alive(c.ID)
	if err != nil {
		return err
	}
	i := slices.IndexFunc(t.Attachments, func(a Attachment) bool { return a.Hash == c.Hash })
	if i < 0 {
		return refuse("file", "“%s” has no such file any more.", t.Title)
	}
	name := t.Attachments[i].Name
	t.Attachments = slices.Delete(slices.Clone(t.Attachments), i, i+1)
	d.put(t)
	d.did("Taken away "+quote(name), &t, "")
	return nil
}

// CheckFileName refuses what is no name of a file: a path, or more than 200
// characters.
func CheckFileName(name string) (string, error) {
	name, err := checkLine("name", "name of the file", name, 200)
	if err != nil {
		return "", err
	}
	if strings.ContainsAny(name, `/\`) || name == "." || name == ".." {
		return "", refuse("name", "“%.60s” is a path. The name of the file alone is wanted.", name)
	}
	return name, nil
}

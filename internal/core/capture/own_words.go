package capture

// ownWord is what a word means in a clause of its own: a field of a closed set gets a
// value. Elsewhere it is a word of the title.
type ownWord struct {
	field Field
	value string // as the field's text has it
}

// The fields that these words give a value.
const (
	FieldStatus        Field = "status"
	FieldConcentration Field = "concentration"
)

// ownWords are all such words; the vocabulary knows them from here.
var ownWords = map[string]ownWord{
	"begun": {FieldStatus, "in-process"},
	"deep":  {FieldConcentration, "deep"},
	"light": {FieldConcentration, "light"},
}

// Choice is a value of a field of a closed set.
type Choice struct {
	Field Field
	Value string
}

// Choice returns the value that a field of a closed set got; "" for none.
func (d *Draft) Choice(f Field) string {
	for _, c := range d.Choices {
		if c.Field == f {
			return c.Value
		}
	}
	return ""
}

func (p *parser) ownWord() (item, bool) {
	t := p.at(0)
	if t.kind != plainWord {
		return item{}, false
	}
	if _, known := ownWords[t.word.text]; !known {
		return item{}, false
	}
	p.pos++
	return item{kind: itemOwn, name: t.word.text}, true
}

// choose gives the field of a word its value; the same twice is one.
func (m *meaning) choose(it *item) {
	own := ownWords[it.name]
	d := &m.r.draft
	said := d.Choice(own.field)
	if m.single(said != "" && said != own.value, own.field, it, it.name) && said == "" {
		d.Choices = append(d.Choices, Choice{own.field, own.value})
	}
}

// sayChoice is the word that says a value.
func sayChoice(c Choice) string {
	for word, own := range ownWords {
		if own.field == c.Field && own.value == c.Value {
			return word
		}
	}
	return ""
}

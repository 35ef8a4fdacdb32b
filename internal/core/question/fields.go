package question

import (
	"maps"
	"slices"
)

// Field is what a test is about.
type Field string

// The fields.
const (
	Text          Field = "text"
	Place         Field = "place"
	List          Field = "list"
	Shelf         Field = "shelf"
	Section       Field = "section"
	Tag           Field = "tag"
	Priority      Field = "priority"
	Concentration Field = "concentration"
	Status        Field = "status"
	Kind          Field = "kind"
	Due           Field = "due"
	Start         Field = "start"
	Plan          Field = "plan"
	Created       Field = "created"
	Completed     Field = "completed"
	Overdue       Field = "overdue"
	Estimate      Field = "estimate"
	Repeating     Field = "repeating"
	Paused        Field = "paused"
	HasSubtasks   Field = "has-subtasks"
	IsSubtask     Field = "is-subtask"
	NextAction    Field = "next-action"
	Person        Field = "person"
	Role          Field = "role"
	Attachment    Field = "attachment"
	InHandful     Field = "in-handful"
	PlannedPast   Field = "planned-past-due"
	Slack         Field = "slack"
	AtRisk        Field = "at-risk"
)

// form is what tests on a field may ask.
type form struct {
	ops []Op
	// words are the values of a closed set; without them, values are ids.
	words []string
}

var (
	dates = []Op{Before, After, On, WithinNext, WithinPast, Between, None}
	flag  = form{ops: []Op{Yes, No}}
)

// forms has an entry for each field.
var forms = map[Field]form{
	Text:          {ops: []Op{Contains}},
	Place:         {ops: []Op{Contains, None}},
	List:          {ops: []Op{AnyOf, None}},
	Shelf:         {ops: []Op{AnyOf}},
	Section:       {ops: []Op{AnyOf, None}},
	Person:        {ops: []Op{AnyOf, None}},
	Tag:           {ops: []Op{AnyOf, AllOf, NoneOf, None}},
	Priority:      {ops: []Op{AnyOf}, words: []string{"none", "low", "medium", "high"}},
	Concentration: {ops: []Op{AnyOf, None}, words: []string{"deep", "light"}},
	Status:        {ops: []Op{AnyOf}, words: []string{"needs-action", "in-process", "completed", "cancelled"}},
	Kind:          {ops: []Op{AnyOf}, words: []string{"to-do", "note"}},
	Role:          {ops: []Op{AnyOf}, words: []string{"ask", "waiting on", "for"}},
	Due:           {ops: append([]Op{TimeBetween}, dates...)},
	Plan:          {ops: append([]Op{TimeBetween, Parked}, dates...)},
	Start:         {ops: dates},
	Created:       {ops: dates[:6]},
	Completed:     {ops: dates},
	Estimate:      {ops: []Op{AtMost, AtLeast, None}},
	Overdue:       flag,
	Repeating:     flag,
	Paused:        flag,
	HasSubtasks:   flag,
	IsSubtask:     flag,
	NextAction:    flag,
	Attachment:    flag,
	InHandful:     flag,
	PlannedPast:   flag,
	Slack:         {ops: []Op{AtMost, AtLeast, None}},
	AtRisk:        flag,
}

// Fields returns every field that a test can be about, in the order of their names.
func Fields() []Field { return slices.Sorted(maps.Keys(forms)) }

// Words returns the values of a field that is a closed set, in their order; nil for any
// other. The slice is not to be changed.
func (f Field) Words() []string { return forms[f].words }

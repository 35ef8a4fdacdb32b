// Package term holds the words that all rooms of the core share: ids, the closed sets of
// values that a to-do has, and the limits of what is typed. It knows nothing else.
package term

// Limits of what is typed. Characters are Unicode code points.
const (
	MaxTitle = 500      // characters of a title
	MaxNotes = 64 << 10 // bytes of notes
	MaxName  = 100      // characters of the name of a list, tag, person or view
	MaxTags  = 30       // tags of one to-do
	// MaxEstimate is the longest a to-do takes, in minutes.
	MaxEstimate = 100 * 60
)

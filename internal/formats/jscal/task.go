package jscal

import (
	"tincup/internal/core/repeat"
)

// group is a Group (section 5.3).
type group struct {
	Type    string `json:"@type"`
	UID     string `json:"uid"`
	Updated string `json:"updated"`
	Title   string `json:"title,omitempty"`
	ProdID  string `json:"prodId,omitempty"`
	Entries []task `json:"entries"`
}

// task is a Task (section 5.2), with what we read and write of it.
type task struct {
	Type              string              `json:"@type"`
	UID               string              `json:"uid"`
	Created           string              `json:"created,omitempty"`
	Updated           string              `json:"updated"`
	Title             string              `json:"title,omitempty"`
	Description       string              `json:"description,omitempty"`
	ShowWithoutTime   bool                `json:"showWithoutTime,omitempty"`
	Start             string              `json:"start,omitempty"`
	Due               string              `json:"due,omitempty"`
	TimeZone          string              `json:"timeZone,omitempty"`
	EstimatedDuration string              `json:"estimatedDuration,omitempty"`
	Progress          string              `json:"progress,omitempty"`
	ProgressUpdated   string              `json:"progressUpdated,omitempty"`
	Priority          int                 `json:"priority,omitempty"`
	Keywords          map[string]bool     `json:"keywords,omitempty"`
	Locations         map[string]location `json:"locations,omitempty"`
	RelatedTo         map[string]relation `json:"relatedTo,omitempty"`
	Links             map[string]link     `json:"links,omitempty"`
	Rules             []rule              `json:"recurrenceRules,omitempty"`
	Overrides         map[string]override `json:"recurrenceOverrides,omitempty"`
	Alerts            map[string]alert    `json:"alerts,omitempty"`

	Note          bool           `json:"tincup.example:note,omitempty"`
	Plan          string         `json:"tincup.example:plan,omitempty"`
	Concentration string         `json:"tincup.example:concentration,omitempty"`
	InOrder       bool           `json:"tincup.example:inOrder,omitempty"`
	Outcome       string         `json:"tincup.example:outcome,omitempty"`
	Handful       string         `json:"tincup.example:handful,omitempty"`
	Person        *person        `json:"tincup.example:person,omitempty"`
	List          string         `json:"tincup.example:list,omitempty"`
	Section       string         `json:"tincup.example:section,omitempty"`
	SourceWords   string         `json:"tincup.example:sourceWords,omitempty"`
	Tags          []string       `json:"tincup.example:tags,omitempty"`
	Reminders     []string       `json:"tincup.example:reminders,omitempty"`
	Repeat        *repeat.Repeat `json:"tincup.example:repeat,omitempty"`
	OwnStart      string         `json:"tincup.example:start,omitempty"`
}

type person struct {
	Name  string `json:"name"`
	Role  string `json:"role"`
	Since string `json:"since,omitempty"`
}

type location struct {
	Type        string `json:"@type"`
	Name        string `json:"name,omitempty"`
	Coordinates string `json:"coordinates,omitempty"` // a geo URI (section 4.2.5)
}

type relation struct {
	Type     string          `json:"@type"`
	Relation map[string]bool `json:"relation"`
}

type link struct {
	Type string `json:"@type"`
	Href string `json:"href"`
}

// rule is a RecurrenceRule (section 4.3.3).
type rule struct {
	Type       string   `json:"@type"`
	Frequency  string   `json:"frequency"`
	Interval   int      `json:"interval,omitempty"`
	RScale     string   `json:"rscale,omitempty"`
	Skip       string   `json:"skip,omitempty"`
	FirstDay   string   `json:"firstDayOfWeek,omitempty"`
	ByDay      []nday   `json:"byDay,omitempty"`
	ByMonthDay []int    `json:"byMonthDay,omitempty"`
	ByMonth    []string `json:"byMonth,omitempty"`
	ByYearDay  []int    `json:"byYearDay,omitempty"`
	ByWeekNo   []int    `json:"byWeekNo,omitempty"`
	BySetPos   []int    `json:"bySetPosition,omitempty"`
	ByHour     []int    `json:"byHour,omitempty"`
	ByMinute   []int    `json:"byMinute,omitempty"`
	Count      int      `json:"count,omitempty"`
	Until      string   `json:"until,omitempty"`
}

type nday struct {
	Type string `json:"@type"`
	Day  string `json:"day"`
	Nth  int    `json:"nthOfPeriod,omitempty"`
}

type override struct {
	Excluded bool `json:"excluded,omitempty"`
}

// alert is an Alert (section 4.5.2).
type alert struct {
	Type    string  `json:"@type"`
	Trigger trigger `json:"trigger"`
}

type trigger struct {
	Type       string `json:"@type"`
	Offset     string `json:"offset,omitempty"`
	RelativeTo string `json:"relativeTo,omitempty"`
	When       string `json:"when,omitempty"`
}

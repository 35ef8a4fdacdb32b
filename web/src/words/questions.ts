import { choices } from "./choices";

/** What a line of the builder can ask, in plain words. */

/** What is filled in behind the words of a test. */
export type Wants =
  "nothing" | "text" | "ids" | "words" | "date" | "days" | "between" | "times" | "minutes";

export interface Asking {
  op: string;
  /** The test stands behind a not. */
  not?: boolean;
  words: string;
  wants: Wants;
}

export interface FieldWords {
  field: string;
  name: string;
  asks: Asking[];
  /** Of a closed set: its values and their names. */
  values?: { value: string; name: string }[];
}

const noneOrSome = (absent?: [string, string]): Asking[] =>
  absent
    ? [
        { op: "none", words: absent[0], wants: "nothing" },
        { op: "none", not: true, words: absent[1], wants: "nothing" },
      ]
    : [];
const dates = (none: [string, string] | undefined): Asking[] => [
  { op: "within-next", words: "within the next", wants: "days" },
  { op: "within-past", words: "within the past", wants: "days" },
  { op: "before", words: "before", wants: "date" },
  { op: "on", words: "on", wants: "date" },
  { op: "after", words: "after", wants: "date" },
  { op: "between", words: "from one day to another", wants: "between" },
  ...noneOrSome(none),
  { op: "within-next", not: true, words: "not within the next", wants: "days" },
  { op: "before", not: true, words: "not before", wants: "date" },
  { op: "after", not: true, words: "not after", wants: "date" },
  { op: "on", not: true, words: "not on", wants: "date" },
];
const times: Asking = { op: "time-between", words: "at a time from", wants: "times" };
const flag = (field: string, name: string): FieldWords => ({
  field,
  name,
  asks: [
    { op: "yes", words: "yes", wants: "nothing" },
    { op: "no", words: "no", wants: "nothing" },
  ],
});
const oneOf = (none?: [string, string]): Asking[] => [
  { op: "any-of", words: "is any of", wants: "ids" },
  { op: "any-of", not: true, words: "is none of", wants: "ids" },
  ...noneOrSome(none),
];
const words: Asking[] = [
  { op: "any-of", words: "is any of", wants: "words" },
  { op: "any-of", not: true, words: "is none of", wants: "words" },
];

export const fields: FieldWords[] = [
  {
    field: "tag",
    name: "tag",
    asks: [
      { op: "any-of", words: "is any of", wants: "ids" },
      { op: "all-of", words: "is all of", wants: "ids" },
      { op: "none-of", words: "is none of", wants: "ids" },
      { op: "none", words: "is none at all", wants: "nothing" },
      { op: "none", not: true, words: "is one at least", wants: "nothing" },
    ],
  },
  { field: "list", name: "list", asks: oneOf(["is none: the Cup", "is one, not the Cup"]) },
  { field: "shelf", name: "shelf of its list", asks: oneOf() },
  { field: "section", name: "section", asks: oneOf(["is none", "is one"]) },
  { field: "due", name: "due", asks: [...dates(["is none", "is set"]), times] },
  {
    field: "plan",
    name: "plan",
    asks: [
      ...dates(["is none", "is set"]),
      { op: "parked", words: "is parked", wants: "nothing" },
      { op: "parked", not: true, words: "is not parked", wants: "nothing" },
      times,
    ],
  },
  { field: "start", name: "start", asks: dates(["is none", "is set"]) },
  { field: "created", name: "put in", asks: dates(undefined) },
  { field: "completed", name: "closed", asks: dates(["not yet", "already"]) },
  flag("overdue", "overdue"),
  ...choices.map((c): FieldWords => ({
    field: c.field,
    name: c.name,
    asks: [...words, ...noneOrSome(c.absent)],
    values: c.values
      .slice(c.absent ? 1 : 0)
      .map((v) => ({ value: v.value, name: v.name.toLowerCase() })),
  })),
  {
    field: "estimate",
    name: "estimate",
    asks: [
      { op: "at-most", words: "is at most", wants: "minutes" },
      { op: "at-least", words: "is at least", wants: "minutes" },
      { op: "none", words: "is none", wants: "nothing" },
      { op: "none", not: true, words: "is set", wants: "nothing" },
    ],
  },
  {
    field: "slack",
    name: "slack",
    asks: [
      { op: "at-most", words: "is at most", wants: "minutes" },
      { op: "at-least", words: "is at least", wants: "minutes" },
      { op: "none", words: "is none: no due ahead", wants: "nothing" },
      { op: "none", not: true, words: "is known: a due ahead", wants: "nothing" },
    ],
  },
  { field: "person", name: "person", asks: oneOf(["is nobody", "is somebody"]) },
  {
    field: "role",
    name: "role",
    asks: words,
    values: [
      { value: "ask", name: "to ask" },
      { value: "waiting on", name: "waiting on" },
      { value: "for", name: "for them" },
    ],
  },
  {
    field: "status",
    name: "status",
    asks: words,
    values: [
      { value: "needs-action", name: "not begun" },
      { value: "in-process", name: "begun" },
      { value: "completed", name: "completed" },
      { value: "cancelled", name: "cancelled" },
    ],
  },
  {
    field: "text",
    name: "title or notes",
    asks: [
      { op: "contains", words: "hold", wants: "text" },
      { op: "contains", not: true, words: "do not hold", wants: "text" },
    ],
  },
  {
    field: "place",
    name: "place",
    asks: [
      { op: "contains", words: "holds", wants: "text" },
      { op: "contains", not: true, words: "does not hold", wants: "text" },
      { op: "none", words: "is none", wants: "nothing" },
      { op: "none", not: true, words: "is set", wants: "nothing" },
    ],
  },
  flag("repeating", "repeating"),
  flag("paused", "paused"),
  flag("has-subtasks", "has subtasks"),
  flag("is-subtask", "is a subtask"),
  flag("next-action", "next action"),
  flag("attachment", "has a file"),
  flag("in-handful", "in the handful"),
  flag("planned-past-due", "planned past its due"),
  flag("at-risk", "at risk: more is due by then than can be done"),
  {
    field: "kind",
    name: "kind",
    asks: words,
    values: [
      { value: "to-do", name: "to-do" },
      { value: "note", name: "note" },
    ],
  },
];

export const fieldOf = (name: string) => fields.find((f) => f.field === name) ?? fields[0]!;

export const groupings = [
  { value: "", name: "nothing" },
  { value: "due", name: "due day" },
  { value: "plan", name: "plan" },
  ...choices.map((c) => ({ value: c.field as string, name: c.name })),
  { value: "list", name: "list" },
  { value: "shelf", name: "shelf" },
  { value: "tag", name: "tag" },
  { value: "person", name: "person" },
  { value: "status", name: "status" },
  { value: "estimate", name: "estimate" },
];

export const orderings = [
  { value: "", name: "priority, then due" },
  { value: "priority", name: "priority, high first" },
  { value: "due", name: "due, the next first" },
  { value: "-due", name: "due, the last first" },
  { value: "plan", name: "plan" },
  { value: "start", name: "start" },
  { value: "estimate", name: "estimate, short first" },
  { value: "-estimate", name: "estimate, long first" },
  { value: "title", name: "title" },
  { value: "created", name: "age, the oldest first" },
  { value: "-created", name: "age, the newest first" },
  { value: "-changed", name: "change, the latest first" },
  { value: "own", name: "your own order" },
];

import type { Layer } from "./layers";

/** A key as it is written in the help, and what it does. */
export interface KeyHelp {
  keys: string[];
  does: string;
  /** What it opens above the page. */
  opens?: Layer;
  group:
    | "Everywhere"
    | "In a line"
    | "On a row"
    | "In a list"
    | "In columns"
    | "In the week"
    | "In a review"
    | "Many at once"
    | "Go to";
}

/** Every key that works, as `?` lists them. */
export const keyHelp: KeyHelp[] = [
  { group: "Everywhere", keys: ["n"], does: "put something in" },
  { group: "In a line", keys: ["Enter"], does: "put in what was understood" },
  { group: "In a line", keys: ["Ctrl Enter"], does: "put it in and open its slip" },
  { group: "In a line", keys: ["Alt Enter"], does: "put it in exactly as typed" },
  { group: "In a line", keys: ["Tab"], does: "take the first that is offered" },
  { group: "In a line", keys: ["↑"], does: "bring the last sentence back, in an empty line" },
  { group: "Everywhere", keys: ["/"], does: "search everything" },
  { group: "Everywhere", keys: ["f"], does: "narrow what is shown", opens: "narrow" },
  { group: "Everywhere", keys: ["a"], does: "answer what rings, and the bell", opens: "bell" },
  { group: "Everywhere", keys: ["Ctrl Z"], does: "undo the latest change of this window" },
  { group: "Everywhere", keys: ["Ctrl Shift Z"], does: "redo it" },
  { group: "Everywhere", keys: ["Esc"], does: "one step back" },
  { group: "Everywhere", keys: ["?"], does: "this list", opens: "keys" },
  { group: "On a row", keys: ["j", "↓"], does: "next row" },
  { group: "On a row", keys: ["k", "↑"], does: "row before" },
  { group: "On a row", keys: ["Enter"], does: "open its slip" },
  { group: "On a row", keys: ["Space"], does: "tick, or take the tick back" },
  { group: "On a row", keys: ["e"], does: "edit the title in place" },
  { group: "On a row", keys: ["l"], does: "choose a list", opens: "list" },
  { group: "On a row", keys: ["d"], does: "choose the due", opens: "due" },
  { group: "On a row", keys: ["r"], does: "choose how it repeats", opens: "repeat" },
  { group: "On a row", keys: ["t"], does: "tags", opens: "tags" },
  { group: "On a row", keys: ["p", "Shift P"], does: "priority up, down" },
  { group: "On a row", keys: ["m"], does: "say how long it takes", opens: "minutes" },
  { group: "On a row", keys: ["1", "…", "7"], does: "plan for today and the next six days" },
  { group: "On a row", keys: ["8", "9", "0"], does: "plan for this week, next week, park" },
  { group: "On a row", keys: ["h"], does: "into today’s handful, or out" },
  { group: "On a row", keys: ["Delete"], does: "put in the bin" },
  { group: "In a list", keys: ["]", "["], does: "make a subtask of the row above, lift out" },
  { group: "In a list", keys: ["Alt ↑", "Alt ↓"], does: "move up, down" },
  { group: "In a list", keys: ["←", "→"], does: "fold subtasks away, show them" },
  { group: "In a list", keys: ["b"], does: "put in below this row" },
  { group: "In a list", keys: ["i"], does: "put in inside it, as a subtask" },
  { group: "In columns", keys: ["←", "→"], does: "to the card beside" },
  { group: "In columns", keys: ["<", ">"], does: "move it to the column beside" },
  { group: "In the week", keys: ["↑", "↓", "←", "→"], does: "to the next slip, to the cup beside" },
  { group: "In the week", keys: ["<", ">"], does: "plan it a day earlier, later" },
  { group: "In the week", keys: ["+", "-"], does: "a quarter of an hour more, less" },
  { group: "In the week", keys: ["Alt ↑", "Alt ↓"], does: "a quarter of an hour earlier, later" },
  { group: "In the week", keys: ["."], does: "take what is proposed for it" },
  { group: "In the week", keys: ["o"], does: "open the day’s cup, or close it" },
  { group: "In the week", keys: ["w"], does: "the day’s own working hours", opens: "hours" },
  { group: "In a review", keys: ["."], does: "leave it as it is, or keep it" },
  { group: "In a review", keys: ["c"], does: "let it go" },
  { group: "In a review", keys: ["b"], does: "take back what is waited for" },
  { group: "In a review", keys: ["i"], does: "put in what comes next in a project" },
  { group: "In a review", keys: ["m", "o"], does: "plan it for this month, for a day" },
  { group: "In a review", keys: ["<", ">"], does: "to the step before, after" },
  { group: "In a review", keys: ["Enter"], does: "open its slip; at the end, finish the review" },
  { group: "Many at once", keys: ["x"], does: "choose a row, or let it go" },
  { group: "Many at once", keys: ["Shift ↓", "Shift ↑"], does: "choose the next rows too" },
  { group: "Many at once", keys: ["Ctrl A"], does: "choose all, while some are chosen" },
  {
    group: "Many at once",
    keys: ["Shift M"],
    does: "give minutes to row after row that has none",
    opens: "minutes",
  },
  { group: "Many at once", keys: ["s"], does: "make room: postpone safely", opens: "make-room" },
  {
    group: "Go to",
    keys: ["g"],
    does: "find a page, setting or action by its name",
    opens: "finder",
  },
  { group: "Go to", keys: ["Shift 1", "…"], does: "what stands in that cup" },
];

/** Keys that act on a to-do, wherever it is the current one. */
export const isRowKey = (press: string) => /^([eldrtpmhbix\]\[ \d]|Shift\+P|Delete)$/.test(press);

/** Why a key does nothing where it is pressed. */
export const whyNot = {
  noRow: "There is no row here for this key.",
  oneRow: (chosen: number) =>
    `This acts on one row, and ${chosen} are chosen. Esc clears the choice.`,
  noRoom: "Make room is for Today, Overdue and rows that are chosen.",
  noNarrow: "What stands here cannot be narrowed.",
  noColumn: "There is no column on that side.",
  columns: "In columns nothing is made a subtask or lifted out: show it as rows.",
  highest: "Its priority is high already.",
  lowest: "It has no priority that could go down.",
  sameAlready: "It stands so already.",
  noSelecting: "Slips of the week are not chosen: each has its own keys.",
  noTitle: "A title is edited in its slip: Enter opens that.",
  noProposal: "Nothing is proposed for it.",
  noMinutesWalk: "Minutes are given row after row on a sheet. Here m gives them to one slip.",
  anEvent: "An event is no to-do: Enter opens it.",
};

import type { Group, Overview, Todo } from "@/server/client";
import { daysBetween, late, shortDay } from "./dates";
import { estimateWords } from "./fields";

export const walks = ["daily", "weekly", "monthly"] as const;
export type Walk = (typeof walks)[number];

export const walkNames: Record<Walk, string> = {
  daily: "Daily review",
  weekly: "Weekly review",
  monthly: "Monthly review",
};
export const walkWords: Record<Walk, string> = {
  daily: "The Cup, what slipped, and the day.",
  weekly:
    "The Cup, what slipped, what is waited for, projects that stand still, the months, and what nobody touched.",
  monthly: "This month’s plans, the next month’s, what is parked, and what nobody touched.",
};

/** When a walk was last gone through, as a date; undefined for never. */
export function lastOf(walk: Walk, settings: Record<string, string> | undefined) {
  const value = settings?.[`reviewed${walk[0]!.toUpperCase()}${walk.slice(1)}`];
  return value && value !== "never" ? value : undefined;
}
/** "last done 3 days ago", "not done yet" */
export function lastWords(last: string | undefined, today: string): string {
  if (!last) return "not done yet";
  const n = daysBetween(today, last);
  if (n <= 0) return "done today";
  if (n === 1) return "last done yesterday";
  return n < 15 ? `last done ${n} days ago` : `last done ${shortDay(last, today)}`;
}
/** In the index: how long ago the last walk of any kind was. */
export function lastReviewed(o: Overview): string {
  const all = walks.flatMap((w) => lastOf(w, o.settings) ?? []).sort();
  const last = all.at(-1);
  if (!last) return "";
  const n = daysBetween(o.today, last);
  return n <= 0 ? "today" : n === 1 ? "yesterday" : `${n} days ago`;
}

export type StepKind = Group["kind"];

/** What is done in a walk to the one to-do that is asked about. */
export type Act =
  | "tick"
  | "today"
  | "tomorrow"
  | "this-week"
  | "next-week"
  | "this-month"
  | "plan"
  | "park"
  | "list"
  | "due"
  | "let-go"
  | "bin"
  | "leave"
  | "keep"
  | "handful"
  | "take-back"
  | "next-action";

/** Each act's key, as it is pressed and as it is written. */
export const actKeys: Record<Act, { press: string; key: string }> = {
  tick: { press: " ", key: "Space" },
  today: { press: "1", key: "1" },
  tomorrow: { press: "2", key: "2" },
  "this-week": { press: "8", key: "8" },
  "next-week": { press: "9", key: "9" },
  "this-month": { press: "m", key: "m" },
  plan: { press: "o", key: "o" },
  park: { press: "0", key: "0" },
  list: { press: "l", key: "l" },
  due: { press: "d", key: "d" },
  "let-go": { press: "c", key: "c" },
  bin: { press: "Delete", key: "Delete" },
  leave: { press: ".", key: "." },
  keep: { press: ".", key: "." },
  handful: { press: "h", key: "h" },
  "take-back": { press: "b", key: "b" },
  "next-action": { press: "i", key: "i" },
};

const names: Record<Act, string> = {
  tick: "Done",
  today: "Today",
  tomorrow: "Tomorrow",
  "this-week": "This week",
  "next-week": "Next week",
  "this-month": "This month",
  plan: "On a day…",
  park: "Park",
  list: "List…",
  due: "Due…",
  "let-go": "Let it go",
  bin: "Bin",
  leave: "Leave it",
  keep: "Keep it",
  handful: "Into the handful",
  "take-back": "Take it back",
  "next-action": "Add what comes next…",
};

/** A step: its name beneath its cup, what it asks of each to-do, and the acts that fit. */
export interface Step {
  name: string;
  asks: (todo: Todo, today: string) => string;
  acts: Act[];
  /** Names of acts that mean something of their own here. */
  names?: Partial<Record<Act, string>>;
}

const always = (words: string) => () => words;
export const steps: Partial<Record<StepKind, Step>> = {
  "to-sort": {
    name: "In the Cup",
    asks: always("Where does it belong, and when?"),
    acts: ["list", "due", "today", "this-week", "next-week", "park", "tick", "bin", "leave"],
  },
  slipped: {
    name: "Slipped",
    asks: (t, today) => {
      const days = t.due ? daysBetween(today, t.due.slice(0, 10)) : -1;
      if (days < 0) return "Its day has passed. When instead?";
      const due = days === 0 ? "Due today" : days === 1 ? "Due yesterday" : late(days);
      return `${due}. Is it still to be done?`;
    },
    acts: ["today", "tomorrow", "due", "this-week", "next-week", "park", "tick", "let-go", "leave"],
  },
  "waited-for": {
    name: "Waited for",
    asks: always("Has it come? Is it time to ask again?"),
    acts: ["today", "take-back", "tick", "let-go", "leave"],
    names: { today: "Ask again today", "take-back": "Do it myself", tick: "It has come" },
  },
  stuck: {
    name: "Standing still",
    asks: always("What is the next thing to do in it?"),
    acts: ["next-action", "this-week", "park", "tick", "let-go", "leave"],
  },
  "this-month": {
    name: "This month",
    asks: always("Which week, or not after all?"),
    acts: ["today", "this-week", "next-week", "plan", "park", "tick", "let-go", "leave"],
  },
  "next-month": {
    name: "Next month",
    asks: always("Does it still belong there?"),
    acts: ["this-week", "next-week", "this-month", "plan", "park", "tick", "let-go", "leave"],
  },
  parked: {
    name: "Parked",
    asks: always("Is its time coming?"),
    acts: ["this-week", "next-week", "this-month", "plan", "tick", "let-go", "bin", "leave"],
  },
  untouched: {
    name: "Untouched",
    asks: always("Nobody has touched it for 60 days. Is it still meant?"),
    acts: ["keep", "this-week", "next-week", "park", "tick", "let-go", "bin"],
  },
  "the-day": {
    name: "The day",
    asks: always("Is it one of the few that matter today?"),
    acts: ["handful", "today", "tomorrow", "next-week", "tick", "leave"],
  },
};
export const actName = (step: StepKind, act: Act) => steps[step]?.names?.[act] ?? names[act];

/** What was decided, told at the end: "3 done, 2 planned, 1 let go, 4 left as they were". */
const told: Record<Act, string> = {
  tick: "done",
  today: "planned",
  tomorrow: "planned",
  "this-week": "planned",
  "next-week": "planned",
  "this-month": "planned",
  plan: "planned",
  park: "parked",
  list: "sorted",
  due: "sorted",
  "let-go": "let go",
  bin: "put in the bin",
  leave: "left as they were",
  keep: "kept",
  handful: "in the handful",
  "take-back": "taken back",
  "next-action": "given a next action",
};
export function decidedWords(all: Act[]): string {
  const counts = new Map<string, number>();
  for (const act of all) counts.set(told[act], (counts.get(told[act]) ?? 0) + 1);
  const said = [...counts].map(([words, n]) => `${n} ${words}`);
  return said.length ? said.join(", ") : "nothing yet";
}

/** How long a walk has taken so far. */
export const tookWords = (minutes: number) =>
  minutes < 1 ? "Under a minute so far." : `${estimateWords(minutes)} so far.`;

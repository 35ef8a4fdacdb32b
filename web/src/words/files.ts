import type { components } from "@/server/schema";
import { fieldNames } from "./clash";
import { shortMoment } from "./dates";

type Preview = components["schemas"]["ImportPreview"];
type Row = components["schemas"]["ImportRow"];
type Progress = components["schemas"]["ImportProgress"];

/** What becomes of a row, in a word. */
export const whatWords: Record<Row["what"], string> = {
  new: "new",
  changed: "changed",
  same: "the same",
  refused: "left out",
};

/** How a new one comes in that is not open. */
export const closedWords: Record<NonNullable<Row["closed"]>, string> = {
  completed: "done",
  cancelled: "cancelled",
};

/** "12 new, 3 changed, 1 left out", the parts that are none left away. */
export function countWords(p: Preview): string {
  if (p.format === "everything") return "Everything of another installation, for this empty one";
  if (p.reason) return "Not read yet";
  const parts = (["new", "changed", "same", "refused"] as const).flatMap((what) =>
    p[what] ? [`${p[what]} ${whatWords[what]}`] : [],
  );
  if (p.toNotes)
    parts.push(
      p.toNotes === 1 ? "1 value goes to the notes" : `${p.toNotes} values go to the notes`,
    );
  return parts.length ? parts.join(", ") : "no to-do in it";
}

/** What is said while a file is read or brought in: "Working out 3400 of 10000 …". */
export function progressWords(size: number, keeping: boolean, is?: Progress): string {
  if (is && (is.stage === "working" || (is.stage === "keeping" && !keeping)))
    return `Working out ${is.done} of ${is.total} …`;
  if (is?.stage === "keeping") return "Keeping them …";
  return size < 1 << 20 ? "Reading …" : `Reading ${Math.round(size / (1 << 20))} MB …`;
}

/** What is said of files whose previews come after this one. */
export const behindWords = (names: string[]) =>
  names.length === 1 ? `After it comes ${names[0]}.` : `${names.length} more files come after it.`;

/** Which fields of a row would change: "due: 27 Nov → 30 Nov". */
export function changeWords(row: Row, today: string): string {
  const value = (field: string, v?: string) =>
    v && ["due", "start"].includes(field) ? shortMoment(v, today) : (v ?? "none");
  return (row.fields ?? [])
    .map(({ field, was, is }) => {
      const name = (fieldNames as Record<string, string>)[field] ?? field;
      return was || is ? `${name}: ${value(field, was)} → ${value(field, is)}` : name;
    })
    .join(", ");
}

/** What the button does that brings so many in. */
export function bringWords(n: number, everything = false): string {
  if (everything) return "Move everything in";
  if (n === 0) return "Nothing to bring in";
  return n === 1 ? "Bring in 1 to-do" : `Bring in ${n} to-dos`;
}

/** What is said of dropped files that hold no to-dos. */
export function noTodosWords(names: string[]): string {
  const they = names.map((name) => `“${name}”`).join(", ");
  return names.length === 1
    ? `${they} holds no to-dos. Drop it on the capture line or on a slip to keep it with a to-do.`
    : `${they} hold no to-dos. Drop them on the capture line or on a slip to keep them with a to-do.`;
}

/** How many columns of a table are known. */
export function columnWords(all: number, unknown: number): string {
  const of = all === 1 ? "1 column" : `${all} columns`;
  if (unknown === 0) return `${of}, all of them known`;
  return `${of}, ${unknown} of them not known`;
}

/** Which daily copies there are. */
export function copiesWords(days: string[], today: string): string {
  if (!days.length)
    return "There is no copy yet. One is made a minute after the start; of the demo none is.";
  const newest = `The newest is of ${shortMoment(days[0]!, today)}`;
  const oldest = days.at(-1)!;
  return days.length === 1
    ? `${newest}; it is the only one.`
    : `${newest}, the oldest of ${shortMoment(oldest, today)}; there are ${days.length}.`;
}

/** The ways in which values of a column can be read, in words. */
export const formWords: Record<string, string> = {
  "day-first": "the day first",
  "month-first": "the month first",
  "1-high": "1 is high",
  "1-low": "the largest is high",
  "1-to-9": "1 to 4 are high, 6 to 9 low",
};

/** What is asked of to-dos that look like ones that are there. */
export const likeWords = (n = 0) =>
  n === 0
    ? "Leave out what looks like one you have"
    : `Leave out ${n === 1 ? "the one that looks" : `the ${n} that look`} like one you have, by title, list and due`;

/** What of a file is not taken over: "Not taken over: ATTENDEE in 12, GEO in 1". */
export const passedWords = (passed: { name: string; count: number }[]) =>
  `Not taken over: ${passed.map((p) => `${p.name} in ${p.count}`).join(", ")}`;

import type { components } from "@/server/schema";
import { instantWords, longDay } from "./dates";

type Calendar = components["schemas"]["Calendar"];

/** "64 events in the year ahead, read Tue 24 Nov, 09:10", and how old that is where it matters. */
export function readWords(c: Calendar, zone: string): string {
  const events = c.events === 1 ? "1 event" : `${c.events || "No"} events`;
  const when = c.changed ? `as read ${instantWords(c.changed, zone)}` : "not read yet";
  const asked =
    c.asked && c.asked !== c.changed
      ? `${c.problem ? "last tried" : "the same when asked"} ${instantWords(c.asked, zone)}`
      : "";
  return [`${events} in the year ahead`, when, asked].filter(Boolean).join(", ") + ".";
}

/** "and 30 more events", of what is not listed; "" for none. */
export const moreWords = (more = 0) =>
  more ? `and ${more} more ${more === 1 ? "event" : "events"}` : "";

type Happening = components["schemas"]["Happening"];

/** "Thursday 26 November, 14:00 to 16:00", "Thursday 26 November, all day" */
export function timeWords(e: Happening, day: string, today: string): string {
  if (!e.from || !e.to) return `${longDay(day, today)}, all day`;
  const to =
    e.to.slice(0, 10) === e.from.slice(0, 10) ? "" : `${longDay(e.to.slice(0, 10), today)} `;
  return `${longDay(e.from.slice(0, 10), today)}, ${e.from.slice(11)} to ${to}${e.to.slice(11)}`;
}

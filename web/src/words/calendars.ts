import type { components } from "@/server/schema";
import { instantWords } from "./dates";

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

import type { components } from "@/server/schema";
import { addDays, daysBetween, monthName, railDay, shortMonth } from "./dates";
import { estimateWords } from "./fields";
import { fillOf } from "./load";

type WeekDay = components["schemas"]["WeekDay"];
type Week = components["schemas"]["Week"];

/** "23 to 29 November", "30 November to 6 December" */
export function spanOf(first: string): string {
  const last = addDays(first, 6);
  const day = (d: string) => String(Number(d.slice(8)));
  const from =
    first.slice(0, 7) === last.slice(0, 7) ? day(first) : `${day(first)} ${monthName(first)}`;
  return `${from} to ${day(last)} ${monthName(last)}`;
}

/** "14 h 20 of work, 21 h 30 of hours", "no work, 7 h 30 of hours", of the days that are not over. */
export function sumOf(week: Week): string {
  const work = week.days.reduce((sum, d) => sum + d.load.minutes, 0);
  const hours = week.days.reduce((sum, d) => sum + (d.load.capacity ?? 0), 0);
  return `${work ? `${estimateWords(work)} of work` : "no work"}, ${hours ? `${estimateWords(hours)} of hours` : "no hours"}`;
}

/** "6 h 45 of 7 h", beneath a cup. */
export function dayHours(d: WeekDay, today: string): string {
  if (d.day < today) return d.done.length ? `${d.done.length} done` : "";
  const { minutes, capacity = 0 } = d.load;
  if (!capacity) return minutes ? `${estimateWords(minutes)}, no hours` : "no hours";
  return `${minutes ? estimateWords(minutes) : "0 h"} of ${estimateWords(capacity)}`;
}

/** "1 h 15 over"; "" where it is not. What lies on a day without hours is outside of them. */
export function overOf(d: WeekDay): string {
  const { over } = fillOf(d.load, d.slips.length);
  return over && d.worked ? `${estimateWords(over)} over` : "";
}

/** "Wednesday 25 November, 6 h 45 of 7 h; ten slips", as it is read out. */
export function dayName(d: WeekDay, today: string): string {
  const n = daysBetween(d.day, today);
  const when = n === 0 ? "Today, " : n === 1 ? "Tomorrow, " : "";
  const slips = d.day < today ? "" : `${d.slips.length} ${d.slips.length === 1 ? "slip" : "slips"}`;
  const events = d.events.length
    ? `${d.events.length} ${d.events.length === 1 ? "event" : "events"}`
    : "";
  return `${when}${railDay(d.day)} ${shortMonth(d.day)}: ${[dayHours(d, today), overOf(d), slips, events].filter(Boolean).join(", ")}`;
}

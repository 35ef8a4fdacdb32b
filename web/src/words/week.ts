import type { components } from "@/server/schema";
import { addDays, daysBetween, monthName, railDay, shortMonth } from "./dates";
import { estimateWords } from "./fields";
import { fillOf, ownWords } from "./load";

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
  if (d.day < today) return d.doneCount ? `${d.doneCount} done` : "";
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
  const count = d.slips.length + (d.more ?? 0);
  const slips = d.day < today ? "" : `${count} ${count === 1 ? "slip" : "slips"}`;
  const happens = d.events.length + (d.moreEvents ?? 0);
  const events = happens ? `${happens} ${happens === 1 ? "event" : "events"}` : "";
  return `${when}${railDay(d.day)} ${shortMonth(d.day)}: ${[dayHours(d, today), overOf(d), ownWords(d.load), slips, events].filter(Boolean).join(", ")}`;
}

/** Hours that a date may have in the place of its weekday's. */
export interface HourChoice {
  key: string;
  name: string;
  words: string;
  /** null is as usual. */
  hours: string | null;
  now: boolean;
}

const minutesAt = (time: string) => Number(time.slice(0, 2)) * 60 + Number(time.slice(3, 5));
const timeAt = (minutes: number) =>
  `${String(Math.floor(minutes / 60)).padStart(2, "0")}:${String(minutes % 60).padStart(2, "0")}`;

/** Away, short, long and as usual; or what is typed. */
export function hourChoices(d: WeekDay, typed: string): HourChoice[] {
  const text = typed.trim();
  if (text) return [{ key: "typed", name: text, words: "", hours: text, now: false }];
  const usual = d.usual && d.usual !== "none" ? d.usual.split(", ") : [];
  const spans = usual.map((s) => s.split("-") as [string, string]);
  const [first] = spans;
  const last = spans.at(-1);
  let short = first ? first.join("-") : "09:00-12:00";
  if (first && spans.length === 1) {
    const [from, to] = [minutesAt(first[0]), minutesAt(first[1])];
    short = `${first[0]}-${timeAt(Math.max(from + 15, Math.floor((from + to) / 30) * 15))}`;
  }
  const long = last
    ? [...usual.slice(0, -1), `${last[0]}-${timeAt(Math.min(minutesAt(last[1]) + 120, 1440))}`]
    : ["09:00-12:30", "13:30-17:30"];
  const now = d.hours.map((h) => `${h.from.slice(11)}-${h.to.slice(11)}`).join(", ") || "none";
  const own = (hours: string) => Boolean(d.apart) && now === hours;
  return [
    {
      key: "usual",
      name: "As usual",
      words: usual.join(", ") || "no hours",
      hours: null,
      now: !d.apart,
    },
    { key: "away", name: "Away", words: "no hours", hours: "none", now: own("none") },
    { key: "short", name: "Short", words: short, hours: short, now: own(short) },
    {
      key: "long",
      name: "Long",
      words: long.join(", "),
      hours: long.join(", "),
      now: own(long.join(", ")),
    },
  ];
}

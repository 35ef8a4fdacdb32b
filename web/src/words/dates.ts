/** Words for civil dates. "Today" always comes from the server. */

const dayMs = 86_400_000;
const at = (date: string) => Date.parse(`${date}T00:00:00Z`);
/** A date that an address invented stays as it was written. */
const text = (date: string, options: Intl.DateTimeFormatOptions) =>
  Number.isNaN(at(date))
    ? date
    : new Intl.DateTimeFormat("en-GB", { timeZone: "UTC", ...options }).format(at(date));

export const addDays = (date: string, n: number) =>
  new Date(at(date) + n * dayMs).toISOString().slice(0, 10);

/** Days from b to a: positive when a is later. */
export const daysBetween = (a: string, b: string) => Math.round((at(a) - at(b)) / dayMs);

export const weekday = (date: string) => text(date, { weekday: "short" });
export const monthName = (date: string) => text(date, { month: "long" });
export const shortMonth = (date: string) => text(date, { month: "short" });

/** "Tue 24" */
export const railDay = (date: string) => `${weekday(date)} ${Number(date.slice(8))}`;

/** "Tuesday 24 November", with the year when it is another one. */
export function longDay(date: string, today: string): string {
  const day = `${text(date, { weekday: "long" })} ${Number(date.slice(8))} ${monthName(date)}`;
  return date.slice(0, 4) === today.slice(0, 4) ? day : `${day} ${date.slice(0, 4)}`;
}

/** "Tue 24 Nov", likewise. */
export function halfDay(date: string, today: string): string {
  const day = `${railDay(date)} ${shortMonth(date)}`;
  return date.slice(0, 4) === today.slice(0, 4) ? day : `${day} ${date.slice(0, 4)}`;
}

/** "today", "tomorrow", "Fri 27", "8 Dec", "8 Dec 2027" */
export function shortDay(date: string, today: string): string {
  const n = daysBetween(date, today);
  if (n === 0) return "today";
  if (n === 1) return "tomorrow";
  if (n === -1) return "yesterday";
  if (n > 1 && n < 7) return railDay(date);
  const day = `${Number(date.slice(8))} ${shortMonth(date)}`;
  return date.slice(0, 4) === today.slice(0, 4) ? day : `${day} ${date.slice(0, 4)}`;
}

/** A date or date with time, in short words. */
export function shortMoment(moment: string, today: string): string {
  const [date, time] = moment.split("T") as [string, string?];
  return time ? `${shortDay(date, today)} ${time}` : shortDay(date, today);
}

/** "Fri 27 Nov 2026, 16:00" */
export function fullMoment(moment: string): string {
  const [date, time] = moment.split("T") as [string, string?];
  const day = `${railDay(date)} ${shortMonth(date)} ${date.slice(0, 4)}`;
  return time ? `${day}, ${time}` : day;
}

export const late = (days: number) =>
  days === 0 ? "earlier today" : days === 1 ? "yesterday" : `${days} days late`;

const monday = (date: string) => addDays(date, -((new Date(at(date)).getUTCDay() + 6) % 7));

/** The Monday of an ISO week such as 2026-W48. */
export function weekStart(week: string): string {
  const jan4 = `${week.slice(0, 4)}-01-04`;
  return addDays(monday(jan4), 7 * (Number(week.slice(6)) - 1));
}

/** The ISO week of a date, such as 2026-W48. */
export function isoWeek(date: string): string {
  const thursday = addDays(monday(date), 3);
  const first = `${thursday.slice(0, 4)}-01-01`;
  const n = Math.floor(daysBetween(thursday, first) / 7) + 1;
  return `${thursday.slice(0, 4)}-W${String(n).padStart(2, "0")}`;
}

export type Precision = "day" | "week" | "month" | "parked";

export function precision(horizon: string): Precision {
  if (horizon === "parked") return "parked";
  if (horizon.includes("W")) return "week";
  return horizon.length === 7 ? "month" : "day";
}

/** A plan as a person says it, seen from today. */
export function planWords(plan: string, today: string): string {
  switch (precision(plan)) {
    case "parked":
      return "parked";
    case "week": {
      if (plan === isoWeek(today)) return "this week";
      if (plan === isoWeek(addDays(today, 7))) return "next week";
      return `week of ${shortDay(weekStart(plan), today)}`;
    }
    case "month": {
      if (plan === today.slice(0, 7)) return "this month";
      const name = monthName(`${plan}-01`);
      return plan.slice(0, 4) === today.slice(0, 4) ? name : `${name} ${plan.slice(0, 4)}`;
    }
    case "day": {
      const [moment, length] = plan.split("/") as [string, string?];
      const words = shortMoment(moment, today);
      return length ? `${words} for ${minutes(length)}` : words;
    }
  }
}

/** "PT90M" as "1 h 30 min" */
export function minutes(duration: string): string {
  const total = Number(/^PT(\d+)M$/.exec(duration)?.[1] ?? 0);
  const h = Math.floor(total / 60);
  const m = total % 60;
  return [h ? `${h} h` : "", m ? `${m} min` : ""].filter(Boolean).join(" ");
}

/** A server that cannot name its zone stands on this machine, in the browser's own. */
const named = (zone: string) => (zone === "Local" ? undefined : zone);

/** An instant as the person's wall shows it. */
export function instantWords(instant: string, zone: string): string {
  return new Intl.DateTimeFormat("en-GB", {
    timeZone: named(zone),
    weekday: "short",
    day: "numeric",
    month: "short",
    hour: "2-digit",
    minute: "2-digit",
  }).format(new Date(instant));
}

/** "16:05" */
export const instantTime = (instant: string, zone: string) =>
  new Intl.DateTimeFormat("en-GB", {
    timeZone: named(zone),
    hour: "2-digit",
    minute: "2-digit",
  }).format(new Date(instant));

/** The civil date of an instant. */
export const instantDay = (instant: string, zone: string) =>
  new Intl.DateTimeFormat("sv-SE", {
    timeZone: named(zone),
    year: "numeric",
    month: "2-digit",
    day: "2-digit",
  }).format(new Date(instant));

import type { Overview, Todo } from "@/server/client";
import { choiceName, choiceNames, choices, chosen } from "./choices";
import { fullMoment, planWords, shortDay } from "./dates";
import { listById } from "./names";

const months = ["Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec"];

/** A moment as the capture line reads it: "27 Nov 2026 16:00". */
export function sayMoment(moment: string): string {
  const [date = "", time] = moment.split("T");
  const day = `${Number(date.slice(8))} ${months[Number(date.slice(5, 7)) - 1]} ${date.slice(0, 4)}`;
  return time ? `${day} ${time}` : day;
}

/** A plan as the capture line reads it. */
export function sayPlan(plan: string): string {
  const [moment = "", length] = plan.split("/");
  if (!length) return plan === "parked" ? plan : `plan ${plan}`;
  return `plan ${sayMoment(moment)} for ${/\d+/.exec(length)?.[0] ?? 30} min`;
}

/** "20 min", "1 h", "1 h 30" */
export function estimateWords(minutes: number): string {
  const h = Math.floor(minutes / 60);
  const m = minutes % 60;
  if (!h) return `${m} min`;
  return m ? `${h} h ${String(m).padStart(2, "0")}` : `${h} h`;
}

/** Work of which some may be assumed: "1 h 40", "1 h 40, 1 h of it assumed", "30 min assumed"; short "1 h 40?". */
export function workWords(minutes: number, assumed: number, short = false): string {
  const all = estimateWords(minutes);
  if (!assumed) return all;
  if (short) return `${all}?`;
  return assumed === minutes ? `${all} assumed` : `${all}, ${estimateWords(assumed)} of it assumed`;
}

/** The minutes that "20", "45 min", "2h", "1h30" and "1 h 30 min" mean; undefined for no such thing. */
export function minutesOf(text: string): number | undefined {
  const [, hours, rest, alone] =
    /^(?:(\d{1,3})\s*h(?:\s*(\d{1,2})(?:\s*m(?:in)?)?)?|(\d{1,5})(?:\s*m(?:in)?)?)$/i.exec(
      text.trim(),
    ) ?? [];
  const minutes = hours ? Number(hours) * 60 + Number(rest ?? 0) : Number(alone ?? 0);
  return minutes > 0 && minutes <= 60_000 ? minutes : undefined;
}

const day = 24 * 60;

/** The edges of places as RFC 9074 calls them, in words that a name follows. */
export const edgeWords = {
  ARRIVE: "on arriving at",
  DEPART: "on leaving",
  CONNECT: "on connecting to",
  DISCONNECT: "on disconnecting from",
} as const;
export type Edge = keyof typeof edgeWords;
const edged = /^(ARRIVE|DEPART|CONNECT|DISCONNECT)(?:;([a-z-]+))?:(.*)$/s;

/** The edge and the place of a reminder that comes at one. */
export function edgeOf(reminder: string): { edge: Edge; place: string } | undefined {
  const found = edged.exec(reminder);
  return found ? { edge: found[1] as Edge, place: found[3]! } : undefined;
}

/**
 * "-PT1H;drip" and "ARRIVE;drip:The museum" in their parts: when it comes, and the sound of its
 * own, if any.
 */
export function reminderParts(reminder: string): { when: string; sound: string } {
  const found = edged.exec(reminder);
  if (found) return { when: `${found[1]}:${found[3]}`, sound: found[2] ?? "" };
  const [when = "", sound = ""] = reminder.split(";");
  return { when, sound };
}

/** A reminder with a sound of its own, or with the account's. */
export function withSound(reminder: string, sound: string): string {
  const { when } = reminderParts(reminder);
  if (!sound) return when;
  const at = edgeOf(when);
  return at ? `${at.edge};${sound}:${at.place}` : `${when};${sound}`;
}

/** "-PT1H" as "1 hour before", an edge in words, a moment in full. */
export function reminderWords(said: string): string {
  const at = edgeOf(said);
  if (at) return `${edgeWords[at.edge]} ${at.place}`;
  const reminder = reminderParts(said).when;
  const found = /^(-?)P(?:(\d+)W|(\d+)D|T(?:(\d+)H)?(?:(\d+)M)?)$/.exec(reminder);
  if (!found) return fullMoment(reminder);
  const [w, d, h, m] = found.slice(2).map((n) => Number(n ?? 0));
  const minutes = (w ?? 0) * 7 * day + (d ?? 0) * day + (h ?? 0) * 60 + (m ?? 0);
  if (minutes === 0) return "at the time";
  const [n, unit] =
    minutes % day === 0
      ? [minutes / day, "day"]
      : minutes % 60 === 0
        ? [minutes / 60, "hour"]
        : [minutes, "minute"];
  return `${n} ${unit}${n === 1 ? "" : "s"} ${found[1] ? "before" : "after"}`;
}

/** Labels of chips: the look's own words for fields. */
export const chipLabels: Record<string, string> = {
  kind: "kind",
  due: "due",
  start: "start",
  plan: "plan",
  list: "list",
  ...choiceNames,
  status: "status",
  tag: "tag",
  repeat: "repeats",
  lead: "ahead",
  estimate: "takes",
  person: "who",
  reminder: "remind",
  section: "section",
  place: "where",
};

/** What a to-do came to, for one that was read while nobody looked. */
export function fieldWords(todo: Todo, today: string): string {
  const parts: string[] = [];
  if (todo.due) parts.push(`due ${fullMoment(todo.due)}`);
  if (todo.start) parts.push(`from ${fullMoment(todo.start)}`);
  if (todo.plan) parts.push(`planned ${planWords(todo.plan, today)}`);
  if (todo.repeat) parts.push(todo.repeat.words);
  for (const c of choices)
    if (chosen(c, todo) !== c.values[0]!.value)
      parts.push(choiceName(c, chosen(c, todo)).toLowerCase());
  if (todo.estimate) parts.push(estimateWords(todo.estimate));
  parts.push(...todo.tags.map((t) => `#${t}`));
  return parts.length ? `Read as: ${parts.join(", ")}.` : "";
}

/** Where a to-do that was put in went: its list or the Cup, and when it comes back or is planned. */
export function whereWords(todo: Todo, overview: Overview | undefined, today: string): string {
  const list = listById(overview, todo.list)?.list.name;
  const parts = [list ? `In ${list}` : "In the Cup"];
  const person = personById(overview, todo.person?.id)?.name;
  if (person && todo.person) parts.push(`${roleWords[todo.person.role].toLowerCase()} ${person}`);
  if (todo.start && todo.start > today) parts.push(`comes back ${shortDay(todo.start, today)}`);
  else if (todo.plan === "parked") parts.push("parked");
  else if (todo.plan) parts.push(`planned for ${planWords(todo.plan, today)}`);
  return parts.join(", ");
}

export const roleWords = { ask: "Ask", "waiting on": "Waiting on", for: "For" } as const;

export function personById(overview: Overview | undefined, id: string | undefined) {
  return overview?.people.find((p) => p.id === id);
}

/** A person with an address, at hand when something that has to do with them is finished. */
export function writeTo(person: { name: string; email?: string }, title: string) {
  if (!person.email) return undefined;
  const href = `mailto:${encodeURIComponent(person.email).replace("%40", "@")}?subject=${encodeURIComponent(title)}`;
  return {
    says: `${person.name}: ${person.email}`,
    also: { name: `Write to ${person.name}`, href, act: () => {} },
  };
}

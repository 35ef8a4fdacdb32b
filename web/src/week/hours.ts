import { inForce } from "@/server/in-force";
import type { WeekDay, WeekSlip } from "@/server/week";
import { addDays, daysBetween } from "@/words/dates";

/** A time of a day: from so many minutes after its midnight, for so many. */
export interface Slot {
  at: number;
  minutes: number;
}

/** A stretch of a day, in minutes after its midnight; what ends after the next is over 1440. */
export interface Stretch {
  from: number;
  to: number;
}

/** Where a civil date and time lies in a day, in minutes after its midnight. */
export const minuteIn = (moment: string, day: string) =>
  daysBetween(moment.slice(0, 10), day) * 1440 +
  Number(moment.slice(11, 13)) * 60 +
  Number(moment.slice(14, 16));

/** "09:05" */
export function clock(minute: number): string {
  const m = ((minute % 1440) + 1440) % 1440;
  return `${String(Math.floor(m / 60)).padStart(2, "0")}:${String(m % 60).padStart(2, "0")}`;
}

/** The time of a plan, where it has one, as it lies from the midnight of a day. */
function timeOf(plan: string | null | undefined, day: string): Slot | undefined {
  const parts = /^(\d{4}-\d\d-\d\dT\d\d:\d\d)\/PT(?:(\d+)H)?(?:(\d+)M)?$/.exec(plan ?? "");
  if (!parts) return undefined;
  return {
    at: minuteIn(parts[1]!, day),
    minutes: Number(parts[2] ?? 0) * 60 + Number(parts[3] ?? 0),
  };
}

/** The minutes that a plan's time lasts; undefined where it has none. */
export const lengthOf = (plan: string | null | undefined) => timeOf(plan, noDay)?.minutes;
const noDay = "2000-01-01";

/** When days begin, in minutes after midnight. */
const dayStarts = () => minuteIn(`${noDay}T${inForce.dayStart}`, noDay);

/**
 * The time of a plan within a day, which lasts until the next begins. That of another day is none: what lies
 * here was carried over, or is due here and planned for later.
 */
export function slotOf(
  plan: string | null | undefined,
  day: string,
  starts = dayStarts(),
): Slot | undefined {
  const slot = timeOf(plan, day);
  return slot && slot.at >= starts && slot.at < 1440 + starts ? slot : undefined;
}

/**
 * The plan that is a day earlier or later, with the same time of the day. What has no day in its plan, or one
 * that is past, counts from where it lies, and what lies nowhere comes to today. undefined for a day that is past.
 */
export function planBeside(
  plan: string | null,
  by: 1 | -1,
  lies: string | undefined,
  today: string,
): string | undefined {
  const planned = /^\d{4}-\d\d-\d\d(?=T|$)/.exec(plan ?? "")?.[0];
  const from = planned && planned >= today ? planned : lies;
  if (!from) return today;
  const to = addDays(from, by);
  if (to < today) return undefined;
  const slot = timeOf(plan, planned ?? noDay);
  return slot ? planAt(to, slot) : to;
}

/** A time of a day as a plan. */
export const planAt = (day: string, { at, minutes }: Slot) =>
  `${addDays(day, Math.floor(at / 1440))}T${clock(at)}/PT${Math.max(1, Math.min(minutes, 1440))}M`;

/** The stretches of the working hours of a day. */
export const hoursOf = (d: WeekDay): Stretch[] =>
  d.hours.map((h) => ({ from: minuteIn(h.from, d.day), to: minuteIn(h.to, d.day) }));

/** The stretches of the own hours of a day. */
export const ownHoursOf = (d: WeekDay): Stretch[] =>
  d.ownHours.map((h) => ({ from: minuteIn(h.from, d.day), to: minuteIn(h.to, d.day) }));

/** The events of a day that have a time, as they lie within it. */
export const eventsOf = (d: WeekDay) =>
  d.events.flatMap((event) => {
    if (!event.from || !event.to) return [];
    const from = Math.max(minuteIn(event.from, d.day), 0);
    return [{ event, from, to: Math.max(Math.min(minuteIn(event.to, d.day), 1800), from) }];
  });

/** The part of a day that an opened cup shows, in whole hours, and how high a minute is. */
export interface Face extends Stretch {
  scale: number;
}

/** An hour is at least so high, and at most, in pixels. */
const [lowestHour, highestHour] = [34, 66];
/** So many minutes are shown at least, however short the day is. */
const leastShown = 240;

/** Events that last as long as this, in minutes, are shown as far as the others go. */
const allButWhole = 8 * 60;

/** All hours, events and times of a day, in about as much room as there is, in pixels. */
export function faceOf(d: WeekDay, slots: Slot[], room: number): Face {
  const all = [
    ...hoursOf(d),
    ...(d.load.own ? ownHoursOf(d) : []),
    ...eventsOf(d).filter((e) => e.to - e.from < allButWhole),
    ...slots.map((s) => ({ from: s.at, to: s.at + s.minutes })),
  ];
  const first = all.length ? Math.min(...all.map((s) => s.from)) : 9 * 60;
  const last = all.length ? Math.max(...all.map((s) => s.to)) : 17 * 60;
  const from = Math.floor(first / 60) * 60;
  const to = Math.max(Math.ceil(last / 60) * 60, from + leastShown);
  const scale = Math.min(Math.max(room / (to - from), lowestHour / 60), highestHour / 60);
  return { from, to, scale };
}

/** Where a stretch stands on a face, as a style. */
export const boxOf = (face: Face, s: Stretch) => ({
  top: `${(Math.max(s.from, face.from) - face.from) * face.scale}px`,
  height: `${(Math.min(s.to, face.to) - Math.max(s.from, face.from)) * face.scale}px`,
});

/** What is left of a stretch outside of some that are in order. */
export function without(all: Stretch, taken: Stretch[]): Stretch[] {
  const left: Stretch[] = [];
  let { from } = all;
  for (const t of [...taken].sort((a, b) => a.from - b.from)) {
    if (t.from > from) left.push({ from, to: Math.min(t.from, all.to) });
    from = Math.max(from, t.to);
  }
  if (from < all.to) left.push({ from, to: all.to });
  return left.filter((s) => s.to > s.from);
}

/** Which of how many lanes each slot stands in, so that those that overlap stand beside each other. */
export function lanesOf(slots: Slot[]): { lane: number; of: number }[] {
  const out = slots.map(() => ({ lane: 0, of: 1 }));
  const order = slots.map((_, i) => i).sort((a, b) => slots[a]!.at - slots[b]!.at);
  let cluster: number[] = [];
  let ends: number[] = [];
  const close = () => {
    for (const i of cluster) out[i]!.of = ends.length;
    [cluster, ends] = [[], []];
  };
  for (const i of order) {
    const { at, minutes } = slots[i]!;
    if (cluster.length && ends.every((end) => end <= at)) close();
    const lane = ends.findIndex((end) => end <= at);
    out[i]!.lane = lane < 0 ? ends.length : lane;
    ends[out[i]!.lane] = at + minutes;
    cluster.push(i);
  }
  close();
  return out;
}

/** The first time of a day that is free for so many minutes, not before now. */
export function firstFree(
  d: WeekDay,
  slots: Slot[],
  minutes: number,
  now: string,
  kind: WeekSlip["hours"] = "working",
) {
  const taken = [
    ...eventsOf(d).filter((e) => e.event.takes > 0),
    ...slots.map((s) => ({ from: s.at, to: s.at + s.minutes })),
  ];
  const earliest = Math.ceil(Math.max(minuteIn(now, d.day), 0) / quarter) * quarter;
  for (const hours of kind === "own" ? ownHoursOf(d) : hoursOf(d))
    for (const s of without({ from: Math.max(hours.from, earliest), to: hours.to }, taken)) {
      const at = Math.ceil(s.from / 5) * 5;
      if (at + minutes <= s.to) return at;
    }
  return undefined;
}

/** By how much keys and the pointer move a slot, in minutes. */
export const quarter = 15;
/** Minutes that a pull changes are a multiple of these. */
export const pullStep = 5;

import type { Todo, TodoPatch } from "@/server/client";
import type { WeekDay, WeekSlip } from "@/server/week";
import { lengthOf } from "./hours";

/**
 * The least heights of slips, in pixels. The first is high enough to be read; where a cup
 * would then seem fuller than it is, the next that fits is taken.
 */
const leasts = [19, 16, 13, 10, 7, 4];
/** The least height of what is not measured against a rim: proposals, and what is done. */
export const leastSlip = 24;
/** How many slips a cup shows; of more, the rest is one lump. */
export const mostSlips = 24;

/** Something as it lies in a cup: how high it is, and whether it stands above the rim. */
export interface Laid {
  of: WeekSlip;
  height: number;
  over: boolean;
}

/** What lies in a closed cup: work. A time of the day whose work is that of its subtasks is not drawn beside them. */
export const workOf = (d: WeekDay) =>
  d.slips.filter(
    (s) => s.hours === "working" && (s.minutes > 0 || !d.slips.some((o) => o.within === s.todo.id)),
  );
/** The slips in the saucer beneath a cup: those that take own hours, and those that take none. */
export const besideOf = (d: WeekDay) => d.slips.filter((s) => s.hours !== "working");
/** How many of these are named. */
export const mostBeside = 2;
/** What lies in an opened cup: what is done within the time of another is in that. */
export const hourlyOf = (d: WeekDay) =>
  d.slips.filter((s) => !d.slips.some((o) => o.todo.id === s.within));

/**
 * One scale for all cups of a week, in pixels a minute: the fullest fits into the height,
 * unless it holds more than twice what the longest day can. That stands higher.
 */
export function scaleOf(days: WeekDay[], height: number): number {
  const highest = Math.max(
    ...days.map((d) => Math.max(d.worked, d.over + taken(d) + d.load.minutes)),
    60,
  );
  const most = 2 * Math.max(...days.map((d) => d.worked), 60);
  return Math.min(height / Math.min(highest, most), 1);
}

/** The minutes that events take of a day's hours. Where they overlap it is less than their sum. */
export const taken = (d: WeekDay) =>
  d.load.capacity === undefined ? 0 : Math.max(d.worked - d.over - d.load.capacity, 0);

/**
 * Lays the slips of a day into its cup, from the base up: each as high as its minutes, and no
 * lower than the least height. A slip is over where its minutes end above the rim.
 */
export function layOut(d: WeekDay, scale: number): Laid[] {
  const slips = workOf(d).slice(0, mostSlips);
  const room = (d.worked - d.over - taken(d)) * scale;
  const heights = (least: number) => slips.map((s) => Math.max(s.minutes * scale, least));
  const sum = (all: number[]) => all.reduce((a, b) => a + b, 0);
  const fits = d.load.minutes <= (d.load.capacity ?? 0);
  const least = (fits && leasts.find((l) => sum(heights(l)) <= room)) || leasts[fits ? 5 : 0]!;
  let minutes = 0;
  return heights(least).map((height, i) => {
    minutes += slips[i]!.minutes;
    return { of: slips[i]!, height, over: d.worked > 0 && minutes > (d.load.capacity ?? 0) };
  });
}

/** The least and the most minutes of a to-do that keys and pulls give. */
const [leastMinutes, mostMinutes] = [5, 1440];

/**
 * Another length of a to-do. Where it has a time of the day that gets the length, and its
 * estimate with it unless the time was only a part of the work.
 */
export function lengthened(todo: Todo, minutes: number): TodoPatch {
  const length = Math.max(leastMinutes, Math.min(minutes, mostMinutes));
  const lasts = lengthOf(todo.plan);
  if (lasts === undefined) return { estimate: length };
  const plan = `${todo.plan!.split("/")[0]!}/PT${length}M`;
  return !todo.estimate || todo.estimate === lasts ? { plan, estimate: length } : { plan };
}

import type { Load } from "@/server/client";
import { precision } from "./dates";
import { estimateWords } from "./fields";

/** The work and the hours of one kind. */
type Part = Pick<Load, "minutes" | "assumed" | "capacity">;

/** How full a cup is: its work against its work time. */
export interface Fill {
  /** 1 is full to the brim, more is over it. */
  level: number;
  /** Which part of the level is assumed, for want of estimates. */
  assumed: number;
  /** By how many minutes it is over; 0 where it is not, or has no work time. */
  over: number;
}

/** How many to-dos fill a cup that has no work time of its own, such as parked. */
const heap = 32;

export function fillOf(load: Part | undefined, count: number): Fill {
  const capacity = load?.capacity;
  if (!load || capacity === undefined)
    return { level: Math.min(count / heap, 1), assumed: 0, over: 0 };
  if (!load.minutes) return { level: 0, assumed: 0, over: 0 };
  if (!capacity) return { level: 1, assumed: 0, over: 0 };
  const level = load.minutes / capacity;
  return {
    level,
    assumed: (load.assumed ?? 0) / capacity,
    over: Math.max(load.minutes - capacity, 0),
  };
}

/** What stands beneath a cup of the rail: "5 · 3 h 10", "7 · 1 h over". */
export function cupWords(horizon: string, count: number, load: Load): string {
  if (precision(horizon) === "parked" || !load.minutes) return String(count);
  return load.capacity === 0 ? hoursWords(load) : `${count} · ${hoursWords(load)}`;
}

/** "3 h 10", "1 h over", "2 h outside": outside working hours. */
export function hoursWords(load: Part): string {
  const { over } = fillOf(load, 0);
  if (over) return `${estimateWords(over)} over`;
  return estimateWords(load.minutes) + (load.capacity === 0 ? " outside" : "");
}

/** The same in full, as it is read out: "3 h 10 of 4 h", "1 h 15 more than its 4 h". */
export function fullWords(load: Part, hours = "working hours"): string {
  if (!load.minutes) return load.capacity ? `${estimateWords(load.capacity)} free` : "";
  if (load.capacity === undefined) return `${estimateWords(load.minutes)} of work`;
  if (!load.capacity) return `${estimateWords(load.minutes)} outside ${hours}`;
  const { over } = fillOf(load, 0);
  if (over) return `${estimateWords(over)} more than its ${estimateWords(load.capacity)}`;
  return `${estimateWords(load.minutes)} of ${estimateWords(load.capacity)}`;
}

/** The saucer in words: "30 min of 3 h", "45 min outside own hours"; "" where nothing lies in it. */
export const saucerWords = (load: Load | undefined): string =>
  load?.own?.minutes ? fullWords(load.own, "own hours") : "";

/** The same as it is read out: "own hours 30 min of 3 h", "45 min outside own hours". */
export function ownWords(load: Load | undefined): string {
  const said = saucerWords(load);
  return said && load?.own?.capacity ? `own hours ${said}` : said;
}

/** Cup and saucer, as they are read out: "3 h of 4 h, own hours 30 min of 3 h". */
export const bothWords = (load: Load): string =>
  [assumingWords(load), ownWords(load)].filter(Boolean).join(", ");

/** The cup in full, with what of it is assumed: "1 h 30 of 4 h, 30 min of it assumed". */
export function assumingWords(load: Load): string {
  const assumed =
    load.assumed && load.minutes > 0 ? `${estimateWords(load.assumed)} of it assumed` : "";
  return [fullWords(load), assumed].filter(Boolean).join(", ");
}

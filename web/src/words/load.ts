import type { Load } from "@/server/client";
import { precision } from "./dates";
import { estimateWords } from "./fields";

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

export function fillOf(load: Load | undefined, count: number): Fill {
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
export function hoursWords(load: Load): string {
  const { over } = fillOf(load, 0);
  if (over) return `${estimateWords(over)} over`;
  return estimateWords(load.minutes) + (load.capacity === 0 ? " outside" : "");
}

/** The same in full, as it is read out: "3 h 10 of 4 h", "1 h 15 more than its 4 h". */
export function fullWords(load: Load): string {
  if (!load.minutes) return load.capacity ? `${estimateWords(load.capacity)} free` : "";
  if (load.capacity === undefined) return `${estimateWords(load.minutes)} of work`;
  if (!load.capacity) return `${estimateWords(load.minutes)} outside working hours`;
  const { over } = fillOf(load, 0);
  if (over) return `${estimateWords(over)} more than its ${estimateWords(load.capacity)}`;
  return `${estimateWords(load.minutes)} of ${estimateWords(load.capacity)}`;
}

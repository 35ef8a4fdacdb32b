import type { components } from "@/server/schema";
import { shortMoment } from "./dates";
import { edgeOf } from "./fields";

/** When a ring should have rung, or at which edge, and what became of it. */
export function ringWords(
  ring: { at: string; missed: boolean; edge?: string },
  today: string,
): string {
  const when = ring.at.startsWith(today) ? ring.at.slice(11) : shortMoment(ring.at, today);
  if (ring.edge) return `${ring.edge[0]!.toUpperCase()}${ring.edge.slice(1)}, ${when}`;
  return ring.missed ? `Missed: ${when}` : when;
}

/** "until tomorrow 09:00", "until 10:10" */
export const untilWords = (moment: string, today: string) =>
  `until ${moment.startsWith(today) ? moment.slice(11) : shortMoment(moment, today)}`;

/** A number of reminders. */
export const reminders = (n: number) => (n === 1 ? "1 reminder" : `${n} reminders`);

/** The sounds of rings, and none. */
export const soundNames = {
  tap: "A tap on enamel",
  "two-taps": "Two taps",
  drip: "A drip",
  "low-bell": "A low bell",
  kettle: "A kettle",
  none: "None",
} as const;

/** What the browser's answer about notifications means. */
export const permissionWords: Record<NotificationPermission | "none", string> = {
  granted: "This browser may show them.",
  denied: "This browser was told not to show them. Its own settings for this address change that.",
  default: "This browser has not been asked yet.",
  none: "This browser has none.",
};

/** When a reminder of a place rings. */
const edgeProspect = {
  ARRIVE: "rings whenever you get there with Tin Cup in sight",
  DEPART: "rings whenever you leave with Tin Cup in sight",
  CONNECT: "rings whenever your device says that it is connected",
  DISCONNECT: "rings whenever your device says that it is not connected any more",
};

/** What will become of a reminder; `none` where it is nothing. */
export function prospectWords(
  o: components["schemas"]["ReminderProspect"],
  today: string,
): { words: string; none: boolean } {
  const at = o.at ? shortMoment(o.at, today) : "";
  switch (o.prospect) {
    case "to-come":
      return { words: `rings ${at}${o.afterDue ? ", after the due" : ""}`, none: false };
    case "rang":
      return { words: `rang ${at}`, none: false };
    case "waiting":
      return { words: `waits: it is parked or paused (${at})`, none: false };
    case "passed":
      return { words: `does not ring: ${at} had passed`, none: true };
    case "baseless":
      return { words: "does not ring: there is no due, hour or start to be before", none: true };
    case "over":
      return { words: "", none: false };
    case "on-edge":
      return { words: edgeProspect[edgeOf(o.reminder)?.edge ?? "ARRIVE"], none: false };
    case "nowhere":
      return { words: "does not ring: this place has no position yet", none: true };
  }
}

import type { Overview } from "@/server/client";
import { lastReviewed } from "./review";

/** A shipped view as it stands in the index. */
export interface IndexView {
  view: string;
  /** Its number there, if it has one. */
  count?: (o: Overview) => number;
  /** What is said there in words, in the place of a number. */
  note?: (o: Overview) => string;
}

/** The shipped views by what one does with them, in the order in which they come. */
export const indexViews: Record<
  "Gather" | "Do" | "Look ahead" | "Arrange" | "Look back",
  IndexView[]
> = {
  Gather: [{ view: "cup", count: (o) => o.counts.cup }],
  Do: [
    { view: "today", count: (o) => o.counts.today },
    { view: "overdue", count: (o) => o.counts.overdue },
    { view: "ready", count: (o) => o.counts.ready },
    { view: "waiting", count: (o) => o.counts.waiting },
  ],
  "Look ahead": [
    { view: "week" },
    { view: "upcoming" },
    { view: "within-a-week", count: (o) => o.counts.withinAWeek },
    { view: "comes-round" },
    { view: "projects", count: (o) => o.counts.projects },
  ],
  Arrange: [{ view: "open" }],
  "Look back": [
    { view: "review", note: (o) => lastReviewed(o) },
    { view: "done" },
    { view: "bin", count: (o) => o.counts.bin },
  ],
};

export type IndexGroup = keyof typeof indexViews;
export const allViews = Object.values(indexViews).flatMap((g) => g.map((v) => v.view));

/** Those of a group that are shown, in the order that was chosen. */
export function shownViews(group: IndexGroup, chosen: string): IndexView[] {
  return chosen.split(",").flatMap((name) => indexViews[group].filter((v) => v.view === name));
}

import type { Meaning } from "@/server/client";
import { estimateWords } from "./fields";

/** How many to-dos a filter holds now, and whether any ever can. */
export function totalWords(m: Meaning): string {
  const match = m.total === 1 ? "1 matches now" : `${m.total} match now`;
  if (m.verdict === "never") return `${match}, and 0 can ever`;
  return m.minutes ? `${match}, ${estimateWords(m.minutes)} of work` : match;
}

/** What the proof about a filter says; nothing where it may hold some and not all. */
export function verdictOf(m: Meaning): { bad: boolean; head: string; says?: string } | undefined {
  const undecided =
    "Whether this can ever hold anything was not decided: there is too much to try.";
  if (m.verdict === "never")
    return { bad: true, head: "This view can never hold anything.", says: m.says };
  if (m.verdict === "always")
    return m.tests.length // without one, nothing is asked yet
      ? { bad: false, head: "This view holds everything.", says: m.says }
      : undefined;
  if (m.now === "never")
    return { bad: false, head: "This view can hold nothing today.", says: m.says };
  return m.verdict === "not decided" ? { bad: false, head: undecided } : undefined;
}

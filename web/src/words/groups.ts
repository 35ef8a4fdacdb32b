import type { Group } from "@/server/client";
import {
  addDays,
  daysBetween,
  halfDay,
  isoWeek,
  longDay,
  monthName,
  shortMonth,
  weekStart,
} from "./dates";

type Kind = Group["kind"];
type HeadOf = Pick<Group, "kind" | "horizon" | "name">;

const fixed: Partial<Record<Kind, string>> = {
  "to-sort": "To sort",
  "laid-by": "Laid by: they come back on their day",
  "people-and-notes": "Waited on, and notes",
  handful: "Handful",
  overdue: "Overdue",
  "due-today": "Due today",
  "planned-today": "Planned for today",
  "carried-over": "Carried over",
  "can-start": "Can start",
  "this-week": "Planned for this week",
  "this-month": "Planned for this month",
  planned: "Planned",
  due: "Due",
  paused: "Paused",
  "comes-round": "By next date",
  ended: "Ended",
  ticked: "Ticked",
  "found-done": "Closed",
  "found-away": "Put away",
  "found-bin": "In the bin",
  "without-due": "Without a due",
  unplanned: "Without a plan",
  parked: "Parked",
  untagged: "Untagged",
  "to-ask": "To ask",
  "they-owe": "They owe you",
  "for-them": "For them",
  "due-planned-elsewhere": "Due, but planned for another time",
};

/** The head of a group; none where the view's name says it all. Days may be said in short. */
export function groupHead(group: HeadOf, today: string, short = false): string {
  const words = fixed[group.kind] ?? group.name;
  if (words) return words;
  const h = group.horizon ?? "";
  switch (group.kind) {
    case "planned-for":
      if (h.length === 10) return groupHead({ kind: "day", horizon: h }, today, short);
      return groupHead({ kind: h.includes("W") ? "week" : "month", horizon: h }, today);
    case "day": {
      const n = daysBetween(h, today);
      const day = short ? halfDay(h, today) : longDay(h, today);
      if (n === 0) return `Today, ${day}`;
      if (n === 1) return `Tomorrow, ${day}`;
      if (n === -1) return `Yesterday, ${day}`;
      return day;
    }
    case "week": {
      if (h === isoWeek(today)) return "Planned for this week";
      if (h === isoWeek(addDays(today, 7))) return "Planned for next week";
      return `Week ${Number(h.slice(6))}, ${weekSpan(h, today)}`;
    }
    case "month":
      return monthOf(h, today);
    default:
      return "";
  }
}

/** "7 to 13 Dec", "28 Dec to 3 Jan 2027". */
function weekSpan(week: string, today: string): string {
  const [first, last] = [weekStart(week), addDays(weekStart(week), 6)];
  const from = first.slice(0, 7) === last.slice(0, 7) ? Number(first.slice(8)) : dayMonth(first);
  const year = last.slice(0, 4) === today.slice(0, 4) ? "" : ` ${last.slice(0, 4)}`;
  return `${from} to ${dayMonth(last)}${year}`;
}
const dayMonth = (day: string) => `${Number(day.slice(8))} ${shortMonth(day)}`;

function monthOf(month: string, today: string): string {
  const name = monthName(`${month}-01`);
  return month.slice(0, 4) === today.slice(0, 4) ? name : `${name} ${month.slice(0, 4)}`;
}

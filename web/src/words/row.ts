import type { Group, Overview, Row } from "@/server/client";
import { choices, chosen } from "./choices";
import {
  daysBetween,
  instantDay,
  instantTime,
  late,
  planWords,
  shortDay,
  shortMoment,
} from "./dates";
import { estimateWords, personById } from "./fields";
import { listById } from "./names";

export interface Fact {
  text: string;
  tone?: "late" | "time" | "flag";
}

/** Where a row stands: what its group and its sheet say need not be said again. */
interface Around {
  group: Pick<Group, "kind" | "horizon" | "load">;
  overview: Overview;
  today: string;
  inList?: string;
}

/**
 * What a row says quietly: what is set, and not said by the view or the group. Of one that is struck all parts
 * are done.
 */
export function rowFacts(row: Row, around: Around, struck = false): Fact[] {
  const { todo } = row;
  const facts: Fact[] = [];
  if (todo.deleted) facts.push({ text: binDays(todo.deleted, around) });
  else if (todo.completed) facts.push(...closedFacts(row, around));
  else facts.push(...planFacts(row, around), ...dueFacts(row, around), ...startFacts(row, around));
  const open = !todo.completed && !todo.deleted;
  if (todo.repeat && (open || todo.record)) facts.push({ text: todo.repeat.short });
  if (row.waited) {
    const days = row.waited === 1 ? "1 day" : `${row.waited} days`;
    facts.push({ text: `waited ${days}`, tone: "time" });
  }
  if (row.progress) {
    const { done, total } = row.progress;
    facts.push({ text: `${struck ? total : done} of ${total}` });
  }
  facts.push(...projectFacts(row, around));
  if (todo.estimate && open) facts.push({ text: estimateWords(todo.estimate) });
  if (open) facts.push(...choiceFacts(todo, around.group.kind));
  const who = open && personById(around.overview, todo.person?.id);
  const agenda = ["to-ask", "they-owe", "for-them"].includes(around.group.kind);
  if (who && todo.person && !agenda) facts.push({ text: `${todo.person.role} ${who.name}` });
  if (todo.hasNotes) facts.push({ text: "notes" });
  const files = todo.attachments?.length ?? 0;
  if (files) facts.push({ text: files === 1 ? "1 file" : `${files} files` });
  const list = listById(around.overview, todo.list);
  if (list && list.list.id !== around.inList && around.group.kind !== "in-list")
    facts.push({ text: list.list.name });
  return facts;
}

/** What is said in words of the fields of closed sets. */
const choiceFacts = (todo: Row["todo"], group: string): Fact[] =>
  choices.flatMap((c) => {
    if (c.field === group) return []; // its head says it
    const fact = c.values.find((v) => v.value === chosen(c, todo))?.fact;
    return fact ? [{ text: fact }] : [];
  });

/** A project says what comes next, or that nothing does, and when it last moved. */
function projectFacts(row: Row, { today }: Around): Fact[] {
  const facts: Fact[] = [];
  if (row.next) facts.push({ text: `next: ${row.next.title}` });
  else if (row.noNext && row.progress?.done === row.progress?.total)
    facts.push({ text: "nothing left: finish it", tone: "flag" });
  else if (row.noNext) facts.push({ text: "no next action", tone: "flag" });
  if (row.quiet) facts.push({ text: `no movement for ${row.quiet} days`, tone: "flag" });
  else if (row.moved) facts.push({ text: `moved ${shortDay(row.moved, today)}` });
  return facts;
}

function closedFacts({ todo }: Row, around: Around): Fact[] {
  const facts: Fact[] = todo.status === "cancelled" ? [{ text: "cancelled" }] : [];
  if (todo.completed && around.group.kind === "day") {
    facts.push({ text: instantTime(todo.completed, around.overview.zone) });
  }
  return facts;
}

/** Whether what is due and what is planned stand under one head, as in Upcoming, whose heads tell a load. */
const mixed = (group: Around["group"]) => group.kind === "day" && group.load !== undefined;

function dueFacts(row: Row, { group, today }: Around): Fact[] {
  const { due } = row.todo;
  if (!due) return [];
  const time = due.split("T")[1];
  if (row.late) {
    const words = row.daysLate === 0 && time ? `${time}, earlier today` : late(row.daysLate);
    return [{ text: words, tone: "late" }];
  }
  const onItsDay =
    group.kind === "due-today" ||
    group.kind === "due" ||
    (group.kind === "day" && group.horizon === due.slice(0, 10));
  if (onItsDay && mixed(group))
    return [time ? { text: `due by ${time}`, tone: "time" } : { text: "due" }];
  if (onItsDay) return time ? [{ text: `by ${time}`, tone: "time" }] : [];
  return [{ text: `due ${shortMoment(due, today)}` }];
}

/** The due of a list, as the due of a row is said. */
export function listDue(list: { due: string; late: boolean; daysLate: number }, today: string) {
  if (list.late) return late(list.daysLate);
  return list.due === today ? "due today" : `due ${shortMoment(list.due, today)}`;
}

function planFacts({ todo }: Row, { group, today }: Around): Fact[] {
  const { plan } = todo;
  if (!plan) return [];
  const slot = plan.includes("T") ? (plan.split("/")[0] ?? "").slice(11) : "";
  const implied =
    plan.slice(0, 10) === group.horizon ||
    plan === group.horizon ||
    ["planned", "planned-today", "this-week", "this-month"].includes(group.kind);
  if (implied && mixed(group) && group.horizon === plan.slice(0, 10))
    return [slot ? { text: `planned at ${slot}`, tone: "time" } : { text: "planned" }];
  if (implied || (slot && plan.slice(0, 10) === today))
    return slot ? [{ text: `at ${slot}`, tone: "time" }] : [];
  if (group.kind === "carried-over") return [{ text: `planned ${planWords(plan, today)}` }];
  if (plan === "parked") return [{ text: "parked" }];
  return [{ text: `planned ${planWords(plan, today)}` }];
}

function startFacts({ todo }: Row, { group, today }: Around): Fact[] {
  if (!todo.start || daysBetween(todo.start, today) <= 0 || todo.start === group.horizon) return [];
  return [{ text: `from ${shortDay(todo.start, today)}` }];
}

/** The bin keeps what is in it for 30 days. */
function binDays(deleted: string, { today, overview }: Around): string {
  // Before the day's start the civil date is a day ahead of today.
  const days = Math.max(daysBetween(today, instantDay(deleted, overview.zone)), 0);
  return `${Math.max(30 - days, 0)} days left`;
}

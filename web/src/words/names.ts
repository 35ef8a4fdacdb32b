import type { Colour, Order, Overview, Priority } from "@/server/client";
import { choiceOf } from "./choices";

export const viewNames: Record<string, string> = {
  cup: "The Cup",
  today: "Today",
  overdue: "Overdue",
  ready: "Ready",
  waiting: "Waiting",
  week: "Week",
  upcoming: "Upcoming",
  "within-a-week": "Within a week",
  "comes-round": "Comes round",
  projects: "Projects",
  open: "Open",
  review: "Review",
  done: "Done",
  bin: "Bin",
};

const priority = choiceOf("priority")!;
export const priorities = priority.values.map((v) => v.value as Priority);
export const priorityNames = Object.fromEntries(
  priority.values.map((v) => [v.value, v.name]),
) as Record<Priority, string>;

/** A list wherever it stands: on its shelf, archived, or as a template. */
export function listById(overview: Overview | undefined, id: string | null | undefined) {
  if (!overview || !id) return undefined;
  for (const shelf of overview.shelves) {
    for (const list of shelf.lists) if (list.id === id) return { shelf, list };
  }
  const list = [...overview.templates, ...overview.archived].find((l) => l.id === id);
  const shelf = overview.shelves.find((s) => s.id === list?.shelf);
  return list && { shelf: shelf ?? { id: list.shelf, name: "", lists: [] }, list };
}

export const orderNames: Record<Order, string> = {
  priority: "By priority, then due",
  own: "My own order",
  due: "By due",
  title: "By title",
  created: "Newest first",
  "high-first": "High first, then my order",
  "priority-newest": "By priority, then newest",
};

export const colours: Colour[] = [
  "moss",
  "slate",
  "plum",
  "ochre",
  "sea",
  "clay",
  "stone",
  "berry",
];

export function tagColour(overview: Overview | undefined, name: string): string {
  return overview?.tags.find((t) => t.name === name)?.colour ?? "stone";
}

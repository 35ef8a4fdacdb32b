import type { Overview, Priority } from "@/api/client";

export const viewNames: Record<string, string> = {
  cup: "The Cup",
  today: "Today",
  overdue: "Overdue",
  upcoming: "Upcoming",
  "within-a-week": "Within a week",
  done: "Done",
  bin: "Bin",
};

export const priorities: Priority[] = ["none", "low", "medium", "high"];

export const priorityNames: Record<Priority, string> = {
  none: "None",
  low: "Low",
  medium: "Medium",
  high: "High",
};

export function listById(overview: Overview | undefined, id: string | null | undefined) {
  for (const shelf of overview?.shelves ?? []) {
    for (const list of shelf.lists) if (list.id === id) return { shelf, list };
  }
  return undefined;
}

export function tagColour(overview: Overview | undefined, name: string): string {
  return overview?.tags.find((t) => t.name === name)?.colour ?? "stone";
}

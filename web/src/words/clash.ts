import type { Todo, TodoPatch } from "@/server/client";
import { choiceName, choiceNames, choiceOf, chosen } from "./choices";
import { fullMoment } from "./dates";
import { estimateWords } from "./fields";

/** The fields of an edit, as a sentence names them. */
export const fieldNames: Record<keyof TodoPatch, string> = {
  title: "title",
  notes: "notes",
  list: "list",
  status: "status",
  ...choiceNames,
  start: "start",
  due: "due",
  plan: "plan",
  estimate: "estimate",
  isNote: "kind",
  inOrder: "order of its subtasks",
  person: "person",
  outcome: "outcome",
  place: "place",
};

/** The fields of lists, tags, people and so on, as a sentence names them. */
export const rowFieldNames: Record<string, string> = {
  name: "name",
  colour: "colour",
  order: "order",
  due: "due",
  outcome: "outcome",
  person: "person",
  email: "e-mail",
  phone: "phone number",
  note: "note",
  definition: "lines of this view",
  icon: "icon",
  middle: "position",
  radius: "radius",
};

/** What a field holds, in words. */
export function fieldWords(field: keyof TodoPatch, todo: Todo): string {
  const choice = choiceOf(field);
  if (choice) return choiceName(choice, chosen(choice, todo)).toLowerCase();
  switch (field) {
    case "due":
    case "start":
      return todo[field] ? fullMoment(todo[field]) : "none";
    case "estimate":
      return todo.estimate ? estimateWords(todo.estimate) : "none";
    case "title":
      return `“${todo.title}”`;
    case "plan":
      return todo.plan ?? "none";
    case "status":
      return todo.status.replace("-", " ");
    case "person":
      return todo.person ? todo.person.role : "nobody";
    default:
      return "changed";
  }
}

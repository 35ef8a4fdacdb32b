import type { Todo } from "@/server/client";

/** What is carried when a row is dragged. */
export interface Dragged {
  [key: string]: unknown;
  kind: "todo";
  todo: Todo;
}

export const isDragged = (data: Record<string | symbol, unknown>): data is Dragged & typeof data =>
  data.kind === "todo";

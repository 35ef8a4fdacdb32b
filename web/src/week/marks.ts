import type { CSSProperties } from "vue";
import { inForce } from "@/server/in-force";
import type { Overview, Todo } from "@/server/client";
import { listById, tagColour } from "@/words/names";

/** Priority is not coloured: it is one line that gets heavier. */
const lines: Record<string, CSSProperties> = {
  low: { textDecorationStyle: "dotted", textDecorationThickness: "2px" },
  medium: { textDecorationStyle: "solid", textDecorationThickness: "2px" },
  high: { textDecorationStyle: "double", textDecorationThickness: "2px" },
};

/** The underline of a slip, by its first tag, its list or its priority; nothing where it has no tag, list or priority. */
export function markOf(
  todo: Todo,
  overview: Overview,
  by = inForce.marks,
): CSSProperties | undefined {
  if (by === "priority") {
    const line = lines[todo.priority];
    return line && { ...line, textDecorationColor: "var(--rim)" };
  }
  if (by === "list") {
    const colour = listById(overview, todo.list)?.list.colour;
    return colour && { textDecorationColor: `var(--${colour})` };
  }
  const tag = todo.tags[0];
  return tag ? { textDecorationColor: `var(--${tagColour(overview, tag)})` } : undefined;
}

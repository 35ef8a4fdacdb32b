import { combine } from "@atlaskit/pragmatic-drag-and-drop/combine";
import { dropTargetForElements } from "@atlaskit/pragmatic-drag-and-drop/element/adapter";
import {
  attachInstruction,
  extractInstruction,
  type ItemMode,
} from "@atlaskit/pragmatic-drag-and-drop-hitbox/tree-item";
import { onBeforeUnmount, onMounted, ref, type Ref } from "vue";
import type { Row } from "@/server/client";
import type { Landing } from "./arrange";
import { carry } from "@/state/carry";
import { isDragged } from "@/state/drag";
import { addTouchTarget } from "@/state/touch-targets";
import { useSelection } from "@/kit/selection";

/** How wide the margin before a row's tick box is, in pixels. */
const gutter = 30;

/** How far each level of subtasks is drawn in, in pixels. */
const indent = 24;

/** Lets a row be dragged, and, where it can stand elsewhere, take others. */
export function useRowDrag(
  root: Ref<HTMLElement | null>,
  row: () => Row,
  may: { drag: () => boolean; take: () => boolean; mode: () => ItemMode },
  took: (id: string, landing: Landing) => void,
) {
  const selection = useSelection();
  const dragged = ref(false);
  const landing = ref<Landing>();
  let stop = () => {};

  const count = () => (selection.ids.has(row().todo.id) ? selection.ids.size : 1);

  onMounted(() => {
    const element = root.value;
    if (!element) return;
    stop = combine(
      addTouchTarget(element, {
        over: (todo, _, y) => {
          if (!may.take() || todo.id === row().todo.id) return false;
          landing.value = landingAt(element, y);
          return landing.value !== undefined;
        },
        leave: () => (landing.value = undefined),
        drop: (todo) => landing.value && took(todo.id, landing.value),
      }),
      carry(element, () => row().todo, may.drag, dragged, count),
      dropTargetForElements({
        element,
        canDrop: ({ source }) =>
          may.take() && isDragged(source.data) && source.data.todo.id !== row().todo.id,
        getData: ({ input }) =>
          attachInstruction(
            {},
            {
              // Levels are counted from the tick boxes of the top ones.
              input: { ...input, clientX: input.clientX - gutter },
              element,
              currentLevel: row().depth ?? 0,
              indentPerLevel: indent,
              mode: may.mode(),
              block: [],
            },
          ),
        onDrag: ({ self }) => (landing.value = landingOf(self.data)),
        onDragLeave: () => (landing.value = undefined),
        onDrop: ({ self, source }) => {
          landing.value = undefined;
          const where = landingOf(self.data);
          if (where && isDragged(source.data)) took(source.data.todo.id, where);
        },
      }),
    );
  });
  onBeforeUnmount(() => stop());

  /** By touch: above, inside or below, by thirds of the row. */
  function landingAt(element: HTMLElement, y: number): Landing | undefined {
    const r = element.getBoundingClientRect();
    const part = (y - r.top) / r.height;
    if (part < 0.3) return { kind: "above", row: row() };
    if (part < 0.7 && !row().todo.isNote) return { kind: "inside", row: row() };
    return may.mode() === "expanded"
      ? { kind: "inside", row: row() }
      : { kind: "below", row: row() };
  }
  function landingOf(data: Record<string | symbol, unknown>): Landing | undefined {
    const i = extractInstruction(data);
    switch (i?.type) {
      case "reorder-above":
        return { kind: "above", row: row() };
      case "reorder-below":
        return { kind: "below", row: row() };
      case "make-child":
        return row().todo.isNote ? undefined : { kind: "inside", row: row() };
      case "reparent":
        return { kind: "lifted", row: row(), depth: i.desiredLevel };
    }
    return undefined;
  }
  return { dragged, landing };
}

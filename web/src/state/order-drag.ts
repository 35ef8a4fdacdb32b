import { combine } from "@atlaskit/pragmatic-drag-and-drop/combine";
import {
  draggable,
  dropTargetForElements,
} from "@atlaskit/pragmatic-drag-and-drop/element/adapter";
import {
  attachClosestEdge,
  type Edge,
  extractClosestEdge,
} from "@atlaskit/pragmatic-drag-and-drop-hitbox/closest-edge";
import { onBeforeUnmount, onMounted, ref, type Ref } from "vue";
import { isDragged } from "./drag";
import { addTouchTarget } from "./touch-targets";

/** Where one of several is let go of: beside another of its sort. */
export interface Landing {
  id: string;
  after?: string;
  before?: string;
}

/**
 * Lets one of several of a sort (lists, shelves, sections) be dragged among the
 * others, and tells at which edge one hangs. Without an id it does neither.
 * With `row` it takes a to-do's row as well; `over` tells that one hangs above
 * it. An element is one drop target, so both are told apart here.
 */
export function useOrderDrag(
  root: Ref<HTMLElement | null>,
  sort: string,
  id: () => string | undefined,
  took: (landing: Landing) => void,
  row?: (todo: string) => void,
) {
  const edge = ref<Edge | null>();
  const over = ref(false);
  const left = () => {
    edge.value = undefined;
    over.value = false;
  };
  let stop = () => {};
  onMounted(() => {
    const element = root.value;
    if (!element) return;
    const byTouch = row
      ? addTouchTarget(element, {
          over: () => (over.value = true),
          leave: left,
          drop: (todo) => row(todo.id),
        })
      : () => {};
    stop = combine(
      byTouch,
      draggable({
        element,
        canDrag: () => id() !== undefined,
        getInitialData: () => ({ kind: sort, id: id() }),
      }),
      dropTargetForElements({
        element,
        canDrop: ({ source }) =>
          isDragged(source.data)
            ? row !== undefined
            : id() !== undefined && source.data.kind === sort && source.data.id !== id(),
        getData: ({ input }) =>
          attachClosestEdge({}, { input, element, allowedEdges: ["top", "bottom"] }),
        onDrag: ({ self, source }) => {
          if (isDragged(source.data)) over.value = true;
          else edge.value = extractClosestEdge(self.data);
        },
        onDragLeave: left,
        onDrop: ({ self, source }) => {
          left();
          if (isDragged(source.data)) return row?.(source.data.todo.id);
          const above = extractClosestEdge(self.data) === "top";
          took({ id: String(source.data.id), [above ? "before" : "after"]: id() });
        },
      }),
    );
  });
  onBeforeUnmount(() => stop());
  return { edge, over };
}

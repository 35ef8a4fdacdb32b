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

/** Where one of several is let go of: beside another of its sort. */
export interface Landing {
  id: string;
  after?: string;
  before?: string;
}

/**
 * Lets one of several of a sort (lists, shelves, sections) be dragged among the
 * others, and tells at which edge one hangs. Without an id it does neither.
 */
export function useOrderDrag(
  root: Ref<HTMLElement | null>,
  sort: string,
  id: () => string | undefined,
  took: (landing: Landing) => void,
) {
  const edge = ref<Edge | null>();
  let stop = () => {};
  onMounted(() => {
    const element = root.value;
    if (!element) return;
    stop = combine(
      draggable({
        element,
        canDrag: () => id() !== undefined,
        getInitialData: () => ({ kind: sort, id: id() }),
      }),
      dropTargetForElements({
        element,
        canDrop: ({ source }) =>
          id() !== undefined && source.data.kind === sort && source.data.id !== id(),
        getData: ({ input }) =>
          attachClosestEdge({}, { input, element, allowedEdges: ["top", "bottom"] }),
        onDrag: ({ self }) => (edge.value = extractClosestEdge(self.data)),
        onDragLeave: () => (edge.value = undefined),
        onDrop: ({ self, source }) => {
          const above = extractClosestEdge(self.data) === "top";
          edge.value = undefined;
          took({ id: String(source.data.id), [above ? "before" : "after"]: id() });
        },
      }),
    );
  });
  onBeforeUnmount(() => stop());
  return edge;
}

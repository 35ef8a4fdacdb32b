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
import type { List } from "@/api/client";

/** Where a dragged list is let go of: beside another. */
export interface ListLanding {
  list: string;
  after?: string;
  before?: string;
}

/** Lets a list be dragged, and take others beside it; tells at which edge. */
export function useListDrag(
  root: Ref<HTMLElement | null>,
  list: () => List,
  took: (landing: ListLanding) => void,
) {
  const edge = ref<Edge | null>();
  let stop = () => {};
  onMounted(() => {
    const element = root.value;
    if (!element) return;
    stop = combine(
      draggable({ element, getInitialData: () => ({ kind: "list", list: list().id }) }),
      dropTargetForElements({
        element,
        canDrop: ({ source }) => source.data.kind === "list" && source.data.list !== list().id,
        getData: ({ input }) =>
          attachClosestEdge({}, { input, element, allowedEdges: ["top", "bottom"] }),
        onDrag: ({ self }) => (edge.value = extractClosestEdge(self.data)),
        onDragLeave: () => (edge.value = undefined),
        onDrop: ({ self, source }) => {
          const at = extractClosestEdge(self.data);
          edge.value = undefined;
          const dragged = String(source.data.list);
          took(
            at === "top"
              ? { list: dragged, before: list().id }
              : { list: dragged, after: list().id },
          );
        },
      }),
    );
  });
  onBeforeUnmount(() => stop());
  return edge;
}

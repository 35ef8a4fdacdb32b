import { dropTargetForElements } from "@atlaskit/pragmatic-drag-and-drop/element/adapter";
import { onBeforeUnmount, onMounted, ref, type Ref } from "vue";
import { isDragged } from "./drag";

/** Makes an element take dragged rows; `over` tells that one hangs above it. */
export function useDrop(root: Ref<HTMLElement | null>, took: (todo: string) => void) {
  const over = ref(false);
  let stop = () => {};
  onMounted(() => {
    if (!root.value) return;
    stop = dropTargetForElements({
      element: root.value,
      canDrop: ({ source }) => isDragged(source.data),
      onDragEnter: () => (over.value = true),
      onDragLeave: () => (over.value = false),
      onDrop: ({ source }) => {
        over.value = false;
        if (isDragged(source.data)) took(source.data.todo.id);
      },
    });
  });
  onBeforeUnmount(() => stop());
  return over;
}

import { dropTargetForElements } from "@atlaskit/pragmatic-drag-and-drop/element/adapter";
import { onBeforeUnmount, onMounted, ref, type Ref } from "vue";
import { isDragged } from "./drag";
import { addTouchTarget } from "./touch-targets";

/** Makes an element take dragged rows; `over` tells that one hangs above it. */
export function useDrop(root: Readonly<Ref<HTMLElement | null>>, took: (todo: string) => void) {
  const over = ref(false);
  let stop = () => {};
  onMounted(() => {
    if (!root.value) return;
    const byTouch = addTouchTarget(root.value, {
      over: () => (over.value = true),
      leave: () => (over.value = false),
      drop: (todo) => took(todo.id),
    });
    const byMouse = dropTargetForElements({
      element: root.value,
      canDrop: ({ source }) => isDragged(source.data),
      onDragEnter: () => (over.value = true),
      onDragLeave: () => (over.value = false),
      onDrop: ({ source }) => {
        over.value = false;
        if (isDragged(source.data)) took(source.data.todo.id);
      },
    });
    stop = () => (byTouch(), byMouse());
  });
  onBeforeUnmount(() => stop());
  return over;
}

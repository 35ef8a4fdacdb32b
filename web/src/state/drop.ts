import { dropTargetForElements } from "@atlaskit/pragmatic-drag-and-drop/element/adapter";
import { onBeforeUnmount, onMounted, ref, type Ref } from "vue";
import type { Todo } from "@/server/client";
import { isDragged } from "./drag";
import { addTouchTarget } from "./touch-targets";

interface Point {
  x: number;
  y: number;
}

/**
 * Makes an element take dragged rows; `over` tells that one hangs above it. `hangs` is told
 * where, in pixels of the window. Of targets that lie in each other the innermost takes it.
 */
export function useDrop(
  root: Readonly<Ref<HTMLElement | null>>,
  took: (id: string, at: Point, todo: Todo) => void,
  hangs: (todo: Todo, at: Point) => void = () => {},
) {
  const over = ref(false);
  let stop = () => {};
  onMounted(() => {
    const element = root.value;
    if (!element) return;
    let last = { x: 0, y: 0 };
    const byTouch = addTouchTarget(element, {
      over: (todo, x, y) => {
        hangs(todo, (last = { x, y }));
        return (over.value = true);
      },
      leave: () => (over.value = false),
      drop: (todo) => took(todo.id, last, todo),
    });
    type Event = Parameters<NonNullable<Parameters<typeof dropTargetForElements>[0]["onDrag"]>>[0];
    const innermost = ({ location, self }: Pick<Event, "location" | "self">) =>
      location.current.dropTargets[0]?.element === self.element;
    const point = ({ location }: Pick<Event, "location">) => ({
      x: location.current.input.clientX,
      y: location.current.input.clientY,
    });
    const byMouse = dropTargetForElements({
      element,
      canDrop: ({ source }) => isDragged(source.data),
      onDropTargetChange: (e) => (over.value = innermost(e)),
      onDrag: (e) => {
        if (isDragged(e.source.data) && innermost(e)) hangs(e.source.data.todo, point(e));
      },
      onDragLeave: () => (over.value = false),
      onDrop: (e) => {
        over.value = false;
        if (!isDragged(e.source.data) || !innermost(e)) return;
        const { todo } = e.source.data;
        took(todo.id, point(e), todo);
      },
    });
    stop = () => (byTouch(), byMouse());
  });
  onBeforeUnmount(() => stop());
  return over;
}

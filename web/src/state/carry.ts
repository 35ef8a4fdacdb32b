import { draggable } from "@atlaskit/pragmatic-drag-and-drop/element/adapter";
import { setCustomNativeDragPreview } from "@atlaskit/pragmatic-drag-and-drop/element/set-custom-native-drag-preview";
import type { Ref } from "vue";
import type { Todo } from "@/server/client";
import type { Dragged } from "./drag";

/**
 * Lets a to-do be dragged by its element, drawn as a slip under the pointer. Returns what
 * ends it.
 */
export function carry(
  element: HTMLElement,
  todo: () => Todo,
  may: () => boolean,
  dragged: Ref<boolean>,
  count = () => 1,
) {
  return draggable({
    element,
    canDrag: may,
    getInitialData: (): Dragged => ({ kind: "todo", todo: todo() }),
    onGenerateDragPreview: ({ nativeSetDragImage }) =>
      setCustomNativeDragPreview({
        nativeSetDragImage,
        render: ({ container }) => {
          const slip = document.createElement("div");
          slip.className = "drag-slip";
          slip.textContent = count() > 1 ? `${count()} to-dos` : todo().title;
          container.append(slip);
        },
      }),
    onDragStart: () => (dragged.value = true),
    onDrop: () => (dragged.value = false),
  });
}

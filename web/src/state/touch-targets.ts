import type { Todo } from "@/server/client";

/** Something that a row lifted by touch can be let go on: the same as the mouse's targets. */
export interface TouchTarget {
  /** Whether it takes what is lifted; it shows where that would go. */
  over: (todo: Todo, x: number, y: number) => boolean;
  leave: () => void;
  drop: (todo: Todo) => void;
}

const targets = new WeakMap<Element, TouchTarget>();

export function addTouchTarget(element: Element, target: TouchTarget): () => void {
  targets.set(element, target);
  return () => targets.delete(element);
}

/** What lies under a point and takes what is lifted, the nearest first. */
export function touchTargetAt(todo: Todo, x: number, y: number): TouchTarget | undefined {
  for (let el = document.elementFromPoint(x, y); el; el = el.parentElement) {
    const target = targets.get(el);
    if (target?.over(todo, x, y)) return target;
  }
  return undefined;
}

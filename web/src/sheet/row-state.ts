import { computed, ref } from "vue";
import type { Group, Overview, Row } from "@/server/client";
import { rowFacts } from "@/words/row";
import { useCurrent } from "@/state/current";
import { useLinger } from "@/server/linger";
import { useSelection } from "@/kit/selection";

/** What a row or a card is given. */
export interface Shown {
  row: Row;
  group: Pick<Group, "kind" | "horizon">;
  overview: Overview;
  today: string;
  /** The list the sheet shows, which its rows need not name. */
  inList?: string;
}

/** How a to-do stands in a sheet, as a row of it or as a card. */
export function useRowState(props: Shown) {
  const current = useCurrent();
  const linger = useLinger();
  const selection = useSelection();
  const todo = computed(() => props.row.todo);
  /** The pointer is or was on it: what is offered there is made when it comes. */
  const near = ref(!matchMedia("(hover: hover)").matches);
  const struck = computed(() => linger.struck(todo.value));
  return {
    todo,
    near,
    struck,
    isCurrent: computed(() => current.row === todo.value.id),
    chosen: computed(() => selection.ids.has(todo.value.id)),
    facts: computed(() => rowFacts(props.row, props, struck.value)),
  };
}

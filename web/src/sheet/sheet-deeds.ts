import { computed } from "vue";
import { useRoute } from "vue-router";
import type { List } from "@/server/client";
import { orderNames } from "@/words/names";
import { useLook } from "@/state/look";
import type { MenuItem } from "@/kit/menu";
import { useArrangement } from "@/server/arrangement";
import { useSelection } from "@/kit/selection";

/** One thing that can be done with a sheet: a button, or on a phone an entry of its menu. */
export interface Deed {
  name: string;
  title?: string;
  pressed?: boolean;
  /** What a press opens hangs on the button, or on that of the menu. */
  act?: (at: HTMLElement) => unknown;
  /** It opens a menu of its own, of this name. */
  menu?: { label: string; items: () => MenuItem[] };
  popup?: boolean;
  /** Where the narrowing by its key hangs. */
  narrows?: boolean;
}

interface Sheet {
  list?: List;
  shape: string;
  chooses: boolean;
  makesRoom: boolean;
  narrows: boolean;
}

/** What can be done with a sheet, in the order of its buttons. */
export function useSheetDeeds(
  sheet: Sheet,
  ways: {
    makeRoom: () => void;
    narrow: (at: HTMLElement) => void;
    shapeName: () => string;
    shapes: () => MenuItem[];
  },
) {
  const route = useRoute();
  const look = useLook();
  const arrangement = useArrangement();
  const selection = useSelection();

  const orders = (list: List): MenuItem[] =>
    (Object.entries(orderNames) as [List["order"], string][]).map(([order, name]) => ({
      name,
      checked: list.order === order,
      act: () => arrangement.editList(list, { order }),
    }));

  return computed<Deed[]>(() => {
    const { list } = sheet;
    const deeds: Deed[] = [];
    if (list?.checklist && !list.template && !list.archived)
      deeds.push(
        { name: "Start over", act: () => arrangement.onList(list, "start-over") },
        { name: "Clear done", act: () => arrangement.onList(list, "clear-done") },
      );
    if (list && !list.archived)
      deeds.push({
        name: orderNames[list.order],
        menu: { label: "Order", items: () => orders(list) },
      });
    if (route.params.view === "ready" && sheet.shape === "rows")
      deeds.push({
        name: look.reasons ? "Hide why" : "Show why",
        title: "Why each row stands where it does",
        pressed: look.reasons,
        act: look.turnReasons,
      });
    if (sheet.narrows)
      deeds.push(
        {
          name: "Narrow…",
          title: "Narrow to a tag, list, person or priority (f)",
          act: ways.narrow,
          popup: true,
          narrows: true,
        },
        { name: ways.shapeName(), menu: { label: "Shape", items: ways.shapes } },
      );
    if (sheet.chooses)
      deeds.push({
        name: selection.choosing ? "Done choosing" : "Choose",
        title: "Choose several rows (x)",
        pressed: selection.choosing,
        act: () => (selection.choosing ? selection.clear() : (selection.choosing = true)),
      });
    if (sheet.makesRoom)
      deeds.push({ name: "Make room…", title: "s", act: ways.makeRoom, popup: true });
    return deeds;
  });
}

import type { Ref } from "vue";
import { useSelection } from "@/kit/selection";
import { useToasts } from "@/kit/toasts";
import { type MakingRoom, useCurrent } from "@/state/current";
import { whyNot } from "@/words/keys";

/**
 * Postpones what is chosen, or else all of a view.
 * @param total how many the view has that can make room; 0 where it is none to make room in
 * @param idsOf reads the ids of a stretch of it
 */
export function useMakeRoom(
  name: Ref<string>,
  total: () => number,
  idsOf: (start: number, count: number) => Promise<string[]>,
) {
  const current = useCurrent();
  const selection = useSelection();
  const toasts = useToasts();
  return async () => {
    if (selection.any) {
      current.makingRoom = { ids: [...selection.ids], from: `${selection.ids.size} chosen` };
    } else if (total()) {
      const making: MakingRoom = { from: `All of ${name.value}` };
      current.makingRoom = making;
      const ids = await idsOf(0, total());
      if (current.makingRoom === making)
        current.makingRoom = ids.length ? { ...making, ids } : undefined;
    } else toasts.show({ text: whyNot.noRoom });
  };
}

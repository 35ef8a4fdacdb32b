import type { Ref } from "vue";
import { useRouter } from "vue-router";
import type { Overview } from "@/server/client";
import { useBellState } from "@/bell/bell";
import { useActions } from "@/server/actions";
import { useCurrent } from "@/state/current";
import { cupOfDigit, useKeys } from "@/state/keys";

/** Keys that work wherever one is. `back` takes one step back, if it can. */
export function useAppKeys(overview: Ref<Overview | undefined>, back: () => boolean) {
  const router = useRouter();
  const actions = useActions();
  const current = useCurrent();
  const bell = useBellState();

  /** Leaves what had the focus, so that the next key acts on the new sheet. */
  function go(path: string) {
    if (document.activeElement instanceof HTMLElement) document.activeElement.blur();
    void router.push(path);
  }

  useKeys((press) => {
    switch (press) {
      case "g":
        current.finding = true;
        return true;
      case "n":
        current.capture++;
        return true;
      case "/":
        current.searching++;
        if (router.currentRoute.value.path !== "/search") void router.push("/search");
        return true;
      case "a":
        bell.open = true;
        return true;
      case "?":
        current.helping = true;
        return true;
      case "Ctrl+z":
      case "Ctrl+Z":
        void actions.undo();
        return true;
      case "Ctrl+Shift+Z":
        void actions.redo();
        return true;
      case "Escape":
        return back();
    }
    const digit = /^Shift\+(\d)$/.exec(press)?.[1];
    if (digit) {
      const cup = cupOfDigit(overview.value, digit);
      if (cup) go(digit === "1" ? "/today" : `/rail/${cup.horizon}`);
      return cup !== undefined;
    }
    return false;
  });
}

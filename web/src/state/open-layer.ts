import { useAsk } from "@/kit/ask";
import { topLayer } from "@/kit/layers";
import { useMenu } from "@/kit/menu";
import type { Layer } from "@/words/layers";
import { useCurrent } from "./current";

/**
 * What is open, from the press that opened it on: what a layer is made of may be loading
 * still. The page's keys act only while it is undefined.
 */
export function useOpenLayer(): () => Layer | undefined {
  const current = useCurrent();
  const asking = useAsk();
  const menus = useMenu();
  function wanted(): Layer | undefined {
    if (current.chooser) return current.chooser.kind;
    if (menus.menu) return "menu";
    if (asking.question) return "ask";
    if (current.makingRoom) return "make-room";
    if (current.finding) return "finder";
    if (current.helping) return "keys";
    if (current.incoming.length) return "import";
    return current.pasted === undefined ? undefined : "paste";
  }
  return () => wanted() ?? (topLayer() as Layer | undefined);
}

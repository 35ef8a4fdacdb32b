import type { MenuItem } from "@/kit/menu";
import { useArrangement } from "@/server/arrangement";
import type { Overview, Shelf } from "@/server/client";
import { useListDeeds } from "./list-deeds";

/** Which hours the to-dos of a shelf take. */
const takes = {
  working: "Takes working hours",
  own: "Takes own hours",
  none: "Takes no hours",
};

/** The menu of a shelf, in the index and on its page alike. */
export function useShelfMenu() {
  const arrangement = useArrangement();
  const deeds = useListDeeds();

  return (shelf: Shelf, { shelves }: Overview): MenuItem[] => {
    const at = shelves.findIndex((s) => s.id === shelf.id);
    const before = shelves[at - 1];
    const behind = shelves[at + 1];
    return [
      { name: "New list…", act: () => deeds.begin(shelves, shelf.id) },
      { name: "Rename…", act: () => arrangement.renameShelf(shelf) },
      ...(before
        ? [{ name: "Move up", act: () => arrangement.moveShelf(shelf, { before: before.id }) }]
        : []),
      ...(behind
        ? [{ name: "Move down", act: () => arrangement.moveShelf(shelf, { after: behind.id }) }]
        : []),
      ...(["working", "own", "none"] as const).map((hours, i) => ({
        name: takes[hours],
        checked: shelf.hours === hours,
        apart: i === 0,
        act: () => shelf.hours === hours || arrangement.takeHours(shelf, hours),
      })),
      {
        name: shelf.lists.length ? "Put it in the bin with its lists" : "Put it in the bin",
        act: () => arrangement.deleteShelf(shelf),
        apart: true,
      },
    ];
  };
}

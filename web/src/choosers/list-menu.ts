import { useAsk } from "@/kit/ask";
import type { MenuItem } from "@/kit/menu";
import { useArrangement } from "@/server/arrangement";
import type { List, Overview } from "@/server/client";
import { useListDeeds } from "./list-deeds";

/** The menu of a list, in the index and on its sheet alike. */
export function useListMenu() {
  const arrangement = useArrangement();
  const deeds = useListDeeds();
  const { ask } = useAsk();

  return (list: List, overview: Overview): MenuItem[] => {
    const bin = {
      name: list.template ? "Put the template in the bin" : "Put the list in the bin",
      act: () => arrangement.deleteList(list),
      apart: true,
    };
    if (list.template)
      return [
        { name: "Pour it out…", act: () => arrangement.pour(list, overview) },
        { name: "Rename…", act: () => arrangement.renameList(list) },
        bin,
      ];
    if (list.archived)
      return [
        { name: "Bring it back", act: () => arrangement.editList(list, { archived: false }) },
        bin,
      ];
    const shelf = overview.shelves.find((s) => s.id === list.shelf);
    const at = shelf?.lists.findIndex((l) => l.id === list.id) ?? -1;
    const before = shelf?.lists[at - 1];
    const behind = at < 0 ? undefined : shelf?.lists[at + 1];
    const beside = (to: { before?: string; after?: string }) => () =>
      arrangement.moveList(list, { shelf: list.shelf, ...to });
    return [
      { name: "Name and colour…", act: () => arrangement.renameList(list) },
      { name: "Due, outcome, person…", act: () => deeds.setDue(list, overview.people) },
      { name: "New section…", act: () => arrangement.addSection(list) },
      ...(list.sections ? [{ name: "Sections…", act: () => chooseSection(list) }] : []),
      {
        name: list.pinned ? "Unpin" : "Pin to the head of the index",
        act: () => arrangement.editList(list, { pinned: !list.pinned }),
      },
      {
        name: list.checklist ? "Make it a plain list" : "Make it a checklist",
        act: () => arrangement.editList(list, { checklist: !list.checklist }),
      },
      ...[
        ...(before ? [{ name: "Move up", act: beside({ before: before.id }) }] : []),
        ...(behind ? [{ name: "Move down", act: beside({ after: behind.id }) }] : []),
        ...(overview.shelves.length > 1
          ? [{ name: "To another shelf…", act: () => chooseShelf(list, overview) }]
          : []),
      ].map((item, i) => ({ ...item, apart: i === 0 })),
      { name: "Duplicate it", act: () => deeds.duplicate(list), apart: true },
      { name: "Save as a template…", act: () => arrangement.saveTemplate(list) },
      { name: "Finish it…", act: () => deeds.finish(list), apart: true },
      { name: "Archive it", act: () => arrangement.editList(list, { archived: true }) },
      bin,
    ];
  };

  /** Asks for the shelf: the menu may have been reached by the finder, which has no place to hang one. */
  function chooseShelf(list: List, { shelves }: Overview) {
    const others = shelves.filter((s) => s.id !== list.shelf);
    ask({
      title: `“${list.name}” to another shelf`,
      confirm: "Move it",
      fields: [
        {
          key: "shelf",
          label: "Shelf",
          kind: "choice",
          value: others[0]?.id ?? "",
          options: others.map((s) => ({ value: s.id, name: s.name })),
        },
      ],
      act: async ({ shelf = "" }) => void (await arrangement.moveList(list, { shelf })),
    });
  }

  /** Sections are renamed and moved from their heads too; this is the keyed way. */
  function chooseSection(list: List) {
    const sections = list.sections ?? [];
    ask({
      title: "Sections",
      confirm: "Do it",
      fields: [
        {
          key: "id",
          label: "Section",
          kind: "choice",
          value: sections[0]?.id ?? "",
          options: sections.map((s) => ({ value: s.id, name: s.name })),
        },
        {
          key: "what",
          label: "What to do",
          kind: "choice",
          value: "up",
          options: [
            { value: "up", name: "Move up" },
            { value: "down", name: "Move down" },
            { value: "keep", name: "Take the section out, keep its to-dos" },
            { value: "bin", name: "Put it in the bin with its to-dos" },
          ],
        },
      ],
      act: async ({ id = "", what }) => {
        const at = sections.findIndex((s) => s.id === id);
        if (what === "up" && at > 0)
          await arrangement.moveSection({ id }, { before: sections[at - 1]?.id });
        else if (what === "down" && at + 1 < sections.length)
          await arrangement.moveSection({ id }, { after: sections[at + 1]?.id });
        else if (at >= 0 && (what === "keep" || what === "bin"))
          await arrangement.deleteSection(sections[at]!, what === "bin");
      },
    });
  }
}

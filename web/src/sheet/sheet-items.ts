import { computed } from "vue";
import { useRoute, useRouter } from "vue-router";
import { useAsk } from "@/kit/ask";
import type { MenuItem } from "@/kit/menu";
import { useArrangement } from "@/server/arrangement";
import type { List, Overview, OwnView, Person, Tag } from "@/server/client";
import { useViews } from "@/server/views";

/** What a sheet is of; none of these for a view that ships. */
interface Sheet {
  overview?: Overview;
  list?: List;
  tag?: Tag;
  person?: Person;
  own?: OwnView;
}

/** The menu's entries for what a sheet is of: a list, a tag, a person, a place or a view. */
export function useSheetItems(sheet: Sheet) {
  const route = useRoute();
  const router = useRouter();
  const views = useViews();
  const arrangement = useArrangement();
  const { ask } = useAsk();

  return computed<MenuItem[]>(() => {
    const { list, tag, person, overview } = sheet;
    if (list && overview) return listItems(list, overview);
    if (tag && overview)
      return [
        { name: "Name and colour…", act: () => arrangement.editTag(tag) },
        { name: "Merge into another…", act: () => arrangement.mergeTag(tag, overview) },
        { name: "Remove the tag", act: () => arrangement.deleteTag(tag), apart: true },
      ];
    if (person)
      return [
        { name: "Edit…", act: () => arrangement.editPerson(person) },
        { name: "Remove the person", act: () => arrangement.removePerson(person), apart: true },
      ];
    if (sheet.own) return ownItems(sheet.own);
    const place = route.params.place;
    if (typeof place === "string")
      return [{ name: "Name and position…", act: () => router.push(`/places?change=${place}`) }];
    if (typeof route.params.view === "string" && route.params.view !== "bin")
      return [
        {
          name: "Make a view of my own from it…",
          act: () => router.push(`/view/new?from=${String(route.params.view)}`),
        },
      ];
    return [];
  });

  function ownItems(own: OwnView): MenuItem[] {
    return [
      { name: "Edit…", act: () => router.push(`/view/${own.id}/edit`) },
      { name: "Copy it", act: () => views.copy(own) },
      {
        name: own.pinned ? "Unpin" : "Pin to the head of the index",
        act: () => views.edit(own, { pinned: !own.pinned }),
      },
      {
        name: own.counted ? "Hide its count" : "Show its count",
        act: () => views.edit(own, { counted: !own.counted }),
      },
      { name: "Delete the view", act: () => views.remove(own), apart: true },
    ];
  }

  function listItems(list: List, overview: Overview): MenuItem[] {
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
    const sections = list.sections ?? [];
    return [
      { name: "Name and colour…", act: () => arrangement.renameList(list) },
      { name: "New section…", act: () => arrangement.addSection(list) },
      {
        name: list.pinned ? "Unpin" : "Pin to the head of the index",
        act: () => arrangement.editList(list, { pinned: !list.pinned }),
      },
      {
        name: list.checklist ? "Make it a plain list" : "Make it a checklist",
        act: () => arrangement.editList(list, { checklist: !list.checklist }),
      },
      ...overview.shelves
        .filter((s) => s.id !== list.shelf)
        .map((s, i) => ({
          name: `To the shelf ${s.name}`,
          act: () => arrangement.moveList(list, { shelf: s.id }),
          apart: i === 0,
        })),
      { name: "Save as a template…", act: () => arrangement.saveTemplate(list), apart: true },
      { name: "Archive it", act: () => arrangement.editList(list, { archived: true }) },
      ...(sections.length ? [{ name: "Sections…", act: () => chooseSection(list) }] : []),
      bin,
    ];
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

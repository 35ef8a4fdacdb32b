import { computed } from "vue";
import { useRoute, useRouter } from "vue-router";
import type { MenuItem } from "@/kit/menu";
import { useArrangement } from "@/server/arrangement";
import type { List, Overview, OwnView, Person, Shelf, Tag } from "@/server/client";
import { useListMenu } from "@/choosers/list-menu";
import { useShelfMenu } from "@/choosers/shelf-menu";
import { useViews } from "@/server/views";

/** What a sheet is of; none of these for a view that ships. */
interface Sheet {
  overview?: Overview;
  list?: List;
  shelf?: Shelf;
  tag?: Tag;
  person?: Person;
  own?: OwnView;
}

/** The menu's entries for what a sheet is of: a list, a shelf, a tag, a person, a place or a view. */
export function useSheetItems(sheet: Sheet) {
  const route = useRoute();
  const router = useRouter();
  const views = useViews();
  const arrangement = useArrangement();
  const listItems = useListMenu();
  const shelfItems = useShelfMenu();

  return computed<MenuItem[]>(() => {
    const { list, shelf, tag, person, overview } = sheet;
    if (list && overview) return listItems(list, overview);
    if (shelf && overview) return shelfItems(shelf, overview);
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
}

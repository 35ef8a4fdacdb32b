import { computed, type Ref } from "vue";
import type { Overview } from "@/server/client";
import { useArrangement } from "@/server/arrangement";
import { useAsk } from "@/kit/ask";
import { useRoute } from "vue-router";
import { useListDeeds } from "@/choosers/list-deeds";
import { useListMenu } from "@/choosers/list-menu";
import { useShelfMenu } from "@/choosers/shelf-menu";
import { listById } from "@/words/names";
import { walkNames, walks } from "@/words/review";
import { settingGroups } from "@/words/settings";

/** Something that is done by its name: begun on a page, or asked for in a dialog. */
export interface Deed {
  name: string;
  sort: "deed" | "review" | "setting";
  path?: string;
  act?: () => void;
}

/** Deeds that lead to a page. */
const leading: Deed[] = [
  ...walks.map((walk): Deed => ({
    name: walkNames[walk],
    sort: "review",
    path: `/review/${walk}`,
  })),
  { name: "Take everything out", sort: "deed", path: "/settings#everything" },
  { name: "Opens with", sort: "setting", path: "/settings#label-opensWith" },
  { name: "Bring in a file", sort: "deed", path: "/settings#files" },
  ...settingGroups.flatMap((group) =>
    group.settings.map((s): Deed => ({
      name: s.label,
      sort: "setting",
      path: `/settings#label-${s.name}`,
    })),
  ),
];

/** What is done by its name, from anywhere. */
export function useDeeds(overview: Ref<Overview>) {
  const arrangement = useArrangement();
  const { ask } = useAsk();
  const lists = useListDeeds();
  const listMenu = useListMenu();
  const shelfMenu = useShelfMenu();
  const route = useRoute();

  function newShelf() {
    ask({
      title: "New shelf",
      confirm: "Make it",
      fields: [{ key: "name", label: "Name", kind: "text", value: "" }],
      act: async ({ name = "" }) => arrangement.took(await arrangement.addShelf(name)),
    });
  }
  /** The menu of the list or the shelf whose sheet is open. */
  const ofSheet = computed((): Deed[] => {
    const { list: ofList, shelf: ofShelf } = route.params;
    const list = listById(overview.value, String(ofList))?.list;
    const shelf = overview.value.shelves.find((s) => s.id === ofShelf);
    const [of, items] = list
      ? [list.name, listMenu(list, overview.value)]
      : [shelf?.name, shelf ? shelfMenu(shelf, overview.value) : []];
    return items.map(({ name, act }) => ({
      name: `${of}: ${name}`,
      sort: "deed",
      act: () => void act(),
    }));
  });
  return computed((): Deed[] => [
    ...ofSheet.value,
    { name: "New list", sort: "deed", act: () => lists.begin(overview.value.shelves) },
    { name: "New shelf", sort: "deed", act: newShelf },
    ...leading,
  ]);
}

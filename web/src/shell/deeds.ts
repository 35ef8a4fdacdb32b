import { computed, type Ref } from "vue";
import { useRouter } from "vue-router";
import type { Overview } from "@/server/client";
import { useArrangement } from "@/server/arrangement";
import { useAsk } from "@/kit/ask";
import { useCurrent } from "@/state/current";
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
  const current = useCurrent();
  const router = useRouter();

  function newList() {
    const { shelves } = overview.value;
    ask({
      title: "New list",
      confirm: "Make it",
      fields: [
        { key: "name", label: "Name", kind: "text", value: "" },
        {
          key: "shelf",
          label: "On the shelf",
          kind: "choice",
          value: shelves[0]?.id ?? "",
          options: shelves.map((s) => ({ value: s.id, name: s.name })),
        },
      ],
      act: async ({ name = "", shelf }) => {
        const made = await arrangement.addList(name, shelf);
        current.adding = { row: made.id, inside: true }; // the cursor goes into its first row
        await router.push(`/list/${made.id}`);
        arrangement.took(made);
      },
    });
  }
  function newShelf() {
    ask({
      title: "New shelf",
      confirm: "Make it",
      fields: [{ key: "name", label: "Name", kind: "text", value: "" }],
      act: async ({ name = "" }) => arrangement.took(await arrangement.addShelf(name)),
    });
  }
  return computed((): Deed[] => [
    { name: "New list", sort: "deed", act: newList },
    { name: "New shelf", sort: "deed", act: newShelf },
    ...leading,
  ]);
}
